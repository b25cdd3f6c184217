import { ScalesIcon } from '@phosphor-icons/react';
import { useState } from 'react';
import type { WeighingView } from '@wunsch/core/api/recipe';
import type { MassUnit } from '@wunsch/core/units/mass';
import { ask, refresh, send } from '../parts/api';
import { useDraft } from '../parts/draft';
import { Box } from '../parts/fields';
import { Refusal } from '../parts/pieces';
import { PutOn } from '../parts/PutOn';
import { NOBODY, useSave } from '../parts/save';
import { useScale } from '../parts/scale';
import { useHere, useShow } from '../parts/workshop';
import { Quantity } from './Quantity';

type Line = WeighingView['lines'][number];

/** One ingredient: its tub is checked, the scale is read against what is wanted, a press takes it. */
export function OnTheScale({ line, run, unit }: { line: Line; run: WeighingView; unit: MassUnit }) {
  const { personId } = useHere();
  const show = useShow(unit);
  const reading = useScale(true);
  const [tub, setTub] = useState<string | null>(null);
  const [code, setCode] = useState('');
  // What stands on the scale stays there from one ingredient to the next, and when the page is loaded again.
  const tare = useDraft(`weighing.${run.id}.tare`, () => 0);
  const tareG = tare.value;
  const setTareG = (grams: number): void => tare.set(() => grams);
  const hand = useDraft<number | null>(`weighing.${run.id}.${line.ingredient}`, () => null);
  const handG = hand.value;
  const { busy, error, run: save, fail } = useSave();
  const stock = line.stock.find((row) => row.code === tub) ?? null;
  const leftG = line.plannedG - line.weighedG;
  // What this tub still has to give: all of what is missing, or all that it has.
  const wantedG = Math.min(leftG, stock?.freeG ?? leftG);
  const netG = reading === null || reading.unplugged ? null : reading.massG - tareG;
  const scaleUnit = Math.max(0, Math.min(1.25, wantedG > 0 && netG !== null ? netG / wantedG : 0));
  const band = wantedG > 0 ? Math.min(1, line.toleranceG / wantedG) : 1;
  const inside = netG !== null && Math.abs(netG - wantedG) <= line.toleranceG;
  const tooMuch = netG !== null && netG > wantedG + line.toleranceG;
  const check = (typed: string): void => {
    if (typed.trim() === '') return;
    void save(async () => {
      const found = await ask(`/api/recipe/weighings/${run.id}/check`, {
        ingredient: line.ingredient,
        code: typed.trim(),
      });
      setTub(found.code);
      setCode('');
    });
  };
  const take = (massG: number, by: 'scale' | 'hand'): void => {
    if (personId === null) return fail(NOBODY);
    if (tub === null) return fail('First the tub: scan or type its code, or press it.');
    void save(async () => {
      await send('POST', `/api/recipe/weighings/${run.id}/weighed`, {
        personId,
        ingredient: line.ingredient,
        code: tub,
        massG: Number(massG.toFixed(3)),
        by,
      });
      setTareG(reading?.massG ?? 0);
      hand.clear();
      setTub(null);
      await refresh();
    });
  };
  return (
    <section aria-label={`Weigh ${line.name}`}>
      <h2 className="text-2xl">{line.name}</h2>
      {line.allergens.length > 0 && <p className="font-semibold text-crimson">Allergen: {line.allergens.join(', ')}</p>}
      <div className="mt-3">
        <p className="label mb-1">
          {tub === null ? 'From which tub? Scan its code, type it, or press it' : 'From this tub'}
        </p>
        <div className="flex flex-wrap items-center gap-2">
          {line.stock.slice(0, 6).map((row, index) => (
            <button
              key={row.holdingId}
              type="button"
              className="chip"
              aria-pressed={row.code === tub}
              onClick={() => setTub(row.code)}
            >
              <span className="code">{row.code}</span> {show.mass(row.freeG * 1000)}
              {index === 0 && line.stock.length > 1 && ' · use first'}
              {row.bestBefore !== null && ` · to ${row.bestBefore}`}
            </button>
          ))}
          <Box
            className="w-40"
            label={<span className="sr-only">Code of the tub</span>}
            value={code}
            placeholder="scan or type"
            onChange={setCode}
            onEnter={() => check(code)}
          />
          {code !== '' && (
            <button type="button" className="button" disabled={busy} onClick={() => check(code)}>
              Check
            </button>
          )}
        </div>
        {line.stock.length === 0 && <p className="mt-2 font-semibold text-crimson">None of it is free in the house.</p>}
      </div>
      <div className="mt-5 flex flex-wrap items-end justify-between gap-x-8 gap-y-2">
        <div>
          <p className="label">On the scale</p>
          <p
            className={`figure text-6xl tabular-nums ${tooMuch ? 'text-crimson' : inside ? 'text-leaf' : ''}`}
            aria-live="off"
          >
            {netG === null ? '–' : show.mass(Math.round(netG * 1000))}
          </p>
        </div>
        <div className="text-right">
          <p className="label">{tooMuch ? 'Too much by' : 'Still to add'}</p>
          <p className="figure text-4xl">
            {netG === null ? show.mass(wantedG * 1000) : show.mass(Math.abs(wantedG - netG) * 1000)}
          </p>
        </div>
      </div>
      <div aria-hidden className="relative mt-3 h-8 rounded-md bg-sunk">
        <span
          className="absolute inset-y-0 bg-leaf-wash"
          style={{
            left: `${80 * (1 - band)}%`,
            width: `${Math.min(160 * band, 20 + 80 * band)}%`,
          }}
        />
        <span
          className={`absolute inset-y-1.5 left-0 rounded ${tooMuch ? 'bg-crimson' : 'bg-ripe'}`}
          style={{ width: `${(100 * scaleUnit) / 1.25}%` }}
        />
        <span className="absolute inset-y-0 w-0.5 bg-ink" style={{ left: '80%' }} />
      </div>
      <p className="mt-1 text-sm text-soft">
        {show.mass(wantedG * 1000)} wanted{stock !== null && stock.freeG < leftG && ', all that this tub has'}; right
        within {show.mass(line.toleranceG * 1000)}.{reading?.simulated && ' The scale is simulated.'}
      </p>
      <div className="mt-4 flex flex-wrap items-end gap-3">
        <button
          type="button"
          className="button"
          disabled={reading === null}
          onClick={() => setTareG(reading?.massG ?? 0)}
        >
          Tare
        </button>
        <button
          type="button"
          className="button button-main"
          disabled={busy || netG === null || netG <= 0 || reading?.stable !== true}
          onClick={() => netG !== null && take(netG, 'scale')}
        >
          <ScalesIcon size={20} aria-hidden />{' '}
          {reading?.stable === false
            ? 'Still moving …'
            : netG === null || netG <= 0
              ? 'Take it'
              : `Take ${show.mass(netG * 1000)}`}
        </button>
        <Quantity
          className="w-36"
          label="Or by hand"
          mass={unit}
          value={handG}
          onValue={(grams) => hand.set(() => grams)}
        />
        {handG !== null && handG > 0 && (
          <button type="button" className="button" disabled={busy} onClick={() => take(handG, 'hand')}>
            Take {show.mass(handG * 1000)}
          </button>
        )}
      </div>
      {reading?.simulated !== false && <PutOn />}
      <Refusal error={error} />
    </section>
  );
}
