import type { School } from '../work/tempering';
import type { Command } from '../commands';
import type { LossWatch } from './losses';
import type { Batch, HoldingKind, LossCause, LotFacts, Material, StepKind } from '../ledger/types';
import type { YieldJudgement, YieldPoint } from '../ledger/yields';
import type { CarriedOver } from '../composition/carry-over';
import type { Composition, OriginVerdict, Part } from '../composition/composition';
import type { Mark } from '../workshop/mark';
import type { Override } from '../ledger/types';
import type { FlowStation } from '../trace/by-station';
import type { Machine, Person, Settings } from '../workshop/schemas';
import type { Place, Route, Station } from '../work/stations';

/** What goods are, with the codes and names of what is in them. */
export interface CompositionView extends Omit<Composition, 'parts'> {
  parts: (Part & { code: string })[];
  carriedOver: CarriedOver[];
}

/** What the server answers. Masses in mg, money in milli (thousandths of a minor unit), times in UTC ms. */
export interface WorkshopView {
  settings: Settings;
  people: Person[];
  machines: Machine[];
  materials: Material[];
  routes: Route[];
  version: number;
  /** Nothing has been entered yet. */
  empty: boolean;
  /** What fails behind the scenes at the moment, in words. */
  troubles: string[];
}

export interface HoldingView {
  id: string;
  code: string;
  kind: HoldingKind;
  name: string;
  place: Place;
  routeId: string | null;
  batchId: string | null;
  batchCode: string | null;
  materialId: string | null;
  massMg: number;
  pieces: number;
  /** Of it, free: not in work under way. */
  freeMg: number;
  since: number;
  valueMilli: number;
  perKgMilli: number;
  perPieceMilli: number;
  /** Where its cacao is from, in words. */
  family: string;
  /** For packed bars, the code is what the label says. */
  lots: { code: string; share: number }[];
  allergens: string[];
  /** The day that its packing, its supplier or who made it says it keeps to; null: nobody said. */
  bestBefore: string | null;
  /** What one has to know who looks at it. */
  marks: Mark[];
  /** It is silk that was made here. */
  silk?: boolean;
}

export interface LineView {
  holdingId: string | null;
  code: string | null;
  name: string;
  kind: HoldingKind | null;
  loss: LossCause | null;
  outside: 'supplier' | 'customer' | null;
  reason: string | null;
  massMg: number;
  pieces: number;
}

export interface StepView {
  id: string;
  seq: number;
  kind: StepKind;
  station: Place;
  at: number;
  recordedAt: number;
  personId: string;
  person: string;
  batchCode: string | null;
  machineId: string | null;
  machine: string | null;
  minutes: number;
  energyKwh: number;
  reason: string | null;
  supersedes: string | null;
  supersededBy: string | null;
  withdrawn: boolean;
  command: unknown;
  inMg: number;
  goodMg: number;
  overrides: (Override & { person: string })[];
  lines: LineView[];
  cost: {
    inputsMilli: number;
    purchaseMilli: number;
    labourMilli: number;
    energyMilli: number;
    creditMilli: number;
    lostMilli: number;
    revenueMilli: number;
    soldMilli: number;
  };
}

export interface WorkView {
  id: string;
  station: Station;
  sources: { holdingId: string; code: string; name: string; kind: HoldingKind; massMg: number; pieces: number }[];
  massMg: number;
  machine: string | null;
  machineId: string | null;
  person: string;
  startedAt: number;
  dueAt: number | null;
  note: string;
  pausedAt: number | null;
  pausedMs: number;
  sacks: number[];
  personId: string;
  /** What is in it, of what one has to know. */
  allergens: string[];
  marks: Mark[];
  overrides: Override[];
  /** A roast that is followed live. */
  live: boolean;
  /** Cocoa butter that is held warm until it is silk. */
  silk: boolean;
  /** How a pour is planned to be tempered; null: nobody said. */
  school: School | null;
  /** What moulding under way becomes, and what a piece of it weighs, g; null: nobody said. */
  moulding: { productId: string | null; barG: number | null } | null;
}

/** How a piece of work ended: with a step, or put back as if not begun. */
export interface ClosedWork {
  closedAt: number;
  step: StepView | null;
}

export interface DueItem {
  id: string;
  station: Station;
  /** What is to be done, without the time. */
  text: string;
  link: string;
  at: number;
  /** Several at its station within an hour are one thing to do. */
  together?: boolean;
}

export interface FloorStation {
  station: Station;
  /** Standing there, waiting or at work. */
  standingMg: number;
  workingMg: number;
  /** Good grams that left it in the last seven days. */
  passedMg: number;
  holdings: number;
}

export interface FloorView {
  stations: FloorStation[];
  store: { pieces: number; massMg: number; valueMilli: number };
  due: DueItem[];
  works: WorkView[];
  grinds: GrindView[];
  /** Goods in the house of which one has to know something, the worst first. */
  marked: { code: string; name: string; link: string; marks: Mark[] }[];
  /** Machines that have left their level lately. */
  watch: LossWatch[];
  now: number;
}

export interface GrindView {
  batch: Batch;
  massMg: number;
  startedAt: number;
  person: string;
  machine: Machine | null;
  readings: ReadingView[];
  cocoa: Composition;
  /** Allergens that its machine saw before it, uncleaned since. */
  carriedOver: CarriedOver[];
  origin: OriginVerdict;
}

export interface ReadingView {
  stepId: string;
  at: number;
  what: string;
  value: number | null;
  channels: number[];
  note: string;
  person: string;
}

export interface HistoryPoint extends YieldPoint {
  code: string;
  family: string;
}

export interface BenchView {
  station: Station;
  waiting: HoldingView[];
  elsewhere: HoldingView[];
  pantry: HoldingView[];
  works: WorkView[];
  grinds: GrindView[];
  recent: StepView[];
  /** Yields of this station, oldest first, newest 120. */
  history: HistoryPoint[];
  /** The newest yield, judged. */
  judgement: (YieldJudgement & { code: string; stepId: string }) | null;
  /** For the pack bench, by holding: the next free code, and how long it usually keeps. */
  packing: Record<string, { label: string; bestBefore: string; because: string }>;
  /** For the taste bench: batches with bars that nobody has scored yet. */
  untasted: { batch: Batch; bars: HoldingView[] }[];
}

export interface StreamStation extends FlowStation {
  /** Waiting there now. */
  standingMg: number;
  codes: { stepId: string; code: string }[];
}

export interface BatchView {
  batch: Batch;
  route: Route;
  state: 'grinding' | 'in progress' | 'bars' | 'gone';
  marks: Mark[];
  /** What its goods are where they stand now, and in the bowl: one row for each that differs. */
  goods: { codes: string[]; what: HoldingKind; composition: CompositionView }[];
  startedAt: number;
  emptiedAt: number | null;
  bowlMg: number;
  origin: OriginVerdict;
  /** All that ever went into the bowl. */
  chargedMg: number;
  stream: StreamStation[];
  yields: { station: Station; value: number }[];
  /** Bars' cacao over green beans, once there are bars. */
  beanToBar: number | null;
  bars: { made: number; standing: number; sold: number };
  standing: HoldingView[];
  cost: CostView;
  readings: ReadingView[];
  tastings: { stepId: string; at: number; person: string; score: number; note: string }[];
  steps: StepView[];
}

export interface CostView {
  perBarMilli: number | null;
  perKgMilli: number | null;
  byStation: { station: Station; perKgMilli: number }[];
  /** Where the money of one bar went. */
  parts: { name: string; milli: number }[];
}

export interface LotView {
  id: string;
  code: string;
  name: string;
  facts: LotFacts;
  receiptId: string;
  receivedAt: number;
  receivedMg: number;
  holding: HoldingView;
  route: Route;
  landedPerKgMilli: number;
  stream: StreamStation[];
  batches: { batch: Batch; share: number; bars: number; score: number | null }[];
  steps: StepView[];
}

export interface TraceView {
  subject: { code: string; name: string; kind: HoldingKind; marks: Mark[] };
  composition: CompositionView | null;
  back: {
    lots: {
      code: string;
      id: string;
      name: string;
      producer: string;
      country: string;
      sacks: number;
      share: number;
      greenMg: number;
    }[];
    ingredients: { code: string; name: string; share: number; supplier: string; supplierBatch: string }[];
    stream: StreamStation[];
  };
  forward: {
    batches: { code: string; name: string; share: number }[];
    goods: {
      code: string;
      name: string;
      kind: HoldingKind;
      share: number;
      massMg: number;
      pieces: number;
      place: Place;
      allergens: string[];
      marks: Mark[];
    }[];
    sales: { at: number; to: string; code: string; pieces: number; massMg: number; share: number }[];
  };
}

export interface SearchHit {
  kind: 'batch' | 'lot' | 'holding' | 'step' | 'station' | 'page';
  code: string;
  name: string;
  detail: string;
  link: string;
}

/** RFC 9457 problem document. */
export interface Problem {
  type: string;
  title: string;
  status: number;
  code: string;
  detail: string;
  /** One for each field at fault; `label` is what the screen calls it. */
  errors: { path: string; label: string; message: string }[];
  facts?: Record<string, unknown>;
}

/** What a correction would do to the later steps that it reaches. */
export interface CorrectionPreview {
  steps: {
    before: StepView;
    /** As it was entered, and as it is proposed now. */
    entered: Command;
    command: Command;
    /** What would move; null while `problem` stands against it. */
    after: LineView[] | null;
    problem: string | null;
  }[];
  /** What still stands against all of it together. */
  problem: string | null;
}

/** A step as it was entered, and what is to be said of it at once. */
export interface EnteredStep {
  step: StepView;
  judgement: BenchView['judgement'];
}
