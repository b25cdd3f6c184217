import { Paper } from '../print/paper';
import type { SheetHead } from '../print/sheet';

const ACROSS = 5;
const DOWN = 13;
const TALL = 56;

/** Codes to be cut out, several a sheet. @returns the PDF file */
export async function drawCards({ title, author, at }: SheetHead, codes: readonly string[]): Promise<Uint8Array> {
  const paper = await Paper.begin(title, author, at);
  const { doc, left, width } = paper;
  const size = width / ACROSS;
  codes.forEach((code, i) => {
    const onPage = i % (ACROSS * DOWN);
    if (i > 0 && onPage === 0) doc.addPage();
    const [x, y] = [left + (onPage % ACROSS) * size, 48 + Math.floor(onPage / ACROSS) * TALL];
    doc.rect(x, y, size, TALL).lineWidth(0.3).stroke('#c6d0c9');
    doc
      .fontSize(26)
      .fillColor('#2b1735')
      .text(code, x, y + 15, { width: size, align: 'center', lineBreak: false });
  });
  return paper.bytes();
}
