import type { ActKind } from '../ledger/types';
import { clockText, dayText, localIn } from '../units/zone';
import { ACTS } from './acts';
import {
  hoursAt,
  isAttended,
  lastAttended,
  momentOf,
  nextAttended,
  type Attended,
  type LocalTime,
} from '../run/attended';
import { forecastOf, type GrindStudy } from './tonight';

export interface MoveEffect {
  sentence: string;
  /** When it is at target, half the time sooner, UTC ms; null: not foreseen. */
  before: number | null;
  after: number | null;
}

const HOUR_MS = 3_600_000;

/**
 * What moving an act does to the end of a grind, in words: late sugar starts coarse, lifted stones grind no more, the
 * lid changes nothing that is counted with. Two forecasts, some tens of milliseconds each.
 *
 * @param toAt the moment it would be done, UTC ms
 */
export function effectOfMoving(
  study: GrindStudy,
  act: { id: string; kind: ActKind; what: string },
  toAt: number,
): MoveEffect {
  const { now, nowH, unattended, attended, timeZone, targetMicron } = study;
  const local = localIn(timeZone);
  const clock = { at: now, hours: nowH };
  const end = (moved: GrindStudy): number | null => momentOf(forecastOf(moved).p50, clock, unattended, attended, local);
  const before = end(study);
  const said = (at: number): string =>
    `${dayText(at, timeZone) === dayText(now, timeZone) ? '' : `${dayText(at, timeZone)} `}${clockText(at, timeZone).slice(11)}`;
  const { solid } = ACTS[act.kind];
  if (solid !== null && study.planned.some(({ actId }) => actId === act.id)) {
    const after = end({
      ...study,
      planned: study.planned.map((row) => (row.actId === act.id ? { ...row, at: Math.max(now, toAt) } : row)),
    });
    return { before, after, sentence: endWords(before, after, targetMicron, said) };
  }
  if (act.kind === 'stones-up') {
    const { p50 } = forecastOf(study).micronBy(hoursAt(toAt, clock, unattended, attended, local));
    return {
      before,
      after: p50 <= targetMicron + 0.5 ? toAt : null,
      sentence:
        p50 <= targetMicron + 0.5
          ? `By then it is at about ${p50.toFixed(0)} µm: it stays there.`
          : `By then it is at about ${p50.toFixed(0)} µm, not at ${targetMicron} µm, and it stays there.`,
    };
  }
  return { before, after: before, sentence: 'Does not move the end: nothing to be ground goes in with it.' };
}

function endWords(
  before: number | null,
  after: number | null,
  targetMicron: number,
  said: (at: number) => string,
): string {
  if (after === null) return `It would not be at ${targetMicron} µm within three weeks.`;
  if (before === null) return `At ${targetMicron} µm about ${said(after)}.`;
  const hours = (after - before) / HOUR_MS;
  if (Math.abs(hours) < 0.25) return `The end stays: at ${targetMicron} µm about ${said(after)}.`;
  return `At ${targetMicron} µm about ${said(after)}, ${Math.abs(hours).toFixed(1)} h ${hours > 0 ? 'later' : 'sooner'}.`;
}

/** Times for an act that falls due while nobody is there: before they leave, and when they come. */
export interface NightChoice {
  before: number | null;
  after: number;
}

/** When an act of the night can be done. @returns null where somebody is there, or it is past */
export function nightChoice(dueAt: number, now: number, attended: Attended, local: LocalTime): NightChoice | null {
  if (dueAt <= now || isAttended(attended, local(dueAt))) return null;
  return { before: lastAttended(dueAt, now, attended, local), after: nextAttended(dueAt, attended, local) };
}
