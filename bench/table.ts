/** Notes what was measured beside its budget; less is better. */
export type Note = (what: string, value: number, budget: number, unit: string) => void;

interface Row {
  what: string;
  value: number;
  budget: number;
  unit: string;
}

/** How often something is looked at that is over its budget. */
const LOOKS = 3;

const share = ({ value, budget }: Row): number => value / budget;
const isWithin = (row: Row): boolean => share(row) <= 1;
const figure = (value: number): string => (value < 10 ? value.toFixed(2) : `${Math.round(value)}`);

/** What was measured, in the order in which it was. */
export class Table {
  private readonly rows: Row[] = [];
  private again = 0;

  /**
   * Measures something. Where that is over its budget, it is measured again: other work of the machine only ever adds to a
   * time, so the least of some looks is nearest to what the program takes, and what is slow is slow in all of them.
   *
   * @param most looks at the most; one where a second would find what the first has read
   */
  async look(measure: (note: Note) => Promise<void> | void, most = LOOKS): Promise<void> {
    const best = new Map<string, Row>();
    for (let looks = 1; looks <= most; looks += 1) {
      await measure((what, value, budget, unit) => {
        const row = { what, value, budget, unit };
        const known = best.get(what);
        if (known === undefined || !(share(known) <= share(row))) best.set(what, row);
      });
      if ([...best.values()].every(isWithin)) break;
      if (looks < most) this.again += 1;
    }
    this.rows.push(...best.values());
  }

  /** @returns whether everything was within its budget */
  print(): boolean {
    const width = Math.max(...this.rows.map(({ what }) => what.length));
    for (const row of this.rows) {
      const [measured, budget] = [row.value, row.budget].map((value) => `${figure(value)} ${row.unit}`);
      process.stdout.write(
        `${row.what.padEnd(width)}  ${measured?.padStart(10)}  of ${budget?.padEnd(8)} ${isWithin(row) ? '' : 'OVER'}\n`,
      );
    }
    if (this.again > 0) process.stdout.write(`Looked at again, as something was over at first: ${this.again}\n`);
    return this.rows.every(isWithin);
  }
}
