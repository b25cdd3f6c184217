import type { CommandOf } from '../src/commands';
import type { Source } from '../src/fields/sources';

/** A bowl begun with some sources. */
export const chargeCommand = (sources: Source[]): CommandOf<'charge'> => ({
  kind: 'charge',
  batch: { name: 'Dark', routeId: 'whole-bean', targetMicron: 20, cocoaTargetPct: null },
  sources,
  note: '',
});

/** A bowl emptied into one tub. */
export const dischargeCommand = (batchId: string, grams: number): CommandOf<'discharge'> => ({
  kind: 'discharge',
  batchId,
  outsG: [grams],
  holdUpG: 0,
  micron: null,
  note: '',
});

/** A pour that becomes good bars of 50 g and nothing else. */
export const mouldCommand = (sources: Source[], goodPieces: number, barG = 50): CommandOf<'mould'> => ({
  kind: 'mould',
  sources,
  barG,
  cavities: 10,
  goodPieces,
  secondsPieces: 0,
  remeltG: 0,
  trimmingsG: 0,
  holdUpG: 0,
  note: '',
});
