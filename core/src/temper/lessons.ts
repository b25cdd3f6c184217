import { FRESH, type Bar, type Crystal } from './crystal';
import { USUAL_WINDOWS, type Windows } from './windows';

/** A temperature in the maker's unit. */
type Show = (celsius: number) => string;

/** A bowl to practise on; nothing of it touches the book. */
export interface Lesson {
  id: string;
  name: string;
  story: (show: Show) => string;
  start: Crystal;
  fatShare: number;
  /** Left out, two kilograms. */
  massKg?: number;
  /** °C by which its soft fats lower the melting points of the crystal. */
  lowerC: number;
  roomC: number;
  windows: Windows;
  /** Seed and silk that are at hand. */
  seed: boolean;
  /** Minutes of the best run known. */
  bestMin: number;
}

const MELTED: Crystal = { tempC: 46, iv: 0, v: 0 };

/** From easy to hard. Their best known minutes were found by search over baths, stirring and times. */
export const LESSONS: readonly Lesson[] = [
  {
    id: 'first',
    name: 'A first bowl',
    story: (show) =>
      `Dark chocolate, melted out at ${show(46)}, in a mild room. Cool it, keep it moving, bring it back, pour.`,
    start: MELTED,
    fatShare: 0.36,
    lowerC: 0,
    roomC: 20,
    windows: USUAL_WINDOWS.dark,
    seed: true,
    bestMin: 4,
  },
  {
    id: 'old-crystal',
    name: 'From a block',
    story: () => 'A block off the shelf, full of old crystal. Melt all of it out first.',
    start: FRESH,
    fatShare: 0.36,
    lowerC: 0,
    roomC: 20,
    windows: USUAL_WINDOWS.dark,
    seed: true,
    bestMin: 17,
  },
  {
    id: 'warm-room',
    name: 'A warm room',
    story: (show) => `${show(30)} in the room, and no seed in the house: the air will not cool it.`,
    start: MELTED,
    fatShare: 0.36,
    lowerC: 0,
    roomC: 30,
    windows: USUAL_WINDOWS.dark,
    seed: false,
    bestMin: 10,
  },
  {
    id: 'thick',
    name: 'Two ingredients, thick',
    story: () => 'Nibs and sugar only: little fat, so that crystal thickens it soon. Do not go too far.',
    start: { ...MELTED, tempC: 48 },
    fatShare: 0.3,
    lowerC: 0,
    roomC: 21,
    windows: USUAL_WINDOWS.dark,
    seed: true,
    bestMin: 4,
  },
  {
    id: 'milk',
    name: 'Milk',
    story: (show) =>
      `Milk fat is soft: its crystal melts two degrees sooner. What is right for a dark bowl is too warm here: work it at ${show(29.5)}.`,
    start: { ...MELTED, tempC: 43 },
    fatShare: 0.34,
    lowerC: 2,
    roomC: 20,
    windows: USUAL_WINDOWS.milk,
    seed: true,
    bestMin: 5,
  },
  {
    id: 'got-away',
    name: 'The pour that got away',
    story: (show) => `Somebody warmed it to ${show(35)}: the seed is gone. Rescue it without melting it all out again.`,
    start: { tempC: 35.2, iv: 0, v: 0.0004 },
    fatShare: 0.36,
    lowerC: 0,
    roomC: 20,
    windows: USUAL_WINDOWS.dark,
    seed: true,
    bestMin: 2,
  },
  {
    id: 'too-thick',
    name: 'Thick in the bowl',
    story: (show) => `It was left at ${show(29)} and has thickened. Bring it back so that it runs and still sets.`,
    start: { tempC: 29, iv: 0, v: 0.085 },
    fatShare: 0.36,
    lowerC: 0,
    roomC: 20,
    windows: USUAL_WINDOWS.dark,
    seed: true,
    bestMin: 4,
  },
];

/** Points of a run, 0 to 100: what the bar is, mostly, and a little for the time it took. */
export function scoreOf({ gloss, snap, release, verdict }: Bar, minutes: number, { bestMin }: Lesson): number {
  const bar = 45 * gloss + 22 * snap + 23 * release;
  const quick = verdict === 'good' ? 10 * Math.min(1, bestMin / Math.max(1, minutes)) : 0;
  return Math.round(bar + quick);
}

export const BAR_WORDS: Readonly<Record<Bar['verdict'], string>> = {
  good: 'In temper: it shines, snaps and leaves its mould.',
  under: 'Under-tempered: soft, streaked, and it will bloom.',
  untempered: 'Not in temper: dull, sticks to its mould, grey within days.',
  over: 'Over-tempered: it sets, but dull, and draws back little.',
  'too thick': 'Too thick to pour: crystal everywhere.',
};
