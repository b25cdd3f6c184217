import type { ClaimSheet } from '../beans/claim';
import type { CutVerdict, Share, CutClass } from '../beans/cut-test';
import type { ExpectedGoods } from '../ledger/expect';
import type { Advice, DryingForecast } from '../beans/harvest';
import type { ImportField, ImportRow, Mapping, WeightUnit } from '../beans/import';
import type {
  BeanRecordValue,
  Decision,
  Drying,
  Ferment,
  Harvest,
  Hold,
  Inspection,
  Papers,
  SackRow,
} from '../beans/records';
import type { RoomVerdict } from '../beans/room';
import type { CountCheck, SackStock } from '../beans/sacks';
import type { HoldClock, HoldPlan } from '../beans/hold';
import type { Standing } from '../beans/state';
import type { TrapAlarm, TrapWeek } from '../beans/traps';
import type { ArrivalVerdict } from '../beans/verdict';
import type { RestOfLot, SortAdvice, SortSummary } from '../sort/judge';
import type { LotFacts, RejectReason } from '../ledger/types';
import type { Route } from '../work/stations';

/** What the server answers about beans. Masses in grams here, as they are entered and read at the scale. */
export interface BeanRecordView {
  id: string;
  at: number;
  person: string;
  value: BeanRecordValue;
  takenBack: boolean;
}

export interface FileView {
  id: string;
  name: string;
  caption: string;
  type: string;
  bytes: number;
  width: number | null;
  height: number | null;
  at: number;
  person: string;
}

export interface HoldView {
  recordId: string;
  since: number;
  person: string;
  value: Hold;
  plan: HoldPlan;
  clock: HoldClock | null;
  readings: { at: number; tempC: number; by: 'hand' | 'probe' }[];
  released: { at: number; person: string; word: string } | null;
  toldBy: string | null;
}

export interface InspectionView {
  recordId: string;
  at: number;
  person: string;
  value: Inspection;
  arrival: ArrivalVerdict;
  shares: Record<CutClass | 'defective', Share> | null;
  cut: CutVerdict | null;
}

export interface HarvestView {
  value: Harvest;
  openedAt: number;
  wetG: number;
  dryG: number | null;
  ferment: { recordId: string; at: number; person: string; value: Ferment }[];
  drying: { recordId: string; at: number; person: string; value: Drying }[];
  advice: Advice;
  forecast: DryingForecast | null;
}

export interface SortView {
  summary: SortSummary;
  speeds: { personId: string; person: string; kgPerHour: number; sessions: number; inG: number }[];
  rest: RestOfLot;
  advice: SortAdvice;
  familyShares: number[];
  family: string;
  /** Major units that one more percent rejected costs a bar. */
  onePercentPerBar: number;
  flatShare: number;
}

export interface LotLink {
  code: string;
  name: string;
}

export interface BeanLotView {
  id: string;
  code: string;
  name: string;
  family: string;
  facts: LotFacts;
  route: Route;
  receiptId: string;
  receivedAt: number;
  receivedG: number;
  leftG: number;
  landedPerKgMilli: number;
  papers: Papers;
  standing: Standing;
  decision: { at: number; person: string; value: Decision } | null;
  hold: HoldView | null;
  sackRows: SackRow[];
  sacks: SackStock[];
  count: CountCheck | null;
  inspections: InspectionView[];
  harvest: HarvestView | null;
  files: FileView[];
  records: BeanRecordView[];
  expected: ExpectedGoods;
  sort: SortView;
  claim: ClaimSheet;
  lastLookAt: number | null;
  lookDueAt: number | null;
  sampleOf: LotLink | null;
  boughtAs: LotLink[];
}

export interface StoreRow {
  id: string;
  code: string;
  name: string;
  family: string;
  standing: Standing;
  leftG: number;
  wholeSacks: number;
  sacks: number;
  places: string[];
  receivedAt: number;
  lastLookAt: number | null;
  lookDueAt: number | null;
  inspectedAt: number | null;
  reinspectDueAt: number | null;
  moisturePct: number | null;
  grade: string | null;
  holdShare: number | null;
  holdWords: string | null;
  landedPerKgMilli: number;
  sample: boolean;
  /** The next one to open of its family. */
  next: string | null;
}

export interface RoomView {
  tempC: number;
  humidityPct: number;
  simulated: boolean;
  unplugged: boolean;
  at: number;
  verdict: RoomVerdict;
  /** The last 24 h, hourly. */
  past: { at: number; tempC: number; humidityPct: number }[];
}

export interface BeanStoreView {
  rows: StoreRow[];
  traps: { weeks: TrapWeek[]; alarm: TrapAlarm; names: string[] };
  totalG: number;
  now: number;
}

export interface SampleView {
  id: string;
  code: string;
  name: string;
  family: string;
  facts: LotFacts;
  papers: Papers;
  leftG: number;
  receivedAt: number;
  landedPerKgMilli: number;
  inspection: InspectionView | null;
  sortRejectShare: number | null;
  nibYield: number | null;
  batches: { code: string; score: number | null }[];
  score: number | null;
  boughtAs: LotLink[];
}

export interface ImportPreview {
  headings: string[];
  mapping: Mapping;
  unit: WeightUnit;
  pricePer: WeightUnit;
  rows: (ImportRow & { cells: string[] })[];
  good: number;
  bad: number;
}

export type { ImportField, RejectReason };
