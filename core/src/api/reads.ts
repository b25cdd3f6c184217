import type { Listed, WithoutQuery } from './paths';
import type { Batch, LotFacts } from '../ledger/types';
import type { OriginVerdict } from '../composition/composition';
import type { CarriedOver } from '../composition/carry-over';
import type { GrindStudy } from '../grind/tonight';
import type { Label } from '../pack/label';
import type { LabelWords, Market } from '../pack/records';
import type { TraceDrawing } from '../trace/branches';
import type { Mark } from '../workshop/mark';
import type { BeanLotView, BeanStoreView, RoomView, SampleView, SortView } from './beans';
import type { GrinderView, GrindHits, GrindRunView, RestBenefit, RestShelf } from './grind';
import type { JudgementWordView } from './judgement';
import type { LossBookView, LossWatch, SeriesView, StockTakeRow, WinnowPastView } from './losses';
import type { PrinterView, ScaleReading } from './devices';
import type { MouldingView, MouldsView } from './mould';
import type { FinishedGoodsView, MarginsView, OrdersView, OrderView } from './orders';
import type { ProductPageView, ProductsView } from './products';
import type { ComplaintView, RecallRow, RecallView, SharingView } from './recall';
import type { BowlView, PantryView, RecipeRow, RecipeView, WeighingView } from './recipe';
import type {
  CoolingView,
  CurveData,
  LiveView,
  LoadRow,
  LoadView,
  LoggedLoadData,
  ProgramVersion,
  ProgramView,
  RoasterView,
  TrialView as RoastTrialView,
} from './roast';
import type {
  ComesUpView,
  GuestView,
  HistoryView,
  MattersView,
  OutsideView,
  PalateView,
  SameTestView,
  SampleChoice,
  SeatView,
  SessionView,
  SheetView,
  SubjectView,
  TastingView,
  VocabularyView,
} from './taste';
import type { BatchLooks, FaultsView, LearnedView, PouredView, PourView, SilkView, WindowsView } from './temper';
import type { TrialView, UsualLevels } from './trials';
import type {
  BatchView,
  BenchView,
  ClosedWork,
  CompositionView,
  DueItem,
  FloorView,
  HoldingView,
  LotView,
  SearchHit,
  StepView,
  TraceView,
  WorkshopView,
} from './types';

/** A lot in the list of lots. */
export type LotRow = HoldingView & { facts: LotFacts; receivedMg: number };

/** The curve of a load. */
export type LoadCurve = CurveData & { code: string; source: string; startedAt: number };

/** A batch in the list of batches. */
export interface BatchRow {
  batch: Batch;
  startedAt: number;
  bowlMg: number;
  chargedMg: number;
  cocoaPct: number;
  family: string;
  bars: number;
  score: number | null;
  marks: Mark[];
  allergens: string[];
}

/** One tub, block or bar. */
export interface TubView {
  holding: HoldingView;
  composition: CompositionView;
  /** Cocoa percent of its chocolate alone, where something else is in or on it. */
  chocolatePct: number | null;
  origin: OriginVerdict;
  steps: StepView[];
}

/** A step with all its versions. */
export interface StepVersions {
  step: StepView;
  judgement: BenchView['judgement'];
  versions: StepView[];
}

/** A program with all its versions. */
export interface ProgramVersions {
  id: string;
  shelved: boolean;
  versions: ProgramVersion[];
}

/** What goods last fetched, major units: a piece, or a kilogram of what is weighed. */
export interface Price {
  holdingId: string;
  perPiece: number | null;
  perKg: number | null;
}

export interface BackupsView {
  directory: string;
  now: number;
  backups: {
    name: string;
    reason: 'daily' | 'asked' | 'before-restore' | 'before-migration';
    at: number;
    bytes: number;
  }[];
}

/** What a machine saw of allergens since it was last cleaned of them. */
export interface MachineAllergens {
  carries: CarriedOver[];
  cleanings: { at: number; how: string; person: string }[];
}

/** Words of labels for a market: the usual ones, and somebody's own. */
export interface MarketWords {
  market: Market;
  usual: Required<LabelWords>;
  own: LabelWords;
}

/** How the simulated probe of a roaster behaves. */
export interface RoastMood {
  noiseC: number;
  stuck: boolean;
  unplugged: boolean;
  speed: number;
}

/**
 * What is answered where: the server has to answer it, the interface gets it, and neither says it again. A part that
 * changes is written as `:part`; what is asked behind a question mark makes no difference.
 */
export interface Reads {
  '/api/:station/bench': BenchView;
  '/api/beans/lots/:code': BeanLotView;
  '/api/beans/samples': { samples: SampleView[] };
  '/api/beans/store': BeanStoreView;
  '/api/devices/pour/mood': { stuck: boolean; unplugged: boolean };
  '/api/devices/roast/mood': RoastMood;
  '/api/devices/room': RoomView;
  '/api/grind/batches/:code/gauge': { channels: number[]; streaks: number[] };
  '/api/grind/batches/:code/run': GrindRunView;
  '/api/grind/batches/:code/study': GrindStudy;
  '/api/grind/machines/:id': GrinderView;
  '/api/grind/machines/:id/hits': GrindHits;
  '/api/judgement/words': { words: JudgementWordView[] };
  '/api/ledger/floor': FloorView;
  '/api/ledger/holdings/:code': TubView;
  '/api/ledger/steps/:id': StepVersions;
  '/api/ledger/works/:id': ClosedWork;
  '/api/losses/book': LossBookView;
  '/api/losses/series': SeriesView;
  '/api/losses/stock-take': { rows: StockTakeRow[] };
  '/api/money/prices': { prices: Price[] };
  '/api/mould/moulds': MouldsView;
  '/api/mould/works/:id': MouldingView;
  '/api/orders': OrdersView;
  '/api/orders/goods': FinishedGoodsView;
  '/api/orders/margins': MarginsView;
  '/api/pack/labels/:code': Label & { checkList: readonly string[] };
  '/api/pack/words': { markets: MarketWords[] };
  '/api/products': ProductsView;
  '/api/recipe/bowls/:batch': BowlView;
  '/api/recipe/pantry': PantryView;
  '/api/recipe/recipes': { recipes: RecipeRow[] };
  '/api/recipe/recipes/:id': RecipeView;
  '/api/recipe/weighings': { weighings: WeighingView[] };
  '/api/recipe/weighings/:id': WeighingView;
  '/api/rest/benefit': RestBenefit;
  '/api/rest/shelf': RestShelf;
  '/api/roast/cooling': { cooling: CoolingView[] };
  '/api/roast/live/:work': LiveView;
  '/api/roast/loads': { loads: LoadRow[] };
  '/api/roast/loads/:code': LoadView;
  '/api/roast/programs': { programs: ProgramView[] };
  '/api/roast/programs/:id': ProgramVersions;
  '/api/roast/roasters': { roasters: RoasterView[] };
  '/api/roast/roasters/:id/loads': { loads: LoggedLoadData[] };
  '/api/roast/trials': { trials: RoastTrialView[] };
  '/api/roast/trials/:id': RoastTrialView;
  '/api/sort/lots/:code': SortView;
  '/api/taste/guest/:id': GuestView;
  '/api/taste/guest/:id/seats/:seat': SeatView;
  '/api/taste/history': HistoryView;
  '/api/taste/matters': MattersView;
  '/api/taste/outside': { bars: OutsideView[] };
  '/api/taste/palate/:person': PalateView;
  '/api/taste/same': { tests: SameTestView[] };
  '/api/taste/samples': SampleChoice;
  '/api/taste/sessions': { sessions: SessionView[] };
  '/api/taste/sessions/:id': SessionView;
  '/api/taste/subject': SubjectView;
  '/api/taste/subjects': { subjects: SubjectView[] };
  '/api/taste/tastings': { tastings: TastingView[] };
  '/api/taste/words': VocabularyView;
  '/api/taste/words/of': ComesUpView;
  '/api/temper/batches/:code/looks': BatchLooks;
  '/api/temper/faults': FaultsView;
  '/api/temper/learned/:code': LearnedView;
  '/api/temper/steps/:id': PouredView;
  '/api/temper/windows/:code': WindowsView;
  '/api/temper/works/:id/pour': PourView;
  '/api/temper/works/:id/silk': SilkView;
  '/api/trace/batches': { total: number; batches: BatchRow[] };
  '/api/trace/batches/:code': BatchView;
  '/api/trace/codes/:code': TraceView;
  '/api/trace/codes/:code/drawing': TraceDrawing;
  '/api/trace/complaints': { complaints: ComplaintView[] };
  '/api/trace/lots': { lots: LotRow[] };
  '/api/trace/lots/:code': LotView;
  '/api/trace/open/:code': { link: string | null };
  '/api/trace/recalls': { recalls: RecallRow[] };
  '/api/trace/recalls/:id': RecallView;
  '/api/trace/search': SearchHit[];
  '/api/trace/sharing': SharingView;
  '/api/trace/stock': { holdings: HoldingView[] };
  '/api/trials': { trials: TrialView[] };
  '/api/trials/:id': TrialView;
  '/api/trials/usual': { usual: UsualLevels };
  '/api/winnow/past/:code': WinnowPastView;
  '/api/workshop': WorkshopView;
  '/api/workshop/backups': BackupsView;
  '/api/workshop/machines/:id/allergens': MachineAllergens;
  '/api/health': { ok: boolean; version: number; steps: number; upMs: number };
  '/api/ledger/due': DueItem[];
  '/api/ledger/steps': { steps: StepView[]; next: number | null };
  '/api/trace/compositions/:code': CompositionView;
  '/api/devices/scale': ScaleReading;
  '/api/devices/printer': PrinterView;
  '/api/losses/watch': { watch: LossWatch[] };
  '/api/products/:id': ProductPageView;
  '/api/orders/:id': OrderView;
  '/api/taste/sheets/:id': SheetView;
  '/api/roast/loads/:code/curve.json': LoadCurve;
}

/** What has to be answered at an address; nothing is said of those that are not in the list. */
export type AnswerAt<Url extends string> = Url extends keyof Reads ? Reads[Url] | Promise<Reads[Url]> : unknown;

/**
 * What is answered at a path that the interface puts together.
 *
 * @example AnswerOf<`/api/trace/batches/${string}`> is BatchView
 */
export type AnswerOf<Path extends string> = Reads[Listed<Reads, WithoutQuery<Path>>];

/** A path at which something of the list is answered; anything else is no path. */
export type ReadPath<Path extends string> = [Listed<Reads, WithoutQuery<Path>>] extends [never] ? never : Path;
