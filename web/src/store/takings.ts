import type { Price } from '@wunsch/core/api/reads';
import type { HoldingView } from '@wunsch/core/api/types';
import type { FieldSpec, Fields } from '../entry/entry';
import { FREE_USE_WORDS, FREE_USES } from '@wunsch/core/money/commands';
import { readNumber } from '../parts/number';
import { capital } from '../parts/words';
import { fieldsFor } from '../entry/fields-for';

export const PRICES = '/api/money/prices';

/** What to ask about the money of a sale: the takings; of several things, what each fetched. */
export const askTakings =
  (currency: string) =>
  (chosen: readonly HoldingView[]): FieldSpec[] =>
    chosen.length < 2
      ? fieldsFor('sell', ['takings', { unit: currency }])
      : chosen.flatMap(({ id, code }) =>
          fieldsFor('sell', [
            'takings',
            { name: `takings.${id}`, at: 'takings', label: `Takings for ${code}`, unit: currency },
          ]),
        );

/** The rest of what a sale asks. */
export const SALE_FIELDS = fieldsFor(
  'sell',
  [
    'use',
    {
      label: 'As',
      choices: [
        { value: 'sold', label: 'Sold' },
        ...FREE_USES.map((use) => ({ value: use, label: capital(FREE_USE_WORDS[use]) })),
      ],
    },
  ],
  ['channel', { label: 'By which channel' }],
  'to',
  'note',
);

/** A sale as it is sent: takings of each thing, and all together. */
export function saleOf<S extends { holdingId: string }>(
  values: Record<string, unknown>,
  sources: readonly S[],
): Record<string, unknown> {
  const { use, channel, ...others } = values;
  const rest = {
    ...Object.fromEntries(Object.entries(others).filter(([name]) => !name.startsWith('takings'))),
    ...(typeof use === 'string' && use !== '' && use !== 'sold' ? { use } : {}),
    ...(typeof channel === 'string' && channel.trim() !== '' ? { channel } : {}),
  };
  if (sources.length < 2) return { ...rest, takings: values['takings'], sources };
  const lines = sources.map((source) => ({ ...source, takings: values[`takings.${source.holdingId}`] as number }));
  // Money has at most three decimals: the sum is rounded there, so that binary fractions do not contradict it.
  const takings = Math.round(lines.reduce((sum, line) => sum + line.takings, 0) * 1000) / 1000;
  return { ...rest, takings, sources: lines };
}

/** What things usually fetch, for those chosen and as much of them as is typed. */
export function proposeTakings(
  prices: readonly Price[],
  holdings: readonly HoldingView[],
  fields: Fields,
  grams: (id: string) => number | null,
  digits: number,
): Record<string, string> {
  const proposals: Record<string, string> = {};
  for (const { id, pieces, freeMg } of holdings) {
    const price = prices.find(({ holdingId }) => holdingId === id);
    if (!price) continue;
    const count = readNumber(fields[`take.${id}`]?.text ?? '') ?? pieces;
    const amount =
      pieces > 0
        ? price.perPiece !== null && price.perPiece * count
        : price.perKg !== null && (price.perKg * (grams(id) ?? freeMg / 1000)) / 1000;
    if (amount !== false) proposals[holdings.length < 2 ? 'takings' : `takings.${id}`] = amount.toFixed(digits);
  }
  return proposals;
}
