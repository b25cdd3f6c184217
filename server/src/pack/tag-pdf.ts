import { codeOf, drawCode, type Code } from '../print/code';
import { Paper } from '../print/paper';

const MM = 72 / 25.4;

/** What stands on the label of something that is worked with. */
export interface Tag {
  code: string;
  lines: string[];
  /** Where its QR code leads. */
  path: string;
}

export interface TagSheet {
  widthMm: number;
  heightMm: number;
  copies: number;
}

/** A label, and where its QR code leads; null: no code. */
export type LinkedTag = Tag & { link: string | null };

/** Labels, one a page. */
export async function tagPdf(
  tags: readonly LinkedTag[],
  { widthMm, heightMm, copies }: TagSheet,
  maker: string,
  now: number,
): Promise<Uint8Array> {
  const size = [widthMm * MM, heightMm * MM] as const;
  const paper = await Paper.beginLabels(`Label ${tags[0]?.code ?? ''}`, maker, now, size);
  for (const tag of tags) {
    const { link } = tag;
    const qr = link === null ? null : codeOf(link);
    for (let n = 0; n < copies; n += 1) drawTag(paper, tag, qr, size);
  }
  return paper.bytes();
}

function drawTag(
  paper: Paper,
  { code, lines }: Tag,
  qr: Code | null,
  [width, height]: readonly [number, number],
): void {
  const pad = 3 * MM;
  const side = qr === null ? 0 : Math.min(height - 2 * pad, 0.42 * width);
  const inner = width - 2 * pad - (qr === null ? 0 : side + pad);
  // The code as large as the label lets it be.
  const large = Math.min(0.34 * height, (1.55 * inner) / Math.max(3, code.length));
  paper.doc.addPage();
  if (qr) drawCode(paper, qr, { x: width - pad - side, y: pad, side });
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
