import { duesOf, type Act as RunAct, type RunState } from '../run/acts';
import type { RunClock } from '../run/clock';
import { expectedRoaster, type RoasterFit } from './fit';
import { advance, dryBasis, dryingAt, BOUND_WATER, feltC, follower, lagged, PERFECT_PROBE } from './model';
import type { LiveRoast, LoadFacts, Program, ProgramStep, Setting, StartRoast } from './records';
import { airAfter } from './simulate';

/** The clock of a roast. @param startedAt when its load went in, UTC ms */
export const roastClock = ({ speed, seconds }: Pick<LiveRoast, 'speed' | 'seconds'>, startedAt: number): RunClock => ({
  startedAt,
  speed,
  seconds,
});

/** The facts of a load as it goes in, the first setting made. @param curveId where its readings will be kept */
export function beginRoast(start: StartRoast, speed: number, curveId: string): LiveRoast {
  const first = start.plan?.steps[0];
  return {
    ...start,
    settings: first ? [{ second: 0, setC: first.setC, step: 0 }] : [],
    seconds: null,
    signs: [],
    stirs: [],
    curveId,
    speed,
  };
}

/** What a live roast adds to the step that ends it: how it went, and as its program what was really set. */
export function finishRoast(
  { curveId: _c, speed: _s, ...live }: LiveRoast,
  entered: { program: readonly { setC: number; minutes: number; note: string }[] },
  second: number,
): { how: LoadFacts; program: { setC: number; minutes: number; note: string }[] } {
  const seconds = live.seconds ?? second;
  const made = live.settings.map(({ second: from, setC, step }, i): Pick<ProgramStep, 'setC' | 'minutes' | 'note'> => ({
    setC,
    minutes: Math.max(0, Math.round(((live.settings[i + 1]?.second ?? seconds) - from) / 6) / 10),
    note: live.plan?.steps[step]?.note ?? '',
  }));
  return { how: { ...live, seconds }, program: entered.program.length > 0 ? [...entered.program] : made };
}

export interface Whereabouts {
  /** Place in the program; −1 without one. */
  step: number;
  beganS: number;
  setC: number | null;
  /** When the step ends by its minutes; null without a program. */
  endsS: number | null;
}

/** Where in its program a roast stands, by the settings that were made. */
export function whereIn(plan: Pick<Program, 'steps'> | null, settings: readonly Setting[]): Whereabouts {
  const last = settings.at(-1);
  if (!last) return { step: -1, beganS: 0, setC: null, endsS: null };
  const beganS = settings.find(({ step }) => step === last.step)?.second ?? last.second;
  const planned = plan?.steps[last.step];
  return { step: last.step, beganS, setC: last.setC, endsS: planned ? beganS + 60 * planned.minutes : null };
}

export type Act =
  | { what: 'set'; setC: number; note: string }
  /** The end of the program: the load comes out. */
  | { what: 'out' };

export interface NextAct {
  act: Act;
  /** Roast second at which it is due at the latest; null when nothing says. */
  atS: number | null;
  /** What may bring it sooner. */
  sooner: { what: 'bean'; beanC: number } | { what: 'sign'; sign: string } | null;
}

/**
 * A program as the acts of a run, in seconds: each step is set when the one before is over, and at the end the load comes
 * out. A step is over after its minutes, or sooner: its beans are so warm, its sign is noticed.
 */
function programActs({ steps }: Pick<Program, 'steps'>, settings: readonly Setting[]): RunAct[] {
  const last = settings.at(-1)?.step ?? -1;
  const doneAt = (index: number): number | null =>
    index > last ? null : (settings.find(({ step }) => step === index)?.second ?? 0);
  const id = (index: number): string => `step-${index}`;
  return Array.from({ length: steps.length + 1 }, (_, index): RunAct => {
    const before = steps[index - 1];
    if (!before) return { id: id(index), doneAt: doneAt(index), causes: [{ by: 'clock', at: 0 }] };
    const after = id(index - 1);
    const { minutes, until } = before;
    return {
      id: id(index),
      doneAt: doneAt(index),
      causes: [
        { by: 'act', actId: after, then: 60 * minutes },
        ...(until?.what === 'bean'
          ? [{ by: 'reading', channel: 'bean', way: 'up', line: until.beanC, after } as const]
          : until?.what === 'sign'
            ? [{ by: 'sign', sign: until.sign, after } as const]
            : []),
      ],
    };
  });
}

/** What is to be done next; null without a program. */
export function nextAct(plan: Pick<Program, 'steps'> | null, settings: readonly Setting[]): NextAct | null {
  const { step, endsS } = whereIn(plan, settings);
  const current = plan?.steps[step];
  if (!plan || !current) return null;
  const next = plan.steps[step + 1];
  return {
    act: next ? { what: 'set', setC: next.setC, note: next.note } : { what: 'out' },
    atS: endsS,
    sooner: current.until,
  };
}

/** Whether the step is over: its minutes are up, its bean temperature is reached, its sign was noticed. */
export function isDue(
  { plan, settings, signs }: Pick<LiveRoast, 'plan' | 'settings' | 'signs'>,
  second: number,
  beanC: number | null,
): boolean {
  const { step } = whereIn(plan, settings);
  if (!plan?.steps[step]) return false;
  const state: RunState = {
    now: second,
    crossed: (_, __, line) => (beanC !== null && beanC >= line ? { at: second, seen: true } : null),
    noticed: (sign, since) => signs.find((row) => row.what === sign && row.second >= since)?.second ?? null,
  };
  const due = duesOf(programActs(plan, settings), state).get(`step-${step + 1}`)?.at ?? null;
  return due !== null && due <= second;
}

/** The setting that a due step makes; null where the load comes out instead. */
export function nextSetting(live: Pick<LiveRoast, 'plan' | 'settings'>, second: number): Setting | null {
  const { step } = whereIn(live.plan, live.settings);
  const next = live.plan?.steps[step + 1];
  return next ? { second, setC: next.setC, step: step + 1 } : null;
}

/** Roast second of the next stirring; null when none is planned. */
export function nextStirS(everyMin: number | null, stirs: readonly number[]): number | null {
  return everyMin === null ? null : (stirs.at(-1) ?? 0) + 60 * everyMin;
}

export interface Ahead {
  minutes: number[];
  beanC: number[];
  /** Roast second at which the running step is expected to end; at the latest its minutes. */
  stepEndsS: number | null;
  /** Roast second at which the program is expected to be over. */
  outS: number | null;
  endC: number | null;
}

const AHEAD_STEP_MIN = 1 / 6;

/**
 * How a roast goes on from its last reading: the rest of the program through the model, with the water that the curve
 * so far has driven off.
 *
 * @param read seconds and bean temperatures so far, gaps left out; @param airNowC air at the last of them, or null
 */
export function lookAhead(
  live: Pick<LiveRoast, 'plan' | 'settings' | 'layerMm' | 'moisturePct'>,
  massG: number,
  fit: RoasterFit,
  read: { seconds: readonly number[]; beanC: readonly number[] },
  airNowC: number | null,
): Ahead | null {
  const { plan, settings } = live;
  const [lastS, lastC] = [read.seconds.at(-1), read.beanC.at(-1)];
  const where = whereIn(plan, settings);
  if (!plan || lastS === undefined || lastC === undefined || where.step < 0) return null;
  const { air, beans, probe = PERFECT_PROBE } = expectedRoaster(fit, { massG, layerMm: live.layerMm });
  let water = waterLeft(read, dryBasis((live.moisturePct ?? 7) / 100), beans.dryingPerMin);
  let [minute, readC] = [lastS / 60, lastC];
  let airC = airNowC ?? (where.setC === null ? lastC : where.setC - air.underC);
  // What the probe feels, without its lag, and the beans behind that.
  let felt = lastC + probe.lagMin * climbAtEnd(read);
  let beanC = (felt - probe.airShare * airC) / (1 - probe.airShare);
  const ahead: Ahead = { minutes: [minute], beanC: [readC], stepEndsS: null, outS: null, endC: null };
  for (let index = where.step; index < plan.steps.length; index += 1) {
    const step = plan.steps[index];
    if (!step) break;
    const setC = index === where.step ? (where.setC ?? step.setC) : step.setC;
    const endMin = index === where.step ? (where.endsS ?? 0) / 60 : minute + step.minutes;
    const [beganAt, beganC] = [minute, airC];
    const airAt = (at: number): number => airAfter(beganC, setC, at - beganAt, air);
    while (minute < endMin - 1e-9) {
      if (step.until?.what === 'bean' && readC >= step.until.beanC) break;
      const h = Math.min(AHEAD_STEP_MIN, endMin - minute);
      [beanC, water] = advance(beanC, water, minute, h, airAt, beans);
      minute += h;
      airC = airAt(minute);
      const next = feltC(beanC, airC, probe);
      readC = lagged(readC, felt, next, h, probe.lagMin);
      felt = next;
      ahead.minutes.push(minute);
      ahead.beanC.push(readC);
    }
    if (index === where.step) ahead.stepEndsS = minute * 60;
  }
  return { ...ahead, outS: minute * 60, endC: readC };
}

/** How fast the reading rises at the end of what was read, °C a minute, over its last minute. */
function climbAtEnd({ seconds, beanC }: { seconds: readonly number[]; beanC: readonly number[] }): number {
  const last = seconds.length - 1;
  let from = last;
  while (from > 0 && (seconds[last] ?? 0) - (seconds[from] ?? 0) < 60) from -= 1;
  const minutes = ((seconds[last] ?? 0) - (seconds[from] ?? 0)) / 60;
  return minutes > 0.25 ? ((beanC[last] ?? 0) - (beanC[from] ?? 0)) / minutes : 0;
}

/** Water that is left after a logged curve: dX/dt = −k_d(T)(X − X_e), straight between readings. */
function waterLeft(
  read: { seconds: readonly number[]; beanC: readonly number[] },
  start: number,
  dryingPerMin: number,
): number {
  let water = start;
  const bean = follower({ minutes: read.seconds.map((s) => s / 60), tempC: read.beanC });
  for (let i = 1; i < read.seconds.length; i += 1) {
    const [from, to] = [(read.seconds[i - 1] ?? 0) / 60, (read.seconds[i] ?? 0) / 60];
    const rate = dryingAt(bean((from + to) / 2), dryingPerMin);
    water = BOUND_WATER + (water - BOUND_WATER) * Math.exp(-rate * (to - from));
  }
  return water;
}

/**
 * How fast the beans were meant to climb at a moment, °C a minute: the slope of the planned curve around it.
 *
 * @param minutes of the planned curve, rising; @param beanC its temperatures, °C
 * @returns null outside the planned time
 */
export function plannedClimb(minutes: ArrayLike<number>, beanC: ArrayLike<number>, atMin: number): number | null {
  const last = minutes[minutes.length - 1] ?? 0;
  if (atMin < 0.5 || atMin > last - 0.5) return null;
  const at = (x: number): number => {
    let i = 1;
    while (i < minutes.length - 1 && (minutes[i] ?? 0) < x) i += 1;
    const [x0 = 0, x1 = 1, y0 = 0, y1 = 0] = [minutes[i - 1], minutes[i], beanC[i - 1], beanC[i]];
    return y0 + ((y1 - y0) * (x - x0)) / Math.max(1e-9, x1 - x0);
  };
  return at(atMin + 0.5) - at(atMin - 0.5);
}

/** A climb within this of the planned one is as planned: a share, or °C a minute. */
const CLIMB_ALIKE = { share: 0.25, c: 0.4 };

/** Whether beans climb as planned. @param climb, @param planned °C a minute */
export function climbAgainst(
  climb: number,
  planned: number,
): 'as planned' | 'faster than planned' | 'slower than planned' {
  const off = climb - planned;
  if (Math.abs(off) <= Math.max(CLIMB_ALIKE.c, CLIMB_ALIKE.share * Math.abs(planned))) return 'as planned';
  return off > 0 ? 'faster than planned' : 'slower than planned';
}
