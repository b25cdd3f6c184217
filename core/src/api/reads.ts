import type { BeanStoreView, RoomView, SampleView } from './beans';
import type { RestBenefit, RestShelf } from './grind';
import type { StockTakeRow } from './losses';
import type { MouldsView } from './mould';
import type { FinishedGoodsView, MarginsView, OrdersView } from './orders';
import type { ProductsView } from './products';
import type { ComplaintView, RecallRow } from './recall';
import type { PantryView, RecipeRow, WeighingView } from './recipe';
import type { CoolingView, ProgramView, RoasterView, TrialView as RoastTrialView } from './roast';
import type {
  HistoryView,
  MattersView,
  OutsideView,
  SameTestView,
  SampleChoice,
  SessionView,
  TastingView,
  VocabularyView,
} from './taste';
import type { FaultsView } from './temper';
import type { TrialView, UsualLevels } from './trials';
import type { FloorView, HoldingView, WorkshopView } from './types';
import type { LotFacts } from '../ledger/types';

/** A lot in the list of lots. */
export type LotRow = HoldingView & { facts: LotFacts; receivedMg: number };

/**
 * What is answered where, for addresses without a part that changes: the server has to answer it, the interface gets it,
 * and neither says it again.
 */
export interface Reads {
  '/api/beans/samples': { samples: SampleView[] };
  '/api/beans/store': BeanStoreView;
  '/api/devices/room': RoomView;
  '/api/ledger/floor': FloorView;
  '/api/losses/stock-take': { rows: StockTakeRow[] };
  '/api/mould/moulds': MouldsView;
  '/api/orders': OrdersView;
  '/api/orders/goods': FinishedGoodsView;
  '/api/orders/margins': MarginsView;
  '/api/products': ProductsView;
  '/api/recipe/pantry': PantryView;
  '/api/recipe/recipes': { recipes: RecipeRow[] };
  '/api/recipe/weighings': { weighings: WeighingView[] };
  '/api/rest/benefit': RestBenefit;
  '/api/rest/shelf': RestShelf;
  '/api/roast/cooling': { cooling: CoolingView[] };
  '/api/roast/programs': { programs: ProgramView[] };
  '/api/roast/roasters': { roasters: RoasterView[] };
  '/api/roast/trials': { trials: RoastTrialView[] };
  '/api/taste/history': HistoryView;
  '/api/taste/matters': MattersView;
  '/api/taste/outside': { bars: OutsideView[] };
  '/api/taste/same': { tests: SameTestView[] };
  '/api/taste/samples': SampleChoice;
  '/api/taste/sessions': { sessions: SessionView[] };
  '/api/taste/tastings': { tastings: TastingView[] };
  '/api/taste/words': VocabularyView;
  '/api/temper/faults': FaultsView;
  '/api/trace/complaints': { complaints: ComplaintView[] };
  '/api/trace/lots': { lots: LotRow[] };
  '/api/trace/recalls': { recalls: RecallRow[] };
  '/api/trace/stock': { holdings: HoldingView[] };
  '/api/trials': { trials: TrialView[] };
  '/api/trials/usual': { usual: UsualLevels };
  '/api/workshop': WorkshopView;
}

/** What has to be answered at an address; nothing is said of those that are not in the list. */
export type AnswerAt<Url extends string> = Url extends keyof Reads ? Reads[Url] | Promise<Reads[Url]> : unknown;
