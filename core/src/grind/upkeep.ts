/** A machine's own intervals, running hours; null or absent: none. */
export interface Upkeep {
  name: string;
  dressEveryH?: number | null | undefined;
  serviceEveryH?: number | null | undefined;
}

/** From so much of an interval on, it is said beforehand. */
const SOON = 0.9;

/** What of a machine's upkeep is due or nearly, in sentences. */
export function upkeepDue(
  { name, dressEveryH, serviceEveryH }: Upkeep,
  hours: { sinceDressed: number; sinceServiced: number },
): string[] {
  const said = (every: number | null | undefined, ran: number, what: string): string[] => {
    if (every == null || ran < SOON * every) return [];
    const figures = `${ran.toFixed(0)} of ${every.toFixed(0)} running hours`;
    return [ran >= every ? `${what} of ${name}: due, ${figures}.` : `${what} of ${name}: soon, ${figures}.`];
  };
  return [
    ...said(dressEveryH, hours.sinceDressed, 'Dressing the stones'),
    ...said(serviceEveryH, hours.sinceServiced, 'Service'),
  ];
}
