import { dayIn } from '@wunsch/core/units/zone';
import { CUT_CLASSES, CUT_NAMES, beansIn } from '@wunsch/core/beans/cut-test';
import type { BeanLotView } from '@wunsch/core/api/beans';
import { ACTION_NAMES } from '@wunsch/core/beans/words';
import { formatHeavy, formatMass, toMg, type MassSystem } from '@wunsch/core/units/mass';
import type { Views } from '../../ledger/views';
import { SOFT_INK } from '../../print/paper';
import { Sheet } from '../../print/sheet';
import { beanLotView } from '../views';

/** The claim sheet: facts, shares against the contract, what is claimed, how it was found, pictures. */
export async function claimPdf(views: Views, lotId: string): Promise<Uint8Array> {
  const { workshop } = views;
  const lot = beanLotView(views, lotId);
  const { settings } = workshop;
  const day = dayIn(settings.timeZone);
  const { massSystem } = settings;
  const heavy = (grams: number, digits = 1): string => formatHeavy(grams, massSystem, digits);
  const paper = new Sheet({ title: `Claim, lot ${lot.code}`, author: settings.name, at: workshop.now() });
  paper.title(`Claim, lot ${lot.code}`, `${settings.name}, ${day(workshop.now())}`);
  paper.write(lot.claim.sentence, { face: 'display', size: 15 });
  paper.space(8);
  facts(paper, lot, day, massSystem);
  if (lot.claim.rows.length > 0) {
    paper.heading('Found against the contract');
    paper.table(
      ['Measure', 'Found', 'Contract', '95 % interval', ''],
      lot.claim.rows.map((row) => [row.what, row.found, row.limit, row.interval, row.word]),
      [0.4, 0.12, 0.12, 0.2, 0.16],
      [1, 2],
    );
  }
  if (lot.claim.items.length > 0) {
    paper.heading('Claimed');
    paper.table(
      ['', 'Weight', 'At the invoice price'],
      [
        ...lot.claim.items.map((row) => [row.what, row.weight, row.money]),
        ['Together', heavy(lot.claim.totalG), lot.claim.total],
      ],
      [0.6, 0.18, 0.22],
      [1, 2],
    );
  }
  inspected(paper, lot, day);
  sorted(paper, lot, heavy);
  await pictures(paper, views, lot);
  return paper.bytes();
}

function facts(paper: Sheet, lot: BeanLotView, day: (at: number) => string, massSystem: MassSystem): void {
  paper.facts([
    ['Lot', `${lot.code}, ${lot.name}`],
    ['Producer', [lot.facts.producer, lot.papers.people].filter((text) => text !== '').join(', ')],
    [
      'Origin',
      [lot.facts.country, lot.facts.region, lot.facts.variety, lot.facts.harvest]
        .filter((text) => text !== '')
        .join(', '),
    ],
    ['Received', day(lot.receivedAt)],
    [
      'Invoice',
      lot.facts.invoiceNetG
        ? `${formatMass(toMg(lot.facts.invoiceNetG), massSystem)} net, sacks: ${lot.facts.invoiceSacks ?? lot.facts.sacks}`
        : `sacks: ${lot.facts.sacks}`,
    ],
    ['Weighed', lot.count ? lot.count.sentence : formatMass(toMg(lot.receivedG), massSystem)],
    [
      'Decided',
      lot.decision
        ? `${ACTION_NAMES[lot.decision.value.action]}, ${lot.decision.person}, ${day(lot.decision.at)}${lot.decision.value.word === '' ? '' : `: ${lot.decision.value.word}`}`
        : '',
    ],
  ]);
}

function inspected(paper: Sheet, lot: BeanLotView, day: (at: number) => string): void {
  const inspection = lot.inspections.at(-1);
  if (!inspection) return;
  const { value } = inspection;
  paper.heading(`Inspected ${day(inspection.at)} by ${inspection.person}`);
  for (const reason of inspection.arrival.reasons) paper.write(`• ${reason.text}`);
  paper.facts([
    ['Smell', value.smells.join(', ')],
    ['Moisture', value.moisturePct.map((reading) => `${reading.toFixed(1)} %`).join(', ')],
    ['Beans in 100 g', value.per100g.join(', ')],
    ['Note', value.note],
  ]);
  if (!value.cut || !inspection.shares) return;
  const { shares } = inspection;
  paper.space(4);
  paper.write(
    `Cut test of ${beansIn(value.cut.tally)} beans (ISO 1114). ${inspection.cut?.sentence ?? ''} ${inspection.cut?.why ?? ''}`,
  );
  paper.space(4);
  paper.table(
    ['Class', 'Beans', 'Share', '95 % interval'],
    CUT_CLASSES.map((name) => {
      const row = shares[name];
      return [
        CUT_NAMES[name],
        String(row.hits),
        `${(100 * row.share).toFixed(1)} %`,
        `${(100 * row.low).toFixed(1)} to ${(100 * row.high).toFixed(1)} %`,
      ];
    }),
    [0.4, 0.15, 0.15, 0.3],
    [1, 2],
  );
}

function sorted(paper: Sheet, lot: BeanLotView, heavy: (grams: number, digits?: number) => string): void {
  const { summary } = lot.sort;
  if (summary.sessions === 0) return;
  paper.heading('Sorted by hand');
  paper.write(
    `${summary.sessions} ${summary.sessions === 1 ? 'session' : 'sessions'}: ${heavy(summary.inG)} in, ${heavy(summary.rejectG, 2)} picked out, ${(100 * summary.rejectShare).toFixed(1)} %.`,
  );
  paper.space(4);
  paper.table(
    ['Picked out', 'Weight', 'Of beans in'],
    summary.reasons.map((row) => [row.reason, heavy(row.grams, 2), `${(100 * row.share).toFixed(1)} %`]),
    [0.5, 0.25, 0.25],
    [1, 2],
  );
}

/** A PNG is unpacked to be drawn, four bytes a pixel and more: a larger one is only named. */
const MOST_PIXELS = 16_000_000;

async function pictures(paper: Sheet, views: Views, lot: BeanLotView): Promise<void> {
  const shown = lot.files.filter(({ type, width, height }) =>
    type === 'image/png' ? (width ?? 0) * (height ?? 0) <= MOST_PIXELS : type === 'image/jpeg',
  );
  const named = lot.files.filter((file) => !shown.includes(file));
  if (lot.files.length === 0) return;
  paper.heading('Pictures');
  for (const file of shown) {
    const bytes = await views.workshop.fileBytes(file.id);
    if (!bytes) continue;
    paper.picture(bytes, file.width ?? 1, file.height ?? 1);
    paper.write(file.caption === '' ? file.name : file.caption, { colour: SOFT_INK, size: 9 });
    paper.space(8);
  }
  for (const file of named)
    paper.write(`Also attached: ${file.caption === '' ? file.name : `${file.caption} (${file.name})`}`, {
      colour: SOFT_INK,
    });
}
