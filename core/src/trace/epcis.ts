import type { Book } from '../ledger/book';
import type { CommandOf } from '../commands';
import type { Posting, Step } from '../ledger/types';

/*
 * Steps as events of EPCIS 2.0 (GS1, EPCIS Standard release 2.0, 2022; words of the Core Business Vocabulary 2.0), in
 * its JSON-LD. Goods are told by class and quantity: what has one code is one lot of one class.
 */

/** What the events are told with. */
export interface EpcisWords {
  /** Address that codes and places are named under: `https://workshop.example`. */
  base: string;
  /** The number of the trade item that packed goods carry; null: none. */
  gtin14: (holdingId: string) => string | null;
  /** When the document is made, UTC ms. */
  now: number;
}

interface Quantity {
  epcClass: string;
  quantity: number;
  /** KGM; left out where pieces are counted. */
  uom?: 'KGM';
}

/** One event, as the standard's JSON has it. */
export interface EpcisEvent {
  type: 'ObjectEvent' | 'TransformationEvent';
  eventID: string;
  eventTime: string;
  eventTimeZoneOffset: '+00:00';
  recordTime: string;
  bizStep: string;
  disposition?: string;
  readPoint: { id: string };
  bizLocation?: { id: string };
  action?: 'ADD' | 'OBSERVE' | 'DELETE';
  quantityList?: Quantity[];
  inputQuantityList?: Quantity[];
  outputQuantityList?: Quantity[];
  transformationID?: string;
  bizTransactionList?: { type: string; bizTransaction: string }[];
  'wunsch:step': string;
  'wunsch:to'?: string;
}

export interface EpcisDocument {
  '@context': (string | Record<string, string>)[];
  id: string;
  type: 'EPCISDocument';
  schemaVersion: '2.0';
  creationDate: string;
  epcisBody: { eventList: EpcisEvent[] };
}

const CONTEXT = 'https://ref.gs1.org/standards/epcis/2.0.0/epcis-context.jsonld';

/** Whether a posting takes from goods or puts into them. */
const isOfGoods = (p: Posting): p is Posting & { holdingId: string } => p.holdingId !== null;

/** The class of goods with a code: its trade item and lot where it has a number, its page here where it has none. */
function classOf(book: Book, holdingId: string, { base, gtin14 }: EpcisWords): string {
  const code = encodeURIComponent(book.holding(holdingId).code);
  const gtin = gtin14(holdingId);
  return gtin === null ? `${base}/trace/${code}` : `https://id.gs1.org/01/${gtin}/10/${code}`;
}

function quantities(book: Book, postings: readonly Posting[], words: EpcisWords): Quantity[] {
  return postings.filter(isOfGoods).map(({ holdingId, massMg, pieces }): Quantity => {
    const epcClass = classOf(book, holdingId, words);
    return pieces !== 0
      ? { epcClass, quantity: Math.abs(pieces) }
      : { epcClass, quantity: Math.abs(massMg) / 1e6, uom: 'KGM' };
  });
}

/**
 * A step as an event; null for one that moves no goods: a reading, a tasting of nothing.
 *
 * What comes through the door is received, what goes is shipped, what is counted is counted; everything else makes
 * something of something.
 */
export function epcisEvent(book: Book, step: Step, words: EpcisWords): EpcisEvent | null {
  const taken = step.postings.filter((p) => isOfGoods(p) && (p.massMg < 0 || (p.massMg === 0 && p.pieces < 0)));
  const made = step.postings.filter((p) => isOfGoods(p) && (p.massMg > 0 || (p.massMg === 0 && p.pieces > 0)));
  if (taken.length === 0 && made.length === 0) return null;
  const { base } = words;
  const place = { id: `${base}/station/${step.station}` };
  const common = {
    eventID: `${base}/step/${step.id}`,
    eventTime: new Date(step.at).toISOString(),
    eventTimeZoneOffset: '+00:00',
    recordTime: new Date(step.recordedAt).toISOString(),
    readPoint: place,
    'wunsch:step': step.kind,
  } as const;
  const object = (
    action: 'ADD' | 'OBSERVE' | 'DELETE',
    bizStep: string,
    disposition: string,
    more: Partial<EpcisEvent> = {},
  ): EpcisEvent => ({
    type: 'ObjectEvent',
    ...common,
    action,
    bizStep,
    disposition,
    quantityList: quantities(book, [...taken, ...made], words),
    ...more,
  });
  switch (step.kind) {
    case 'receive':
    case 'buy':
    case 'open':
      return object('ADD', 'receiving', 'in_progress', { bizLocation: place });
    case 'sell': {
      const { to, orderId } = step.command as CommandOf<'sell'>;
      return object('OBSERVE', 'shipping', 'in_transit', {
        ...(to === '' ? {} : { 'wunsch:to': to }),
        ...(orderId === undefined
          ? {}
          : { bizTransactionList: [{ type: 'po', bizTransaction: `${base}/orders/${orderId}` }] }),
      });
    }
    case 'return':
      return object('OBSERVE', 'receiving', 'returned', { bizLocation: place });
    case 'adjust':
      return object('OBSERVE', 'cycle_counting', 'in_progress');
    case 'taste':
      return object('OBSERVE', 'sampling', 'in_progress');
    default:
      return {
        type: 'TransformationEvent',
        ...common,
        bizStep: step.kind === 'pack' ? 'packing' : 'commissioning',
        disposition: step.kind === 'pack' ? 'sellable_not_accessible' : 'in_progress',
        transformationID: common.eventID,
        inputQuantityList: quantities(book, taken, words),
        outputQuantityList: quantities(book, made, words),
      };
  }
}

/**
 * Steps in force as one document of events.
 *
 * @example epcisDocument(book, book.timeline, { base: 'https://workshop.example', gtin14: () => null, now: 0 })
 */
export function epcisDocument(book: Book, steps: readonly Step[], words: EpcisWords): EpcisDocument {
  return {
    '@context': [CONTEXT, { wunsch: `${words.base}/words/` }],
    id: `${words.base}/api/trace/epcis.json`,
    type: 'EPCISDocument',
    schemaVersion: '2.0',
    creationDate: new Date(words.now).toISOString(),
    epcisBody: {
      eventList: steps.flatMap((step) => (step.withdrawn ? [] : (epcisEvent(book, step, words) ?? []))),
    },
  };
}
