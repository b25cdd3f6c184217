import { curveData } from '@wunsch/core/roast/curve';
import { MOST_READINGS } from '@wunsch/core/run/readings';
import type { CurvePreviewView } from '@wunsch/core/api/roast';
import { DomainError } from '@wunsch/core/errors/domain-error';
import { readCurveTable, type CurvePreview, type CurveWish } from '@wunsch/core/roast/curve-file';
import { thin } from '@wunsch/core/roast/thin';
import { readTable } from '../http/csv';

const SHOWN = 400;

export interface CurveRequest {
  text: string;
  mapping?: CurveWish | undefined;
}

/** Reads a logger's table; changes nothing. */
export function readCurveText({ text, mapping }: CurveRequest): CurvePreview {
  const rows = readTable(text, { most: MOST_READINGS + 200, code: 'roast/broken-csv', keepBlank: true });
  if (rows.length > MOST_READINGS + 100)
    throw new DomainError(
      'roast/long-csv',
      `More than ${MOST_READINGS.toLocaleString('en-GB')} rows: is it one roast?`,
      [{ path: 'text', message: 'is too long' }],
    );
  return readCurveTable(rows, mapping ?? {});
}

/** The same as a page shows it before anything is taken in. */
export function previewCurve(request: CurveRequest): CurvePreviewView {
  const { curve, ...preview } = readCurveText(request);
  return { ...preview, curve: curveData(thin(curve, SHOWN)), minutes: (curve.seconds.at(-1) ?? 0) / 60 };
}
