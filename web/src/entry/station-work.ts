import type { Nearby } from '@wunsch/core/entry/doubt';
import type { BenchView, WorkView } from '@wunsch/core/api/types';
import type { Command } from '@wunsch/core/commands';
import type { Fields } from './entry';
import type { Part } from './MassBar';

/** How work splits what went in, for the running sum under its weights: what `StepForm` takes. */
export interface WorkSum {
  parts: (values: Record<string, unknown>) => Part[];
  /** What the rest is called, and how it is to be taken. */
  restName: string;
  restTone: Part['tone'];
}

/** What a station says of its work: the engine of an entry knows no station by name. */
export interface StationWork {
  kind: Command['kind'];
  verbs: { start: string; finish: string; oneGo: string };
  sum: WorkSum;
  /** Fields that the next entry takes from the last one. */
  keeps?: readonly { name: string; unit?: 'g' }[];
  /** What stands in the fields of work that is weighed out, or of an entry in one go. */
  begins?: (work: WorkView | undefined) => Fields;
  /** Whether ingredients join from the pantry; bought chocolate may be worked like one's own. */
  pantry?: 'joins' | 'joins, and is worked';
  /** What figures are held against when they are eight times off. */
  past?: (view: BenchView) => Nearby;
  /** Work takes no longer than so many minutes of somebody's hands. */
  mostMinutes?: number;
}

/** Grams of a figure that was read, as milligrams; nothing where none was. */
export const milligrams = (value: unknown): number => (typeof value === 'number' ? value * 1000 : 0);
