import type { Lasting } from '@wunsch/core/ledger/follower';
import type { Batch } from '@wunsch/core/ledger/types';
import { YIELDS } from '@wunsch/core/stations';
import type { Workshop } from '../src/journal/workshop';
import { grindRuns } from '../src/grind/study';
import { Views } from '../src/ledger/views';
import { lossIndex } from '../src/losses/index-by-month';

const DAY_MS = 86_400_000;

/** What is made of a book, as a server makes it. */
export interface Made {
  views: Views;
  lasting: ReadonlyMap<string, Lasting>;
}

export function madeOf(workshop: Workshop): Made {
  const views = new Views(workshop);
  return {
    views,
    lasting: new Map<string, Lasting>([
      ...views.lasting,
      ['losses', lossIndex(views)],
      ['lives', grindRuns(views).lives],
    ]),
  };
}

/** What is settled of it now, as it is kept; the next start goes on from it. */
export function kept({ lasting }: Made): (workshop: Workshop) => Made {
  const rows = Array.from(lasting, ([name, own]) => ({
    name,
    settled: own.follower.settledUpTo,
    past: structuredClone(own.past()),
  }));
  return (workshop) => {
    const next = madeOf(workshop);
    for (const { name, settled, past } of rows) if (settled) next.lasting.get(name)?.resume(past, settled);
    return next;
  };
}

/** Without where it stands, which is read by its steps. */
function spanOf(views: Views, batchId: string): object {
  const { firstAt, lastAt, machines = [] } = views.spanOfBatch(batchId) ?? {};
  return { firstAt, lastAt, machines: [...machines].sort() };
}

/** A number as two ways to add it up agree on it. */
const rounded = (_key: string, value: unknown): unknown =>
  typeof value === 'number' && !Number.isInteger(value) ? Number(value.toPrecision(9)) : value;

/** What is asked of it, in words that can be compared. */
export function said({ views }: Made): string {
  const { book, batches, lots } = views.workshop;
  const newest = book.timeline.at(-1)?.at ?? 0;
  const kinds = YIELDS.map(({ step }) => step);
  const losses = (from: number) =>
    Array.from(lossIndex(views).since(from), ([family, { totals, worth, firstAt }]) => ({
      family,
      totals: totals.map((row) => ({ ...row, losses: [...row.losses].sort((a, b) => (a.cause < b.cause ? -1 : 1)) })),
      worth: [...worth].sort(([a], [b]) => (a < b ? -1 : 1)),
      firstAt,
    })).sort((a, b) => (a.family < b.family ? -1 : 1));
  return JSON.stringify(
    {
      yields: kinds.map((kind) => views.yields.of(kind)),
      ofLots: kinds.map((kind) => Array.from(lots.keys(), (lotId) => views.yields.ofLot(kind, lotId))),
      marks: Array.from(book.live, (id) => views.marks(id)),
      batches: Array.from(batches.keys(), (id) => [
        views.bars(id),
        views.batchMarks(id),
        spanOf(views, id),
        grindRuns(views).lives.of(batches.get(id) as Batch),
        views.stepsOfBatch(id).map((step) => step.id),
      ]),
      losses: [-Infinity, newest - 20 * DAY_MS].map(losses),
    },
    rounded,
    1,
  );
}
