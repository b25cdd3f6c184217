import type { ContractLimits, Inspection, SackRow } from '@wunsch/core/beans/records';
import type { Action, Smell } from '@wunsch/core/beans/words';
import { gramsFrom, gramsTo, type MassSystem } from '@wunsch/core/units/mass';
import { readNumber, typedNumber } from '../parts/number';
import { tallyOf, traysOf } from './tally';

export interface SackText {
  gross: string;
  tare: string;
  place: string;
}

export interface InspectionDraft {
  sacks: SackText[];
  sackInHand: SackText;
  smells: Smell[];
  moisture: number[];
  per100g: number[];
  signs: {
    /** Somebody looked, and saw none of these. */
    looked?: boolean;
    webbing: boolean;
    droppings: boolean;
    rodents: boolean;
    larvae: string;
    moths: string;
    wetSacks: string;
    tornSacks: string;
  };
  planned: number;
  marks: string;
  /** More beans than planned, on purpose. */
  beyond: boolean;
  note: string;
  action: Action | null;
  word: string;
  allowance: string;
}

export const EMPTY_INSPECTION: InspectionDraft = {
  sacks: [],
  sackInHand: { gross: '', tare: '', place: '' },
  smells: [],
  moisture: [],
  per100g: [],
  signs: { webbing: false, droppings: false, rodents: false, larvae: '', moths: '', wetSacks: '', tornSacks: '' },
  planned: 300,
  marks: '',
  beyond: false,
  note: '',
  action: null,
  word: '',
  allowance: '',
};

/** Sacks are weighed in kilograms or pounds, as the workshop has it. */
export const sackUnit = (system: MassSystem): 'kg' | 'lb' => (system === 'metric' ? 'kg' : 'lb');

const grams = (text: string, system: MassSystem): number | null => {
  const value = readNumber(text);
  return value === null ? null : Math.round(gramsFrom(value, sackUnit(system)) * 10) / 10;
};

/** A sack as typed, or what is wrong with it. */
export function readSack(text: SackText, no: number, system: MassSystem): { row: SackRow } | { problem: string } {
  const grossG = grams(text.gross, system);
  const tareG = text.tare.trim() === '' ? 0 : grams(text.tare, system);
  if (grossG === null)
    return { problem: text.gross.trim() === '' ? 'gross weight is missing' : 'gross weight is not a number' };
  if (tareG === null) return { problem: 'tare is not a number' };
  if (grossG <= 0 || tareG < 0) return { problem: 'weights are more than nothing' };
  if (grossG > 200_000) return { problem: 'is more than a sack holds: is it in the right unit?' };
  if (tareG >= grossG) return { problem: 'the empty sack is heavier than the full one' };
  return { row: { no, grossG, tareG, place: text.place.trim() } };
}

export const sackText = (row: SackRow, system: MassSystem): SackText => {
  const text = (value: number): string => typedNumber(Number(gramsTo(value, sackUnit(system)).toFixed(3)));
  return { gross: text(row.grossG), tare: text(row.tareG), place: row.place };
};

export const rowsOf = (sacks: readonly SackText[], system: MassSystem): SackRow[] =>
  sacks.flatMap((text, index) => {
    const read = readSack(text, index + 1, system);
    return 'row' in read ? [read.row] : [];
  });

const whole = (text: string): number => Math.max(0, Math.round(readNumber(text) ?? 0));

/** A sign that was seen was looked for. */
const someSigns = ({
  webbing,
  droppings,
  rodents,
  larvae,
  moths,
  wetSacks,
  tornSacks,
}: InspectionDraft['signs']): boolean =>
  webbing || droppings || rodents || [larvae, moths, wetSacks, tornSacks].some((text) => whole(text) > 0);

/** The inspection as it will be saved. */
export function inspectionOf(draft: InspectionDraft): Inspection {
  const { signs } = draft;
  return {
    kind: 'inspection',
    smells: draft.smells,
    moisturePct: draft.moisture,
    per100g: draft.per100g,
    signs: {
      ...signs,
      looked: signs.looked === true || someSigns(signs),
      larvae: whole(signs.larvae),
      moths: whole(signs.moths),
      wetSacks: whole(signs.wetSacks),
      tornSacks: whole(signs.tornSacks),
    },
    cut:
      draft.marks === ''
        ? null
        : {
            planned: draft.planned,
            tally: tallyOf(draft.marks),
            trays: traysOf(draft.marks),
            beyond: draft.beyond,
          },
    note: draft.note,
  };
}

export type { ContractLimits };
