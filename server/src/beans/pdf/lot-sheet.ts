import QRCode from 'qrcode';
import { formatMass, toMg } from '@wunsch/core/units/mass';
import type { Views } from '../../ledger/views';
import { Paper, SOFT_INK } from '../../print/paper';
import { beanLotView } from '../views';
import { dayIn } from './claim';

const QR_POINTS = 150;
const QR_QUIET = 4;

/** A sheet to hang on the sacks: what it is, where it stands, and a QR code of its own page. */
export async function lotPdf(views: Views, lotId: string, origin: string): Promise<Uint8Array> {
  const { workshop } = views;
  const lot = beanLotView(views, lotId);
  const day = dayIn(workshop.settings.timeZone);
  const paper = await Paper.begin(`Lot ${lot.code}`, workshop.settings.name, workshop.now());
  const link = `${origin}/lot/${encodeURIComponent(lot.code)}`;
  drawQr(paper, link);
  paper.write(lot.code, { face: 'display', size: 84, width: 330, y: 44 });
  paper.write(lot.name, { face: 'display', size: 20, width: 330 });
  paper.write(standingWords(lot.standing), { face: 'strong', size: 13, width: 330 });
  paper.doc.y = Math.max(paper.y, 44 + QR_POINTS + 24);
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

/** The code as squares, so that it prints sharp at any size. */
function drawQr(paper: Paper, text: string): void {
  const { modules } = QRCode.create(text, { errorCorrectionLevel: 'M' });
  const side = QR_POINTS / (modules.size + 2 * QR_QUIET);
  const left = paper.left + paper.width - QR_POINTS;
  const top = 44;
  for (let row = 0; row < modules.size; row += 1) {
    for (let column = 0; column < modules.size; column += 1) {
      if (modules.get(row, column) !== 0)
        paper.doc.rect(left + (column + QR_QUIET) * side, top + (row + QR_QUIET) * side, side + 0.05, side + 0.05);
    }
  }
  paper.doc.fill('#2b1735');
  paper.write(text.replace(/^https?:\/\//, ''), {
    size: 8,
    colour: SOFT_INK,
    x: left,
    y: top + QR_POINTS,
    width: QR_POINTS,
  });
}
