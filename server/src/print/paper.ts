import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';

/** A4 in points, with room to punch holes. */
const PAGE = { width: 595.28, height: 841.89, margin: 48 } as const;
const INK = '#2b1735';
const SOFT = '#5c4a66';
const RULE = '#c6d0c9';

let home = process.cwd();

/** Where the installed packages with the typefaces are looked for; left alone, from the working directory. */
export const useFontsFrom = (directory: string): void => void (home = directory);

const fontFile = (family: string, file: string): string =>
  join(
    dirname(createRequire(join(home, 'server/package.json')).resolve(`@fontsource/${family}/package.json`)),
    'files',
    `${file}.woff`,
  );

/** First the own typefaces, then what they lack: a producer may write in any of these. */
const STACKS: Record<'text' | 'strong' | 'display', readonly [string, string][]> = {
  text: [
    ['atkinson-hyperlegible-next', 'atkinson-hyperlegible-next-latin-400-normal'],
    ['atkinson-hyperlegible-next', 'atkinson-hyperlegible-next-latin-ext-400-normal'],
    ...rest(400),
  ],
  strong: [
    ['atkinson-hyperlegible-next', 'atkinson-hyperlegible-next-latin-700-normal'],
    ['atkinson-hyperlegible-next', 'atkinson-hyperlegible-next-latin-ext-700-normal'],
    ...rest(700),
  ],
  display: [['piazzolla', 'piazzolla-latin-600-normal'], ['piazzolla', 'piazzolla-latin-ext-600-normal'], ...rest(600)],
};

function rest(weight: number): [string, string][] {
  return ['latin', 'latin-ext', 'vietnamese', 'greek', 'cyrillic', 'devanagari'].map((subset) => [
    'noto-sans',
    `noto-sans-${subset}-${weight}-normal`,
  ]);
}

export type Face = keyof typeof STACKS;

interface FontProgram {
  hasGlyphForCodePoint(code: number): boolean;
}

/** A4 sheets in the look of the workshop: headings, sentences, tables, pictures. Measures are points. */
export class Paper {
  readonly doc: PDFKit.PDFDocument;
  private readonly chunks: Buffer[] = [];
  private readonly done: Promise<void>;
  private readonly fonts = new Map<string, FontProgram>();
  readonly left = PAGE.margin;
  readonly width = PAGE.width - 2 * PAGE.margin;

  private constructor(doc: PDFKit.PDFDocument) {
    this.doc = doc;
    this.done = new Promise((resolve) => doc.on('end', resolve));
    doc.on('data', (chunk: Buffer) => this.chunks.push(chunk));
  }

  /** Begins a set of sheets. The drawing library is loaded here: most days nobody prints. */
  static async begin(title: string, author: string, at: number): Promise<Paper> {
    const { default: PDFDocument } = await import('pdfkit');
    const info = { Title: title, Author: author, CreationDate: new Date(at), Creator: 'Wunsch' };
    return new Paper(new PDFDocument({ size: 'A4', margin: PAGE.margin, info }));
  }

  /** Begins pages of another size, without margins: labels. Points. */
  static async beginLabels(title: string, author: string, at: number, size: readonly [number, number]): Promise<Paper> {
    const { default: PDFDocument } = await import('pdfkit');
    const info = { Title: title, Author: author, CreationDate: new Date(at), Creator: 'Wunsch' };
    return new Paper(new PDFDocument({ size: [...size], margin: 0, info, autoFirstPage: false }));
  }

  /** Height of text in runs, in points. */
  heightOf(runs: readonly { text: string; strong: boolean }[], size: number, width: number): number {
    this.useFont(...(STACKS.strong[0] as [string, string]));
    this.doc.fontSize(size);
    return this.doc.heightOfString(runs.map(({ text }) => text).join(''), { width, lineGap: size * 0.12 });
  }

  /** Writes text of which some is set off, at a place. */
  runsAt(
    parts: readonly { text: string; strong: boolean }[],
    { x, y, width, size }: { x: number; y: number; width: number; size: number },
  ): void {
    const all = parts.flatMap(({ text, strong }) => this.runs(text, strong ? 'strong' : 'text'));
    this.doc.fontSize(size).fillColor(INK);
    all.forEach((run, index) => {
      this.useFont(...run.font);
      const options: PDFKit.Mixins.TextOptions = {
        width,
        continued: index < all.length - 1,
        lineGap: size * 0.12,
        features: ['lnum'],
      };
      if (index === 0) this.doc.text(run.text, x, y, options);
      else this.doc.text(run.text, options);
    });
  }

  /** Ends the sheets. @returns the PDF file */
  async bytes(): Promise<Uint8Array> {
    this.doc.end();
    await this.done;
    return Buffer.concat(this.chunks);
  }

  get y(): number {
    return this.doc.y;
  }

  space(points: number): void {
    this.doc.y += points;
  }

  /** Begins a new sheet when fewer than so many points are left on this one. */
  need(points: number): void {
    if (this.doc.y + points > PAGE.height - PAGE.margin) this.doc.addPage();
  }

  private useFont(family: string, file: string): FontProgram {
    this.doc.font(fontFile(family, file));
    let program = this.fonts.get(file);
    if (!program) {
      program = (this.doc as unknown as { _font: { font: FontProgram } })._font.font;
      this.fonts.set(file, program);
    }
    return program;
  }

  /** Cuts text where the typeface has to change. */
  private runs(text: string, face: Face): { text: string; font: readonly [string, string] }[] {
    const stack = STACKS[face];
    const first = stack[0] as [string, string];
    const runs: { text: string; font: readonly [string, string] }[] = [];
    for (const letter of text) {
      const font =
        stack.find(([family, file]) =>
          (this.fonts.get(file) ?? this.useFont(family, file)).hasGlyphForCodePoint(letter.codePointAt(0) ?? 0),
        ) ?? first;
      const last = runs.at(-1);
      if (last && (last.font === font || letter === ' ')) last.text += letter;
      else runs.push({ text: letter, font });
    }
    return runs;
  }

  /** Writes text at a place (or where the last ended), changing typeface where a letter asks for it. */
  write(
    text: string,
    {
      face = 'text',
      size = 10,
      colour = INK,
      x = this.left,
      y = this.doc.y,
      width = this.width,
      align = 'left',
    }: Writing = {},
  ): void {
    const runs = this.runs(text.replaceAll('\u00a0', ' ').replaceAll('\u202f', ' '), face);
    this.doc.fontSize(size).fillColor(colour);
    if (align === 'right') {
      let total = 0;
      for (const run of runs) {
        this.useFont(...run.font);
        total += this.doc.widthOfString(run.text);
      }
      x += Math.max(0, width - total);
      width = total + 2;
    }
    runs.forEach((run, index) => {
      this.useFont(...run.font);
      const options: PDFKit.Mixins.TextOptions = {
        width,
        continued: index < runs.length - 1,
        lineGap: size * 0.18,
        features: ['lnum'],
      };
      if (index === 0) this.doc.text(run.text, x, y, options);
      else this.doc.text(run.text, options);
    });
  }

  title(text: string, under: string): void {
    this.write(text, { face: 'display', size: 26 });
    this.write(under, { colour: SOFT });
    this.space(10);
  }

  heading(text: string): void {
    this.need(60);
    this.space(12);
    this.write(text, { face: 'display', size: 14 });
    this.space(2);
  }

  rule(): void {
    this.doc
      .moveTo(this.left, this.doc.y)
      .lineTo(this.left + this.width, this.doc.y)
      .lineWidth(0.6)
      .strokeColor(RULE)
      .stroke();
    this.space(4);
  }

  /** Names and values in two columns. */
  facts(rows: readonly (readonly [string, string])[]): void {
    for (const [name, value] of rows) {
      if (value === '') continue;
      this.need(18);
      const y = this.doc.y;
      this.write(name, { colour: SOFT, y, width: 130 });
      this.write(value, { x: this.left + 140, y, width: this.width - 140 });
    }
  }

  /** A table; columns are shares of the width, those named in `right` are set to the right. */
  table(
    headings: readonly string[],
    rows: readonly (readonly string[])[],
    shares: readonly number[],
    right: readonly number[] = [],
  ): void {
    const starts = shares.map((_, index) => shares.slice(0, index).reduce((a, b) => a + b, 0) * this.width);
    const line = (cells: readonly string[], face: Face, colour: string): void => {
      this.need(34);
      const y = this.doc.y;
      let bottom = y;
      cells.forEach((cell, index) => {
        this.write(cell, {
          face,
          colour,
          y,
          x: this.left + (starts[index] ?? 0),
          width: (shares[index] ?? 0) * this.width - (right.includes(index) ? 18 : 8),
          align: right.includes(index) ? 'right' : 'left',
        });
        bottom = Math.max(bottom, this.doc.y);
      });
      this.doc.y = bottom + 2;
      this.rule();
    };
    line(headings, 'text', SOFT);
    for (const row of rows) line(row, 'text', INK);
  }
}

export interface Writing {
  face?: Face;
  size?: number;
  colour?: string;
  x?: number;
  y?: number;
  width?: number;
  align?: 'left' | 'right';
}

export const SOFT_INK = SOFT;
