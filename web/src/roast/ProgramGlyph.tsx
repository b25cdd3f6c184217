import { plannedSettings, programMinutes } from '@wunsch/core/roast/program';
import type { ProgramStep } from '@wunsch/core/roast/records';

const [WIDTH, HEIGHT] = [72, 40];
const [COOL, HOT] = [90, 200];

/** A program as stairs, small: all at one scale of temperature, each at its own of time. */
export function ProgramGlyph({ steps }: { steps: readonly ProgramStep[] }) {
  const total = Math.max(1, programMinutes(steps));
  const y = (setC: number): number =>
    HEIGHT - 3 - ((Math.min(HOT, Math.max(COOL, setC)) - COOL) / (HOT - COOL)) * (HEIGHT - 6);
  const at = (minute: number): string => ((WIDTH * minute) / total).toFixed(1);
  const path = plannedSettings({ steps })
    .map(({ second, setC }, i) => {
      const from = second / 60;
      return `${i === 0 ? 'M' : 'L'}${at(from)},${y(setC).toFixed(1)}H${at(from + (steps[i]?.minutes ?? 0))}`;
    })
    .join('');
  return (
    <svg width={WIDTH} height={HEIGHT} aria-hidden className="mt-1 shrink-0">
      <path d={`${path}V${HEIGHT}H0Z`} fill="var(--leaf)" opacity="0.14" />
      <path d={path} fill="none" stroke="var(--leaf)" strokeWidth="2.5" />
    </svg>
  );
}
