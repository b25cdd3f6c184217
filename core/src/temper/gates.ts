import { begins, type Asked, type Gate, type GateContext } from '../gates/gate';
import { formatTemperature } from '../units/temperature';
import { ceilingOf } from '../work/stations';

/** Mass of an unroasted batch melted hotter than its route allows. */
export function temperGates(asked: Asked<'temper'>, context: GateContext): Gate[] {
  if (begins(asked)) return [];
  const first = asked.sources
    .map(({ holdingId }) => context.book.holdings.get(holdingId))
    .find((holding) => holding !== undefined && holding.routeId !== null);
  const route = context.route(first?.routeId ?? null);
  const ceiling = route ? ceilingOf(route) : null;
  if (ceiling === null || asked.meltC <= ceiling) return [];
  const c = (celsius: number): string => formatTemperature(celsius, context.settings.temperatureUnit);
  return [
    {
      id: 'temper/too-hot',
      sentence: `Melted out at ${c(asked.meltC)}: over the ${c(ceiling)} that “${route?.name ?? ''}” keeps its mass under.`,
      why: 'Over it the batch is no longer what its route and its label say.',
      todo: `Melt longer and cooler: ${c(42)} to ${c(45)} melts out all crystal in some hours.`,
      path: 'meltC',
    },
  ];
}
