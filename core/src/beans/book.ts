import { inForce, type BeanRecord } from './records';
import { lotStanding, type LotStanding } from './state';
import type { LotFacts } from '../ledger/types';
import type { FileMeta } from '../workshop/kept';

/** Bean records and the list of files, in memory, by lot. */
export class BeanBook {
  private readonly byLot = new Map<string | null, BeanRecord[]>();
  private readonly current = new Map<string | null, BeanRecord[]>();
  private readonly lotOf = new Map<string, string | null>();
  readonly files = new Map<string, FileMeta>();

  /** Lets go of all records; files stay. */
  clear(): void {
    this.byLot.clear();
    this.current.clear();
    this.lotOf.clear();
  }

  add(record: BeanRecord): void {
    const list = this.byLot.get(record.lotId);
    if (list) list.push(record);
    else this.byLot.set(record.lotId, [record]);
    this.lotOf.set(record.id, record.lotId);
    this.current.delete(record.lotId);
  }

  /** Everything ever written, oldest first. @param lotId null for the bean store itself */
  all(lotId: string | null): readonly BeanRecord[] {
    return this.byLot.get(lotId) ?? [];
  }

  /** Records that count. */
  of(lotId: string | null): readonly BeanRecord[] {
    let rows = this.current.get(lotId);
    if (!rows) {
      rows = inForce(this.all(lotId));
      this.current.set(lotId, rows);
    }
    return rows;
  }

  /** The lot a record is about; undefined when there is no such record. */
  lotOfRecord(recordId: string): string | null | undefined {
    return this.lotOf.get(recordId);
  }

  *everything(): Iterable<BeanRecord> {
    for (const list of this.byLot.values()) yield* list;
  }

  /** Photos of something else than a lot, by its kind and id. */
  picturesOf(subject: string): FileMeta[] {
    return [...this.files.values()].filter((file) => file.subject === subject).sort((a, b) => a.at - b.at);
  }

  filesOf(lotId: string): FileMeta[] {
    return [...this.files.values()].filter((file) => file.lotId === lotId).sort((a, b) => a.at - b.at);
  }

  standing(lotId: string, facts: LotFacts, dried: boolean): LotStanding {
    return lotStanding(this.of(lotId), facts, dried);
  }
}
