import { useState } from 'react';
import type { ProductView } from '@wunsch/core/api/products';
import type { WorkView } from '@wunsch/core/api/types';
import { planMoulds, setWarnings } from '@wunsch/core/mould/plan';
import { celsiusFrom } from '@wunsch/core/units/temperature';
import { fillFrom } from '@wunsch/core/products/product';
import type { FilledBy } from '@wunsch/core/work/moulding';
import type { Choosing } from '../entry/step-form';
import { send, useApi } from '../parts/api';
import { SelectBox } from '../parts/choice';
import { Chips, NumberBox, Tick } from '../parts/fields';
import { readMass, readNumber, typedNumber } from '../parts/number';
import { Refusal } from '../parts/pieces';
import { NOBODY, useSave } from '../parts/save';
import { count, span, useHere, useShow } from '../parts/workshop';
import { Fill } from './Fill';
import { HoldLine } from './HoldLine';
import { FILLED, partGrams, partName, VIBRATED } from './parts';
import { Weights } from './Weights';

/** Moulding under way: what the bowl gives, groups of moulds with their clocks, and what single pieces weigh. */
export function LiveMould({
  work,
  entry,
  products,
}: {
  work: WorkView;
  entry: Choosing;
  products: readonly ProductView[];
}) {
  const { personId, view } = useHere();
  const show = useShow();
  const path = `/api/mould/works/${work.id}` as const;
  const answer = useApi(path, 5000);
  const room = useApi('/api/devices/room').data;
  const { busy, error, run, fail } = useSave();
  const [typed, setTyped] = useState<{ barG?: string; setMin?: string; fill?: string }>({});
  if (!answer.data) return null;
  const { live, massG, moulds: there, perKgMilli, piecesAYear } = answer.data;
  const write = (
    way: 'setup' | 'fills' | 'temps' | 'weights' | `fills/${string}/out` | `fills/${string}/shell`,
    body: object,
  ): Promise<boolean> => {
    if (personId === null) {
      fail(NOBODY);
      return Promise.resolve(false);
    }
    return run(async () => {
      await send('POST', `${path}/${way}`, { personId, ...body });
      await answer.mutate();
    });
  };
  const mould = there.moulds.find(({ id }) => id === live.mouldId);
  const barG = live.barG ?? mould?.cavityG ?? 70;
  const product = products.find(({ id }) => id === live.productId);
  const { text: barText = '', unit: barUnit = 'g' } = entry.fields['barG'] ?? {};
  const here = readMass(barText, barUnit);
  // Of a piece, what is chocolate.
  const chocolateG = product ? Math.max(0.1, barG - product.piece.partsG) : barG;
  const plan = planMoulds(massG, 0, chocolateG, {
    cavities: mould?.cavities ?? 1,
    owned: mould?.owned ?? 0,
    cabinetMoulds: there.cabinet?.moulds ?? 0,
    setMin: live.setMin,
  });
  const setup = (
    next: Partial<Pick<typeof live, 'barG' | 'mouldId' | 'setMin' | 'productId' | 'shellSec'>>,
  ): Promise<boolean> => {
    const { mouldId, setMin, shellSec } = live;
    return write('setup', { barG: live.barG, mouldId, setMin, productId: live.productId, shellSec, ...next });
  };
  const become = (id: string): void => {
    const next = products.find((row) => row.id === id);
    const into = there.moulds.find((row) => row.id === next?.facts.mouldId);
    void setup({
      productId: next?.id ?? null,
      shellSec: next?.facts.form === 'filled' ? (next.facts.shellSec ?? USUAL_SHELL_SEC) : null,
      ...(next ? { barG: next.facts.declaredG } : {}),
      ...(into ? { mouldId: into.id } : {}),
    }).then((kept) => {
      if (!kept || !next) return;
      entry.write('barG', typedNumber(next.facts.declaredG));
      if (into) entry.write('cavities', typedNumber(into.cavities * Math.max(1, into.owned)));
    });
  };
  const choose = (id: string): void => {
    const next = there.moulds.find((row) => row.id === id);
    void setup({ mouldId: next?.id ?? null, barG: next?.cavityG ?? live.barG }).then((kept) => {
      if (!kept || !next) return;
      entry.write('barG', typedNumber(next.cavityG));
      entry.write('cavities', typedNumber(next.cavities * Math.max(1, next.owned)));
    });
  };
  const keep = (key: 'barG' | 'setMin'): void => {
    const value = readNumber(typed[key] ?? '');
    if (typed[key] === undefined) return;
    if (value === null) return fail(key === 'barG' ? 'The weight of a bar is not a number.' : 'Minutes: not a number.');
    void setup({ [key]: value }).then((kept) => {
      if (!kept) return;
      setTyped(({ [key]: _, ...rest }) => rest);
      if (key === 'barG') entry.write('barG', typedNumber(value));
    });
  };
  const filled = live.fills.reduce((sum, fill) => sum + fill.moulds, 0);
  const groupOf = Math.min(Math.max(1, plan.moulds - filled), there.cabinet?.moulds ?? mould?.owned ?? 4);
  const next = (typed.fill ?? '').trim() === '' ? groupOf : (readNumber(typed.fill ?? '') ?? 0);
  // A made-up sensor says nothing about a real room.
  const air = room && !room.unplugged && (!room.simulated || view.settings.demo) ? room : null;
  const typedC = (text: string | undefined): number | null => {
    const value = readNumber(text ?? '');
    return value === null ? null : celsiusFrom(value, view.settings.temperatureUnit);
  };
  const warnings = setWarnings(
    {
      mouldC: typedC(entry.fields['mouldC']?.text),
      setC: typedC(entry.fields['setC']?.text),
      air: air ? { tempC: air.tempC, humidityPct: air.humidityPct } : null,
    },
    view.settings.temperatureUnit,
  );
  return (
    <section aria-label="Moulding now" className="mb-4 rounded-md bg-sunk px-4 py-3">
      <p className="figure text-2xl">
        {count(plan.bars)} bars of {show.pieceMass(Math.round(1000 * barG))}
        {mould && `, ${count(plan.moulds)} moulds`}
        <span className="text-lg">
          {mould && plan.fills > 1 && `, in ${plan.fills} fills`}
          {mould && plan.runs > 1 && `, ${plan.runs} cabinet runs`}
        </span>
      </p>
      <p className="text-sm text-soft">
        {show.pieceMass(Math.round(1000 * plan.overG))} over.
        {mould && plan.runs > 0 && ` Setting takes ${span(plan.setMin * 60_000)} at the least.`}
        {mould?.cleanedAt != null && ` Moulds cleaned ${show.day(mould.cleanedAt)}.`}
        {mould?.painted && ' Painted ones first want their colour dry.'}
      </p>
      {live.barG !== null && here !== null && Math.abs(here - live.barG) > 0.005 && (
        <p className="flex flex-wrap items-center gap-2 text-sm text-crimson" role="alert">
          Below, a bar weighs {show.pieceMass(Math.round(1000 * here))}.
          <button type="button" className="chip" onClick={() => entry.write('barG', typedNumber(live.barG ?? here))}>
            Take {show.pieceMass(Math.round(1000 * live.barG))}
          </button>
        </p>
      )}
      {product && product.facts.parts.length > 0 && plan.bars > 0 && (
        <p className="text-sm">
          They take{' '}
          {fillFrom(massG, 0, { declaredG: barG, parts: product.facts.parts })
            .parts.map(
              ({ materialId, grams }) => `${show.mass(Math.round(1000 * grams))} of ${product.names[materialId] ?? ''}`,
            )
            .join(', ')}
          .
        </p>
      )}
      {plan.overG >= 1 && (
        <div className="mt-1 flex flex-wrap items-center gap-2" role="group" aria-label="What is left over goes">
          <span className="text-sm">What is left over goes</span>
          {LEFTOVERS.map(([field, words]) => (
            <button
              key={field}
              type="button"
              className="chip"
              aria-pressed={(entry.fields[field]?.text ?? '') !== ''}
              onClick={() => {
                for (const [other] of LEFTOVERS)
                  if (other !== field && (entry.fields[other]?.text ?? '') !== '') entry.write(other, '');
                entry.write(field, typedNumber(Math.round(plan.overG)));
              }}
            >
              {words}
            </button>
          ))}
        </div>
      )}
      <HoldLine work={work} temps={live.temps} busy={busy} log={(tempC) => write('temps', { tempC })} />
      {products.length > 0 && (
        <SelectBox
          className="mt-2"
          label="They become"
          value={live.productId ?? ''}
          options={[['', 'not said'], ...products.map(({ id, facts }) => [id, facts.name] as const)]}
          onChange={become}
        />
      )}
      {partGrams(product, entry).map(({ materialId, text }) => (
        <NumberBox
          key={materialId}
          className="mt-2 max-w-xs"
          label={`${product?.names[materialId] ?? ''} that went in`}
          unit="g"
          value={text}
          onChange={(grams) => entry.choose(partName(materialId), grams)}
        />
      ))}
      <div className="mt-2 grid grid-cols-2 items-end gap-3 sm:grid-cols-[minmax(0,1fr)_6rem_6rem]">
        <SelectBox
          className="col-span-2 sm:col-span-1"
          label="Into which mould"
          value={live.mouldId ?? ''}
          options={[
            ['', there.moulds.length === 0 ? 'none is described yet' : 'not said'],
            ...there.moulds.map(
              (row) => [row.id, `${row.name}, ${row.cavities} × ${show.piece(row.cavityG)}`] as const,
            ),
          ]}
          onChange={choose}
        />
        <NumberBox
          label="A bar"
          unit="g"
          value={typed.barG ?? typedNumber(barG)}
          onChange={(barText) => setTyped((now) => ({ ...now, barG: barText }))}
          onEnter={() => keep('barG')}
        />
        <NumberBox
          label="Sets for"
          unit="min"
          value={typed.setMin ?? typedNumber(live.setMin)}
          onChange={(setMin) => setTyped((now) => ({ ...now, setMin }))}
          onEnter={() => keep('setMin')}
        />
      </div>
      {(typed.barG !== undefined || typed.setMin !== undefined) && (
        <button
          type="button"
          className="button mt-2"
          disabled={busy}
          onClick={() => (typed.barG !== undefined ? keep('barG') : keep('setMin'))}
        >
          Go by that
        </button>
      )}
      <div className="mt-2 flex flex-wrap items-end gap-x-8 gap-y-2">
        <Chips
          legend="Filled"
          options={FILLED_WAYS}
          chosen={entry.choices[FILLED] ? [entry.choices[FILLED] as FilledBy] : []}
          choose={([way]) => entry.choose(FILLED, way ?? '')}
        />
        <Tick checked={entry.choices[VIBRATED] === 'yes'} onChange={(on) => entry.choose(VIBRATED, on ? 'yes' : 'no')}>
          Scraped, and the air vibrated out
        </Tick>
      </div>
      {warnings.map(({ id, sentence, todo }) => (
        <p key={id} className="mt-2 border-l-4 border-crimson pl-3" role="status">
          <strong>{sentence}</strong> {todo}
        </p>
      ))}
      <div className="mt-3 flex flex-wrap items-end gap-3">
        <NumberBox
          className="w-24"
          label="Moulds"
          value={typed.fill ?? String(groupOf)}
          onChange={(fill) => setTyped((now) => ({ ...now, fill }))}
        />
        <button
          type="button"
          className="button button-main"
          disabled={busy || !(next >= 1)}
          onClick={() => void write('fills', { moulds: next }).then(() => setTyped(({ fill: _, ...rest }) => rest))}
        >
          {live.shellSec === null
            ? next === 1
              ? 'One mould filled'
              : `${count(next)} moulds filled`
            : next === 1
              ? 'One shell mould poured'
              : `${count(next)} shell moulds poured`}
        </button>
        <span className="text-sm text-soft">
          {filled} filled{mould && `, ${Math.max(0, plan.moulds - filled)} to go`}
        </span>
      </div>
      {live.fills.length > 0 && (
        <ul className="mt-2" aria-label="Groups of moulds">
          {[
            ...live.fills.filter(({ outAt }) => outAt === null),
            ...live.fills.filter(({ outAt }) => outAt !== null),
          ].map((fill) => (
            <Fill
              key={fill.id}
              fill={fill}
              setMin={live.setMin}
              shellSec={live.shellSec}
              busy={busy}
              turnOut={(out) => void write(`fills/${fill.id}/out`, { out })}
              shell={(act) => void write(`fills/${fill.id}/shell`, { act })}
            />
          ))}
        </ul>
      )}
      <Weights
        of={work.id}
        weightsG={live.weightsG}
        declaredG={barG}
        perKgMilli={perKgMilli}
        piecesAYear={piecesAYear}
        busy={busy}
        add={(grams) => write('weights', { massG: grams })}
        back={() =>
          void run(async () => {
            await send('DELETE', `${path}/weights/last`);
            await answer.mutate();
          })
        }
      />
      <Refusal error={error} />
    </section>
  );
}

const FILLED_WAYS = [
  ['hand', 'by hand'],
  ['depositor', 'by a depositor'],
] as const;
/** Seconds that a shell stands where its product does not say. */
const USUAL_SHELL_SEC = 60;
/** Where what is left over goes, by the field that says so. */
const LEFTOVERS = [
  ['remeltG', 'into the next bowl'],
  ['blockG', 'into blocks'],
  ['sampleG', 'to be tasted'],
] as const;
