/** A machine's own intervals, running hours; null or absent: none. */
export interface Upkeep {
  name: string;
  dressEveryH?: number | null | undefined;
  serviceEveryH?: number | null | undefined;
}

/** From so much of an interval on, it is said beforehand. */
const SOON = 0.9;

/** Upkeep that is due or nearly. */
export interface UpkeepDue {
  what: 'dressed' | 'serviced';
  /** What is to be done, and the whole of it with its hours. */
  title: string;
  sentence: string;
  now: boolean;
}

/** What of a machine's upkeep is due, or will be soon. */
export function upkeepDue(
  { name, dressEveryH, serviceEveryH }: Upkeep,
  hours: { sinceDressed: number; sinceServiced: number },
): UpkeepDue[] {
  const said = (what: UpkeepDue['what'], every: number | null | undefined, ran: number, words: string): UpkeepDue[] => {
    if (every == null || ran < SOON * every) return [];
    const title = `${words} of ${name}`;
    const now = ran >= every;
    const figures = `${ran.toFixed(0)} of ${every.toFixed(0)} running hours`;
    return [{ what, title, now, sentence: `${title}: ${now ? 'due' : 'soon'}, ${figures}.` }];
  };
  return [
    ...said('dressed', dressEveryH, hours.sinceDressed, 'Dressing the stones'),
    ...said('serviced', serviceEveryH, hours.sinceServiced, 'Service'),
  ];
}
