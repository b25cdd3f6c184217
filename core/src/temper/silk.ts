import { DomainError } from '../errors/domain-error';
import { CODE_LETTERS, Planner, type PlanContext, type StepPlan } from '../ledger/planner';
import type { SilkCommand } from './commands';
import { normals, seeded } from '../stats/chance';
import { formatDegrees, formatTemperature, type TemperatureUnit } from '../units/temperature';
import { toMg } from '../units/mass';
import type { TemperReading } from './judge';

/**
 * How silk is made: cocoa butter melted out, cooled, and held just under the melting point of its stable crystal for a
 * day, until it is a paste. Under the hold it sets hard, over it the crystal melts out.
 */
export const SILK = { meltC: 45, holdC: 33.6, fromC: 32.8, toC: 34.2, lostC: 34.8, hours: 20, keepsDays: 90 } as const;

/** Cocoa butter from the pantry becomes silk, under a code of its own. */
export function planSilk(command: SilkCommand, context: PlanContext): StepPlan {
  const planner = new Planner(context);
  const mg = planner.take(command.sources, ['ingredient']);
  const materials = command.sources.map(({ holdingId }) => context.book.holding(holdingId).materialId ?? '');
  materials.forEach((materialId, index) => {
    if (materialId !== '' && context.material(materialId).cocoa === 'butter') return;
    throw new DomainError('temper/no-butter', 'Silk is made of cocoa butter and of nothing else.', [
      { path: `sources.${index}.holdingId`, message: 'is no cocoa butter' },
    ]);
  });
  const [materialId = ''] = materials;
  const { name } = context.material(materialId);
  planner.make(
    'good',
    {
      kind: 'ingredient',
      letter: CODE_LETTERS.pantry,
      name: /^silk\b/i.test(name) ? name : `Silk of ${name}`,
      place: 'pantry',
      materialId,
    },
    command.outG === undefined ? mg : toMg(command.outG),
  );
  planner.explainRest('hold-up', 'outG');
  return planner.plan('temper', null);
}

/** Where a silk run stands. */
export interface SilkNow {
  phase: 'melting' | 'cooling' | 'holding' | 'ready' | 'cold' | 'lost';
  sentence: string;
  todo: string;
  /** Hours at the hold since it was last melted out. */
  heldH: number;
  /** Mean temperature of the hold, °C; null before it. */
  heldC: number | null;
}

/**
 * What a silk run wants next.
 *
 * The hours count only while it is within the hold; once it was warm enough for the crystal to melt out, they begin again.
 *
 * @param readings seconds since it began; @returns null without a reading
 */
export function silkNow(readings: readonly TemperReading[], unit: TemperatureUnit = 'C'): SilkNow | null {
  const last = readings.at(-1);
  if (!last) return null;
  const show = (c: number): string => formatTemperature(c, unit);
  const melted = readings.findIndex(({ tempC }) => tempC >= SILK.meltC - 1);
  let heldS = 0;
  let heat = 0;
  let lostAt = -1;
  let isHeld = false;
  for (let i = Math.max(0, melted) + 1; i < readings.length; i += 1) {
    const [before, now] = [readings[i - 1], readings[i]];
    if (!before || !now || melted < 0) continue;
    if (now.tempC > SILK.lostC) {
      if (heldS > 0) lostAt = i;
      heldS = 0;
      heat = 0;
    } else if (now.tempC >= SILK.fromC && now.tempC <= SILK.toC) {
      heldS += now.second - before.second;
      heat += now.tempC * (now.second - before.second);
      isHeld = true;
    }
  }
  const heldH = heldS / 3600;
  const heldC = heldS > 0 ? heat / heldS : null;
  const base = { heldH, heldC };
  const t = last.tempC;
  const hold = `${show(SILK.fromC)} to ${show(SILK.toC)}`;
  if (melted < 0)
    return {
      ...base,
      phase: 'melting',
      sentence: `${formatDegrees(Math.max(0, SILK.meltC - t), unit)} to go until it is melted out.`,
      todo: `All of it clear, at ${show(SILK.meltC)} or more.`,
    };
  if (t > SILK.toC)
    return lostAt >= 0 && t > SILK.lostC
      ? {
          ...base,
          phase: 'lost',
          sentence: `${show(t)}: the crystal has melted out, its hours begin again.`,
          todo: `Bring it down to ${show(SILK.holdC)} and hold it there from the beginning.`,
        }
      : {
          ...base,
          phase: 'cooling',
          sentence: `${formatDegrees(t - SILK.holdC, unit)} over the hold${isHeld ? ': take the heat down' : ''}.`,
          todo: `Down to ${show(SILK.holdC)}; past ${show(SILK.lostC)} the crystal melts out.`,
        };
  if (heldH >= SILK.hours)
    return {
      ...base,
      phase: 'ready',
      sentence: `Held for ${heldH.toFixed(0)} h: it should be a soft, cloudy paste.`,
      todo: 'Looks like mayonnaise: stir it through and take it off. Still clear: a little cooler, and some hours more.',
    };
  return t < SILK.fromC
    ? {
        ...base,
        phase: 'cold',
        sentence: `${formatDegrees(SILK.fromC - t, unit)} under the hold: it sets hard.`,
        todo: `Warm it gently to ${hold}; these hours do not count.`,
      }
    : {
        ...base,
        phase: 'holding',
        sentence: `In its hold: ${(SILK.hours - heldH).toFixed(heldH > SILK.hours - 2 ? 1 : 0)} h more.`,
        todo: 'Leave it closed; a stir now and then makes the paste even.',
      };
}

const MELT_S = 40 * 60;
const OUT_S = 60 * 60;
const FALL_TAU_S = 35 * 60;

/**
 * What a made-up probe in a made-up warm box says: melted out, left to fall, then kept by a thermostat that swings, with
 * the door opened now and then.
 */
export function simulatedSilkC(second: number, seed: number): number {
  const noise = 0.06 * normals(seeded(seed + Math.floor(second / 60)))();
  const read = (c: number): number => Math.round(10 * (c + noise)) / 10;
  if (second < MELT_S) return read(21 + (46.5 - 21) * (second / MELT_S));
  if (second < OUT_S) return read(46.5);
  const fallen = SILK.holdC + (46.5 - SILK.holdC) * Math.exp(-(second - OUT_S) / FALL_TAU_S);
  const swing = 0.22 * Math.sin((2 * Math.PI * second) / 2900);
  // Somebody looks in: the air falls for a quarter of an hour.
  const hour = Math.floor(second / 3600);
  const opened =
    seeded(seed + 7919 * hour)() < 0.12 ? 0.5 * Math.exp(-(((second % 3600) - 600) ** 2) / (2 * 400 ** 2)) : 0;
  return read(fallen + swing - opened);
}
