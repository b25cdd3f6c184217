import { Link, useSearchParams } from 'react-router';
import type { BenchView, HoldingView } from '@wunsch/core/api/types';
import { StepForm } from '../entry/StepForm';
import { Choice } from '../parts/choice';
import { Marks } from '../parts/marks';
import { Empty } from '../parts/pieces';
import { useApi } from '../parts/api';
import { count, useHere } from '../parts/workshop';
import { Palate } from './Palate';
import { SamePanel } from './SamePanel';
import { TasteNav } from './TasteNav';

/** One row a batch; goods of no batch (what began with bought chocolate) each for themselves. */
const subjectOf = ({ batchId, id }: HoldingView): string => batchId ?? id;

/** Batches that are a press away. */
const NEAR = 5;

export function TasteBench({ view }: { view: BenchView }) {
  // Bars that wait for their wrapper are tasted as well.
  const bars = [...view.waiting, ...view.elsewhere].reverse();
  const choices = bars.filter((row, index) => bars.findIndex((other) => subjectOf(other) === subjectOf(row)) === index);
  const [query, setQuery] = useSearchParams();
  const { personId } = useHere();
  const own = useApi(personId === null ? null : `/api/taste/palate/${personId}`).data;
  const { palate = null, sessions = 0 } = own ?? {};
  const first = view.untasted[0]?.bars[0];
  const asked = query.get('batch');
  const holding = choices.find(({ batchCode, code }) => (batchCode ?? code) === asked) ?? first ?? choices[0];
  const waiting = new Set(view.untasted.map(({ batch }) => batch.id));
  if (!holding)
    return (
      <>
        <TasteNav />
        <Empty title="No bars to taste.">
          Pack or mould some first; every batch gets its score here. A block while it rests, nibs or a bar of another
          maker are tasted under Tastings.
        </Empty>
        <SamePanel />
      </>
    );
  // The newest, and the one on the bench; the others are found by typing.
  const newest = choices.slice(0, NEAR);
  const near = newest.includes(holding) ? newest : [holding, ...newest.slice(1)];
  return (
    <>
      <TasteNav />
      <div className="mt-2 mb-5 flex flex-wrap gap-2" role="group" aria-label="Which batch">
        {near.map((row) => (
          <button
            key={row.id}
            type="button"
            className="chip min-h-[60px]! rounded-lg! text-left"
            aria-pressed={subjectOf(row) === subjectOf(holding)}
            onClick={() => setQuery({ batch: row.batchCode ?? row.code }, { replace: true })}
          >
            <span>
              <span className="block">
                <span className="code">{row.batchCode ?? row.code}</span> · {row.name}
              </span>
              <span className="block text-sm opacity-80">
                {waiting.has(row.batchId ?? '')
                  ? 'not tasted yet'
                  : `${count(row.pieces)} ${row.pieces === 1 ? 'bar' : 'bars'}`}
              </span>
              <Marks marks={row.marks} allergens={row.allergens} plain={subjectOf(row) === subjectOf(holding)} />
            </span>
          </button>
        ))}
        {choices.length > near.length && (
          <Choice
            className="w-auto! max-w-64"
            label="Another batch"
            placeholder="another batch …"
            value=""
            options={choices
              .filter((row) => !near.includes(row))
              .map((row) => [row.batchCode ?? row.code, `${row.batchCode ?? row.code} ${row.name}`] as const)}
            onChange={(batch) => setQuery({ batch }, { replace: true })}
          />
        )}
      </div>
      {holding.allergens.length > 0 && (
        <p className="mb-3 font-semibold">Before anybody eats: it has {holding.allergens.join(', ')}.</p>
      )}
      <p className="mb-4 text-lg text-soft">
        Break, look, snap, smell, melt slowly. Then a number, and what it was like.{' '}
        <Link className="link text-ink" to={`/tasting?code=${encodeURIComponent(holding.code)}`}>
          Guide me through it
        </Link>
      </p>
      {palate && sessions > 0 && <Palate palate={palate} />}
      <StepForm
        key={holding.id}
        kind="taste"
        station={null}
        draftId={`taste.${subjectOf(holding)}`}
        initial={{ pieces: { text: '1' } }}
        submit="Save the score"
        finish={(values) => ({ ...values, batchId: holding.batchId, holdingId: holding.id })}
      />
      <div className="mt-10">
        <SamePanel />
      </div>
    </>
  );
}
