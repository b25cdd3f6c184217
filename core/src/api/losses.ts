import type { LossRow, WhatIf } from '../losses/losses';
import type { UsualDifference } from '../ledger/stock-take';
import type { Individuals, Signal } from '../stats/individuals';
import type { Dials, Response } from '../winnow/response';
import type { Station } from '../work/stations';
import type { HoldingView } from './types';

export type LossMetric = 'yield' | 'unaccounted';

export interface LossWatch {
  station: Station;
  metric: LossMetric;
  machineId: string | null;
  machine: string | null;
  sentence: string;
  /** When it likely began, UTC ms. */
  at: number;
}

export interface LossBookView {
  from: number;
  to: number;
  months: number;
  family: string | null;
  families: string[];
  /** Stations whose yield is watched, in the order of the work. */
  watched: Station[];
  way: LossRow[];
  /** Cacao in bars over green beans, by the way. */
  beanToBar: number | null;
  whatIf: WhatIf[];
  unaccounted: { station: Station; massMg: number; share: number; milli: number }[];
  byFamily: { family: string; yields: { station: Station; value: number; steps: number }[] }[];
  watch: LossWatch[];
}

export interface SeriesPoint {
  stepId: string;
  code: string;
  at: number;
  family: string;
  /** As it was, and as it would be if all families had the same level. */
  value: number;
  level: number;
  signal: Signal | null;
}

export interface SeriesView {
  station: Station;
  metric: LossMetric;
  family: string | null;
  machineId: string | null;
  machines: { id: string; name: string }[];
  families: string[];
  points: SeriesPoint[];
  chart: Individuals | null;
  change: {
    kind: 'step' | 'drift';
    at: number;
    lowAt: number;
    highAt: number;
    index: number;
    change: number;
    code: string;
  } | null;
  sentence: string;
  todo: string | null;
}

export interface WinnowSession {
  stepId: string;
  code: string;
  lotId: string | null;
  at: number;
  nibYield: number;
  /** Mean shares of the samples picked; null where none were. */
  shell: number | null;
  nib: number | null;
  dials: Dials;
  method: string | null;
}

export interface WinnowPastView {
  family: string;
  lotId: string | null;
  sessions: WinnowSession[];
  /** Dials of the best session on this lot, or on its family, with at most the ceiling of shell. */
  offered: { dials: Dials; from: string; whose: 'this lot' | 'its family'; method: string | null } | null;
  response: Response;
  nibPerKg: number;
  wagePerHour: number;
  /** Minutes that running a kilogram of husk again takes here, and whether that was ever timed. */
  minutesPerKgHusk: number;
  timed: boolean;
  currency: string;
}

export interface StockTakeRow {
  holding: HoldingView;
  usual: UsualDifference | null;
}
