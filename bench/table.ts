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

const isWithin = ({ value, budget }: Row): boolean => value <= budget;
/** What is no number is none yet. */
const least = (known: number, now: number): number => (Number.isNaN(known) || now < known ? now : known);
const figure = (value: number): string => (value < 10 ? value.toFixed(2) : `${Math.round(value)}`);

/** What was measured, in the order in which it was. */
export class Table {
  private readonly rows: Row[] = [];
  private again = 0;

  /**
   * Measures something. Where that is over its budget, it is measured again: other work of the machine only ever adds to a
   * time, so the least of some looks is nearest to what the program takes, and what is slow is slow in all of them. A budget
   * that goes by another figure is the least of its own, too: a look at which that one was slow allows nothing.
   *
   * @param most looks at the most; one where a second would find what the first has read
   */
  async look(measure: (note: Note) => Promise<void> | void, most = LOOKS): Promise<void> {
    const best = new Map<string, Row>();
    for (let looks = 1; looks <= most; looks += 1) {
      await measure((what, value, budget, unit) => {
        const known = best.get(what) ?? { value: NaN, budget: NaN };
        best.set(what, { what, value: least(known.value, value), budget: least(known.budget, budget), unit });
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
