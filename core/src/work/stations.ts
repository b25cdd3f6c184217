/** The ten stations, in the order in which the work is done. Their digits are `1`…`9`, `0`. */
export const STATIONS = [
  'beans',
  'sort',
  'roast',
  'winnow',
  'grind',
  'rest',
  'temper',
  'mould',
  'pack',
  'taste',
] as const;
export type Station = (typeof STATIONS)[number];

/** Where a holding can stand: at a station, in the pantry (ingredients, packaging) or in the store. */
export const PLACES = [...STATIONS, 'pantry', 'store'] as const;
export type Place = (typeof PLACES)[number];

export const STATION_NAMES: Record<Place, string> = {
  beans: 'Beans',
  sort: 'Sort',
  roast: 'Roast',
  winnow: 'Winnow',
  grind: 'Grind',
  rest: 'Rest',
  temper: 'Temper',
  mould: 'Mould',
  pack: 'Pack',
  taste: 'Taste',
  pantry: 'Pantry',
  store: 'Store',
};

export const isStation = (value: string): value is Station => (STATIONS as readonly string[]).includes(value);

/** Which stations a batch passes, in workshop order, with the school it follows in a sentence. */
export interface Route {
  id: string;
  name: string;
  note: string;
  stations: Station[];
  /** The mass may not get hotter than this, °C. */
  ceilingC?: number | null | undefined;
}

/** Whether beans are winnowed on it and never roasted. */
export const isUnroasted = ({ stations }: Pick<Route, 'stations'>): boolean =>
  stations.includes('winnow') && !stations.includes('roast');

/** What the unroasted school keeps its mass under, °C: where it says no other figure. */
export const USUAL_CEILING_C = 47;

/** The bound on the heat of the mass on a route, °C; null where there is none. */
export const ceilingOf = (route: Route): number | null =>
  route.ceilingC ?? (isUnroasted(route) ? USUAL_CEILING_C : null);

/**
 * Where goods wait next after a station on a route; after the last one, the store.
 *
 * A route's own order counts (nibs can be winnowed before they are roasted). Work done at a station the
 * route leaves out goes on to the next one in workshop order. Tasting takes samples, so nothing waits for it.
 */
export function nextPlace(route: Route, after: Station): Place {
  const position = route.stations.indexOf(after);
  const from = STATIONS.indexOf(after);
  const ahead =
    position >= 0
      ? route.stations.slice(position + 1)
      : route.stations.filter((station) => STATIONS.indexOf(station) > from);
  return ahead.find((station) => station !== 'taste') ?? 'store';
}
