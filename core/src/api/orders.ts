import type { Margin } from '../products/margin';
import type { CustomerFacts, OrderFacts } from '../orders/records';
import type { Pick } from '../orders/stock';
import type { Mark } from '../workshop/mark';

export interface CustomerView extends CustomerFacts {
  id: string;
}

/** One line of an order, and what it is served with. */
export interface OrderLineView {
  productId: string;
  product: string;
  pieces: number;
  price: number;
  sent: number;
  returned: number;
  open: number;
  picks: Pick[];
  coming: { words: string; link: string | null; pieces: number; at: number | null }[];
  missing: number;
}

export interface DeliveryView {
  stepId: string;
  at: number;
  person: string;
  note: string;
  withdrawn: boolean;
  lines: { holdingId: string; code: string; product: string; pieces: number; returned: number; milli: number }[];
}

export interface OrderView {
  id: string;
  number: string;
  at: number;
  person: string;
  facts: OrderFacts;
  customer: CustomerView;
  state: 'open' | 'sent' | 'cancelled';
  why: string;
  lines: OrderLineView[];
  /** When it can go out, in a sentence. */
  promise: string;
  /** Whether all that is still open stands packed. */
  ready: boolean;
  late: boolean;
  totalMilli: number;
  deliveries: DeliveryView[];
}

export interface OrdersView {
  orders: OrderView[];
  customers: CustomerView[];
  channels: string[];
}

/** Finished goods of one code. */
export interface FinishedView {
  holdingId: string;
  code: string;
  name: string;
  productId: string | null;
  product: string;
  batchCode: string | null;
  bestBefore: string | null;
  /** Days until then; below 0, it has passed. */
  daysLeft: number | null;
  pieces: number;
  /** Of them, promised to orders. */
  promised: number;
  massMg: number;
  perPieceMilli: number;
  placeId: string | null;
  marks: Mark[];
}

export interface PlaceView {
  id: string;
  name: string;
  tempC: number | null;
  humidityPct: number | null;
  at: number | null;
  warning: string | null;
}

export interface FinishedGoodsView {
  goods: FinishedView[];
  places: PlaceView[];
}

export interface MarginsView {
  from: number;
  margins: Margin[];
  /** Samples, gifts and class visitors: what they cost. */
  given: { use: string; pieces: number; costMilli: number }[];
}

/** A table of sales from elsewhere, read. */
export interface SalesPreview {
  rows: {
    line: number;
    at: string | null;
    channel: string;
    what: string;
    pieces: number;
    takings: number;
    to: string;
    picks: Pick[];
    problems: string[];
  }[];
  bad: number;
}
