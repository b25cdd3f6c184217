import type { MachineUse } from '@wunsch/core/composition/carry-over';
import type { Step } from '@wunsch/core/ledger/types';
import type { Workshop } from './workshop';

interface Use {
  at: number;
  machineId: string;
  holdingId: string;
}

/**
 * Which machine had which goods in it, and which allergens they brought: followed along with the book, so that ten years
 * of it cost nothing at the next look.
 */
export class MachineAllergens {
  private last: string | undefined;
  private read = 0;
  private told = -1;
  /** Uses of a machine whose goods have an allergen, oldest first. */
  private readonly withSome = new Map<string, Use[]>();
  /** Allergens of a use's goods when they were last looked at. */
  private readonly known = new Map<string, readonly string[]>();

  constructor(
    private readonly workshop: Workshop,
    private readonly allergensOf: (holdingId: string) => readonly string[],
  ) {}

  /** Machines that goods themselves were in, as a batch that moves on is in every one on its way, with the last time. */
  machinesOf(holdingId: string): Map<string, number> {
    const found = new Map<string, number>();
    for (const { machineId, at } of this.usesOf(holdingId))
      found.set(machineId, Math.max(found.get(machineId) ?? 0, at));
    return found;
  }

  /** What with an allergen in it was in a machine before a moment, newest first. */
  *uses(machineId: string, before: number): Generator<MachineUse> {
    this.follow();
    const { book, batches } = this.workshop;
    const uses = this.withSome.get(machineId) ?? [];
    for (let i = uses.length - 1; i >= 0; i -= 1) {
      const use = uses[i];
      if (!use || use.at >= before) continue;
      const { batchId, code } = book.holding(use.holdingId);
      const batch = batchId === null ? undefined : batches.get(batchId);
      yield { at: use.at, code: batch?.code ?? code, allergens: this.known.get(use.holdingId) ?? [] };
    }
  }

  /** Takes in what was appended; reads all again after anything else. */
  private follow(): void {
    const { book, told } = this.workshop;
    const { timeline } = book;
    const appended =
      this.told === told &&
      timeline.length >= this.read &&
      (this.read === 0 || timeline.at(this.read - 1)?.id === this.last);
    if (!appended) {
      this.read = 0;
      for (const map of [this.withSome, this.known]) map.clear();
    }
    this.told = told;
    // Read from the beginning, every use is seen on the way.
    const all = this.read === 0;
    const changed = new Set<string>();
    for (; this.read < timeline.length; this.read += 1) {
      const step = timeline.at(this.read);
      if (!step) continue;
      const use = useAt(step);
      if (use && this.known.has(use.holdingId)) this.put(use);
      if (use) changed.add(use.holdingId);
      for (const { holdingId, massMg } of all ? [] : step.postings)
        if (holdingId !== null && massMg > 0) changed.add(holdingId);
    }
    this.last = timeline.at(-1)?.id;
    for (const holdingId of changed) this.look(holdingId);
  }

  private look(holdingId: string): void {
    const isNew = !this.known.has(holdingId);
    const uses = isNew ? this.usesOf(holdingId) : [];
    if (isNew && uses.length === 0) return;
    const allergens = this.allergensOf(holdingId);
    if (allergens.length === 0) return;
    this.known.set(holdingId, allergens);
    for (const use of uses) this.put(use);
  }

  /** When a machine put something in a holding. */
  private usesOf(holdingId: string): Use[] {
    const { book } = this.workshop;
    return book.entriesOf(holdingId).flatMap(({ stepId, massMg }) => {
      const step = massMg > 0 ? book.steps.get(stepId) : undefined;
      const use = step && useAt(step);
      return use?.holdingId === holdingId ? [use] : [];
    });
  }

  private put(use: Use): void {
    const list = this.withSome.get(use.machineId) ?? [];
    this.withSome.set(use.machineId, list);
    let place = list.length;
    while (place > 0 && (list[place - 1]?.at ?? 0) > use.at) place -= 1;
    list.splice(place, 0, use);
  }
}

/** What a step that makes goods has in a machine. */
function useAt({ at, machineId, slots }: Step): Use | null {
  const holdingId = slots['good'];
  return machineId === null || holdingId === undefined ? null : { at, machineId, holdingId };
}
