import type { BenchView, DueItem, HoldingView } from '@wunsch/core/api/types';
import type { Work } from '@wunsch/core/workshop/work';
import type { ThingWordsOf } from './thing-words';
import type { Views } from './views';

/** Work under way as the due line speaks of it. */
export interface WorkDue {
  work: Work;
  /** Code of what went in first, and where the work is on screen. */
  code: string;
  link: string;
}

/** One room as the floor knows it: `areas.ts` is the registry. */
export interface Area {
  /** What is to be done of its work when that is due. */
  workWords?: (work: Work) => string;
  /** What its work asks for in more detail; none: the words above at the time that was foreseen. */
  workDue?: (views: Views, due: WorkDue) => DueItem[];
  /** What else needs a person there. */
  due?: (views: Views) => DueItem[];
  /** Milligrams in its machines that are no work under way. */
  workingMg?: (views: Views) => number;
  /** How what goods can have in common by its steps is called, by its kinds. */
  things?: Readonly<Record<string, ThingWordsOf>>;
  /** What its bench shows beside what every bench does. @param here what waits there */
  bench?: (views: Views, here: readonly HoldingView[]) => Partial<BenchView>;
}
