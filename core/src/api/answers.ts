import type { Reads } from './reads';
import type { Problem } from './types';
import type { Asks, Writes } from './writes';

/** All that the server answers: what its document is made from. */
export interface Answers {
  reads: Reads;
  writes: Writes;
  asks: Asks;
  refused: Problem;
}
