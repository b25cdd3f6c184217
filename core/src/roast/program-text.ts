import { celsiusFrom, celsiusTo, type TemperatureUnit } from '../units/temperature';

export interface ProgramStep {
  setC: number;
  minutes: number;
  note: string;
}

const LINE =
  /^\s*(-?\d+(?:[.,]\d+)?)\s*°?\s*([CF])?\s*[,;:x×@/-]?\s*(\d+(?:[.,]\d+)?)\s*(?:min(?:utes)?|')?\s*[,;:-]?\s*(.*)$/i;

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
    const match = LINE.exec(line);
    if (!match?.[1] || !match[3]) {
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
