import type { SameResult, SameTest } from '../taste/same';

/** A test of whether two are the same, read. */
export interface SameTestView {
  id: string;
  at: number;
  person: string;
  test: SameTest;
  a: string;
  b: string;
  tasters: number;
  tries: number;
  right: number;
  note: string;
  result: SameResult;
}
