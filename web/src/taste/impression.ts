import type { Phase, Scale } from '@wunsch/core/taste/records';

/** What stands on a sheet while it is filled. */
export interface Impression {
  colour: number | null;
  shine: number | null;
  snap: number | null;
  cleanBreak: boolean | null;
  atSeam: boolean;
  smell: string[];
  notes: { second: number; phase: Phase; word: string }[];
  scales: Partial<Record<Scale, number>>;
  overall: number | null;
  eatWhen: string;
  note: string;
  pauses: number[];
  /** When the melt began, UTC ms; null: not yet. When it ended, seconds after. */
  meltAt: number | null;
  meltSeconds: number | null;
  phase: Phase;
  /** When a pause with warm water began; null: none runs. */
  pauseAt: number | null;
}

export const EMPTY_IMPRESSION: Impression = {
  colour: null,
  shine: null,
  snap: null,
  cleanBreak: null,
  atSeam: false,
  smell: [],
  notes: [],
  scales: {},
  overall: null,
  eatWhen: '',
  note: '',
  pauses: [],
  meltAt: null,
  meltSeconds: null,
  phase: 'opening',
  pauseAt: null,
};

/** What of it is kept. */
export function sheetOf(impression: Impression) {
  const { meltAt: _, meltSeconds, phase: __, pauseAt: ___, ...rest } = impression;
  return { ...rest, seconds: meltSeconds ?? 0 };
}

/** Another look at the same thing: figures begin where they were, the course of the melt anew. */
export const another = ({ scales, overall, colour, shine }: Impression): Impression => ({
  ...EMPTY_IMPRESSION,
  scales,
  overall,
  colour,
  shine,
});

export const clockWords = (seconds: number): string =>
  `${Math.floor(seconds / 60)}:${String(Math.floor(seconds % 60)).padStart(2, '0')}`;
