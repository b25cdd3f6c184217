import { milliFromMajor } from '../units/money';
import type { OrderLine } from './records';

/** What an order comes to, milli. */
export const orderTotalMilli = (lines: readonly Pick<OrderLine, 'pieces' | 'price'>[]): number =>
  lines.reduce((sum, { pieces, price }) => sum + pieces * milliFromMajor(price), 0);
