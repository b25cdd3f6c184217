import { changePour } from '../temper/work';
import { planPour } from '@wunsch/core/temper/plan';
import { normals, seeded } from '@wunsch/core/stats/chance';
import { USUAL_WINDOWS } from '@wunsch/core/temper/windows';
import type { School } from '@wunsch/core/work/tempering';
import { simulatedSilkC } from '@wunsch/core/temper/silk';
import { simulatedPourC } from '@wunsch/core/temper/simulated-pour';
import { POUR_CHANNELS } from '@wunsch/core/temper/channels';
import { logRow } from '../run/logs';
import { seedOf } from '../devices/gauge';
import type { Workshop } from '../journal/workshop';

const MINUTE = 60_000;
/** Pours since then were logged by a probe. */
const LOGGED_MS = 75 * 86_400_000;
const EVERY_S = 5;

/** How a pour of the demo is made, and how its test comes out. */
export interface DemoPour {
  school: School;
  meltC: number;
  coolC: number;
  workC: number;
  test: 'set' | 'slow';
  heldMin: number;
}

/**
 * What hands and machine do with one bowl: the small ones with silk, the others on the machine. For its first half year the
 * machine was set a degree too warm, and half of its pours set slowly; then somebody turned it down.
 *
 * @param early whether it is one of those
 */
export function demoPour(code: string, small: boolean, early: boolean): DemoPour {
  const chance = seeded(seedOf(`pour ${code}`));
  const normal = normals(chance);
  const tenth = (value: number): number => Math.round(10 * value) / 10;
  const isSilk = small || chance() < 0.15;
  const meltC = tenth(47.5 + 0.8 * normal());
  const workC = tenth(31.6 + 0.22 * normal());
  const heldMin = 22 + 16 * chance();
  if (isSilk) return { school: 'silk', meltC, coolC: tenth(33.6 + 0.2 * normal()), workC, test: 'set', heldMin };
  const coolC = tenth((early ? 28.8 : 27.6) + 0.35 * normal());
  // Whether it sets hangs on how far it was cooled, and on what nobody writes down.
  const test = chance() < 1 / (1 + Math.exp(-(28.4 - coolC) / 0.18)) ? 'set' : 'slow';
  return { school: 'machine', meltC, coolC, workC, test, heldMin };
}

/**
 * The log of a pour's probe: baths by Newton's law, a hand that goes a little too far, a probe that lags and slips. It is
 * another physics than the one that pours under way are simulated by.
 */
function logOf({ school, meltC, coolC, workC, heldMin }: DemoPour, seed: number): { second: number; tempC: number }[] {
  const chance = seeded(seed);
  const normal = normals(chance);
  const lagS = 8 + 12 * chance();
  const rows: { second: number; tempC: number }[] = [];
  let [real, probe, second] = [27 + 4 * chance(), 27, 0];
  const tick = (bathC: number, tauMin: number): void => {
    real += (bathC - real) / (60 * tauMin);
    probe += (real - probe) / lagS;
    second += 1;
    if (second % EVERY_S === 0 && chance() > 0.02)
      rows.push({ second, tempC: Math.round(10 * (probe + 0.08 * normal())) / 10 });
  };
  const to = (goalC: number, bathC: number, tauMin: number): void => {
    const up = bathC > real;
    for (let s = 0; s < 5400 && (up ? real < goalC : real > goalC); s += 1) tick(bathC, tauMin);
  };
  const hold = (minutes: number, atC: number): void => {
    for (let s = 0; s < 60 * minutes; s += 1) tick(atC + 0.25 * Math.sin(s / 140), 3);
  };
  to(meltC, meltC + 11, 10);
  hold(8 + 4 * chance(), meltC);
  if (school === 'silk') to(workC, workC - 9, 11);
  else {
    to(coolC, coolC - 10, 9);
    hold(3 + 2 * chance(), coolC);
    to(workC, workC + 6, 6);
  }
  hold(heldMin, workC);
  return rows;
}

/** Keeps the log of a pour that is in the book, where there was a probe by then. */
export function keepPourLog(
  workshop: Workshop,
  pour: DemoPour,
  step: { made: string; code: string; at: number },
  now: number,
): void {
  if (step.at < now - LOGGED_MS) return;
  const rows = logOf(pour, seedOf(`log ${step.code}`)).map(({ second, tempC }) => ({
    at: step.at - 70 * MINUTE + 1000 * second,
    values: [tempC],
  }));
  workshop.addCurve(
    logRow({ id: `pour-${step.made}`, loadId: step.made, name: 'pour', source: 'pour sent 1' }, POUR_CHANNELS, rows),
  );
}

/** Silk that has been held since yesterday, on the simulated probe. */
export function holdSilk(workshop: Workshop, butterId: string, massG: number, now: number): void {
  const startedAt = now - 15.5 * 60 * MINUTE;
  const work = workshop.startWork({
    station: 'temper',
    silk: true,
    sources: [{ holdingId: butterId, massG }],
    machineId: null,
    personId: 'ilse',
    at: new Date(startedAt).toISOString(),
    dueAt: new Date(startedAt + 24 * 60 * MINUTE).toISOString(),
    note: '',
  });
  const rows = [];
  for (let at = startedAt; at < now; at += MINUTE)
    rows.push({ at, values: [simulatedSilkC((at - startedAt) / 1000, seedOf(work.id))] });
  workshop.addCurve(
    logRow({ id: `pour-${work.id}`, loadId: null, name: 'pour', source: 'pour simulated 1' }, POUR_CHANNELS, rows),
  );
}

/** The pour that is on the machine now: planned, followed by the simulated probe since it began. */
export function followPour(workshop: Workshop, workId: string, massG: number, now: number): void {
  const work = workshop.works.get(workId);
  if (!work) return;
  const windows = USUAL_WINDOWS.dark;
  const acts = planPour('machine', { massG, windows, fatShare: 0.4, softShare: 0, roomC: 20 });
  changePour(workshop, workId, (pour) => ({ ...pour, school: 'machine', acts }));
  const rows = [];
  for (let at = work.startedAt; at < now; at += 1000)
    rows.push({ at, values: [simulatedPourC((at - work.startedAt) / 1000, windows, false, seedOf(workId))] });
  workshop.addCurve(
    logRow({ id: `pour-${workId}`, loadId: null, name: 'pour', source: 'pour simulated 1' }, POUR_CHANNELS, rows),
  );
}
