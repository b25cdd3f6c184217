/** How stored beans are freed of moth, and what the logged core of the sack must keep. */
export const HOLD_METHODS = ['freeze', 'heat', 'roast'] as const;
export type HoldMethod = (typeof HOLD_METHODS)[number];

export interface HoldPlan {
  method: HoldMethod;
  /** Core temperature to reach: at or under it for `freeze`, at or over it for `heat`, °C. */
  thresholdC: number;
  hours: number;
  /** After a break the hours begin at nothing again; else they go on from where they were. */
  restart: boolean;
  /** Readings further apart than this say nothing about the time between them, h. */
  maxGapHours: number;
}

/** Usual figures; the maker's food-safety plan decides, and both can be changed. */
export const USUAL_HOLD: Record<HoldMethod, HoldPlan> = {
  freeze: { method: 'freeze', thresholdC: -18, hours: 168, restart: true, maxGapHours: 12 },
  heat: { method: 'heat', thresholdC: 55, hours: 24, restart: true, maxGapHours: 2 },
  roast: { method: 'roast', thresholdC: 0, hours: 0, restart: false, maxGapHours: 0 },
};

export interface CoreReading {
  /** UTC ms. */
  at: number;
  tempC: number;
}

export interface HoldClock {
  /** Hours that count towards the plan. */
  hours: number;
  /** 0 to 1. */
  share: number;
  done: boolean;
  /** When the hours were reached, UTC ms. */
  doneAt: number | null;
  /** The core keeps the temperature at the newest reading. */
  holding: boolean;
  /** Reached at the earliest if it keeps from the newest reading on, UTC ms; null while it does not hold. */
  expectedAt: number | null;
  /** Times at which the clock stood: too warm (too cool), or nothing logged. */
  breaks: { from: number; to: number; why: 'temperature' | 'gap'; lostHours: number }[];
  /** Stretches that count, UTC ms. */
  kept: { from: number; to: number }[];
}

const HOUR_MS = 3_600_000;

/** Readings in order, one a moment: of two that contradict each other the one that keeps the plan less counts. */
function unsafest(readings: readonly CoreReading[], over: (tempC: number) => number): CoreReading[] {
  const byMoment = new Map<number, CoreReading>();
  for (const row of readings) {
    const other = byMoment.get(row.at);
    if (!other || over(row.tempC) < over(other.tempC)) byMoment.set(row.at, row);
  }
  return [...byMoment.values()].sort((a, b) => a.at - b.at);
}

/**
 * The clock of a freeze or heat hold: it runs only while the logged core temperature keeps the plan.
 *
 * Between two readings the core is taken to move in a straight line, so a crossing counts from where the line
 * crosses. A gap longer than `maxGapHours` counts for nothing, but proves no thaw either: only a reading that
 * breaks the plan makes a restarting clock begin again. Once reached, the hours stay reached. Of two readings of one
 * moment the unsafer counts.
 *
 * @param readings any order; @param plan not `roast`, which has no clock
 */
export function holdClock(readings: readonly CoreReading[], plan: HoldPlan): HoldClock {
  const over = (tempC: number): number => (plan.method === 'heat' ? tempC - plan.thresholdC : plan.thresholdC - tempC);
  const rows = unsafest(readings, over);
  const clock: HoldClock = {
    hours: 0,
    share: 0,
    done: false,
    doneAt: null,
    holding: false,
    expectedAt: null,
    breaks: [],
    kept: [],
  };
  const needMs = plan.hours * HOUR_MS;
  let ms = 0;
  const keep = (from: number, to: number): void => {
    if (to <= from) return;
    const last = clock.kept.at(-1);
    if (last && last.to === from) last.to = to;
    else clock.kept.push({ from, to });
    if (clock.doneAt === null && ms + (to - from) >= needMs) clock.doneAt = from + (needMs - ms);
    ms += to - from;
  };
  const lose = (from: number, to: number, why: 'temperature' | 'gap'): void => {
    const lostHours = why === 'temperature' && plan.restart && clock.doneAt === null ? ms / HOUR_MS : 0;
    const last = clock.breaks.at(-1);
    if (last && last.to === from && last.why === why) {
      last.to = to;
      last.lostHours += lostHours;
    } else clock.breaks.push({ from, to, why, lostHours });
    if (why === 'temperature' && plan.restart && clock.doneAt === null) ms = 0;
  };
  for (let i = 1; i < rows.length; i += 1) {
    const a = rows[i - 1];
    const b = rows[i];
    if (!a || !b) continue;
    const [x, y] = [over(a.tempC), over(b.tempC)];
    const gap = b.at - a.at > plan.maxGapHours * HOUR_MS;
    if (gap) {
      lose(a.at, b.at, 'gap');
      if (y < 0) lose(b.at, b.at, 'temperature');
    } else if (x >= 0 && y >= 0) keep(a.at, b.at);
    else if (x < 0 && y < 0) lose(a.at, b.at, 'temperature');
    else {
      const cross = a.at + ((b.at - a.at) * x) / (x - y);
      if (x >= 0) {
        keep(a.at, cross);
        lose(cross, b.at, 'temperature');
      } else {
        lose(a.at, cross, 'temperature');
        keep(cross, b.at);
      }
    }
  }
  const newest = rows.at(-1);
  clock.holding = newest !== undefined && over(newest.tempC) >= 0;
  clock.done = clock.doneAt !== null;
  clock.hours = clock.done ? Math.max(plan.hours, ms / HOUR_MS) : ms / HOUR_MS;
  clock.share = clock.done ? 1 : needMs === 0 ? 0 : Math.min(1, ms / needMs);
  clock.expectedAt = clock.done || !clock.holding || !newest ? null : newest.at + (needMs - ms);
  return clock;
}
