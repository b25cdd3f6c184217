import { useState } from 'react';
import type { PantryRow } from '@wunsch/core/api/recipe';
import { ownFacts, withFacts, type NewFacts } from '@wunsch/core/composition/ingredient-facts';
import { contents as contentsSchema, otherDryPct, type Contents, type DatedFacts } from '@wunsch/core/ledger/contents';
import type { Material } from '@wunsch/core/ledger/types';
import { dayText } from '@wunsch/core/units/zone';
import { ApiError, send } from '../parts/api';
import { newKey, useDraft } from '../parts/draft';
import { Choice, SelectBox } from '../parts/choice';
import { DayBox } from '../parts/dates';
import { Box, Tick } from '../parts/fields';
import { Refusal, Section } from '../parts/pieces';
import { useSave } from '../parts/save';
import { useHere } from '../parts/workshop';
import { Quantity } from './Quantity';

const PARTS: readonly (readonly [keyof Omit<Contents, 'densityGPerMl'>, string])[] = [
  ['fatPct', 'Fat'],
  ['cocoaButterPct', 'of it cocoa butter'],
  ['milkFatPct', 'of it milk fat'],
  ['dryCocoaPct', 'Fat-free cocoa'],
  ['sugarPct', 'Sugar'],
  ['polyolsPct', 'Sweetener without sugar'],
  ['dryMilkPct', 'Fat-free milk solids'],
  ['waterPct', 'Water'],
  ['saltPct', 'Salt'],
  ['lecithinPct', 'Lecithin, in the fat'],
  ['sugarsPct', 'All sugars, for the label'],
  ['proteinPct', 'Protein'],
  ['fibrePct', 'Fibre'],
];

const ROLES: readonly (readonly [string, string])[] = [
  ['none', 'no cocoa'],
  ['butter', 'cocoa butter'],
  ['liquor', 'cocoa liquor'],
  ['powder', 'cocoa powder'],
  ['couverture', 'bought chocolate'],
];

/** What was typed of an ingredient and not yet saved. */
interface Typed {
  name: string;
  cocoa: string;
  sugar: boolean;
  allergens: string;
  origin: string;
  price: number | null;
  keeps: number | null;
  label: { cocoaPct: number | null; addedButterPct: number | null; sugarPct: number | null };
  retired: boolean;
  own: boolean;
  from: string;
  source: string;
  made: Contents;
  parts: { materialId: string; pct: number }[];
}

/** What was said of an ingredient from a day on, in short. */
const factWords = ({ contents, source, allergens, pricePerKg }: DatedFacts, currency: string): string =>
  [
    contents == null
      ? ''
      : `fat ${contents.fatPct} %, sugar ${contents.sugarPct} %${source === '' ? '' : `, ${source}`}`,
    allergens == null ? '' : allergens.length === 0 ? 'no allergens' : `allergens ${allergens.join(', ')}`,
    pricePerKg == null ? '' : `${pricePerKg} ${currency} a kilogram`,
  ]
    .filter((words) => words !== '')
    .join('; ');

/** An ingredient: what it counts as, what it is made of and since when, what it costs. */
export function IngredientForm({
  material,
  row,
  close,
}: {
  material: Material;
  row: PantryRow | null;
  close: () => void;
}) {
  const { view } = useHere();
  const [today] = useState(() => dayText(Date.now(), view.settings.timeZone));
  const now = ownFacts(material, today);
  const draft = useDraft<Typed>(`ingredient.${material.id || 'new'}`, () => ({
    name: material.name,
    cocoa: material.cocoa,
    sugar: material.sugar,
    allergens: now.allergens.join(', '),
    origin: material.origin ?? '',
    price: now.pricePerKg,
    keeps: material.keepsMonths ?? null,
    label: {
      cocoaPct: material.cocoaPct ?? null,
      addedButterPct: material.addedButterPct ?? null,
      sugarPct: material.sugarPct ?? null,
    },
    retired: material.retired ?? false,
    own: now.contents !== null,
    from: '',
    source: now.contents?.source ?? '',
    made: now.contents?.contents ?? row?.contents ?? contentsSchema.parse({}),
    parts: material.madeOf ?? [],
  }));
  const { name, cocoa, sugar, allergens, origin, price, keeps, label, retired, own, from, source, made, parts } =
    draft.value;
  const put = (part: Partial<Typed>): void => draft.set((now) => ({ ...now, ...part }));
  const { busy, error, run, fail } = useSave();
  const read = contentsSchema.safeParse(made);
  // Of several words about one figure the first is the nearest to it.
  const problems = Object.fromEntries(
    [...(read.error?.issues ?? [])].reverse().map(({ path, message }) => [String(path[0]), message]),
  );
  const server =
    error instanceof ApiError
      ? Object.fromEntries(error.problem.errors.map(({ path, message }) => [path, message]))
      : {};
  const allergenWords = allergens
    .split(/[,;]+/)
    .map((word) => word.trim())
    .filter((word) => word !== '');
  /** What is said anew; what stands as it stood is not said again. */
  const said = (): NewFacts => ({
    ...(own && JSON.stringify({ contents: made, source }) !== JSON.stringify(now.contents)
      ? { contents: { contents: made, source } }
      : {}),
    ...(!own && now.contents !== null ? { contents: null } : {}),
    ...(allergenWords.join() !== now.allergens.join() ? { allergens: allergenWords } : {}),
    ...(price !== now.pricePerKg ? { pricePerKg: price } : {}),
  });
  const sumParts = parts.reduce((sum, part) => sum + part.pct, 0);
  const leave = (): void => {
    draft.clear();
    close();
  };
  const save = (): void => {
    if (own && !read.success) return fail('What it is made of cannot be: look for the words in red.');
    if (parts.length > 0 && Math.abs(sumParts - 100) > 0.1)
      return fail(`What it is made of adds up to ${sumParts.toFixed(1)} %, not to 100 %.`);
    if (from !== '' && price === null && now.pricePerKg !== null)
      return fail(
        'A price can be taken away only as if there had never been one: leave the day empty, or enter the new price.',
      );
    const { allergens, pricePerKg, contents } = withFacts(material, said(), from === '' ? null : from);
    const body = {
      name,
      kind: 'ingredient',
      cocoa,
      sugar: cocoa === 'none' && sugar,
      allergens,
      ...label,
      keepsMonths: keeps,
      pricePerKg,
      origin,
      retired,
      contents,
      madeOf: parts,
    };
    void run(() =>
      material.id === ''
        ? send('POST', '/api/workshop/materials', body, newKey())
        : send('PUT', `/api/workshop/materials/${material.id}`, body),
    ).then((done) => done && leave());
  };
  return (
    <div className="max-w-4xl" role="group" aria-label={material.name || 'A new ingredient'}>
      <h2 className="mb-4 text-2xl">{material.name || 'A new ingredient'}</h2>
      <div className="grid gap-x-6 gap-y-4 sm:grid-cols-3">
        <Box label="Name" value={name} problem={server['name']} onChange={(name) => put({ name })} />
        <SelectBox label="Counts as" value={cocoa} options={ROLES} onChange={(cocoa) => put({ cocoa })} />
        <Box
          label="Allergens, apart by commas"
          value={allergens}
          onChange={(allergens) => put({ allergens })}
          placeholder="milk, hazelnut"
        />
        <Quantity
          label="Price of a kilogram"
          unit={view.settings.currency}
          value={price}
          problem={server['pricePerKg']}
          placeholder="from what was bought"
          onValue={(price) => put({ price })}
        />
        <Box label="Origin" value={origin} onChange={(origin) => put({ origin })} />
        <Quantity
          label="Goods with it keep, months"
          value={keeps}
          placeholder="as usual"
          onValue={(keeps) => put({ keeps })}
        />
        {cocoa === 'couverture' && (
          <>
            <Quantity
              label="Cocoa on its label"
              unit="%"
              value={label.cocoaPct}
              onValue={(cocoaPct) => put({ label: { ...label, cocoaPct } })}
            />
            <Quantity
              label="Of it, added butter"
              unit="%"
              value={label.addedButterPct}
              placeholder="not known"
              onValue={(addedButterPct) => put({ label: { ...label, addedButterPct } })}
            />
            <Quantity
              label="Sugar"
              unit="%"
              value={label.sugarPct}
              onValue={(sugarPct) => put({ label: { ...label, sugarPct } })}
            />
          </>
        )}
      </div>
      <div className="mt-3 flex flex-wrap gap-x-8">
        {cocoa === 'none' && (
          <Tick checked={sugar} onChange={(sugar) => put({ sugar })}>
            It is a sugar
          </Tick>
        )}
        <Tick checked={retired} onChange={(retired) => put({ retired })}>
          No longer bought
        </Tick>
      </div>
      <Section title="What 100 g of it are made of" aside={own ? 'your own figures' : row?.source || 'not known'}>
        <Tick checked={own} onChange={(own) => put({ own })}>
          I have its own figures, from its label or an analysis
        </Tick>
        {own && (
          <>
            <div className="mt-3 grid grid-cols-2 gap-x-6 gap-y-3 sm:grid-cols-4">
              {PARTS.map(([key, text]) => (
                <Quantity
                  key={key}
                  label={text}
                  unit="g"
                  value={made[key]}
                  problem={problems[key] ?? server[`contents.0.contents.${key}`]}
                  onValue={(value) => put({ made: { ...made, [key]: value ?? 0 } })}
                />
              ))}
              <Quantity
                label="Density, if measured"
                unit="g/ml"
                value={made.densityGPerMl}
                onValue={(densityGPerMl) => put({ made: { ...made, densityGPerMl } })}
              />
            </div>
            <p className="mt-2 text-sm text-soft">The rest, {otherDryPct(made).toFixed(1)} g, is other dry matter.</p>
            <Box
              className="mt-3"
              label="Where the figures are from"
              value={source}
              onChange={(source) => put({ source })}
              placeholder="label of the bag, laboratory"
            />
          </>
        )}
      </Section>
      <Section title="Made of other ingredients" aside="a praline paste, a spice mix">
        <ul>
          {parts.map((part, index) => (
            <li key={part.materialId} className="flex flex-wrap items-center gap-3 py-1">
              <span className="min-w-40 flex-1">{view.materials.find(({ id }) => id === part.materialId)?.name}</span>
              <Quantity
                quiet
                className="w-28"
                label="Share"
                unit="%"
                value={part.pct}
                onValue={(pct) =>
                  put({ parts: parts.map((one, i) => (i === index ? { ...one, pct: pct ?? 0 } : one)) })
                }
              />
              <button
                type="button"
                className="button button-quiet"
                onClick={() => put({ parts: parts.filter((_, i) => i !== index) })}
              >
                Take out
              </button>
            </li>
          ))}
        </ul>
        <Choice
          className="mt-2 w-auto! text-sm!"
          label="Another part"
          placeholder="another part …"
          value=""
          options={view.materials
            .filter(
              ({ id, kind }) =>
                kind === 'ingredient' && id !== material.id && !parts.some(({ materialId }) => materialId === id),
            )
            .map(({ id, name: text }) => [id, text] as const)}
          onChange={(materialId) =>
            put({ parts: [...parts, { materialId, pct: Math.max(0.1, Number((100 - sumParts).toFixed(1))) }] })
          }
        />
      </Section>
      {material.id !== '' && (
        <Section title="Since when" aside="allergens, price and figures">
          <DayBox
            className="max-w-xs"
            label="What is changed holds from (empty: it was always so)"
            value={from}
            problem={server['contents']}
            onChange={(from) => put({ from })}
          />
          <p className="mt-2 text-sm text-soft">What was bought before that day stays what it was.</p>
          <ul className="mt-1 text-sm">
            {material.contents?.map((one) => (
              <li key={one.from}>
                {one.from === null ? 'Always' : `From ${one.from}`}: {factWords(one, view.settings.currency)}
              </li>
            ))}
          </ul>
        </Section>
      )}
      <Refusal error={error} />
      <div className="mt-5 flex gap-3">
        <button type="button" className="button button-main" disabled={busy} onClick={save}>
          Save
        </button>
        <button type="button" className="button" onClick={leave}>
          Leave it
        </button>
      </div>
    </div>
  );
}
