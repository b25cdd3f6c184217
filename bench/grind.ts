import { forecastGrind } from '@wunsch/core/grind/forecast';
import { evidenceOf, priorFrom } from '@wunsch/core/grind/prior';
import { tonight } from '@wunsch/core/grind/tonight';
import type { Note } from './table';

const median = (values: readonly number[]): number =>
  [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)] ?? 0;

const populations = [
  { solid: 'cocoa' as const, atH: 0 },
  { solid: 'sugar' as const, atH: 8 },
];
const readings = [
  [14, 68],
  [24, 45],
  [36, 30],
].map(([atH = 0, micron = 0]) => ({ kind: 'gauge' as const, atH, micron }));

/** What one forecast of a grind costs, and what a machine of ten years teaches. */
export function grindSums(note: Note): void {
  const past = Array.from({ length: 60 }, (_, index) => ({
    populations,
    readings: [...readings, { kind: 'gauge' as const, atH: 50 + (index % 7), micron: 19 + (index % 3) }],
    massG: 9000 + 100 * (index % 20),
    group: String(index % 4),
  }));
  const timed = (work: () => void, times: number): number =>
    median(
      Array.from({ length: times }, () => {
        const began = performance.now();
        work();
        return performance.now() - began;
      }),
    );
  const prior = priorFrom(past.map(evidenceOf), 10_000, '1');
  const asked = { populations, readings, targetMicron: 20, prior, nowH: 37 };
  note(
    'grind forecast, median',
    timed(() => forecastGrind(asked), 15),
    100,
    'ms',
  );
  note(
    'grind forecast with its hours and next reading, median',
    timed(
      () =>
        tonight({
          ...asked,
          prior: { ...prior, getsUnder: null },
          batchId: '',
          code: '',
          machine: null,
          now: Date.UTC(2026, 10, 25, 18),
          startedAt: 0,
          running: true,
          attended: { fromMin: 420, toMin: 1080, days: [1, 2, 3, 4, 5, 6] },
          unattended: true,
          timeZone: 'Europe/Lisbon',
          state: 'grinding',
          planned: [],
          acts: [],
          assumed: [],
          conche: { nowH: 37, tastes: [], astringency: [], aroma: [], heat: [], prior: null, past: [] },
        }),
      15,
    ),
    100,
    'ms',
  );
  note(
    'what sixty finished grinds teach, with reading them, median',
    timed(() => priorFrom(past.map(evidenceOf), 10_000, '1'), 9),
    300,
    'ms',
  );
}
