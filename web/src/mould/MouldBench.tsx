import type { BenchView, WorkView } from '@wunsch/core/api/types';
import type { Entry } from '../entry/step-form';
import { WorkBench, type StationExtras } from '../entry/WorkBench';
import { useApi } from '../parts/api';
import { readNumber } from '../parts/number';
import { LiveMould } from './LiveMould';
import { MouldList } from './MouldList';
import { MOULD_WORK } from './work';
import { FILLED, partGrams, takeGrams, VIBRATED } from './parts';

/** What waits to be moulded and what is in its moulds; the moulds themselves. */
export function MouldBench({ view }: { view: BenchView }) {
  const products = useApi('/api/products').data?.products ?? [];
  const parts = (entry: Entry, work: WorkView | undefined) =>
    partGrams(
      products.find(({ id }) => id === work?.moulding?.productId),
      entry,
    );
  const extras: StationExtras = {
    // What is in and on the pieces goes through the book like everything else: grams, cost, allergens.
    joins: (entry, work) =>
      parts(entry, work).flatMap(({ materialId, text }) => {
        const grams = readNumber(text);
        return grams === null || grams <= 0 ? [] : takeGrams(view.pantry, materialId, grams);
      }),
    command: ({ choices = {} }) => ({
      ...(choices[FILLED] ? { filledBy: choices[FILLED] } : {}),
      ...(choices[VIBRATED] ? { vibrated: choices[VIBRATED] === 'yes' } : {}),
    }),
    problem: (entry, work) => {
      for (const { materialId, text } of parts(entry, work)) {
        const grams = text.trim() === '' ? 0 : readNumber(text);
        const name = view.pantry.find((row) => row.materialId === materialId)?.name;
        if (grams === null) return `${name ?? 'What is in them'}: the grams are not a number.`;
        if (grams > 0 && name === undefined)
          return 'The pantry has none of what is in these: buy it first, or say 0 grams.';
      }
      return null;
    },
  };
  return (
    <>
      <WorkBench
        view={view}
        station={MOULD_WORK}
        extras={extras}
        follow={(work, entry) => <LiveMould key={work.id} work={work} entry={entry} products={products} />}
      />
      <MouldList />
    </>
  );
}
