import type { WinnowPastView, WinnowSession } from '@wunsch/core/api/losses';
import { DomainError } from '@wunsch/core/errors/domain-error';
import type { CommandOf } from '@wunsch/core/commands';
import { majorFromMilli } from '@wunsch/core/units/money';
import { fitResponse } from '@wunsch/core/winnow/response';
import { sampleShare, SHELL_CEILING } from '@wunsch/core/winnow/samples';
import type { Views } from '../ledger/views';
import type { IndexedYield } from '../ledger/yield-index';

const MOST = 60;
/** Until a second run was timed. */
const USUAL_MINUTES_PER_KG = 3;

/**
 * Everything winnowing has taught about what is in a tub: sessions, samples, dials, what nibs are worth.
 *
 * @param before a session: only what came before it counts, so that its advice stays what it was when it was weighed
 */
export function winnowPast(views: Views, code: string, before?: string): WinnowPastView {
  const { workshop } = views;
  const holding = workshop.book.byCode(code);
  if (!holding) throw new DomainError('trace/unknown-code', 'Nothing here carries that code.');
  const { lotId, family } = views.dominant(holding.id);
  const all = views.yields.ofFamily('winnow', family);
  const end = before === undefined ? -1 : all.findIndex(({ stepId }) => stepId === before);
  const rows = all.slice(0, end < 0 ? all.length : end).slice(-MOST);
  const sessions = rows.map((row) => sessionOf(row));
  const again = rows.flatMap((row) => secondRuns(row));
  const huskKg = again.reduce((sum, run) => sum + run.huskKg, 0);
  return {
    family,
    lotId,
    sessions,
    offered: offered(sessions, lotId),
    response: fitResponse(sessions.map(({ dials, nibYield }) => ({ dials, value: nibYield }))),
    nibPerKg: nibPrice(views, family, holding.id),
    wagePerHour: workshop.settings.wagePerHour,
    minutesPerKgHusk: huskKg > 0 ? again.reduce((sum, run) => sum + run.minutes, 0) / huskKg : USUAL_MINUTES_PER_KG,
    timed: huskKg > 0,
    currency: workshop.settings.currency,
  };
}

const commandOf = (row: IndexedYield): CommandOf<'winnow'> => row.step?.command as CommandOf<'winnow'>;

function sessionOf(row: IndexedYield): WinnowSession {
  const command = commandOf(row);
  return {
    stepId: row.stepId,
    code: row.code,
    lotId: row.lotId,
    at: row.at,
    nibYield: row.value,
    shell: sampleShare(command.shellSamples ?? [])?.mean ?? null,
    nib: sampleShare(command.nibSamples ?? [])?.mean ?? null,
    dials: command.settings ?? {},
    method: command.method ?? null,
  };
}

function secondRuns(row: IndexedYield): { huskKg: number; minutes: number }[] {
  const { passes = [], huskG } = commandOf(row);
  return passes
    .filter(({ what, minutes }) => what === 'again' && minutes > 0)
    .map(({ minutes, nibsG }) => ({ minutes, huskKg: (huskG + nibsG) / 1000 }));
}

const isSet = ({ dials }: WinnowSession): boolean =>
  Object.values(dials).some((value) => value !== null && value !== undefined);

/** The best setting known for the lot, else for its family: most nibs with no more shell than the ceiling. */
function offered(sessions: readonly WinnowSession[], lotId: string | null): WinnowPastView['offered'] {
  const fit = sessions.filter((row) => isSet(row) && (row.shell === null || row.shell <= SHELL_CEILING));
  const own = fit.filter((row) => row.lotId === lotId);
  const best = (own.length > 0 ? own : fit).reduce<WinnowSession | null>(
    (top, row) => (top === null || row.nibYield > top.nibYield ? row : top),
    null,
  );
  return (
    best && {
      dials: best.dials,
      from: best.code,
      whose: own.length > 0 ? 'this lot' : 'its family',
      method: best.method,
    }
  );
}

/** What a kilogram of nibs of the family cost last, or what the beans in hand would make it cost, major units. */
function nibPrice(views: Views, family: string, holdingId: string): number {
  const { book, valuation } = views.workshop;
  const last = views.yields.ofFamily('winnow', family).at(-1);
  const nibs = last ? book.steps.get(last.stepId)?.slots['good'] : undefined;
  if (nibs !== undefined) return majorFromMilli(valuation.perKgMilli(nibs));
  return majorFromMilli(valuation.perKgMilli(holdingId)) / 0.82;
}
