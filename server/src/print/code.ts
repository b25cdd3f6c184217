import QRCode from 'qrcode';
import type { Paper } from './paper';

/** The modules of a QR code. */
export type Code = ReturnType<typeof QRCode.create>['modules'];

export const codeOf = (text: string): Code => QRCode.create(text, { errorCorrectionLevel: 'M' }).modules;

/** Modules overlap by so much, points: no hairline shows between them. */
const OVERLAP = 0.05;

/**
 * Draws a code as squares, so that it prints sharp at any size.
 *
 * @param side of all of it, points; @param quiet modules that stay empty around it
 */
export function drawCode(
  { doc }: Paper,
  modules: Code,
  {
    x,
    y,
    side,
    quiet = 0,
    colour = '#000000',
  }: { x: number; y: number; side: number; quiet?: number; colour?: string },
): void {
  const each = side / (modules.size + 2 * quiet);
  for (let row = 0; row < modules.size; row += 1) {
    for (let column = 0; column < modules.size; column += 1) {
      if (modules.get(row, column) === 0) continue;
      // What is side by side is one stroke.
      const from = column;
      while (column + 1 < modules.size && modules.get(row, column + 1) !== 0) column += 1;
      doc.rect(
        x + (from + quiet) * each,
        y + (row + quiet) * each,
        (column - from + 1) * each + OVERLAP,
        each + OVERLAP,
      );
    }
  }
  doc.fill(colour);
}
