import type { Waits } from '../work/grinding';
import type { Place } from '../work/stations';
import type { DatedFacts } from './contents';

/**
 * What a holding is. Every gram in the workshop is in exactly one holding.
 *
 * `lot` beans or nibs as bought · `beans` sorted · `roasted` · `nibs` · `husk` (the by-product) ·
 * `mass` a batch in the grinder, or poured from it · `block` untempered · `tempered` in temper,
 * ready to mould · `remelt` going back to temper · `bars` · `seconds` · `packed` labelled bars ·
 * `ingredient` · `packaging` (counted in pieces, without mass here).
 */
export const HOLDING_KINDS = [
  'lot',
  'beans',
  'roasted',
  'nibs',
  'husk',
  'mass',
  'block',
  'tempered',
  'remelt',
  'bars',
  'seconds',
  'packed',
  'ingredient',
  'packaging',
] as const;
export type HoldingKind = (typeof HOLDING_KINDS)[number];

export interface Holding {
  readonly id: string;
  readonly code: string;
  readonly kind: HoldingKind;
  readonly name: string;
  /** Where it waits. */
  readonly place: Place;
  readonly routeId: string | null;
  /** The grinder batch this came from, once there is one. */
  readonly batchId: string | null;
  /** For ingredients and packaging: what it is. */
  readonly materialId: string | null;
  /** The step that made it. */
  readonly madeBy: string;
}

/** What comes out of a bowl, the latest last. */
export const CHOCOLATE_KINDS: readonly HoldingKind[] = [
  'mass',
  'block',
  'remelt',
  'tempered',
  'seconds',
  'bars',
  'packed',
];

/** By-products carry away the value that they fetch; everything else made is a good output. */
export const isByProduct = (kind: HoldingKind): boolean => kind === 'husk';

/** Whether a posting takes something out of its holding. */
export const isOut = ({ massMg, pieces }: Posting): boolean => massMg < 0 || (massMg === 0 && pieces < 0);

/** Why grams left without becoming anything. `unaccounted` is what nobody can explain: never hidden. */
export const LOSS_CAUSES = [
  'reject',
  'water',
  'dust',
  'hold-up',
  'sample',
  'trimming',
  'write-off',
  'unaccounted',
] as const;
export type LossCause = (typeof LOSS_CAUSES)[number];

/** What is seen of bars, at turning out or later. */
export const SEEN = [
  'glossy',
  'snaps',
  'released',
  'dull',
  'streaks',
  'spots',
  'veil',
  'soft',
  'grainy',
  'sticky',
  'stuck',
] as const;
export type Seen = (typeof SEEN)[number];

/** What the veil is, by a drop of water and a warm finger. */
export const BLOOMS = ['fat', 'sugar'] as const;
export type Bloom = (typeof BLOOMS)[number];

/** Why beans are picked out by hand. */
export const REJECT_REASONS = [
  'flat',
  'broken',
  'clumped',
  'tiny',
  'shrivelled',
  'germinated',
  'mouldy',
  'insect',
  'foreign',
] as const;
export type RejectReason = (typeof REJECT_REASONS)[number];

export const LOSS_NAMES: Record<LossCause, string> = {
  reject: 'Rejects',
  water: 'Water and volatiles',
  dust: 'Dust and spill',
  'hold-up': 'Left in the machine',
  sample: 'Samples',
  trimming: 'Trimmings',
  'write-off': 'Written off',
  unaccounted: 'Unaccounted',
};

/** Across the workshop door: what came from suppliers, what went to buyers. */
export type Outside = 'supplier' | 'customer';

/**
 * One line of a step: grams (and pieces) into (+) or out of (−) one account. Exactly one of
 * `holdingId`, `loss` and `outside` is set. A step's `massMg` add up to zero.
 */
export interface Posting {
  holdingId: string | null;
  loss: LossCause | null;
  outside: Outside | null;
  /** A finer word for a loss: the reject reason. */
  reason: string | null;
  massMg: number;
  /** Bars and packaging are also counted. */
  pieces: number;
}

export const STEP_KINDS = [
  'receive',
  'dry',
  'buy',
  'sort',
  'roast',
  'winnow',
  'charge',
  'discharge',
  'rest',
  'temper',
  'silk',
  'mould',
  'pack',
  'taste',
  'remelt',
  'sell',
  'return',
  'adjust',
  'reading',
  'open',
] as const;
export type StepKind = (typeof STEP_KINDS)[number];

/** Money that a step brings in or takes, in milli (see units/money). */
export interface StepMoney {
  /** Paid to suppliers for what came in, landed. */
  purchaseMilli: number;
  labourMilli: number;
  energyMilli: number;
  /** Received from buyers. */
  revenueMilli: number;
  /** Of it, what each thing sold fetched, by holding; absent where nobody said. */
  takingsMilli?: Record<string, number>;
}

/** A stop that somebody went past by name, with a word that is kept. */
export interface Override {
  /** Which stop. */
  gate: string;
  /** What the stop said. */
  sentence: string;
  word: string;
  personId: string;
}

/**
 * One act at a station. Never edited: a correction is a new step that names the one it supersedes
 * and takes its place in the order; withdrawing is a correction without postings.
 *
 * Declared by what can be read of it, as a step of the past has its fields from elsewhere: a spread of it has none of them,
 * and its type says so. `plainStep` gives one with fields of its own.
 */
declare abstract class ReadStep {
  get id(): string;
  /** Order of recording; a correction keeps its own. */
  get seq(): number;
  /** Order within the same instant: the seq of the first version. */
  get order(): number;
  get kind(): StepKind;
  get station(): Place;
  /** When it was done, UTC ms. */
  get at(): number;
  /** When it was written down, UTC ms. */
  get recordedAt(): number;
  get personId(): string;
  get batchId(): string | null;
  get machineId(): string | null;
  get supersedes(): string | null;
  /** Why it was corrected. */
  get reason(): string | null;
  get withdrawn(): boolean;
  /** What was entered, as its schema reads it. */
  get command(): unknown;
  /** Which holdings this step made, by the part they play: `good`, `husk`, `seconds`. */
  get slots(): Record<string, string>;
  get minutes(): number;
  get energyKwh(): number;
  get money(): StepMoney;
  get postings(): Posting[];
  /** Stops that were gone past; absent: none. */
  readonly overrides?: Override[] | undefined;
  /** Known to have no words noted at it; absent: look. Never kept. */
  readonly quiet?: boolean;
}
export type Step = ReadStep;

/** A step that has its fields itself: it can be spread and taken apart. */
export type PlainStep = { -readonly [Field in keyof Step]: Step[Field] };

/** Beans (or nibs) as bought: the papers of a lot. Its grams are in the holding of the same id. */
export interface LotFacts {
  producer: string;
  country: string;
  region: string;
  variety: string;
  harvest: string;
  /** `wet`: own or bought pods, opened and still to be fermented and dried. */
  form: 'beans' | 'nibs' | 'wet';
  /** Whether it came roasted; null or absent: nobody said. */
  roasted?: boolean | null;
  sacks: number;
  moisturePct: number | null;
  note: string;
  /** A kilogram or two to try before buying. Absent in older records: no. */
  sample?: boolean;
  /** The sample that this lot was bought on. */
  sampleId?: string | null;
  invoiceNetG?: number | null;
  invoiceSacks?: number | null;
  pricePerKg?: number;
  currency?: string;
}

/** One fill of a grinder. Its grams are in the holding of the same id until it is emptied. */
export interface Batch {
  id: string;
  code: string;
  name: string;
  routeId: string;
  machineId: string | null;
  targetMicron: number;
  cocoaTargetPct: number | null;
  /** The version of a recipe that it was weighed by. */
  recipe?: { id: string; version: number } | null | undefined;
  /** What is meant to be done with it, and when: sugar in, lid on, look again. */
  acts?: PlannedAct[] | undefined;
  /** The probe in the mass, whose readings are logged; null or absent: none. */
  probe?: 'simulated' | 'sent' | null | undefined;
  /** When its blocks are meant to come off the shelf, UTC ms; null or absent: after the workshop's usual days. */
  restUntil?: number | null | undefined;
}

/** An act planned ahead for a batch. */
export interface PlannedAct {
  id: string;
  what: string;
  /** When it is due by the clock, UTC ms; where it waits for something else, when that was expected as it was planned. */
  at: number;
  personId: string;
  /** When it was done; null while it is to come. */
  doneAt: number | null;
  /** When it was planned, UTC ms: what was charged before is not meant by it. */
  plannedAt?: number | undefined;
  /** What it does to the bowl; absent: nothing that is counted with. */
  kind?: ActKind | undefined;
  /** What it waits for; absent: the clock. */
  waits?: Waits | undefined;
}

/** What is done with a bowl on the stones. */
export const ACT_KINDS = [
  'warm',
  'butter',
  'nibs',
  'lid-off',
  'lid-on',
  'sugar',
  'milk',
  'lecithin',
  'stones-up',
  'stones-down',
  'read',
  'other',
] as const;
export type ActKind = (typeof ACT_KINDS)[number];

/** What an ingredient is made of, shares by weight of 1, for cocoa percent and the flow figures. */
export interface Material {
  id: string;
  name: string;
  kind: 'ingredient' | 'packaging';
  /** Counts to cocoa percent, and whether it is cocoa butter added as such; bought chocolate counts by its own percent. */
  cocoa: 'none' | 'butter' | 'liquor' | 'powder' | 'couverture';
  sugar: boolean;
  /** Comma-free list of allergens in the trade's plain words. */
  allergens: string[];
  /** Of bought chocolate, as its label says; null or absent: not said. */
  cocoaPct?: number | null | undefined;
  addedButterPct?: number | null | undefined;
  sugarPct?: number | null | undefined;
  /** Months that goods with it keep, where that is less than usual. */
  keepsMonths?: number | null | undefined;
  /** What 100 g of it are made of, each from a day on; none: as usual for its kind or name. */
  contents?: DatedFacts[] | undefined;
  /** For one that is made of others. */
  madeOf?: { materialId: string; pct: number }[] | undefined;
  /** What a kilogram costs, where none is in the pantry to tell. */
  pricePerKg?: number | null | undefined;
  origin?: string | undefined;
  /** No longer bought: kept for what was made with it. */
  retired?: boolean | undefined;
}
