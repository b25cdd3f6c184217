import { formatMass } from '../units/mass';
import { celsiusFrom, celsiusTo, formatTemperature, type TemperatureUnit } from '../units/temperature';
import type { Program, ProgramStep, RoasterFacts, Setting } from './records';

/** Longest a program may run, minutes. */
export const programMinutes = (steps: readonly Pick<ProgramStep, 'minutes'>[]): number =>
  steps.reduce((sum, { minutes }) => sum + minutes, 0);

/** Set temperatures as planned, if every step lasts its minutes; seconds. */
export function plannedSettings({ steps }: { steps: readonly Pick<ProgramStep, 'setC' | 'minutes'>[] }): Setting[] {
  let second = 0;
  return steps.map(({ setC, minutes }, step) => {
    const row = { second, setC, step };
    second += minutes * 60;
    return row;
  });
}

const round = (value: number, step: number): number => Math.round(value / step) * step;

/**
 * A step taken warmer or cooler, as the line is dragged: to the nearest degree, inside what any roaster does.
 *
 * @param unit whose whole degrees count
 */
export const withSetting = (
  steps: readonly ProgramStep[],
  index: number,
  setC: number,
  unit: TemperatureUnit = 'C',
): ProgramStep[] => {
  const whole = celsiusFrom(round(celsiusTo(setC, unit), 1), unit);
  return steps.map((step, i) => (i === index ? { ...step, setC: Math.min(300, Math.max(20, whole)) } : step));
};

/** A step's end moved to another minute: to the nearest quarter, at least one; what comes after moves with it. */
export function withEnd(steps: readonly ProgramStep[], index: number, endMin: number): ProgramStep[] {
  const before = programMinutes(steps.slice(0, index));
  return steps.map((step, i) =>
    i === index ? { ...step, minutes: Math.min(600, Math.max(0.25, round(endMin - before, 0.25))) } : step,
  );
}

/** A step halved, so that its second half can be set on its own. */
export function withSplit(steps: readonly ProgramStep[], index: number): ProgramStep[] {
  return steps.flatMap((step, i) => {
    if (i !== index) return [step];
    const first = Math.max(0.25, round(step.minutes / 2, 0.25));
    return [
      { ...step, minutes: first, until: null },
      { ...step, minutes: Math.max(0.25, step.minutes - first), note: '' },
    ];
  });
}

export const without = (steps: readonly ProgramStep[], index: number): ProgramStep[] =>
  steps.length === 1 ? [...steps] : steps.filter((_, i) => i !== index);

/** Grams of beans that a cubic centimetre of their layer holds. */
const BULK = 0.6;

/**
 * Depth of the layer, mm.
 *
 * @param loadG grams in the roaster
 * @returns null where trays and their area are not known
 */
export function layerOf(loadG: number, roaster: Pick<RoasterFacts, 'trays' | 'trayCm2'> | null): number | null {
  if (!roaster || roaster.trays === null || roaster.trayCm2 === null) return null;
  return (10 * loadG) / (roaster.trays * roaster.trayCm2 * BULK);
}

/** Depth of a layer in words. @param layerMm as `layerOf` gives it */
export const layerWords = (layerMm: number): string =>
  layerMm < ONE_BEAN_MM ? 'less than one bean deep' : `${Math.round(layerMm)} mm deep`;

const ONE_BEAN_MM = 10;

/** What is wrong with a plan for a roaster, in words; empty when nothing is. @param units that the maker reads */
export function checkProgram(
  { loadG, steps, preheatC }: Pick<Program, 'loadG' | 'steps' | 'preheatC'>,
  roaster: { name: string; minG: number | null; maxG: number | null } | null,
  { massSystem, temperatureUnit }: Units = { massSystem: 'metric', temperatureUnit: 'C' },
): string[] {
  const words: string[] = [];
  const mass = (grams: number): string => formatMass(1000 * grams, massSystem);
  if (roaster?.maxG != null && loadG > roaster.maxG)
    words.push(`${mass(loadG)} is more than ${roaster.name} really carries (${mass(roaster.maxG)}).`);
  if (roaster?.minG != null && loadG < roaster.minG)
    words.push(`${mass(loadG)} is less than ${roaster.name} roasts evenly (${mass(roaster.minG)}).`);
  const hot = steps.findIndex(({ setC }) => setC > CHARS_C);
  if (hot >= 0)
    words.push(
      `Step ${hot + 1} is over ${formatTemperature(CHARS_C, temperatureUnit)}: husk chars and catches fire. Stay beside it.`,
    );
  if (programMinutes(steps) > 180) words.push('It runs longer than three hours.');
  if (preheatC < 40) words.push('The roaster goes in cold: the first minutes will differ from load to load.');
  return words;
}

/** Warmer than this, husk chars. */
const CHARS_C = 200;

interface Units {
  massSystem: 'metric' | 'imperial';
  temperatureUnit: TemperatureUnit;
}
