import { carriedOver, type CarriedOver, type MachineUse } from '@wunsch/core/composition/carry-over';
import { newestOf, type BeanRecord } from '@wunsch/core/beans/records';
import { allergensIn, compositionOf, type Composition, type Root } from '@wunsch/core/composition/composition';
import { ingredientFacts, type IngredientFacts } from '@wunsch/core/composition/ingredient-facts';
import { NIB_FAT, nibContents, USUAL_CONTENTS } from '@wunsch/core/composition/usual-contents';
import type { Contents } from '@wunsch/core/ledger/contents';
import type { Material } from '@wunsch/core/ledger/types';
import { dayText } from '@wunsch/core/units/zone';
import type { CommandOf } from '@wunsch/core/commands';
import { knownGoods } from '@wunsch/core/money/opening';
import type { MakeUp } from '@wunsch/core/ledger/valuation';
import { fillingShares, upstream } from '@wunsch/core/trace/flow';
import { MachineAllergens } from './machine-allergens';
import type { Workshop } from './workshop';

/** What any holding really is, from the ledger; and what the machines it went through can have brought. */
export class Compositions {
  private known = { of: '', carried: new Map<string, CarriedOver[]>() };
  /** By the make-up they were worked out from, which grows only with the holding's own entries. */
  private readonly byMakeUp = new WeakMap<MakeUp, { entries: number; told: number; composition: Composition }>();

  constructor(private readonly workshop: Workshop) {
    this.machines = new MachineAllergens(workshop, (id) => allergensIn(workshop.valuation.makeUp(id), this.rootOf));
  }

  readonly rootOf = (rootId: string): Root | undefined => {
    const { book, materials } = this.workshop;
    const holding = book.holdings.get(rootId);
    if (!holding) return undefined;
    if (holding.kind === 'lot') return { kind: 'cacao', lotId: rootId, contents: this.nibs(rootId).contents };
    const material = holding.materialId === null ? undefined : materials.get(holding.materialId);
    if (material)
      return { kind: 'ingredient', material, facts: this.facts(material, book.firstEntry(rootId)?.at ?? 0) };
    const maker = book.steps.get(book.firstEntry(rootId)?.stepId ?? '');
    return maker?.kind === 'open'
      ? { kind: 'opening', id: rootId, goods: knownGoods(maker.command as CommandOf<'open'>) }
      : undefined;
  };

  /** What holds until the next entry. */
  private get cache() {
    const of = `${this.workshop.book.state}.${this.workshop.told}`;
    if (this.known.of !== of) this.known = { of, carried: new Map() };
    return this.known;
  }

  private byDay = { told: -1, facts: new Map<string, IngredientFacts>(), days: new Map<number, string>() };

  /** What an ingredient is at a moment: what was bought then stays what it was. */
  facts(material: Material, at: number): IngredientFacts {
    const { materials, settings, told } = this.workshop;
    if (this.byDay.told !== told) this.byDay = { told, facts: new Map(), days: new Map() };
    const { facts, days } = this.byDay;
    let day = days.get(at);
    if (day === undefined) {
      day = dayText(at, settings.timeZone);
      days.set(at, day);
    }
    const key = `${material.id}.${day}`;
    let found = facts.get(key);
    if (!found) {
      found = ingredientFacts(material, day, (id) => materials.get(id));
      facts.set(key, found);
    }
    return found;
  }

  private readonly byRecords = new WeakMap<readonly BeanRecord[], ReturnType<Compositions['nibs']>>();

  /** What nibs of a lot are made of: as it was measured, or as is usual. */
  nibs(lotId: string): { contents: Contents; source: string; measured: boolean } {
    const records = this.workshop.beans.of(lotId);
    const before = this.byRecords.get(records);
    if (before) return before;
    const record = newestOf(records, 'nib-fat');
    const found = record
      ? { contents: nibContents(record.value.fatPct), source: record.value.how || 'measured', measured: true }
      : {
          contents: USUAL_CONTENTS.nibs.contents,
          source: `usual, ${NIB_FAT.low} to ${NIB_FAT.high} % fat`,
          measured: false,
        };
    this.byRecords.set(records, found);
    return found;
  }

  of(holdingId: string): Composition {
    const { book, valuation, told } = this.workshop;
    const makeUp = valuation.makeUp(holdingId);
    const entries = book.entriesOf(holdingId).length;
    const found = this.byMakeUp.get(makeUp);
    if (found?.entries === entries && found.told === told) return found.composition;
    const composition = compositionOf(makeUp, this.rootOf);
    this.byMakeUp.set(makeUp, { entries, told, composition });
    return composition;
  }

  private readonly machines: MachineAllergens;

  /** What with an allergen in it was in a machine before a moment, newest first. */
  machineUses(machineId: string, before: number): Iterable<MachineUse> {
    return this.machines.uses(machineId, before);
  }

  /** Allergens that are not in the goods and that their machines can have carried over. */
  carriedOver(holdingId: string): CarriedOver[] {
    const { carried } = this.cache;
    const found = carried.get(holdingId) ?? this.carriedInto(holdingId);
    carried.set(holdingId, found);
    return found;
  }

  private carriedInto(holdingId: string): CarriedOver[] {
    const { book, machines } = this.workshop;
    const own = this.of(holdingId).allergens;
    const found = new Map<string, CarriedOver>();
    const visited = new Map<string, number>();
    for (const stepId of upstream(book, fillingShares(book, holdingId)).keys()) {
      const step = book.steps.get(stepId);
      if (!step || step.machineId === null) continue;
      visited.set(step.machineId, Math.max(visited.get(step.machineId) ?? 0, step.at));
    }
    const { batchId } = book.holding(holdingId);
    // A batch that moved on was in every machine on its way.
    if (batchId !== null)
      for (const [machineId, at] of this.machines.machinesOf(batchId))
        visited.set(machineId, Math.max(visited.get(machineId) ?? 0, at));
    for (const [machineId, at] of visited) {
      const machine = machines.get(machineId);
      if (!machine) continue;
      for (const row of carriedOver(machine.name, this.machineUses(machineId, at), machine.cleanings ?? [], at, own))
        if (!found.has(row.allergen) || (found.get(row.allergen)?.at ?? 0) < row.at) found.set(row.allergen, row);
    }
    return [...found.values()];
  }
}
