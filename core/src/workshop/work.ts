import type { Override } from '../ledger/types';
import type { LiveRoast } from '../work/roasting';
import type { Station } from '../work/stations';
import type { LiveMould } from '../work/moulding';
import type { LivePour } from '../work/tempering';

/** Work under way at a station. */
export interface Work {
  id: string;
  station: Station;
  sources: { holdingId: string; massMg: number; pieces: number }[];
  machineId: string | null;
  personId: string;
  startedAt: number;
  dueAt: number | null;
  note: string;
  /** Hands-on time does not run while it is paused; absent in older work: never paused. */
  pausedAt?: number | null;
  pausedMs?: number;
  /** Sacks opened for it, by number. */
  sacks?: number[];
  /** For a roast that is followed live. */
  roast?: LiveRoast | null;
  /** For a pour: its plan and what was marked; absent: neither. */
  pour?: LivePour;
  /** For moulding: what was filled when, and what pieces weigh; absent: nothing yet. */
  mould?: LiveMould;
  /** Cocoa butter that is held warm until it is silk. */
  silk?: boolean;
  /** Stops that were gone past when it began; absent: none. */
  overrides?: Override[];
}

/** Milliseconds that hands were at a piece of work. */
export const workedMs = (work: Pick<Work, 'startedAt' | 'pausedAt' | 'pausedMs'>, now: number): number =>
  Math.max(0, (work.pausedAt ?? now) - work.startedAt - (work.pausedMs ?? 0));
