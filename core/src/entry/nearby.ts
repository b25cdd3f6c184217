import type { Command } from '../commands';
import type { Nearby } from './doubt';

/** What of a kind of work weighs about as much as what went in. */
const LIKE_WHAT_WENT_IN: Partial<Record<Command['kind'], string>> = {
  sort: 'goodG',
  roast: 'outG',
  winnow: 'nibsG',
  discharge: 'outsG',
  rest: 'outG',
  temper: 'outG',
  remelt: 'outG',
};

const number = (value: unknown): number => (typeof value === 'number' ? value : 0);

/**
 * What the figures of an entry should be near, from what went in.
 *
 * @param inG grams that went in; 0 where nothing did
 * @param values as typed, by field
 */
export function nearbyOf(kind: Command['kind'], inG: number, values: Readonly<Record<string, unknown>>): Nearby {
  const near: Record<string, { value: number; of: string }> = {};
  const field = LIKE_WHAT_WENT_IN[kind];
  const staying = number(values['leftG']);
  if (field !== undefined && inG > staying) near[field] = { value: inG - staying, of: 'What went in' };
  if (kind === 'mould') {
    const [barG, bars] = [number(values['barG']), number(values['goodPieces'])];
    if (barG > 0 && inG > 0) near['goodPieces'] = { value: inG / barG, of: 'Bars of that weight in what went in' };
    if (barG > 0 && bars > 0) near['goodG'] = { value: barG * bars, of: 'That many bars of that weight' };
  }
  if (kind === 'receive') {
    const invoice = number(values['invoiceNetG']);
    if (invoice > 0) near['netG'] = { value: invoice, of: 'The invoice says' };
  }
  return near;
}
