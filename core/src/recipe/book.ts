import { DomainError } from '../errors/domain-error';
import type { Recipe, RecipeRecord } from './records';
import { weighedOut, weighingOf, type WeighingState } from './weighing';

type Of<K extends RecipeRecord['value']['kind']> = RecipeRecord & {
  value: Extract<RecipeRecord['value'], { kind: K }>;
};

export interface RecipeVersion {
  version: number;
  recipe: Recipe;
  why: string;
  record: RecipeRecord;
}

export interface KeptRecipe {
  id: string;
  versions: readonly RecipeVersion[];
  shelved: boolean;
}

/** Recipes and their versions, ladders of variants, weighing runs: in memory, as they were written down. */
export class RecipeBook {
  private readonly records: RecipeRecord[] = [];
  private readonly versions = new Map<string, RecipeVersion[]>();
  private readonly shelved = new Set<string>();
  private readonly ladders = new Map<string, Of<'ladder'>>();
  private readonly ladderBatches = new Map<string, Of<'ladder-batch'>[]>();
  private readonly weighings = new Map<string, RecipeRecord[]>();
  /** Runs that are not ended, read. */
  private open = new Map<string, WeighingState>();

  clear(): void {
    this.records.length = 0;
    for (const map of [this.versions, this.ladders, this.ladderBatches, this.weighings, this.open]) map.clear();
    this.shelved.clear();
  }

  add(record: RecipeRecord): void {
    this.records.push(record);
    const { value } = record;
    switch (value.kind) {
      case 'recipe':
        push(this.versions, value.recipeId, { version: value.version, recipe: value.recipe, why: value.why, record });
        return;
      case 'shelved':
        if (value.shelved) this.shelved.add(value.recipeId);
        else this.shelved.delete(value.recipeId);
        return;
      case 'ladder':
        this.ladders.set(value.ladderId, { ...record, value });
        return;
      case 'ladder-batch':
        push(this.ladderBatches, value.ladderId, { ...record, value });
        return;
      default: {
        push(this.weighings, value.weighingId, record);
        const state = weighingOf(this.weighings.get(value.weighingId) ?? []);
        if (state && state.endedAt === null) this.open.set(value.weighingId, state);
        else this.open.delete(value.weighingId);
      }
    }
  }

  everything(): readonly RecipeRecord[] {
    return this.records;
  }

  newest = (id: string): RecipeVersion | undefined => this.versions.get(id)?.at(-1);

  all(): KeptRecipe[] {
    return [...this.versions].map(([id, versions]) => ({ id, versions, shelved: this.shelved.has(id) }));
  }

  /** Versions of a recipe, oldest first. @throws DomainError when there is none of that id */
  recipe(id: string): KeptRecipe {
    const versions = this.versions.get(id);
    if (!versions) throw new DomainError('http/not-found', 'There is no such recipe.');
    return { id, versions, shelved: this.shelved.has(id) };
  }

  /** One version of a recipe; undefined where there is none. */
  version(id: string, version: number): RecipeVersion | undefined {
    return this.versions.get(id)?.find((row) => row.version === version);
  }

  laddersOf(recipeId: string): Of<'ladder'>[] {
    return [...this.ladders.values()].filter(({ value }) => value.recipeId === recipeId);
  }

  ladder(id: string): Of<'ladder'> {
    const found = this.ladders.get(id);
    if (!found) throw new DomainError('http/not-found', 'There is no such ladder.');
    return found;
  }

  batchesOfLadder(id: string): readonly Of<'ladder-batch'>[] {
    return this.ladderBatches.get(id) ?? [];
  }

  /** A weighing run, also one that is ended. @throws DomainError when there is none of that id */
  weighing(id: string): WeighingState {
    const state = this.open.get(id) ?? weighingOf(this.weighings.get(id) ?? []);
    if (!state) throw new DomainError('http/not-found', 'There is no such weighing.');
    return state;
  }

  /** Runs that are under way, the oldest first. */
  openWeighings(): WeighingState[] {
    return [...this.open.values()].sort((a, b) => a.startedAt - b.startedAt);
  }

  /** Grams by holding that stand weighed on the bench. @param except a run whose own are left out */
  weighedOut(except?: string): Map<string, number> {
    return weighedOut([...this.open.values()].filter(({ id }) => id !== except));
  }
}

function push<K, V>(map: Map<K, V[]>, key: K, value: V): void {
  const list = map.get(key);
  if (list) list.push(value);
  else map.set(key, [value]);
}
