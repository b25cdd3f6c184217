import { formatMass, toMg } from '@wunsch/core/units/mass';
import type { Views } from '../../ledger/views';
import { SOFT_INK } from '../../print/paper';
import { Sheet } from '../../print/sheet';
import { beanLotView } from '../views';
import { dayIn } from '@wunsch/core/units/zone';

/** A sheet to hang on the sacks: what it is, where it stands, and a QR code of its own page. */
export function lotPdf(views: Views, lotId: string, origin: string): Promise<Uint8Array> {
  const { workshop } = views;
  const lot = beanLotView(views, lotId);
  const day = dayIn(workshop.settings.timeZone);
  const paper = new Sheet({ title: `Lot ${lot.code}`, author: workshop.settings.name, at: workshop.now() });
  const link = `${origin}/lot/${encodeURIComponent(lot.code)}`;
  paper.code(link);
  paper.write(lot.code, { face: 'display', size: 84, width: 330, y: 44 });
  paper.write(lot.name, { face: 'display', size: 20, width: 330 });
  paper.write(standingWords(lot.standing), { face: 'strong', size: 13, width: 330 });
  paper.belowCode();
  paper.space(14);
  paper.rule();
  const { papers, facts } = lot;
  const made = [
    papers.vessel === '' ? '' : `in a ${papers.vessel}`,
    papers.fermentDays === null ? '' : `${papers.fermentDays} days`,
    papers.turns === null ? '' : `${papers.turns} turns`,
  ];
  const dried = [papers.dryingBy, papers.dryingDays === null ? '' : `${papers.dryingDays} days`];
  const newest = lot.inspections.at(-1);
  const join = (list: readonly string[]): string => list.filter((text) => text !== '').join(', ');
  paper.facts([
    ['Producer', join([facts.producer, papers.people])],
    ['Origin', join([facts.country, facts.region, papers.altitudeM === null ? '' : `${papers.altitudeM} m`])],
    ['Variety, harvest', join([facts.variety, facts.harvest])],
    ['Fermented', join(made)],
    ['Dried', join(dried)],
    ['Claimed', papers.certificates.join(', ')],
    ['Received', `${day(lot.receivedAt)}, ${formatMass(toMg(lot.receivedG))} net, sacks: ${facts.sacks}`],
    ['Inspected', newest ? `${day(newest.at)}: ${newest.cut?.sentence ?? newest.arrival.sentence}` : 'not yet'],
    ['Route', lot.route.name],
  ]);
  if (lot.sackRows.length > 0) {
    paper.heading('Sacks');
    paper.table(
      ['Sack', 'Gross', 'Tare', 'Net', 'Place'],
      lot.sackRows.map((row) => [
        String(row.no),
        formatMass(toMg(row.grossG)),
        formatMass(toMg(row.tareG)),
        formatMass(toMg(row.grossG - row.tareG)),
        row.place,
      ]),
      [0.12, 0.2, 0.2, 0.2, 0.28],
      [1, 2, 3],
    );
  }
  paper.space(12);
  paper.write('Raw beans are not ready to eat: keep raw and roasted apart, hands, tubs and air. Lift sacks with two.', {
    colour: SOFT_INK,
  });
  return paper.bytes();
}

function standingWords(standing: string): string {
  if (standing === 'on hold') return 'ON HOLD: do not open, keep apart';
  if (standing === 'refused') return 'REFUSED: do not use';
  return standing === 'wet' ? 'Wet: fermenting or drying' : standing;
}
