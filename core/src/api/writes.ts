import type { Listed, WithoutQuery } from './paths';
import type { CutVerdict } from '../beans/cut-test';
import type { BeanRecord } from '../beans/records';
import type { ConcheForecast } from '../grind/conche';
import type { GrindTonight } from '../grind/tonight';
import type { Batch, Material } from '../ledger/types';
import type { OpeningRow } from '../money/opening-table';
import type { MouldPlan } from '../mould/plan';
import type { WeightStudy } from '../mould/weights';
import type { CustomerFacts } from '../orders/records';
import type { LabelWords, Market } from '../pack/records';
import type { Left } from '../products/product';
import type { Forward, Needs, SackLeft } from '../recipe/forward';
import type { Portion } from '../recipe/order';
import type { Swap } from '../recipe/swap';
import type { PlanBand } from '../roast/band';
import type { RoastFigures } from '../roast/figures';
import type { FillVerdict } from '../roast/compare';
import type { Jump, Stall } from '../roast/events';
import type { HeldOut, LoadFit } from '../roast/fit';
import type { RoastRecord } from '../roast/records';
import type { AirParameters } from '../roast/simulate';
import type { RoastTrialVerdict } from '../roast/trial';
import type { Span } from '../run/gaps';
import type { ChangePoint } from '../stats/change-point';
import type { Individuals, Signal } from '../stats/individuals';
import type { MeanInterval } from '../stats/intervals';
import type { PanelVerdict } from '../taste/panel';
import type { SameResult } from '../taste/same';
import type { SameRound, Serving } from '../taste/serving';
import type { MeterVerdict } from '../temper/inflection';
import type { TemperVerdict } from '../temper/judge';
import type { Silk, Slab } from '../temper/sums';
import type { SecondPass } from '../winnow/samples';
import type { LiveMould } from '../work/moulding';
import type { LiveRoast } from '../work/roasting';
import type { Route } from '../work/stations';
import type { LivePour } from '../work/tempering';
import type { Machine, Person, Settings } from '../workshop/schemas';
import type { FileView, ImportPreview, RoomView } from './beans';
import type { PrintJob, ScaleReading } from './devices';
import type { JudgementWordView } from './judgement';
import type { MouldsView } from './mould';
import type { FinishedGoodsView, OrderView, PlaceView, SalesPreview } from './orders';
import type { ProductView } from './products';
import type { BackupsView } from './reads';
import type { ComplaintView, RecallView, SharedView } from './recall';
import type { LadderView, SolvedRecipe, WeighingView } from './recipe';
import type { CurvePreviewView } from './roast';
import type { SameTestView, SeatView, SessionView, VocabularyView } from './taste';
import type { WindowsView } from './temper';
import type { TrialView } from './trials';
import type { CorrectionPreview, EnteredStep, StepView, WorkView } from './types';

/** What is answered at the addresses that are written to. */
export interface Writes {
  // A step of each kind at an address of its own; all of them at `/api/ledger/steps`.
  'POST /api/beans/lots': EnteredStep;
  'POST /api/beans/dryings': EnteredStep;
  'POST /api/money/purchases': EnteredStep;
  'POST /api/sort/sessions': EnteredStep;
  'POST /api/roast/loads': EnteredStep;
  'POST /api/winnow/sessions': EnteredStep;
  'POST /api/grind/charges': EnteredStep;
  'POST /api/grind/discharges': EnteredStep;
  'POST /api/grind/readings': EnteredStep;
  'POST /api/rest/blocks': EnteredStep;
  'POST /api/temper/pours': EnteredStep;
  'POST /api/temper/silk': EnteredStep;
  'POST /api/temper/remelts': EnteredStep;
  'POST /api/mould/sessions': EnteredStep;
  'POST /api/pack/sessions': EnteredStep;
  'POST /api/taste/tastings': EnteredStep;
  'POST /api/money/sales': EnteredStep;
  'POST /api/money/returns': EnteredStep;
  'POST /api/ledger/counts': EnteredStep;
  'POST /api/ledger/opening': EnteredStep;
  'DELETE /api/beans/files/:id': { removed: boolean };
  'POST /api/beans/import': { codes: string[] };
  'POST /api/beans/lots/:code/files': FileView;
  'POST /api/beans/lots/:code/records': BeanRecord;
  'POST /api/beans/records': BeanRecord;
  'POST /api/beans/records/:id/take-back': BeanRecord;
  'POST /api/demo/reset': { steps: number };
  'POST /api/grind/batches/:code/feed': { planned: number };
  'POST /api/grind/batches/:code/probe': { probe: 'simulated' | 'sent' | null };
  'POST /api/grind/batches/:code/usual': { planned: number };
  'POST /api/grind/batches/:id/acts': Batch;
  'POST /api/grind/batches/:id/acts/:act': Batch;
  'POST /api/judgement/words': JudgementWordView;
  'POST /api/judgement/words/:id/taken-back': { words: JudgementWordView[] };
  'POST /api/ledger/opening/table': { codes: string[] };
  'POST /api/ledger/steps': EnteredStep;
  'POST /api/ledger/steps/:id/correct': EnteredStep;
  'POST /api/ledger/steps/:id/withdraw': EnteredStep;
  'POST /api/ledger/works': WorkView;
  'DELETE /api/ledger/works/:id': { putBack: boolean };
  'POST /api/ledger/works/:id/finish': EnteredStep;
  'POST /api/ledger/works/:id/pause': WorkView;
  'POST /api/ledger/works/:id/resume': WorkView;
  'POST /api/losses/stock-takes': { steps: StepView[] };
  'POST /api/mould/cabinet': MouldsView;
  'POST /api/mould/moulds': MouldsView;
  'PUT /api/mould/moulds/:id': MouldsView;
  'POST /api/mould/moulds/:id/cleaned': MouldsView;
  'POST /api/mould/works/:id/fills': LiveMould;
  'POST /api/mould/works/:id/fills/:fill/out': LiveMould;
  'POST /api/mould/works/:id/fills/:fill/shell': LiveMould;
  'POST /api/mould/works/:id/setup': LiveMould;
  'POST /api/mould/works/:id/temps': LiveMould;
  'POST /api/mould/works/:id/weights': LiveMould;
  'DELETE /api/mould/works/:id/weights/last': LiveMould;
  'POST /api/orders': OrderView;
  'PUT /api/orders/:id': OrderView;
  'POST /api/orders/:id/cancel': OrderView;
  'POST /api/orders/:id/deliver': { stepId: string; order: OrderView };
  'POST /api/orders/customers': CustomerFacts & { id: string };
  'PUT /api/orders/customers/:id': CustomerFacts & { id: string };
  'POST /api/orders/places': PlaceView;
  'POST /api/orders/places/:id/climate': PlaceView;
  'POST /api/orders/places/:id/goods': FinishedGoodsView;
  'POST /api/orders/sales': { steps: string[] };
  'PUT /api/pack/words/:market': { market: Market; own: Partial<LabelWords> };
  'POST /api/pictures': FileView;
  'POST /api/products': ProductView;
  'PUT /api/products/:id': ProductView;
  'POST /api/recipe/ladders/:id/batches': LadderView;
  'POST /api/recipe/recipes': { id: string; version: number };
  'POST /api/recipe/recipes/:id/ladders': LadderView;
  'POST /api/recipe/recipes/:id/shelve': { id: string; shelved: boolean };
  'POST /api/recipe/recipes/:id/versions': { id: string; version: number };
  'POST /api/recipe/weighings': WeighingView;
  'POST /api/recipe/weighings/:id/finish': { step: StepView; weighing: WeighingView };
  'POST /api/recipe/weighings/:id/put-back': WeighingView;
  'POST /api/recipe/weighings/:id/replan': WeighingView & { outcome: 'met' | 'near' | 'contradiction' };
  'POST /api/recipe/weighings/:id/undo': WeighingView;
  'POST /api/recipe/weighings/:id/weighed': WeighingView;
  'POST /api/rest/batches/:code/until': { until: string | null };
  'POST /api/roast/live/:work/readings': { beanC: number | null; airC: number | null; second: number };
  'POST /api/roast/live/:work/settings': LiveRoast;
  'POST /api/roast/live/:work/signs': LiveRoast;
  'POST /api/roast/live/:work/stirs': LiveRoast;
  'POST /api/roast/live/:work/stop': LiveRoast;
  'POST /api/roast/live/:work/undo': LiveRoast;
  'DELETE /api/roast/loads/:code/curve': { code: string };
  'POST /api/roast/loads/:code/curve': { readings: number; leftOut: number };
  'POST /api/roast/loads/:code/scores': RoastRecord;
  'POST /api/roast/loads/:code/words': RoastRecord;
  'POST /api/roast/programs': { id: string; version: number };
  'POST /api/roast/programs/:id/shelve': { id: string; shelved: boolean };
  'POST /api/roast/programs/:id/versions': { id: string; version: number };
  'POST /api/roast/trials': { id: string };
  'POST /api/roast/trials/:id/loads': { trialId: string; cell: number; code: string };
  'POST /api/taste/guest/:id/seats': SeatView;
  'POST /api/taste/guest/:id/seats/:seat/sheets': { code: string };
  'POST /api/taste/outside': { id: string };
  'POST /api/taste/same': SameTestView;
  'POST /api/taste/sessions': { id: string };
  'POST /api/taste/sessions/:id/state': SessionView;
  'POST /api/taste/sheets': { id: string; tastingId: string };
  'POST /api/taste/words': VocabularyView;
  'POST /api/temper/windows/:code': WindowsView;
  'POST /api/temper/works/:id/acts/:act': LivePour;
  'POST /api/temper/works/:id/marks': LivePour;
  'DELETE /api/temper/works/:id/marks/last': LivePour;
  'POST /api/temper/works/:id/plan': LivePour;
  'POST /api/trace/complaints': ComplaintView;
  'POST /api/trace/complaints/:id/answer': { answered: boolean };
  'POST /api/trace/recalls': RecallView;
  'POST /api/trace/recalls/:id/end': RecallView;
  'POST /api/trace/recalls/:id/release': RecallView;
  'POST /api/trials': { id: string };
  'POST /api/trials/:id/made': TrialView;
  'DELETE /api/trials/:id/made/:code': TrialView;
  'POST /api/workshop/backups': BackupsView['backups'][number];
  'POST /api/workshop/backups/:name/restore': { steps: number; before: string };
  'POST /api/workshop/machines': Machine;
  'PUT /api/workshop/machines/:id': Machine;
  'POST /api/workshop/machines/:id/cleanings': Machine;
  'POST /api/workshop/machines/:id/services': { services: number };
  'POST /api/workshop/materials': Material;
  'PUT /api/workshop/materials/:id': Material;
  'POST /api/workshop/people': Person;
  'PUT /api/workshop/people/:id': Person;
  'POST /api/workshop/restore': { steps: number };
  'POST /api/workshop/routes': Route;
  'PUT /api/workshop/routes/:id': Route;
  'PUT /api/workshop/settings': Settings;
}

/** What is answered to questions: they are sent with a body, and change nothing that is kept. */
export interface Asks {
  'POST /api/beans/import/preview': ImportPreview;
  'POST /api/calc/beans/cut-test': CutVerdict;
  'POST /api/calc/beans/landed': { total: number; perKg: number };
  'POST /api/calc/grind/conche': ConcheForecast;
  'POST /api/calc/grind/forecast': GrindTonight;
  'POST /api/calc/mould/bars': { bars: number; fills: number; overG: number };
  'POST /api/calc/mould/plan': MouldPlan;
  'POST /api/calc/mould/weights': WeightStudy;
  'POST /api/calc/products/fill': Left;
  'POST /api/calc/recipe/cocoa': { cocoaPct: number; withoutButterPct: number; sugarPct: number };
  'POST /api/calc/recipe/correct': SolvedRecipe;
  'POST /api/calc/recipe/figures': Forward & {
    needs: (Needs & { ingredient: string; fromSacks: SackLeft[] })[];
    order: Portion[];
  };
  'POST /api/calc/recipe/scale': {
    totalG: number;
    lines: { ingredient: string; grams: number }[];
    split: { lines: { ingredient: string; grams: number }[]; id: string; name: string; grams: number }[];
  };
  'POST /api/calc/recipe/solve': SolvedRecipe;
  'POST /api/calc/recipe/swap': Swap;
  'POST /api/calc/roast/figures': RoastFigures & {
    stalls: Stall[];
    jumps: Jump[];
    gaps: Span[];
    stuck: Span[];
    slips: { second: number; readC: number }[];
  };
  'POST /api/calc/roast/fill': FillVerdict;
  'POST /api/calc/roast/fit': {
    warmingPerMin: Interval;
    dryingPerMin: Interval;
    air: AirParameters;
    loads: LoadFit[];
    heldOut: HeldOut | null;
  };
  'POST /api/calc/roast/heat-kill': { reductions: number };
  'POST /api/calc/roast/simulate': Omit<PlanBand, 'middle'> & {
    fit: string;
    middle: { minutes: number[]; beanC: number[]; airC: number[]; setC: number[]; water: number[] };
  };
  'POST /api/calc/roast/steady': { setC: number | null };
  'POST /api/calc/roast/trial': RoastTrialVerdict;
  'POST /api/calc/stats/change-point': { change: ChangePoint | null };
  'POST /api/calc/stats/individuals': { chart: Individuals | null; signal: Signal | null };
  'POST /api/calc/stats/share': { low: number; high: number; share: number };
  'POST /api/calc/taste/panel': PanelVerdict;
  'POST /api/calc/taste/power': { power: number; triesFor: number | null };
  'POST /api/calc/taste/rounds': { rounds: SameRound[] };
  'POST /api/calc/taste/same': SameResult;
  'POST /api/calc/taste/servings': { servings: Serving[] };
  'POST /api/calc/temper/judge': TemperVerdict;
  'POST /api/calc/temper/meter': { found: MeterVerdict | null };
  'POST /api/calc/temper/seed': { seedG: number; thirdsG: [number, number, number] };
  'POST /api/calc/temper/silk': Silk;
  'POST /api/calc/temper/slab': Slab;
  'POST /api/calc/trials/design': { arms: (string | number)[][]; all: number; fewest: number };
  'POST /api/calc/winnow/samples': MeanInterval | null;
  'POST /api/calc/winnow/second-pass': SecondPass;
  'POST /api/devices/clock': { now: number; speed: number };
  'POST /api/devices/core/mood': { stuck: boolean; unplugged: boolean; doorOpen: boolean };
  'POST /api/devices/pour/mood': { stuck: boolean; unplugged: boolean };
  'POST /api/devices/printer/mood': { empty: boolean; unplugged: boolean };
  'POST /api/devices/roast/mood': { noiseC: number; stuck: boolean; unplugged: boolean; speed: number };
  'POST /api/devices/roast/readings': { listening: number; kept: number };
  'POST /api/devices/room/mood': RoomView;
  'POST /api/devices/room/readings': RoomView;
  'POST /api/devices/scale/mood': ScaleReading;
  'POST /api/devices/scale/place': ScaleReading;
  'POST /api/devices/scale/readings': ScaleReading;
  'POST /api/grind/batches/:code/temperature': { kept: boolean };
  'POST /api/ledger/opening/preview': { rows: OpeningRow[] };
  'POST /api/ledger/steps/:id/preview': CorrectionPreview;
  'POST /api/orders/sales/preview': SalesPreview;
  'POST /api/pack/print': PrintJob;
  'POST /api/recipe/weighings/:id/check': { holdingId: string; code: string };
  'POST /api/roast/curves/preview': CurvePreviewView;
  'POST /api/temper/works/:id/meter': {
    readings: { second: number; tempC: number }[];
    badCount: number;
    simulated: boolean;
    found: MeterVerdict | null;
  };
  'POST /api/temper/works/:id/probe': { probe: 'simulated' | 'sent' | null };
  'POST /api/temper/works/:id/readings': { kept: boolean };
  'POST /api/trace/shared': SharedView;
}

interface Interval {
  mean: number;
  low: number;
  high: number;
}

type Method = 'POST' | 'PUT' | 'DELETE';

/** All that is answered to what is sent with a body. */
interface Sent extends Writes, Asks {}

/** What has to be answered to a write at an address; nothing is said of those that are not in the list. */
export type WrittenAt<M extends Method, Url extends string> = `${M} ${Url}` extends keyof Writes
  ? Writes[`${M} ${Url}`] | Promise<Writes[`${M} ${Url}`]>
  : unknown;

/** What has to be answered to a question at an address; nothing is said of those that are not in the list. */
export type AskedAt<Url extends string> = `POST ${Url}` extends keyof Asks
  ? Asks[`POST ${Url}`] | Promise<Asks[`POST ${Url}`]>
  : unknown;

/**
 * What is answered at a path that the interface puts together and sends to.
 *
 * @example WrittenOf<'PUT', `/api/orders/${string}`> is OrderView
 */
export type WrittenOf<M extends Method, Path extends string> = Sent[Listed<Sent, `${M} ${WithoutQuery<Path>}`>];

/** A path that something can be sent to; anything else is no path. */
export type WritePath<M extends Method, Path extends string> = [Listed<Sent, `${M} ${WithoutQuery<Path>}`>] extends [
  never,
]
  ? never
  : Path;

/** What is answered to a question at a path. */
export type AskedOf<Path extends string> = Asks[Listed<Asks, `POST ${Path}`>];

/** A path that answers questions; anything else is no path. */
export type AskPath<Path extends string> = [Listed<Asks, `POST ${Path}`>] extends [never] ? never : Path;
