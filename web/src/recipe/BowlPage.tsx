import { keepLimits } from '@wunsch/core/recipe/keep';
import { useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import type { BowlView, PantryView } from '@wunsch/core/api/recipe';
import { changesBetween } from '@wunsch/core/recipe/compare';
import { judgeLabel, originAfter } from '@wunsch/core/recipe/correct';
import { nameOfLimit, valueOf } from '@wunsch/core/recipe/limits';
import { limit, type Limit } from '@wunsch/core/recipe/records';
import { massUnitFor } from '@wunsch/core/units/mass';
import { send, useApi } from '../parts/api';
import { useDraft } from '../parts/draft';
import { Chips } from '../parts/fields';
import { Caution, Figure, Loading, Refusal, Section } from '../parts/pieces';
import { NOBODY, useSave } from '../parts/save';
import { useWorked } from '../parts/worked';
import { useHere, useShow } from '../parts/workshop';
import { Answering } from './Answering';
import { choicesOf, kitchen, rowsOf, usePantry } from './compute';
import { ByTaste } from './ByTaste';
import { TargetRows } from './TargetRows';
import { limitProblems } from './weighed';

/** A bowl that grinds: what it really is, what its label may say, and what to add to put it right. */
export function BowlPage() {
  const { code = '' } = useParams();
  const bowl = useApi(`/api/recipe/bowls/${encodeURIComponent(code)}`);
  const pantry = usePantry();
  if (!bowl.data || !pantry.data) return <Loading error={bowl.error ?? pantry.error} />;
  return <Correcting key={bowl.data.batchId} view={bowl.data} pantry={pantry.data} />;
}

/** Changes that one wants to hear of at the stones. */
const SAID: ReadonlySet<string> = new Set(['cocoa', 'fat', 'sugar', 'milk', 'lecithin', 'flow', 'cost']);

interface Wish {
  limits: Limit[];
  additions: string[];
}

const near = (value: number): number => Math.round(value * 100) / 100;

/** Against what is asked for, keeping the rest as it is counts little. */
const KEEP_WEIGHT = 0.05;

function Correcting({ view, pantry }: { view: BowlView; pantry: PantryView }) {
  const here = useHere();
  const { settings } = here.view;
  const { bowl, figures, labelPct } = view;
  const unit = massUnitFor(Math.max(bowl.grams, bowl.maxG ?? 0) * 1000, settings.massSystem);
  const show = useShow(unit);
  const navigate = useNavigate();
  const lots = new Set(bowl.ingredient.lots.map(({ lotId }) => `lot:${lotId}`));
  const byStock = [...pantry.rows].sort((a, b) => b.stockG - a.stockG);
  const first = (role: string) => byStock.filter((row) => row.stockG > 0 && row.role === role).slice(0, 1);
  const usual = [
    ...byStock.filter((row) => row.stockG > 0 && lots.has(row.id)),
    ...first('butter'),
    ...first('sugar'),
  ].map(({ id }) => id);
  const [start] = useState((): Wish => ({
    limits:
      labelPct !== null && figures.cocoaPct < labelPct - 0.05 ? [limit.parse({ of: 'cocoa', least: labelPct })] : [],
    additions: usual,
  }));
  const draft = useDraft<Wish>(`bowl.${view.batchId}`, () => start);
  const { limits, additions } = draft.value;
  const { busy, error, run, fail } = useSave();
  const rows = rowsOf(pantry, additions);
  const under = bowl.minG !== null && bowl.grams < bowl.minG;
  const over = bowl.maxG !== null && bowl.grams > bowl.maxG;
  const readable = Object.keys(limitProblems(limits)).length === 0;
  const asked = (limits.length > 0 || under) && rows.length > 0 && readable && !over;
  const key = asked ? JSON.stringify([limits, additions, bowl.grams, pantry.rows.map(({ stockG }) => stockG)]) : null;
  const worked = useWorked(
    key,
    () =>
      kitchen().correct(
        bowl,
        choicesOf(rows, true),
        [...limits, ...(limits.length === 0 ? keepLimits(view.figures, [], KEEP_WEIGHT) : [])],
        1,
        settings,
      ),
    'recipe-correct',
  );
  const answer = asked ? worked : null;
  const added = (answer?.lines ?? []).filter(({ id, grams }) => id !== 'bowl' && grams > 0);
  const after = answer?.figures ?? null;
  const label = labelPct === null || !after ? null : judgeLabel(labelPct, after.cocoaPct);
  const nameOf = (id: string): string => pantry.rows.find((row) => row.id === id)?.name ?? id;
  const origin = originAfter(
    bowl.ingredient.lots,
    view.cacaoG,
    added.flatMap(({ id, grams }) => {
      const row = pantry.rows.find((one) => one.id === id);
      if (row?.role !== 'nibs') return [];
      const lotId = id.startsWith('lot:') ? id.slice(4) : 'another lot';
      return [{ lotId, name: row.name, grams }];
    }),
    settings.massSystem,
  );
  const brings = [
    ...new Set(added.flatMap(({ id }) => pantry.rows.find((row) => row.id === id)?.allergens ?? [])),
  ].filter((allergen) => !bowl.ingredient.allergens.includes(allergen));
  const wish = (next: Limit): void =>
    draft.set((now) => ({ ...now, limits: [...now.limits.filter(({ of }) => of !== next.of), next] }));
  const weigh = (): void => {
    if (here.personId === null) return fail(NOBODY);
    void run(async () => {
      const { data } = await send('POST', '/api/recipe/weighings', {
        personId: here.personId,
        name: `Addition to ${view.code}`,
        batchId: view.batchId,
        machineId: here.view.machines.find(({ name }) => name === bowl.machine)?.id ?? null,
        stepG: 1,
        lines: added.map(({ id, grams }) => ({ ingredient: id, grams })),
      });
      draft.clear();
      await navigate(`/weighing/${data.id}`);
    });
  };
  return (
    <>
      <div className="mb-4 flex flex-wrap items-baseline justify-between gap-x-6">
        <h1 className="text-4xl">
          Put <span className="code">{view.code}</span> right
        </h1>
        <Link className="link inline-flex min-h-11 items-center" to={`/station/grind?batch=${view.code}`}>
          Back to the stones
        </Link>
      </div>
      <section
        aria-label="What it is"
        className={`mb-5 rounded-md px-4 py-3 ${view.label?.tone === 'watch' || over || under ? 'bg-ripe-wash' : 'bg-leaf-wash'}`}
      >
        <p className="figure text-[1.5rem] leading-snug">
          {view.label?.sentence ??
            `${view.name} is ${figures.cocoaPct.toFixed(1)}\u00a0% cocoa; no label says a percent yet.`}
        </p>
        {view.label?.todo != null && <p className="mt-1">{view.label.todo}</p>}
        {under && (
          <p className="mt-1 font-semibold">
            It is {show.mass(((bowl.minG ?? 0) - bowl.grams) * 1000)} under what {bowl.machine} needs: stones run on
            each other.
          </p>
        )}
        {over && (
          <p className="mt-1 font-semibold">
            It is {show.mass((bowl.grams - (bowl.maxG ?? 0)) * 1000)} over what {bowl.machine} carries: nothing more
            goes in. Pour a part off, or move it.
          </p>
        )}
      </section>
      <div className="grid gap-x-12 gap-y-8 lg:grid-cols-[minmax(0,1fr)_22rem]">
        <div className="min-w-0">
          <div className="grid grid-cols-2 gap-x-8 gap-y-4 sm:grid-cols-4">
            <Figure
              label="In the bowl"
              value={show.mass(bowl.grams * 1000)}
              note={bowl.machine || 'no machine named'}
            />
            <Figure
              label="Cocoa"
              value={`${figures.cocoaPct.toFixed(1)}\u00a0%`}
              note={`${figures.withoutButterPct.toFixed(1)}\u00a0% without added butter`}
            />
            <Figure
              label="Fat"
              value={`${figures.fatPct.toFixed(1)}\u00a0%`}
              note={figures.flow === null ? 'does not flow' : `${figures.flow.toFixed(1)} × its fat alone`}
            />
            <Figure
              label="Sugar"
              value={`${figures.sugarPct.toFixed(1)}\u00a0%`}
              note={figures.milkPct > 0.05 ? `milk solids ${figures.milkPct.toFixed(1)}\u00a0%` : ' '}
            />
          </div>
          <h2 className="mt-7 mb-2 text-xl">What it should become</h2>
          <div className="mb-3 flex flex-wrap gap-2">
            {labelPct !== null && (
              <button
                type="button"
                className="chip"
                onClick={() => wish(limit.parse({ of: 'cocoa', least: labelPct }))}
              >
                What the label says: {labelPct}&nbsp;%
              </button>
            )}
            <button
              type="button"
              className="chip"
              onClick={() => wish(limit.parse({ of: 'sugar', aim: near(Math.max(0, figures.sugarPct - 2)) }))}
            >
              Less sweet
            </button>
            <button
              type="button"
              className="chip"
              onClick={() => wish(limit.parse({ of: 'sugar', aim: near(figures.sugarPct + 2) }))}
            >
              Sweeter
            </button>
            <button
              type="button"
              className="chip"
              onClick={() => wish(limit.parse({ of: 'flow', most: near((figures.flow ?? 40) * 0.75) }))}
            >
              Thinner
            </button>
            {bowl.minG !== null && under && (
              <button
                type="button"
                className="chip"
                onClick={() => draft.set((now) => ({ ...now, limits: keepLimits(view.figures, [], KEEP_WEIGHT) }))}
              >
                Fill up and keep it what it is
              </button>
            )}
          </div>
          <TargetRows
            limits={limits}
            change={(next) => draft.set((now) => ({ ...now, limits: next }))}
            nameOf={(of) => nameOfLimit(of, nameOf)}
            now={(of) =>
              valueOf(of, after ?? figures, (id) => answer?.lines.find((line) => line.id === id)?.grams ?? 0)
            }
            kept={answer?.kept ?? []}
            ingredients={rows}
            problems={limitProblems(limits)}
          />
          <div className="mt-5">
            <Chips
              legend="What may go in"
              several
              options={pantry.rows
                .filter(({ stockG, id }) => (stockG > 0 && id !== 'nibs') || additions.includes(id))
                .map(({ id, name }) => [id, name] as const)}
              chosen={additions}
              choose={(next) => draft.set((now) => ({ ...now, additions: next }))}
            />
          </div>
          {!over && <ByTaste view={view} pantry={pantry} />}
        </div>
        <aside>
          <Section title="Add">
            {!asked ? (
              <p className="text-soft">
                {over ? 'Nothing more fits.' : 'Say what it should become, and what may go in.'}
              </p>
            ) : answer === null ? (
              <p className="text-soft">Working it out …</p>
            ) : (
              <>
                {added.length === 0 && answer.outcome === 'met' && (
                  <p className="figure text-xl">Nothing: it is that already.</p>
                )}
                <ul className="rows">
                  {added.map(({ id, grams }) => (
                    <li key={id} className="flex items-baseline gap-4 py-2">
                      <span className="figure text-2xl whitespace-nowrap">{show.mass(grams * 1000)}</span>
                      <span>{nameOf(id)}</span>
                    </li>
                  ))}
                </ul>
                {after && added.length > 0 && (
                  <p className="mt-3 text-sm">
                    Then {show.mass(after.grams * 1000)} in the bowl.{' '}
                    {changesBetween(figures, after, settings)
                      .filter(({ of }) => SAID.has(of))
                      .map(({ words }) => words)
                      .join('; ')}
                    .
                  </p>
                )}
                <div className="mt-3">
                  <Answering answer={answer} by="targets" />
                </div>
                {label && added.length > 0 && (
                  <p className="mt-3 text-sm font-semibold">
                    {label.sentence} {label.todo}
                  </p>
                )}
                {origin !== null && (
                  <p className="mt-3 rounded-md bg-ripe-wash px-4 py-2 text-sm font-semibold">{origin}</p>
                )}
                {brings.length > 0 && (
                  <p className="mt-3 rounded-md bg-crimson-wash px-4 py-2 text-sm font-semibold">
                    Brings {brings.join(', ')} into a bowl that had none: the label, the stones and all that goes over
                    them after.
                  </p>
                )}
                {added.length > 0 && (
                  <button type="button" className="button button-main mt-4" disabled={busy} onClick={weigh}>
                    Weigh the addition
                  </button>
                )}
              </>
            )}
            <Refusal error={error} />
          </Section>
          <div className="mt-6">
            <Caution>
              Dry only: nothing with water in it. Melt butter first; sugar and powders go in slowly, and run until no
              grain is felt.
            </Caution>
          </div>
          <p className="mt-4 text-sm text-soft">{view.origin.sentence}</p>
          {figures.unknownPct > 0.1 && (
            <p className="mt-2 text-sm font-semibold">
              Of {figures.unknownPct.toFixed(1)}&nbsp;% of it nobody said what it is made of: these figures leave it
              out.
            </p>
          )}
        </aside>
      </div>
    </>
  );
}
