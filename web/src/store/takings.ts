import type { Price } from '@wunsch/core/api/reads';
import type { HoldingView } from '@wunsch/core/api/types';
import type { FieldSpec, Fields } from '../entry/entry';
import { FREE_USE_WORDS, FREE_USES } from '@wunsch/core/money/commands';
import { readNumber } from '../parts/number';

export const PRICES = '/api/money/prices';

/** What to ask about the money of a sale: the takings; of several things, what each fetched. */
export const askTakings =
  (currency: string) =>
  (chosen: readonly HoldingView[]): FieldSpec[] =>
    chosen.length < 2
      ? [{ name: 'takings', label: 'Takings', type: 'number', unit: currency }]
      : chosen.map(({ id, code }) => ({
          name: `takings.${id}`,
          label: `Takings for ${code}`,
          type: 'number',
          unit: currency,
        }));

/** The rest of what a sale asks. */
export const SALE_FIELDS: FieldSpec[] = [
  {
    name: 'use',
    label: 'As',
    type: 'choice',
    optional: true,
    choices: [
      { value: 'sold', label: 'Sold' },
      ...FREE_USES.map((use) => ({
        value: use,
        label: `${FREE_USE_WORDS[use][0]?.toUpperCase() ?? ''}${FREE_USE_WORDS[use].slice(1)}`,
      })),
    ],
  },
  { name: 'channel', label: 'By which channel', type: 'text', optional: true },
  { name: 'to', label: 'To whom', type: 'text', optional: true },
  { name: 'note', label: 'Note', type: 'text', optional: true },
];

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
