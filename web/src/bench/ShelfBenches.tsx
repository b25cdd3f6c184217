import { useState } from 'react';
import { useSearchParams } from 'react-router';
import type { BenchView, HoldingView } from '@wunsch/core/api/types';
import { useNow } from '../app/DueLine';
import { Code, Empty, Figure, Section } from '../parts/pieces';
import { span, useHere, useShow } from '../parts/workshop';
import { readNumber } from '../entry/entry';
import { StepForm } from '../entry/StepForm';

const DAY_MS = 86_400_000;

/** Blocks on the shelf by age; the ripe ones first. */
export function RestBench({ view }: { view: BenchView }) {
  const { view: workshop } = useHere();
  const show = useShow();
  const now = useNow();
  const [query] = useSearchParams();
  const days = workshop.settings.restDays;
  const asked = view.waiting.find(({ code }) => code === query.get('holding'));
  if (view.waiting.length === 0)
    return (
      <Empty title="The shelf is empty.">Blocks poured from the grinder rest here when their route says so.</Empty>
    );
  const byName = new Map<string, HoldingView[]>();
  for (const holding of view.waiting)
    byName.set(`${holding.batchCode ?? ''} ${holding.name}`, [
      ...(byName.get(`${holding.batchCode ?? ''} ${holding.name}`) ?? []),
      holding,
    ]);
  return (
    <>
      <ul className="rows mb-8">
        {[...byName].map(([name, blocks]) => {
          const age = (now - (blocks[0]?.since ?? now)) / DAY_MS;
          const ripe = age >= days;
          return (
            <li
              key={name}
              className="grid grid-cols-[minmax(0,1fr)_auto] items-center gap-x-6 gap-y-1 py-3 sm:grid-cols-[minmax(0,1fr)_14rem_auto]"
            >
              <span>
                <span className="block text-lg">{name}</span>
                <span className="text-sm text-soft">
                  {blocks.map((block) => (
                    <span key={block.id}>
                      <Code code={block.code} kind="block" /> {show.mass(block.massMg)}{' '}
                    </span>
                  ))}
                </span>
              </span>
              <span className="hidden sm:block">
                <span className="block h-2 overflow-hidden rounded-full bg-sunk">
                  <span
                    className={`block h-full ${ripe ? 'bg-leaf' : 'bg-ripe'}`}
                    style={{ width: `${Math.min(100, (100 * age) / Math.max(days, 0.01))}%` }}
                  />
                </span>
                <span className="text-sm text-soft">
                  {ripe ? 'has rested' : `${span((days - age) * DAY_MS)} to go`} of {days} days
                </span>
              </span>
              <span className="figure w-16 text-right text-2xl">{Math.floor(age)} d</span>
            </li>
          );
        })}
      </ul>
      <Section title="Take blocks off the shelf">
        <StepForm
          key={asked?.id ?? 'any'}
          kind="rest"
          station="rest"
          draftId="rest"
          candidates={view.waiting}
          initialPicked={asked ? [asked.id] : []}
          pickTitle="Which blocks"
          path="/api/ledger/steps"
          submit="Take to temper"
          finish={(values, sources) => ({ ...values, sources })}
        />
      </Section>
    </>
  );
}

/** A year and a half from today, as many makers print it; the maker decides. */
const usualBestBefore = (): string => new Date(Date.now() + 540 * DAY_MS).toISOString().slice(0, 10);

export function PackBench({ view }: { view: BenchView }) {
  const bars = view.waiting;
  const [chosen, setChosen] = useState<string | null>(bars[0]?.id ?? null);
  const holding = bars.find(({ id }) => id === chosen) ?? bars[0];
  const wrappers = view.pantry.filter(({ kind }) => kind === 'packaging');
  const show = useShow();
  if (!holding)
    return <Empty title="No bars wait to be packed.">Turn out a mould and count the good bars: they come here.</Empty>;
  return (
    <>
      <div className="mb-6 flex flex-wrap gap-2" role="group" aria-label="Which bars">
        {bars.map((row) => (
          <button
            key={row.id}
            type="button"
            className="chip min-h-[60px]! rounded-lg! text-left"
            aria-pressed={row === holding}
            onClick={() => setChosen(row.id)}
          >
            <span>
              <span className="block">
                <span className="code">{row.batchCode ?? row.code}</span> · {row.name}
              </span>
              <span className="block text-sm opacity-80">
                {row.pieces} bars, {show.mass(row.massMg)}
              </span>
            </span>
          </button>
        ))}
      </div>
      <div className="mb-6 grid grid-cols-3 gap-6">
        <Figure label="Bars here" value={holding.pieces} />
        <Figure
          label="Mean weight"
          value={show.mass(holding.massMg / Math.max(1, holding.pieces))}
          note="before wrapping"
        />
        <Figure label="Cost so far" value={show.money(holding.perPieceMilli)} note="a bar, without its wrapper" />
      </div>
      <StepForm
        key={holding.id}
        kind="pack"
        station={null}
        draftId={`pack.${holding.id}`}
        initial={{
          pieces: { text: String(holding.pieces) },
          labelCode: { text: `${holding.batchCode ?? holding.code}-1` },
          bestBefore: { text: usualBestBefore() },
        }}
        path="/api/ledger/steps"
        submit="Pack them"
        head={<WrapperNote wrappers={wrappers} />}
        finish={({ wrappers: used, ...values }, _, entry) => {
          const count =
            typeof used === 'number'
              ? used
              : (entry.fields['wrappers']?.text ?? '') === ''
                ? (readNumber(entry.fields['pieces']?.text ?? '') ?? 0)
                : 0;
          return {
            ...values,
            holdingId: holding.id,
            packaging: takeWrappers(wrappers, wrappers.length === 0 ? 0 : count),
          };
        }}
      />
    </>
  );
}

/** The oldest wrappers first, over as many purchases as it takes. */
function takeWrappers(wrappers: readonly HoldingView[], count: number): { holdingId: string; pieces: number }[] {
  const lines: { holdingId: string; pieces: number }[] = [];
  let left = count;
  for (const { id, pieces } of wrappers) {
    if (left <= 0) break;
    const taken = Math.min(left, pieces);
    lines.push({ holdingId: id, pieces: taken });
    left -= taken;
  }
  const first = lines[0];
  // More than there are: ask for them all the same, so that the refusal names what is missing.
  if (left > 0 && first) first.pieces += left;
  return lines;
}

function WrapperNote({ wrappers }: { wrappers: readonly HoldingView[] }) {
  const there = wrappers.reduce((sum, { pieces }) => sum + pieces, 0);
  return (
    <p className="mt-3 text-sm text-soft">
      {wrappers.length === 0
        ? 'No wrappers in the pantry: none are taken.'
        : `${there} wrappers in the pantry. Left empty, one a bar is taken.`}
    </p>
  );
}

export function TasteBench({ view }: { view: BenchView }) {
  const bars = [...view.waiting].reverse();
  const choices = bars.filter(
    (row, index) => row.batchId !== null && bars.findIndex((other) => other.batchId === row.batchId) === index,
  );
  const [query, setQuery] = useSearchParams();
  const first = view.untasted[0]?.bars[0];
  const holding = choices.find(({ batchCode }) => batchCode === query.get('batch')) ?? first ?? choices[0];
  const waiting = new Set(view.untasted.map(({ batch }) => batch.id));
  if (!holding)
    return <Empty title="No bars to taste.">Pack or mould some first; every batch gets its score here.</Empty>;
  return (
    <>
      <div className="mb-6 flex flex-wrap gap-2" role="group" aria-label="Which batch">
        {choices.slice(0, 10).map((row) => (
          <button
            key={row.id}
            type="button"
            className="chip min-h-[60px]! rounded-lg! text-left"
            aria-pressed={row.batchId === holding.batchId}
            onClick={() => setQuery({ batch: row.batchCode ?? '' }, { replace: true })}
          >
            <span>
              <span className="block">
                <span className="code">{row.batchCode}</span> · {row.name}
              </span>
              <span className="block text-sm opacity-80">
                {waiting.has(row.batchId ?? '') ? 'not tasted yet' : `${row.pieces} bars`}
              </span>
            </span>
          </button>
        ))}
      </div>
      <p className="mb-5 text-lg text-soft">
        Break, look, snap, smell, melt slowly. Then a number, and what it was like.
      </p>
      <StepForm
        key={holding.id}
        kind="taste"
        station={null}
        draftId={`taste.${holding.batchId}`}
        initial={{ pieces: { text: '1' } }}
        path="/api/ledger/steps"
        submit="Save the score"
        finish={(values) => ({ ...values, batchId: holding.batchId, holdingId: holding.id })}
      />
    </>
  );
}
