import { groupBy } from '../stats/group';
import { sum } from '../stats/spread';

/* How single tasters use their scale: their level, its width, how steady they are, how they drift. */

export interface PanelScore {
  bar: string;
  taster: string;
  session: string;
  /** Place in the order of that round, from 1. */
  place: number;
  /** 0 to 10. */
  score: number;
}

export interface TasterStanding {
  taster: string;
  n: number;
  /** How far over the panel they score, points, pulled towards none. */
  lean: number;
  /** How widely they use the scale: 1 as the panel does. */
  spread: number;
  /** Standard deviation of scores of one bar tasted again; null: tasted nothing again. */
  repeat: number | null;
  /** How their level moved from session to session, points a session; null: fewer than three sessions. */
  drift: number | null;
}

/** Levels and habits, pulled towards the panel's where little is known. */
export function standingOfTasters(rows: readonly PanelScore[], bars: ReadonlyMap<string, number>): TasterStanding[] {
  const byTaster = [...groupBy(rows, ({ taster }) => taster)];
  const raw = byTaster.map(([taster, own]) => {
    const over = own.map(({ bar, score }) => score - (bars.get(bar) ?? 0));
    const lean = sum(over) / own.length;
    const scatter = sum(over.map((x) => (x - lean) ** 2)) / Math.max(1, own.length - 1);
    return { taster, own, lean, error: scatter / own.length };
  });
  const real = Math.max(
    0,
    sum(raw.map(({ lean }) => lean * lean)) / Math.max(1, raw.length - 1) -
      sum(raw.map(({ error }) => error)) / Math.max(1, raw.length),
  );
  return raw.map(({ taster, own, lean, error }) => ({
    taster,
    n: own.length,
    lean: real + error > 0 ? (lean * real) / (real + error) : 0,
    spread: spreadOf(own, bars),
    repeat: repeatOf(own),
    drift: driftOf(own, bars),
  }));
}

/** Slope of a taster's scores over the bars' means, with a prior about one. */
function spreadOf(own: readonly PanelScore[], bars: ReadonlyMap<string, number>): number {
  const xs = own.map(({ bar }) => bars.get(bar) ?? 0);
  const [mx, my] = [sum(xs) / own.length, sum(own.map(({ score }) => score)) / own.length];
  // As sure before as three bars one point from their mean would make it.
  const prior = 3;
  const sxx = sum(xs.map((x) => (x - mx) ** 2));
  const sxy = sum(own.map(({ score }, i) => ((xs[i] ?? 0) - mx) * (score - my)));
  return (sxy + prior) / (sxx + prior);
}

function repeatOf(own: readonly PanelScore[]): number | null {
  // A session's own level is no lack of repeatability.
  const levels = new Map(
    [...groupBy(own, ({ session }) => session)].map(([session, rows]) => [
      session,
      sum(rows.map(({ score }) => score)) / rows.length,
    ]),
  );
  let [squares, dof] = [0, 0];
  for (const cell of groupBy(own, ({ bar }) => bar).values()) {
    if (cell.length < 2) continue;
    const values = cell.map(({ score, session }) => score - (levels.get(session) ?? 0));
    const mean = sum(values) / values.length;
    squares += sum(values.map((value) => (value - mean) ** 2));
    dof += values.length - 1;
  }
  return dof === 0 ? null : Math.sqrt(squares / dof);
}

function driftOf(own: readonly PanelScore[], bars: ReadonlyMap<string, number>): number | null {
  const levels = [...groupBy(own, ({ session }) => session).values()].map(
    (rows) => sum(rows.map(({ bar, score }) => score - (bars.get(bar) ?? 0))) / rows.length,
  );
  const n = levels.length;
  if (n < 3) return null;
  const [mx, my] = [(n - 1) / 2, sum(levels) / n];
  return sum(levels.map((level, i) => (i - mx) * (level - my))) / sum(levels.map((_, i) => (i - mx) ** 2));
}
