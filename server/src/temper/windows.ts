import { subjectOf } from '@wunsch/core/temper/records';
import { fatPartsOf, softShareOf, windowsOf, type OwnWindows } from '@wunsch/core/temper/windows';
import { withoutWeight } from '@wunsch/core/ledger/planner';
import { isUnroasted } from '@wunsch/core/work/stations';
import type { Views } from '../ledger/views';

/** The windows of what is in a holding: own ones of its recipe or bar, or those that its composition speaks for. */
export interface WindowsHere extends OwnWindows {
  /** Whose they are, in the book and in words. */
  subject: string;
  subjectName: string;
  /** Somebody's own; `usual` is what they stand in place of. */
  own: boolean;
  usual: OwnWindows;
  fatShare: number;
  softShare: number;
}

/** Whose pours belong together: those of one recipe, or of bars by one name where they are made by none. */
export function subjectHere({ workshop }: Views, holdingId: string): string {
  const holding = workshop.book.holdings.get(holdingId);
  const recipe = workshop.batches.get(holding?.batchId ?? '')?.recipe ?? null;
  return subjectOf(recipe?.id ?? null, withoutWeight(holding?.name ?? ''));
}

/** @param at UTC ms: as they were then; left out, now */
export function windowsHere(views: Views, holdingId: string, at = Infinity): WindowsHere {
  const { workshop } = views;
  const { routeId, batchId, name } = workshop.book.holding(holdingId);
  const { figures } = workshop.compositions.of(holdingId);
  const route = workshop.routes.get(routeId ?? '');
  const parts = fatPartsOf(figures, route !== undefined && isUnroasted(route));
  const usual = windowsOf(parts);
  const recipe = workshop.batches.get(batchId ?? '')?.recipe ?? null;
  const subject = subjectHere(views, holdingId);
  const newest = workshop.records.of('temper').findLast((row) => row.at <= at && row.value.of === subject);
  const windows = newest?.value.windows ?? null;
  const kept = recipe ? workshop.recipes.version(recipe.id, recipe.version) : undefined;
  const by = newest ? `${views.person(newest.personId)}${newest.value.why === '' ? '' : `: ${newest.value.why}`}` : '';
  return {
    chocolate: usual.chocolate,
    windows: windows ?? usual.windows,
    because: windows === null ? usual.because : `Its own, set by ${by}.`,
    subject,
    subjectName: kept?.recipe.name ?? withoutWeight(name),
    own: windows !== null,
    usual,
    fatShare: figures.fatPct / 100,
    softShare: softShareOf(parts),
  };
}
