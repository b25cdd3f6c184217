import { PlusIcon, XIcon } from '@phosphor-icons/react';
import { Slider } from 'radix-ui';
import type { Kept } from '@wunsch/core/recipe/solve';
import { valueText } from '@wunsch/core/recipe/limits';
import type { Limit } from '@wunsch/core/recipe/records';
import { FIGURE_IDS, FIGURES, type FigureId } from '@wunsch/core/recipe/words';
import { HEAVY_WORDS, perKg, priceOf } from '@wunsch/core/units/price';
import { useHere, useShow } from '../parts/workshop';
import { blankLimit } from './draft';
import { Quantity } from './Quantity';
import { Choice } from '../parts/choice';

type Way = 'aim' | 'least' | 'most' | 'between';
const WAYS: Record<Way, string> = { aim: 'about', least: 'at least', most: 'at most', between: 'between' };

const wayOf = ({ aim, least, most }: Limit): Way =>
  aim !== null ? 'aim' : least !== null && most !== null ? 'between' : most !== null ? 'most' : 'least';

/** Ends and step of a slider: where makers usually are. */
const RANGE: Partial<Record<FigureId, readonly [number, number, number]>> = {
  cocoa: [20, 100, 0.5],
  withoutButter: [10, 100, 0.5],
  fat: [20, 60, 0.5],
  cocoaButter: [15, 60, 0.5],
  sugar: [0, 65, 0.5],
  sweet: [0, 65, 0.5],
  milk: [0, 45, 0.5],
  milkFat: [0, 15, 0.1],
  lecithin: [0, 1, 0.05],
  water: [0, 4, 0.1],
  flow: [1, 60, 0.5],
  cost: [0, 60, 0.5],
};

const valuesOf = (limit: Limit): number[] => {
  switch (wayOf(limit)) {
    case 'aim':
      return [limit.aim ?? 0];
    case 'least':
      return [limit.least ?? 0];
    case 'most':
      return [limit.most ?? 0];
    default:
      return [limit.least ?? 0, limit.most ?? 0];
  }
};

const withValues = (limit: Limit, way: Way, values: readonly number[]): Limit => {
  const [low = 0, high = low] = values;
  return {
    ...limit,
    aim: way === 'aim' ? low : null,
    least: way === 'least' || way === 'between' ? low : null,
    most: way === 'most' ? low : way === 'between' ? high : null,
  };
};

/** What is wanted of the chocolate: one line a figure, dragged or typed, and what it is now. */
export function TargetRows({
  limits,
  change,
  nameOf,
  now,
  kept,
  ingredients,
  problems,
}: {
  limits: readonly Limit[];
  change: (limits: Limit[]) => void;
  nameOf: (of: string) => string;
  /** What the figure is now, as it would be weighed. */
  now: (of: string) => number | null;
  kept: readonly Kept[];
  ingredients: readonly { id: string; name: string }[];
  problems: Record<string, string>;
}) {
  const { settings } = useHere().view;
  const show = useShow();
  const set = (index: number, limit: Limit): void => change(limits.map((row, i) => (i === index ? limit : row)));
  const free = FIGURE_IDS.filter((of) => !limits.some((row) => row.of === of));
  return (
    <div>
      <ul className="grid gap-1">
        {limits.map((limit, index) => {
          const way = wayOf(limit);
          const ofWeight = limit.of === 'cost' ? show.heavy : null;
          const values = valuesOf(limit).map((value) =>
            ofWeight === null ? value : Number(priceOf(value, ofWeight).toFixed(4)),
          );
          const put = (next: Way, said: readonly number[]): void =>
            set(index, withValues(limit, next, ofWeight === null ? said : said.map((value) => perKg(value, ofWeight))));
          const [low, high, step] = RANGE[limit.of as FigureId] ?? [
            0,
            limit.of.startsWith('grams:') ? 20_000 : 100,
            0.5,
          ];
          const unit = limit.of.startsWith('grams:')
            ? 'g'
            : limit.of === 'flow'
              ? '×'
              : ofWeight === null
                ? '%'
                : settings.currency;
          const value = now(limit.of);
          const missed = kept.some((row) => row.of === limit.of && !row.kept);
          const name = ofWeight === null ? nameOf(limit.of) : `${nameOf(limit.of)} of a ${HEAVY_WORDS[ofWeight]}`;
          return (
            <li key={limit.of} className="border-t border-rule pt-2">
              <div className="flex flex-wrap items-center gap-x-2 gap-y-1">
                <span className="min-w-24 flex-1">
                  <span className="block truncate font-semibold">{name}</span>
                  <span className={`block text-sm ${missed ? 'font-semibold text-crimson' : 'text-soft'}`}>
                    {value === null ? 'not worked out yet' : `now ${valueText(limit.of, value, settings)}`}
                    {missed && ', not met'}
                  </span>
                </span>
                <Choice
                  className="w-24! px-2! text-sm! sm:w-28!"
                  label={`${name}: how`}
                  value={way}
                  options={Object.entries(WAYS) as [Way, string][]}
                  onChange={(next) => {
                    const [first = 0] = values;
                    const ends = next === 'between' ? [first, Math.min(first + 2, high)] : values;
                    put(next, ends);
                  }}
                />
                {values.map((one, thumb) => (
                  <Quantity
                    key={thumb}
                    quiet
                    className="w-20 sm:w-24"
                    label={way === 'between' ? `${name}, ${thumb === 0 ? 'least' : 'most'}` : name}
                    value={one}
                    unit={unit}
                    problem={problems[`limits.${index}`]}
                    onValue={(next) => {
                      if (next === null) return;
                      const typed = values.map((old, i) => (i === thumb ? next : old));
                      put(way, typed);
                    }}
                  />
                ))}
              </div>
              <div className="flex items-center gap-1">
                <Slider.Root
                  className="relative mx-1 flex h-11 flex-1 touch-none items-center select-none"
                  min={low}
                  max={Math.max(high, ...values)}
                  step={step}
                  value={values}
                  onValueChange={(next) => put(way, next)}
                >
                  <Slider.Track className="relative h-1.5 grow rounded-full bg-rule">
                    <Slider.Range
                      className={`absolute h-full rounded-full ${way === 'least' ? 'bg-transparent' : 'bg-leaf'}`}
                    />
                  </Slider.Track>
                  {values.map((_, thumb) => (
                    <Slider.Thumb
                      key={thumb}
                      aria-label={`${name}, ${way === 'between' ? (thumb === 0 ? 'least' : 'most') : WAYS[way]}, slider`}
                      className="block size-7 rounded-full border-2 border-ink bg-sheet shadow-sm focus-visible:outline-3 focus-visible:outline-offset-2 focus-visible:outline-ink"
                    />
                  ))}
                </Slider.Root>
                <button
                  type="button"
                  className="button button-quiet px-2!"
                  aria-label={`Do not ask for ${name}`}
                  onClick={() => change(limits.filter((_, i) => i !== index))}
                >
                  <XIcon size={18} aria-hidden />
                </button>
              </div>
            </li>
          );
        })}
      </ul>
      <div className="mt-3 flex flex-wrap items-center gap-2 text-sm">
        <PlusIcon size={18} aria-hidden />
        <Choice
          className="w-auto! text-sm!"
          label="Ask for"
          placeholder="ask for another figure …"
          value=""
          options={[
            ...free.map((of) => [of as string, FIGURES[of].name] as const),
            ...ingredients.flatMap(({ id, name }) =>
              (['share', 'grams'] as const)
                .filter((kind) => !limits.some(({ of }) => of === `${kind}:${id}`))
                .map((kind) => [`${kind}:${id}`, kind === 'share' ? `Share of ${name}` : `Grams of ${name}`] as const),
            ),
          ]}
          onChange={(of) => {
            const at = now(of);
            const start =
              at === null || !Number.isFinite(at) ? (RANGE[of as FigureId]?.[0] ?? 0) : Math.round(at * 10) / 10;
            change([
              ...limits,
              withValues(blankLimit(of), of === 'cost' || of === 'flow' || of === 'lecithin' ? 'most' : 'least', [
                start,
              ]),
            ]);
          }}
        />
      </div>
    </div>
  );
}
