import type { MachineUse } from '@wunsch/core/composition/carry-over';
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
  private readonly byHolding = new Map<string, Use[]>();
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
    this.follow();
    const found = new Map<string, number>();
    for (const { machineId, at } of this.byHolding.get(holdingId) ?? [])
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
      for (const map of [this.byHolding, this.withSome, this.known]) map.clear();
    }
    this.told = told;
    const changed = new Set<string>();
    for (; this.read < timeline.length; this.read += 1) {
      const step = timeline.at(this.read);
      if (!step) continue;
      for (const { holdingId, massMg } of step.postings) if (holdingId !== null && massMg > 0) changed.add(holdingId);
      const holdingId = step.slots['good'];
      if (step.machineId === null || holdingId === undefined) continue;
      const use = { at: step.at, machineId: step.machineId, holdingId };
      const own = this.byHolding.get(holdingId);
      if (own) own.push(use);
      else this.byHolding.set(holdingId, [use]);
      if (this.known.has(holdingId)) this.put(use);
      changed.add(holdingId);
    }
    this.last = timeline.at(-1)?.id;
    for (const holdingId of changed) this.look(holdingId);
  }

  private look(holdingId: string): void {
    const uses = this.byHolding.get(holdingId);
    if (!uses) return;
    const had = this.known.has(holdingId);
    const allergens = this.allergensOf(holdingId);
    if (allergens.length === 0) return;
    this.known.set(holdingId, allergens);
    if (!had) for (const use of uses) this.put(use);
  }

  private put(use: Use): void {
    const list = this.withSome.get(use.machineId) ?? [];
    this.withSome.set(use.machineId, list);
    let place = list.length;
    while (place > 0 && (list[place - 1]?.at ?? 0) > use.at) place -= 1;
    list.splice(place, 0, use);
  }
}
