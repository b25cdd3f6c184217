/* Contents: what others use of this room, file by file. Kept by scripts/contents.mjs. */

export {
  type BeanLotView,
  type BeanRecordView,
  type BeanStoreView,
  type FileView,
  type HarvestView,
  type HoldView,
  type ImportPreview,
  type InspectionView,
  type LotLink,
  type RoomView,
  type SampleView,
  type SortView,
  type StoreRow,
} from './beans';
export { type PrintJob, type ScaleReading } from './devices';
export {
  type ActView,
  type GrindHits,
  type GrindRunView,
  type GrinderView,
  type RestBenefit,
  type RestShelf,
} from './grind';
export { type JudgementWordView } from './judgement';
export {
  type LossBookView,
  type LossMetric,
  type LossWatch,
  type SeriesPoint,
  type SeriesView,
  type StockTakeRow,
  type WinnowPastView,
  type WinnowSession,
} from './losses';
export { type MouldView, type MouldingView, type MouldsView } from './mould';
export {
  type CustomerView,
  type DeliveryView,
  type FinishedGoodsView,
  type FinishedView,
  type MarginsView,
  type OrderLineView,
  type OrderView,
  type OrdersView,
  type PlaceView,
  type SalesPreview,
} from './orders';
export { type ProductPageView, type ProductView, type ProductsView } from './products';
export {
  type AnswerAt,
  type AnswerOf,
  type BackupsView,
  type BatchRow,
  type LotRow,
  type MarketWords,
  type Price,
  type ReadPath,
  type RoastMood,
  type StepVersions,
} from './reads';
export {
  type ComplaintView,
  type RecallRow,
  type RecallView,
  type SharedGroupView,
  type SharedThingView,
  type SharedView,
  type SharingView,
} from './recall';
export {
  type BowlView,
  type LadderView,
  type LotYield,
  type PantryRow,
  type PantryView,
  type RecipeBatch,
  type RecipeRow,
  type RecipeVersionView,
  type RecipeView,
  type WeighingView,
} from './recipe';
export {
  type CoolingView,
  type CurveData,
  type CurvePreviewView,
  type LiveTick,
  type LiveView,
  type LoadRow,
  type LoadView,
  type LoggedLoadData,
  type ProgramVersion,
  type ProgramView,
  type RoasterView,
  type TrialView,
} from './roast';
export {
  type Change,
  type ComesUpView,
  type GuestView,
  type HistoryView,
  type MattersView,
  type OutsideView,
  type PalateView,
  type SameTestView,
  type SampleChoice,
  type SeatView,
  type SessionView,
  type SheetView,
  type SubjectView,
  type TastingView,
  type VocabularyView,
} from './taste';
export {
  type BatchLooks,
  type FaultsView,
  type LearnedView,
  type PourView,
  type PouredView,
  type SilkView,
  type WindowsView,
} from './temper';
export { type MadeView, type UsualLevels } from './trials';
export {
  type BatchView,
  type BenchView,
  type ClosedWork,
  type CompositionView,
  type CorrectionPreview,
  type CostView,
  type DueItem,
  type EnteredStep,
  type FloorStation,
  type FloorView,
  type GrindView,
  type HistoryPoint,
  type HoldingView,
  type LineView,
  type LotView,
  type Problem,
  type ReadingView,
  type SearchHit,
  type StepView,
  type StreamStation,
  type TraceView,
  type WorkView,
  type WorkshopView,
} from './types';
export { type AskPath, type AskedAt, type AskedOf, type WritePath, type WrittenAt, type WrittenOf } from './writes';
