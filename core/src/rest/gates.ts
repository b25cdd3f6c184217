import { begins, type Asked, type Gate, type GateContext } from '../gates/gate';

const DAY_MS = 86_400_000;

/** Days that a block has rested at a moment. */
export const restedDays = (context: Pick<GateContext, 'book' | 'at'>, holdingId: string): number =>
  (context.at - (context.book.firstEntry(holdingId)?.at ?? context.at)) / DAY_MS;

/** Blocks that leave the shelf before their days are over: those that their batch is meant to rest, or the workshop's. */
export function restGates(asked: Asked<'rest' | 'temper' | 'charge' | 'mould'>, context: GateContext): Gate[] {
  const young = asked.sources.flatMap(({ holdingId }, index) => {
    const holding = context.book.holdings.get(holdingId);
    if (holding?.kind !== 'block' || holding.place !== 'rest') return [];
    const rested = restedDays(context, holdingId);
    const until = context.batch(holding.batchId ?? '')?.restUntil;
    const days = until == null ? context.settings.restDays : rested + (until - context.at) / DAY_MS;
    // A block poured on Monday at noon is ripe on the Monday, whatever the hour.
    return rested >= days - 0.5 ? [] : [{ code: holding.code, rested, days: Math.max(1, Math.round(days)), index }];
  });
  const [first] = young;
  if (!first || (begins(asked) && asked.kind === 'rest')) return [];
  const one = new Set(young.map(({ days }) => days)).size === 1;
  const words = young
    .map(
      ({ code, rested, days }) =>
        `${code} has rested ${Math.max(0, Math.floor(rested))}${one ? '' : ` of ${days} days`}`,
    )
    .join(', ');
  return [
    {
      id: 'rest/too-young',
      sentence: one ? `${words} of ${first.days} days.` : `${words}.`,
      why: 'Flavour is still moving: what is tempered now tastes otherwise than the batches that rested.',
      todo: 'Leave it on the shelf, or go on by name. How long this batch is meant to rest is at its shelf, the usual days are under Workshop.',
      path: `sources.${first.index}.holdingId`,
    },
  ];
}
