import type { RecallView } from '@wunsch/core/api/recall';
import { LOSS_NAMES } from '@wunsch/core/ledger/types';
import { formatMass } from '@wunsch/core/units/mass';
import { dayText } from '@wunsch/core/units/zone';
import type { Settings } from '@wunsch/core/workshop/schemas';
import { STATION_NAMES } from '@wunsch/core/work/stations';
import { SOFT_INK } from '../print/paper';
import { Sheet } from '../print/sheet';

/** A recall on paper: what is recalled and why, what each buyer has of it, what is still here. */
export async function recallPdf(settings: Settings, view: RecallView, now: number): Promise<Uint8Array> {
  const { name, timeZone, massSystem } = settings;
  const day = (at: number): string => dayText(at, timeZone);
  const amount = (pieces: number, massMg: number): string =>
    pieces > 0 ? `${pieces} pieces` : formatMass(massMg, massSystem);
  const paper = new Sheet({ title: `Recall, ${view.codes.join(', ')}`, author: name, at: now });
  paper.title(view.mock ? 'Recall, for practice only' : 'Recall', `${name}, ${day(view.at)}`);
  paper.facts([
    ['What is recalled', view.codes.join(', ')],
    ['Why', view.why],
    ['Codes on the bars', view.affected.join(', ')],
    ['Said by', view.person],
    ['Found again', `${(100 * view.foundShare).toFixed(1)} % of its grams`],
  ]);
  for (const buyer of view.buyers) {
    paper.need(110);
    paper.heading(buyer.to === '' ? 'To a buyer without a name' : `To ${buyer.to}`);
    paper.write(
      `Please take these off sale at once, keep them apart, and tell us how many you have: ${buyer.codes.join(', ')}. You had ${amount(buyer.pieces, buyer.massMg)} of them from us.`,
    );
    paper.space(4);
    paper.table(
      ['Code', 'When', 'How many'],
      view.sold
        .filter(({ to }) => to === buyer.to)
        .map((row) => [row.code, day(row.at), amount(row.pieces, row.massMg)]),
      [0.4, 0.3, 0.3],
      [2],
    );
  }
  if (view.here.length > 0) {
    paper.heading('Still here');
    paper.table(
      ['Code', 'What', 'Where', 'How many', 'Blocked'],
      view.here.map((row) => [
        row.code,
        row.name,
        STATION_NAMES[row.place],
        amount(row.pieces, row.massMg),
        row.blocked ? 'yes' : 'no',
      ]),
      [0.18, 0.34, 0.16, 0.2, 0.12],
      [3],
    );
  }
  if (view.lost.length > 0) {
    paper.heading('Gone');
    for (const { cause, massMg } of view.lost) paper.write(`${LOSS_NAMES[cause]}: ${formatMass(massMg, massSystem)}`);
  }
  paper.space(10);
  paper.write(
    'Whether buyers and authorities have to be told, how and how soon, the law of the place decides. Ask the food authority before you decide that they need not be.',
    { colour: SOFT_INK, size: 9 },
  );
  return paper.bytes();
}
