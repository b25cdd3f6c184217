import { begins, type Asked, type Gate, type GateContext } from '../gates/gate';

const DAY_MS = 86_400_000;

/** Days that a block has rested at a moment. */
export const restedDays = (context: Pick<GateContext, 'book' | 'at'>, holdingId: string): number =>
  (context.at - (context.book.entriesOf(holdingId)[0]?.at ?? context.at)) / DAY_MS;

/** Blocks that leave the shelf before the workshop's days are over. */
export function restGates(asked: Asked<'rest' | 'temper' | 'charge' | 'mould'>, context: GateContext): Gate[] {
  const days = context.settings.restDays;
  const young = asked.sources.flatMap(({ holdingId }, index) => {
    const holding = context.book.holdings.get(holdingId);
    if (holding?.kind !== 'block' || holding.place !== 'rest') return [];
    const rested = restedDays(context, holdingId);
    // A block poured on Monday at noon is ripe on the Monday, whatever the hour.
    return rested >= days - 0.5 ? [] : [{ code: holding.code, rested, index }];
  });
  const [first] = young;
  if (!first || (begins(asked) && asked.kind === 'rest')) return [];
  const words = young.map(({ code, rested }) => `${code} has rested ${Math.max(0, Math.floor(rested))}`).join(', ');
  return [
    {
      id: 'rest/too-young',
      sentence: `${words} of ${days} days.`,
      why: 'Flavour is still moving: what is tempered now tastes otherwise than the batches that rested.',
      todo: 'Leave it on the shelf, or go on by name. How long blocks rest here is under Workshop.',
      path: `sources.${first.index}.holdingId`,
    },
  ];
}
