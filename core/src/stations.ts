/* The registry of the stations: what each plans, and where each says stop. */

import { planDry, planReceive } from './beans/receive';
import { chargeGates, readingGates } from './grind/gates';
import { begins, type Asked, type Gate, type GateContext } from './gates/gate';
import { planCharge, planDischarge, planReading } from './grind/grind';
import { checkReturns, planAdjust, planBuy, planReturn, planSell } from './money/trade';
import { mouldGates } from './mould/gates';
import { planMould } from './mould/mould';
import { boughtThings } from './money/things';
import { planOpen } from './money/opening';
import { packGates } from './pack/gates';
import { planPack } from './pack/pack';
import { restGates } from './rest/gates';
import { planRest } from './rest/rest';
import { planRoast } from './roast/roast';
import { checkPiles } from './sort/piles';
import { planSort } from './sort/sort';
import { planTaste } from './taste/taste';
import { temperGates } from './temper/gates';
import { planSilk } from './temper/silk';
import { planRemelt, planTemper } from './temper/temper';
import { planWinnow } from './winnow/winnow';
import { station as beans } from './beans/station';
import { station as grind } from './grind/station';
import { station as mould } from './mould/station';
import { station as pack } from './pack/station';
import { station as rest } from './rest/station';
import { station as roast } from './roast/station';
import { station as sort } from './sort/station';
import { station as taste } from './taste/station';
import { station as temper } from './temper/station';
import { station as winnow } from './winnow/station';
import type { StartWork } from './work/start';
import type { StationFacts, StationYield } from './workshop/station';
import type { StepMarks } from './workshop/mark';
import type { StepThings } from './workshop/things';
import type { Work } from './workshop/work';
import type { Marking } from './trace/marks';
import { isStation, STATIONS, type Place, type Station } from './work/stations';
import type { Book } from './ledger/book';
import type { HoldingKind, Step, StepKind } from './ledger/types';
import type { Settings } from './workshop/schemas';
import type { Command, CommandOf } from './commands';
import type { PlanContext, StepPlan } from './ledger/planner';

const FACTS: Readonly<Record<Station, StationFacts>> = {
  beans,
  sort,
  roast,
  winnow,
  grind,
  rest,
  temper,
  mould,
  pack,
  taste,
};

/** What can be taken to a station's bench. */
export const acceptsOf = (station: Station): readonly HoldingKind[] => FACTS[station].accepts;

/** Whether goods wait at a station's bench wherever they stand. */
export const waitsAt = (station: Station, kind: HoldingKind): boolean => FACTS[station].waits?.includes(kind) ?? false;

/** Whether goods are in a machine of the station where they stand. */
export const isInMachine = ({ place, kind }: { place: Place; kind: HoldingKind }): boolean =>
  isStation(place) && (FACTS[place].machines?.includes(kind) ?? false);

/** The step that a piece of work becomes when it is finished; undefined where none can be under way. */
export const endsAs = ({ station, silk }: { station: Station; silk?: boolean | undefined }): StepKind | undefined =>
  silk === true ? 'silk' : FACTS[station].ends;

/** Stations whose yield is watched, in the order of the work. */
export const YIELDS: readonly (StationYield & { station: Station })[] = STATIONS.flatMap((station) => {
  const { yields } = FACTS[station];
  return yields ? [{ ...yields, station }] : [];
});

/** Stations that grams go through on their way from the first such yield to the last; later they are pieces. */
export const WAY: readonly Station[] = between(YIELDS.at(0)?.station, YIELDS.at(-1)?.station);

function between(from: Station | undefined, to: Station | undefined): readonly Station[] {
  return from === undefined || to === undefined ? [] : STATIONS.slice(STATIONS.indexOf(from), STATIONS.indexOf(to) + 1);
}

/** What is known of the yield of a kind of step; undefined where none is watched. */
export const yieldOf = (step: StepKind): StationYield | undefined => YIELDS.find((row) => row.step === step);

/** How steps and stops mark goods. */
export const MARKING: Marking = {
  steps: new Map(STATIONS.flatMap((station) => Object.entries(FACTS[station].marks ?? {}) as [StepKind, StepMarks][])),
  stops: new Map(STATIONS.flatMap((station) => Object.entries(FACTS[station].stopMarks ?? {}))),
};

/** What goods have in common that got something of a step, by its kind. */
export const THINGS: ReadonlyMap<StepKind, StepThings> = new Map([
  ...STATIONS.flatMap((station) => Object.entries(FACTS[station].things ?? {}) as [StepKind, StepThings][]),
  ['buy', boughtThings],
]);

/** What new work at a station carries beside what all work does. */
export const workBegins = (entry: StartWork, has: { speed: number; curveId: string }): Partial<Work> =>
  FACTS[entry.station].begins?.(entry, has) ?? {};

/** The command that ends work, with what the work itself knows. */
export const workFinishes = (work: Work, command: Command, has: { now: number; curveId: string | null }): Command =>
  (FACTS[work.station].finishes?.(work, command, has) ?? command) as Command;

type Planners = { [K in Command['kind']]: (command: CommandOf<K>, context: PlanContext) => StepPlan };

const PLANNERS: Planners = {
  receive: planReceive,
  dry: planDry,
  buy: planBuy,
  sort: planSort,
  roast: planRoast,
  winnow: planWinnow,
  charge: planCharge,
  discharge: planDischarge,
  reading: planReading,
  rest: planRest,
  temper: planTemper,
  silk: planSilk,
  remelt: planRemelt,
  mould: planMould,
  pack: planPack,
  taste: planTaste,
  sell: planSell,
  return: planReturn,
  adjust: planAdjust,
  open: planOpen,
};

/** Turns what was entered at a bench into the postings of one step. @throws DomainError with the field at fault */
export function planStep(command: Command, context: PlanContext): StepPlan {
  return (PLANNERS[command.kind] as (c: Command, x: PlanContext) => StepPlan)(command, context);
}

/** What an entry is checked against beside its plan. */
export interface EntryContext {
  book: Book;
  settings: Pick<Settings, 'rejectReasons' | 'massSystem'>;
  /** The version that is corrected or taken back; null: it is new. */
  old: Step | null;
}

/**
 * What has to hold of an entry beside its plan.
 *
 * @param command null: what was entered is taken back
 * @throws DomainError naming the field, or the steps that stand against it
 */
export function checkEntry(command: Command | null, { book, settings, old }: EntryContext): void {
  if (old?.kind === 'sell' && (command === null || command.kind === 'sell'))
    checkReturns(book, old, command, settings.massSystem);
  if (command?.kind === 'sort')
    checkPiles(command, settings.rejectReasons, (old?.command ?? null) as CommandOf<'sort'> | null);
}

/** Every stop that stands in the way of an entry, or of beginning work. */
export function gatesOf(asked: Asked, context: GateContext): Gate[] {
  switch (asked.kind) {
    case 'charge':
      return begins(asked) ? [] : [...chargeGates(asked, context), ...restGates(asked, context)];
    case 'reading':
      return begins(asked) ? [] : readingGates(asked, context);
    case 'rest':
      return restGates(asked, context);
    case 'temper':
      return [...restGates(asked, context), ...temperGates(asked, context)];
    case 'mould':
      return [...restGates(asked, context), ...mouldGates(asked, context)];
    case 'pack':
      return begins(asked) ? [] : packGates(asked, context);
    default:
      return [];
  }
}
