/* Contents: what others use of this room, file by file. Kept by scripts/contents.mjs. */

export { BarsByBatch, type BatchBars } from './bars';
export { blocksOf, checkBlocks } from './blocks';
export { type TraceDrawing, type TracePlace, traceDrawing } from './branches';
export { type FlowStation, StationSums, type StationTotals, addTotals, flowByStation } from './by-station';
export { epcisDocument } from './epcis';
export { type Fractions, downstream, fillingShares, greenMg, upstream } from './flow';
export { type Marking, marksOf } from './marks';
export { Notables } from './notable';
export { recallOf } from './recall';
export { COMPLAINTS, COMPLAINT_WORDS, type ComplaintKind, type TraceRecordValue, traceRecord } from './records';
export { SHARED_ANYWHERE, type SharedGroup, type SharedOptions, goodsHaving, sharedBy } from './shared';
