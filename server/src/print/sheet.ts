import { codeOf, drawCode } from './code';
import { away } from '../heavy/away';
import { Paper, SOFT_INK } from './paper';

/** Points of a code at the top of a sheet, squares of quiet around it, and where it begins. */
const QR_POINTS = 150;
const QR_QUIET = 4;
const QR_TOP = 44;

type Drawn = 'title' | 'heading' | 'write' | 'facts' | 'table' | 'space' | 'rule' | 'need';
/** One thing to draw, and with what. */
export type Drawing =
  | { [K in Drawn]: { what: K; args: Parameters<Paper[K]> } }[Drawn]
  | { what: 'code'; text: string }
  | { what: 'below code' }
  | { what: 'picture'; bytes: Uint8Array; width: number; height: number };

export interface SheetHead {
  title: string;
  author: string;
  at: number;
}

/** An A4 sheet as it is put together: what is to be drawn, in order. It is drawn on a thread of its own. */
export class Sheet {
  private readonly drawings: Drawing[] = [];

  constructor(private readonly head: SheetHead) {}

  private add<K extends Drawn>(what: K, ...args: Parameters<Paper[K]>): void {
    this.drawings.push({ what, args } as Drawing);
  }

  title = (...args: Parameters<Paper['title']>): void => this.add('title', ...args);
  heading = (...args: Parameters<Paper['heading']>): void => this.add('heading', ...args);
  write = (...args: Parameters<Paper['write']>): void => this.add('write', ...args);
  facts = (...args: Parameters<Paper['facts']>): void => this.add('facts', ...args);
  table = (...args: Parameters<Paper['table']>): void => this.add('table', ...args);
  space = (...args: Parameters<Paper['space']>): void => this.add('space', ...args);
  rule = (): void => this.add('rule');
  need = (...args: Parameters<Paper['need']>): void => this.add('need', ...args);

  /** A QR code in the upper corner, its text under it; `belowCode` goes on below it. */
  code(text: string): void {
    this.drawings.push({ what: 'code', text });
  }

  belowCode(): void {
    this.drawings.push({ what: 'below code' });
  }

  /** A picture across the sheet. @param width of the picture, pixels; @param height of it */
  picture(bytes: Uint8Array, width: number, height: number): void {
    this.drawings.push({ what: 'picture', bytes, width, height });
  }

  /** Ends the sheet. @returns the PDF file */
  bytes(): Promise<Uint8Array> {
    return away('sheet', [this.head, this.drawings]);
  }
}

/** Draws what a sheet was put together of. @returns the PDF file */
export async function drawSheet({ title, author, at }: SheetHead, drawings: readonly Drawing[]): Promise<Uint8Array> {
  const paper = await Paper.begin(title, author, at);
  for (const drawing of drawings) {
    if (drawing.what === 'code') drawLink(paper, drawing.text);
    else if (drawing.what === 'below code') paper.doc.y = Math.max(paper.y, QR_TOP + QR_POINTS + 24);
    else if (drawing.what === 'picture') drawPicture(paper, drawing);
    else (paper[drawing.what] as (...args: unknown[]) => void)(...drawing.args);
  }
  return paper.bytes();
}

const TALLEST = 200;

function drawPicture(paper: Paper, { bytes, width, height }: Extract<Drawing, { what: 'picture' }>): void {
  paper.need(TALLEST + 40);
  const y = paper.y;
  try {
    paper.doc.image(Buffer.from(bytes), paper.left, y, { fit: [paper.width, TALLEST] });
  } catch {
    paper.write('(This picture cannot be read.)', { colour: SOFT_INK });
    return;
  }
  paper.doc.y = y + Math.min(TALLEST, (paper.width * height) / width) + 6;
}

/** A code with its address under it, at the top of a sheet. */
function drawLink(paper: Paper, text: string): void {
  const left = paper.left + paper.width - QR_POINTS;
  drawCode(paper, codeOf(text), { x: left, y: QR_TOP, side: QR_POINTS, quiet: QR_QUIET, colour: '#2b1735' });
  paper.write(text.replace(/^https?:\/\//, ''), {
    size: 8,
    colour: SOFT_INK,
    x: left,
    y: QR_TOP + QR_POINTS,
    width: QR_POINTS,
  });
}
