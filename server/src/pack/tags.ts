import QRCode from 'qrcode';
import { DomainError } from '@wunsch/core/errors/domain-error';
import { formatMass } from '@wunsch/core/units/mass';
import { dayText } from '@wunsch/core/units/zone';
import { STATION_NAMES } from '@wunsch/core/workshop/stations';
import type { Views } from '../ledger/views';
import { mouldsView } from '../mould/plugin';
import { Paper } from '../print/paper';

/** What stands on the label of something that is worked with. */
export interface Tag {
  code: string;
  lines: string[];
  /** Where its QR code leads. */
  path: string;
}

/** A sack of a lot is asked for as `L012/3`: its third. */
const SACK = /^(.+)\/(\d{1,4})$/;

/** The label of a tub, block, lot, sack or mould. @throws DomainError `trace/unknown-code` */
export function tagOf(views: Views, asked: string): Tag {
  const { book, lots, settings } = views.workshop;
  const [, lotCode, sack] = SACK.exec(asked) ?? [];
  const holding = book.byCode((lotCode ?? asked).trim().toUpperCase()) ?? book.byCode(asked.trim());
  const mould = holding ? undefined : mouldsView(views).moulds.find(({ id }) => id === asked);
  if (mould)
    return {
      code: mould.name,
      lines: [`${mould.cavities} × ${mould.cavityG} g`, mould.painted ? 'painted' : ''].filter((line) => line !== ''),
      path: `/station/mould?mould=${encodeURIComponent(mould.id)}`,
    };
  if (!holding || (lotCode !== undefined && !lots.has(holding.id)))
    throw new DomainError('trace/unknown-code', `Nothing here carries the code ${asked}.`, [
      { path: 'code', message: 'is not known here' },
    ]);
  const view = views.holding(holding.id);
  const day = (at: number): string => dayText(at, settings.timeZone);
  const facts = lots.get(holding.id);
  if (sack !== undefined && (facts === undefined || Number(sack) < 1 || Number(sack) > facts.sacks))
    throw new DomainError('trace/unknown-code', `${holding.code} has ${facts?.sacks ?? 0} sacks.`, [
      { path: 'code', message: 'has no such sack' },
    ]);
  return {
    code: sack === undefined ? holding.code : `${holding.code} / ${sack}`,
    lines: [
      holding.name,
      sack === undefined
        ? view.pieces > 0
          ? `${view.pieces} pieces`
          : formatMass(view.massMg, settings.massSystem)
        : `sack ${sack} of ${facts?.sacks ?? 0}`,
      [view.batchCode ?? '', STATION_NAMES[view.place], day(view.since)].filter((word) => word !== '').join(', '),
      view.allergens.length > 0 ? `Contains ${view.allergens.join(', ')}` : '',
    ].filter((line) => line !== ''),
    path: facts ? `/lot/${encodeURIComponent(holding.code)}` : `/tub/${encodeURIComponent(holding.code)}`,
  };
}

const MM = 72 / 25.4;

/** Labels of every sack of a lot. @throws DomainError `trace/unknown-code` */
export function sackTags(views: Views, lotCode: string): Tag[] {
  const { book, lots } = views.workshop;
  const facts = lots.get(book.byCode(lotCode.trim().toUpperCase())?.id ?? '');
  if (!facts) throw new DomainError('trace/unknown-code', `There is no lot ${lotCode}.`);
  return Array.from({ length: facts.sacks }, (_, i) => tagOf(views, `${lotCode}/${i + 1}`));
}

export interface TagSheet {
  widthMm: number;
  heightMm: number;
  copies: number;
  /** Where the QR code of a label leads; null: no code. */
  linkOf: (tag: Tag) => string | null;
}

/** Labels, one a page. */
export async function tagPdf(
  tags: readonly Tag[],
  { widthMm, heightMm, copies, linkOf }: TagSheet,
  maker: string,
  now: number,
): Promise<Uint8Array> {
  const size = [widthMm * MM, heightMm * MM] as const;
  const paper = await Paper.beginLabels(`Label ${tags[0]?.code ?? ''}`, maker, now, size);
  for (const tag of tags) {
    const link = linkOf(tag);
    const qr = link === null ? null : await QRCode.toBuffer(link, { margin: 0, width: 400, errorCorrectionLevel: 'M' });
    for (let n = 0; n < copies; n += 1) drawTag(paper, tag, qr, size);
  }
  return paper.bytes();
}

function drawTag(
  paper: Paper,
  { code, lines }: Tag,
  qr: Buffer | null,
  [width, height]: readonly [number, number],
): void {
  const pad = 3 * MM;
  const side = qr === null ? 0 : Math.min(height - 2 * pad, 0.42 * width);
  const inner = width - 2 * pad - (qr === null ? 0 : side + pad);
  // The code as large as the label lets it be.
  const large = Math.min(0.34 * height, (1.55 * inner) / Math.max(3, code.length));
  paper.doc.addPage();
  if (qr) paper.doc.image(qr, width - pad - side, pad, { width: side });
  paper.runsAt([{ text: code, strong: true }], { x: pad, y: pad, width: inner, size: large });
  let y = pad + large * 1.35;
  const size = Math.max(6, Math.min(11, (height - y - pad) / (lines.length * 1.5)));
  for (const line of lines) {
    const runs = [{ text: line, strong: false }];
    const tall = paper.heightOf(runs, size, inner);
    if (y + tall > height - pad / 2) break;
    paper.runsAt(runs, { x: pad, y, width: inner, size });
    y += tall + size * 0.2;
  }
}
