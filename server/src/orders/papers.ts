import type { DeliveryView, OrderView } from '@wunsch/core/api/orders';
import { formatMoney } from '@wunsch/core/units/money';
import { dayText } from '@wunsch/core/units/zone';
import type { Settings } from '@wunsch/core/workshop/schemas';
import { SOFT_INK } from '../print/paper';
import { Sheet } from '../print/sheet';

/** What is to be taken from the shelf for an order, first-expired first. */
export async function pickListPdf(
  settings: Settings,
  order: OrderView,
  placeOf: (holdingId: string) => string,
  now: number,
): Promise<Uint8Array> {
  const paper = new Sheet({ title: `Pick list, ${order.number}`, author: settings.name, at: now });
  paper.title(`Pick list ${order.number}`, `${order.customer.name}, due ${order.facts.dueDate}`);
  const rows = order.lines.flatMap(({ product, picks }) =>
    picks.map(({ holdingId, code, pieces, bestBefore }) => [
      product,
      code,
      placeOf(holdingId),
      bestBefore ?? '',
      String(pieces),
      '',
    ]),
  );
  if (rows.length === 0) paper.write('Nothing of this order stands packed.');
  else
    paper.table(
      ['Product', 'Code', 'Where', 'Best before', 'Take', 'Done'],
      rows,
      [0.32, 0.18, 0.17, 0.16, 0.09, 0.08],
      [4],
    );
  paper.space(8);
  if (order.promise !== '') paper.write(order.promise, { colour: SOFT_INK });
  if (order.facts.note !== '') paper.write(order.facts.note);
  return paper.bytes();
}

/** What goes with a delivery: the goods with their codes, so that they can be found again. */
export async function deliveryNotePdf(
  settings: Settings,
  order: OrderView,
  delivery: DeliveryView,
  bestBefore: (holdingId: string) => string,
  now: number,
): Promise<Uint8Array> {
  const paper = new Sheet({ title: `Delivery note, ${order.number}`, author: settings.name, at: now });
  const money = (milli: number): string => formatMoney(milli, settings.currency);
  paper.title(`Delivery note ${order.number}`, `${settings.name}, ${dayText(delivery.at, settings.timeZone)}`);
  paper.facts([
    ['To', order.customer.name],
    ['Address', order.customer.address],
    ['Order of', dayText(order.at, settings.timeZone)],
    ['Packed by', delivery.person],
    ['Note', delivery.note],
  ]);
  paper.space(8);
  paper.table(
    ['Product', 'Code', 'Best before', 'Pieces', 'Price'],
    delivery.lines.map(({ product, code, holdingId, pieces, milli }) => [
      product,
      code,
      bestBefore(holdingId),
      String(pieces),
      money(milli),
    ]),
    [0.38, 0.2, 0.18, 0.1, 0.14],
    [3, 4],
  );
  const all = delivery.lines.reduce((sum, { pieces }) => sum + pieces, 0);
  paper.write(`${all} pieces, ${money(delivery.lines.reduce((sum, { milli }) => sum + milli, 0))}`, { face: 'strong' });
  paper.space(10);
  paper.write('Keep dry and dark, at 16 to 18 °C. The code on each piece says what it was made from.', {
    colour: SOFT_INK,
    size: 9,
  });
  paper.space(30);
  paper.write('Received: ______________________________   Day: ______________');
  return paper.bytes();
}
