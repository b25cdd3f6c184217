import { DomainError } from '@wunsch/core/errors/domain-error';
import type { Label } from '@wunsch/core/pack/label';
import { codeOf, drawCode, type Code } from '../print/code';
import { Paper } from '../print/paper';

const MM = 72 / 25.4;
const A4 = [210, 297] as const;
/** Around a sheet, and between labels on it, mm. */
const EDGE = 8;
const GAP = 3;
const PAD = 2;
/** Type, from what is liked to what can still be read, points. */
const SIZES = [9, 8.5, 8, 7.5, 7, 6.5, 6, 5.5];

export interface LabelSheet {
  widthMm: number;
  heightMm: number;
  /** Several on an A4 sheet, or one a page for a label printer. */
  sheet: boolean;
  copies: number;
  /** What the QR code leads to; null: no code. */
  link: string | null;
}

/** Labels as PDF: several a sheet, or one a page. @throws DomainError `pack/label-too-small` where the text does not fit */
export async function labelPdf(
  label: Label,
  { widthMm, heightMm, sheet, copies, link }: LabelSheet,
  now: number,
): Promise<Uint8Array> {
  const [across, down] = sheet
    ? [Math.floor((A4[0] - 2 * EDGE + GAP) / (widthMm + GAP)), Math.floor((A4[1] - 2 * EDGE + GAP) / (heightMm + GAP))]
    : [1, 1];
  if (across < 1 || down < 1)
    throw new DomainError('pack/label-too-large', 'No such label fits on an A4 sheet: print it one a page.', [
      { path: 'widthMm', message: 'is too large for a sheet' },
    ]);
  const page: [number, number] = sheet ? [A4[0] * MM, A4[1] * MM] : [widthMm * MM, heightMm * MM];
  const paper = await Paper.beginLabels(`Label ${label.batch}`, label.maker, now, page);
  const qr = link === null ? null : codeOf(link);
  paper.doc.addPage();
  const size = fit(paper, label, widthMm * MM, heightMm * MM, qr !== null);
  const each = across * down;
  for (let n = 0; n < copies; n += 1) {
    if (n > 0 && n % each === 0) paper.doc.addPage();
    const at = n % each;
    const x = sheet ? (EDGE + (at % across) * (widthMm + GAP)) * MM : 0;
    const y = sheet ? (EDGE + Math.floor(at / across) * (heightMm + GAP)) * MM : 0;
    draw(paper, label, { x, y, width: widthMm * MM, height: heightMm * MM, size, qr, frame: sheet });
  }
  return paper.bytes();
}

type Block = { runs: { text: string; strong: boolean }[]; scale: number };

/** What is written, block under block. */
function blocks(label: Label): Block[] {
  const { words } = label;
  const line = (text: string, strong = false, scale = 1): Block => ({ runs: [{ text, strong }], scale });
  const rows: Block[] = [line(label.name, true, 1.5)];
  if (label.cocoa !== null) rows.push(line(label.cocoa, true));
  rows.push({ runs: label.ingredients, scale: 1 });
  if (label.mayContain.length > 0)
    rows.push({
      runs: [
        { text: `${words.may}: `, strong: false },
        { text: label.mayContain.join(', '), strong: true },
        { text: '.', strong: false },
      ],
      scale: 1,
    });
  if (label.origin !== null) rows.push(line(`${words.origin} ${label.origin}.`));
  const facts = [
    label.net === null ? '' : `${words.net}: ${label.net}`,
    label.bestBefore === null ? '' : `${words.best}: ${label.bestBefore}`,
    `${words.batch}: ${label.batch}`,
  ].filter((fact) => fact !== '');
  rows.push(line(facts.join('   '), true));
  rows.push(line(label.store));
  rows.push(
    line(`${words.nutrition}: ${label.nutrition.map(([name, value]) => `${name} ${value}`).join('; ')}.`, false, 0.85),
  );
  rows.push(line(label.maker));
  return rows;
}

const QR_MM = 14;

/** Where each block stands: as long as it is beside the code it is narrower. */
function placed(
  paper: Paper,
  label: Label,
  size: number,
  width: number,
  withQr: boolean,
): { rows: (Block & { top: number; width: number })[]; height: number } {
  const inner = width - 2 * PAD * MM;
  const rows: (Block & { top: number; width: number })[] = [];
  let top = PAD * MM;
  for (const block of blocks(label)) {
    const beside = withQr && top < (PAD + QR_MM + 1) * MM ? inner - (QR_MM + 2) * MM : inner;
    rows.push({ ...block, top, width: beside });
    top += paper.heightOf(block.runs, size * block.scale, beside) + size * 0.35;
  }
  return { rows, height: Math.max(top, withQr ? (PAD + QR_MM) * MM : 0) + PAD * MM };
}

function fit(paper: Paper, label: Label, width: number, height: number, withQr: boolean): number {
  const found = SIZES.find((size) => placed(paper, label, size, width, withQr).height <= height);
  if (found !== undefined) return found;
  throw new DomainError(
    'pack/label-too-small',
    'The text does not fit on a label of that size in type that can be read.',
    [{ path: 'heightMm', message: 'is too little for what has to be said' }],
  );
}

function draw(
  paper: Paper,
  label: Label,
  {
    x,
    y,
    width,
    height,
    size,
    qr,
    frame,
  }: { x: number; y: number; width: number; height: number; size: number; qr: Code | null; frame: boolean },
): void {
  if (frame) paper.doc.rect(x, y, width, height).lineWidth(0.3).strokeColor('#c6d0c9').stroke();
  if (qr) drawCode(paper, qr, { x: x + width - (PAD + QR_MM) * MM, y: y + PAD * MM, side: QR_MM * MM });
  for (const row of placed(paper, label, size, width, qr !== null).rows)
    paper.runsAt(row.runs, { x: x + PAD * MM, y: y + row.top, width: row.width, size: size * row.scale });
}
