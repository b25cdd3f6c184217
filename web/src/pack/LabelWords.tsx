import type { MarketWords } from '@wunsch/core/api/reads';
import { useState } from 'react';
import type { LabelWords as Words, Market } from '@wunsch/core/pack/records';
import { send, useApi } from '../parts/api';
import { Box } from '../parts/fields';
import { Refusal } from '../parts/pieces';
import { NOBODY, useSave } from '../parts/save';
import { useHere } from '../parts/workshop';

const NAMES: readonly (readonly [keyof Words, string])[] = [
  ['ingredients', 'Before the ingredients'],
  ['cocoa', 'Cocoa percent, {pct} for the figure'],
  ['cocoaBeans', 'Cacao among the ingredients'],
  ['may', 'Before possible allergens'],
  ['net', 'Before the weight'],
  ['best', 'Before the date'],
  ['batch', 'Before the code'],
  ['origin', 'Before the origin'],
  ['store', 'How to keep it'],
  ['nutrition', 'Before the estimate'],
];

/** The words of labels in a language: what is typed stands in place of the usual ones. */
export function LabelWords({ market }: { market: Market }) {
  const { data } = useApi('/api/pack/words');
  const row = data?.markets.find((own) => own.market === market);
  return (
    <details className="mt-3">
      <summary className="inline-flex min-h-11 cursor-pointer items-center text-sm underline">
        Other words in this language
      </summary>
      {row && <Typing key={`${market} ${JSON.stringify(row.own)}`} row={row} />}
    </details>
  );
}

function Typing({ row }: { row: MarketWords }) {
  const { personId } = useHere();
  const [typed, setTyped] = useState<Words>(row.own);
  const { busy, error, run, fail } = useSave();
  const save = (): void => {
    if (personId === null) return fail(NOBODY);
    void run(() => send('PUT', `/api/pack/words/${row.market}`, { personId, words: typed }));
  };
  return (
    <div>
      <div className="grid gap-3 sm:grid-cols-2">
        {NAMES.map(([key, label]) => (
          <Box
            key={key}
            label={label}
            value={typed[key] ?? ''}
            placeholder={row.usual[key]}
            onEnter={save}
            onChange={(text) => setTyped((now) => ({ ...now, [key]: text }))}
          />
        ))}
      </div>
      <button type="button" className="button mt-3" disabled={busy} onClick={save}>
        Keep these words
      </button>
      <Refusal error={error} />
    </div>
  );
}
