import { useState } from 'react';
import { Link } from 'react-router';
import type { StockTakeRow } from '@wunsch/core/api/losses';
import { differenceWords } from '@wunsch/core/ledger/stock-take';
import { HOLDING_KINDS, LOSS_CAUSES, LOSS_NAMES, type HoldingKind, type LossCause } from '@wunsch/core/ledger/types';
import { gramsFrom, type MassUnit } from '@wunsch/core/units/mass';
import { send, useApi } from '../parts/api';
import { useDraft } from '../parts/draft';
import { Box } from '../parts/fields';
import { readNumber } from '../parts/number';
import { Code, Empty, Loading, Refusal, Section } from '../parts/pieces';
import { NOBODY, useSave } from '../parts/save';
import { count, useHere, useShow } from '../parts/workshop';
import { Choice } from '../parts/choice';

interface Counted {
  text: string;
  cause: LossCause;
}
interface Draft {
  counts: Record<string, Counted>;
  note: string;
}

const TITLES: Record<HoldingKind, string> = {
  lot: 'Lots',
  beans: 'Sorted beans',
  roasted: 'Roasted beans',
  nibs: 'Nibs',
  husk: 'Husk',
  mass: 'Mass',
  block: 'Untempered blocks',
  tempered: 'In temper',
  remelt: 'To remelt',
  bars: 'Bars to pack',
  seconds: 'Seconds',
  packed: 'Packed bars',
  ingredient: 'Ingredients',
  packaging: 'Packaging',
};

/** Count what is really there: what differs becomes a correction with its cause. */
export function StockTakePage() {
  const answer = useApi('/api/losses/stock-take');
  if (!answer.data) return <Loading error={answer.error} />;
  return <StockTake rows={answer.data.rows} />;
}

function StockTake({ rows }: { rows: readonly StockTakeRow[] }) {
  const show = useShow();
  const { view, personId } = useHere();
  const { busy, error, run, fail } = useSave();
  const draft = useDraft<Draft>('stock-take', () => ({ counts: {}, note: '' }));
  const [done, setDone] = useState<number | null>(null);
  const unitOf = ({ holding }: StockTakeRow): MassUnit =>
    holding.massMg >= HEAVY_MG ? show.heavy : view.settings.massSystem === 'metric' ? 'g' : 'oz';
  const { counts, note } = draft.value;
  const set = (id: string, part: Partial<Counted>): void =>
    draft.set((before) => ({
      ...before,
      counts: { ...before.counts, [id]: { text: '', cause: 'unaccounted', ...before.counts[id], ...part } },
    }));
  const countOf = (row: StockTakeRow): number | null => {
    const { holding } = row;
    const value = readNumber(counts[holding.id]?.text ?? '');
    return value === null ? null : isCounted(holding) ? value : gramsFrom(value, unitOf(row));
  };
  const entered = rows.filter((row) => countOf(row) !== null);
  const save = async (): Promise<void> => {
    setDone(null);
    if (personId === null) return fail(NOBODY);
    const wrong = rows.find(
      ({ holding }) =>
        (counts[holding.id]?.text.trim() ?? '') !== '' && readNumber(counts[holding.id]?.text ?? '') === null,
    );
    if (wrong) return fail(`${wrong.holding.code}: “${counts[wrong.holding.id]?.text ?? ''}” is not a number.`);
    if (entered.length === 0) return fail('Count something first.');
    const saved = await run(() =>
      send(
        'POST',
        '/api/losses/stock-takes',
        {
          personId,
          note,
          counts: entered.map((row) => ({
            holdingId: row.holding.id,
            cause: counts[row.holding.id]?.cause ?? 'unaccounted',
            ...(isCounted(row.holding) ? { countedPieces: countOf(row) } : { countedG: countOf(row) }),
          })),
        },
        draft.key,
      ),
    );
    if (!saved) return;
    setDone(entered.length);
    draft.clear();
  };
  if (rows.length === 0)
    return (
      <Empty title="There is nothing to count.">
        Lots, tubs, blocks, bars and the pantry show here with what the book says.
      </Empty>
    );
  return (
    <>
      <h1 className="text-4xl">Stock-take</h1>
      <p className="mt-1 max-w-3xl text-soft">
        Weigh or count what is really there. What differs is booked as a correction with its cause, never by changing
        what was entered; counts that agree are kept too, and teach what is usual. Leave out what you do not count.
      </p>
      {done !== null && (
        <p role="status" className="mt-4 rounded-md bg-leaf-wash px-4 py-3">
          {done === 1 ? 'One count is' : `${done} counts are`} in the book.
        </p>
      )}
      {HOLDING_KINDS.map((kind) => {
        const own = rows.filter(({ holding }) => holding.kind === kind);
        if (own.length === 0) return null;
        return (
          <Section key={kind} title={TITLES[kind]} aside={usualWords(own[0])}>
            <ul className="rows">
              {own.map((row) => (
                <CountRow
                  key={row.holding.id}
                  row={row}
                  counted={counts[row.holding.id]}
                  value={countOf(row)}
                  unit={unitOf(row)}
                  set={(part) => set(row.holding.id, part)}
                />
              ))}
            </ul>
          </Section>
        );
      })}
      <div className="sticky bottom-16 mt-6 rounded-lg bg-sheet px-4 py-3 shadow-lg ring-1 ring-rule">
        <div className="flex flex-wrap items-end gap-4">
          <Box
            label="A word with it"
            value={note}
            onChange={(text) => draft.set((before) => ({ ...before, note: text }))}
            className="min-w-60 flex-1"
          />
          <button
            type="button"
            className="button button-main mb-1 min-w-52"
            disabled={busy}
            onClick={() => void save()}
          >
            {busy ? 'Saving …' : `Book ${entered.length === 1 ? 'one count' : `${entered.length} counts`}`}
          </button>
        </div>
        <Refusal error={error} />
      </div>
      <p className="mt-6 text-sm text-soft">
        What this has cost so far is in the{' '}
        <Link className="link" to="/losses">
          loss book
        </Link>
        , under what nobody can explain.
      </p>
    </>
  );
}

/** From here on things are weighed in kilograms or pounds. */
const HEAVY_MG = 2_000_000;

const isCounted = ({ kind, pieces }: StockTakeRow['holding']): boolean => pieces > 0 || kind === 'packaging';

function usualWords(row: StockTakeRow | undefined): string | undefined {
  if (!row?.usual) return undefined;
  const { mean, n, low, high } = row.usual;
  return `${n} counts before: ${(100 * mean).toFixed(1)}\u00a0% on the mean, ${(100 * low).toFixed(1)} to ${(100 * high).toFixed(1)}\u00a0%`;
}

function CountRow({
  row,
  counted,
  value,
  unit,
  set,
}: {
  row: StockTakeRow;
  counted: Counted | undefined;
  value: number | null;
  unit: MassUnit;
  set: (part: Partial<Counted>) => void;
}) {
  const show = useShow();
  const { holding, usual } = row;
  const pieces = isCounted(holding);
  const booked = pieces ? holding.pieces : holding.massMg / 1000;
  const words = value === null ? null : differenceWords(Math.round(booked * 1000) / 1000, value, usual);
  return (
    <li className="grid grid-cols-[4rem_minmax(0,1fr)_auto] items-center gap-x-4 gap-y-1 py-1.5 md:grid-cols-[4rem_minmax(0,1fr)_7rem_9rem_13rem]">
      <Code code={holding.code} kind={holding.kind} />
      <span className="truncate">{holding.name}</span>
      <span className="figure text-right">
        {pieces ? `${count(holding.pieces)} ${holding.pieces === 1 ? 'piece' : 'pieces'}` : show.mass(holding.massMg)}
      </span>
      <span className="col-span-2 flex items-center gap-2 md:col-span-1">
        <input
          className="entry figure min-h-11!"
          inputMode="decimal"
          aria-label={`${holding.code}, really there, ${pieces ? 'pieces' : unit}`}
          value={counted?.text ?? ''}
          placeholder={pieces ? String(holding.pieces) : ''}
          onChange={(event) => set({ text: event.target.value })}
        />
        <span className="text-soft">{pieces ? '' : unit}</span>
      </span>
      <span className="min-w-0 text-sm">
        {words && (
          <>
            <span className={words.tone === 'watch' ? 'font-semibold text-crimson' : 'text-soft'}>
              {words.sentence}
            </span>
            {value !== null && value < booked && (
              <Choice
                className="min-h-9! text-sm"
                label={`${holding.code}, cause`}
                value={counted?.cause ?? 'unaccounted'}
                options={LOSS_CAUSES.filter((cause) => cause !== 'reject').map((cause) => [cause, LOSS_NAMES[cause]])}
                onChange={(cause) => set({ cause })}
              />
            )}
          </>
        )}
      </span>
    </li>
  );
}
