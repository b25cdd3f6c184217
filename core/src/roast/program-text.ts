import { celsiusFrom, celsiusTo, type TemperatureUnit } from '../units/temperature';

export interface ProgramStep {
  setC: number;
  minutes: number;
  note: string;
}

/** A whole number at each place: `160 °C ten minutes` is no 16 °C for 0 minutes. Blanks are single by then. */
const LINE =
  /^(-?\d{1,3}(?:[.,]\d+)?)(?!\d|[.,]\d) ?°? ?([CF](?![a-z]))? ?[,;:x×@/-]? ?(\d{1,4}(?:[.,]\d+)?)(?!\d|[.,]\d) ?(?:min(?:utes)?\b|')? ?[,;:-]? ?(.*)$/i;
/** Nobody writes a longer line, and nothing longer is looked at. */
const LONGEST = 400;

const number = (text: string): number => Number(text.replace(',', '.'));

/**
 * Reads a roast program as makers write it, one step a line: `150 °C 6 min load cold beans`.
 *
 * @param unit what a bare number means
 * @returns steps in °C, and the lines (from 1) that could not be read
 */
export function readProgram(text: string, unit: TemperatureUnit): { steps: ProgramStep[]; unreadable: number[] } {
  const steps: ProgramStep[] = [];
  const unreadable: number[] = [];
  text.split('\n').forEach((line, index) => {
    if (line.trim() === '') return;
    const match = line.length > LONGEST ? null : LINE.exec(line.trim().replace(/\s+/g, ' '));
    if (!match?.[1] || !match[3] || number(match[3]) <= 0) {
      unreadable.push(index + 1);
      return;
    }
    const given = match[2]?.toUpperCase() as TemperatureUnit | undefined;
    steps.push({
      setC: celsiusFrom(number(match[1]), given ?? unit),
      minutes: number(match[3]),
      note: (match[4] ?? '').trim(),
    });
  });
  return { steps, unreadable };
}

/** The same program as text again. */
export function writeProgram(steps: readonly ProgramStep[], unit: TemperatureUnit): string {
  return steps
    .map(
      ({ setC, minutes, note }) =>
        `${Math.round(celsiusTo(setC, unit) * 10) / 10} °${unit} ${minutes} min${note === '' ? '' : ` ${note}`}`,
    )
    .join('\n');
}
