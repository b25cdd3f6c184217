import type { Gate, GateContext } from '../gates/gate';
import { before } from '../ledger/entries';
import type { ChargeCommand } from './commands';
import type { ReadingCommand } from './reading-command';
import type { Holding } from '../ledger/types';
import { ceilingOf, isUnroasted } from '../work/stations';
import { gaugeSd } from './fineness';
import { isRaw } from './raw';
import { formatTemperature } from '../units/temperature';

/** Mass, blocks and bars of a batch that was never meant to be roasted stay raw, whatever bowl they go into. */
const fromUnroasted = ({ batchId }: Holding, context: GateContext): boolean => {
  const route = context.route(context.batch(batchId ?? '')?.routeId ?? null);
  return route !== undefined && isUnroasted(route);
};

/** Water in percent from which an ingredient makes a bowl of chocolate seize. */
const SEIZES_PCT = 12;

/** Something watery into a bowl. */
function wateryGates({ sources }: ChargeCommand, context: GateContext): Gate[] {
  const watery = sources.flatMap(({ holdingId }, index) => {
    const holding = context.book.holdings.get(holdingId);
    if (holding?.kind !== 'ingredient') return [];
    const { waterPct } = context.composition(holdingId).figures;
    return waterPct > SEIZES_PCT ? [{ index, name: holding.name, waterPct }] : [];
  });
  const [first] = watery;
  if (!first) return [];
  const names = watery.map(({ name, waterPct }) => `${name} (${waterPct.toFixed(0)} % water)`).join(', ');
  return [
    {
      id: 'grind/watery',
      sentence: `${names} would go into the bowl.`,
      why: 'Water makes chocolate seize on the stones: it thickens at once, and more water can then grow mould.',
      todo: 'Use it dried, or keep it for a filling. If its water is entered wrongly, correct it under Ingredients.',
      path: `sources.${first.index}.holdingId`,
    },
  ];
}

/** Raw beans or nibs into a bowl whose route has a roast, or gets its nibs roasted; water into any. */
export function chargeGates(command: ChargeCommand, context: GateContext): Gate[] {
  return [...rawGates(command, context), ...wateryGates(command, context)];
}

function rawGates(command: ChargeCommand, context: GateContext): Gate[] {
  const routeId = command.batch?.routeId ?? context.batch(command.batchId ?? '')?.routeId ?? null;
  const route = context.route(routeId);
  if (!route || isUnroasted(route)) return [];
  const raw = command.sources
    .map(({ holdingId }, index) => ({ index, holding: context.book.holdings.get(holdingId) }))
    .filter(
      ({ holding }) =>
        holding !== undefined && (isRaw(context.book, context.lots, holding.id) || fromUnroasted(holding, context)),
    );
  if (raw.length === 0) return [];
  const codes = raw.map(({ holding }) => holding?.code).join(', ');
  return [
    {
      id: 'grind/raw',
      sentence: `Nothing here says that ${codes} has been roasted, and the route “${route.name}” means roasted.`,
      why: 'Raw beans can carry pathogens, and what comes after the grinder does not kill them.',
      todo: 'Roast it first. If it came roasted, say so on the lot’s receipt. If it is meant raw, choose an unroasted route.',
      path: `sources.${raw[0]?.index ?? 0}.holdingId`,
    },
  ];
}

/** Standard deviations of two readings apart from which one is coarser and not only read so. */
const COARSER = 2.4;

/** A gauge that reads coarser than it did, with nothing put in since. */
function coarserGates({ batchId, what, value }: ReadingCommand, { book, at, order }: GateContext): Gate[] {
  if (what !== 'micron' || value === null) return [];
  let last: { micron: number; at: number } | null = null;
  for (const step of book.timeline.backwards()) {
    // One that is corrected has the order of what it corrects: it is not held against itself.
    if (step.batchId !== batchId || step.order === order || before({ at, order }, step) <= 0) continue;
    if (step.kind === 'charge') return [];
    if (step.kind !== 'reading') continue;
    const earlier = step.command as ReadingCommand;
    if (earlier.what !== 'micron' || earlier.value === null) continue;
    last = { micron: earlier.value, at: step.at };
    break;
  }
  if (last === null || value - last.micron <= COARSER * Math.hypot(gaugeSd(value), gaugeSd(last.micron))) return [];
  return [
    {
      id: 'grind/coarser',
      sentence: `${value} µm is coarser than the ${last.micron} µm read before, and nothing went in since.`,
      why: 'Stones only make it finer. A gauge is read to about ±2 µm or 6 %; a scratch, a thick draw-down or other eyes look like this, and so does sugar that nobody entered.',
      todo: 'Draw it down again. If it is so, say what happened: it is kept, and counts less if the next readings disagree.',
      path: 'value',
    },
  ];
}

/** A reading that cannot be right, or may not be: coarser than before, or the mass hotter than its route allows. */
export function readingGates(command: ReadingCommand, context: GateContext): Gate[] {
  return [...coarserGates(command, context), ...hotGates(command, context)];
}

function hotGates(command: ReadingCommand, context: GateContext): Gate[] {
  const batch = context.batch(command.batchId);
  const route = context.route(batch?.routeId ?? null);
  const ceiling = route ? ceilingOf(route) : null;
  if (command.what !== 'bowl-temperature' || ceiling === null || command.value === null) return [];
  if (command.value <= ceiling) return [];
  const c = (celsius: number): string => formatTemperature(celsius, context.settings.temperatureUnit);
  return [
    {
      id: 'grind/too-hot',
      sentence: `${c(command.value)} is over the ${c(ceiling)} that “${route?.name ?? ''}” keeps its mass under.`,
      why: 'Over it the batch is no longer what its route and its label say.',
      todo: 'Check the reading. If it is right: lid off, fan on, tension off or stop the stones, and read again in a quarter of an hour.',
      path: 'value',
    },
  ];
}
