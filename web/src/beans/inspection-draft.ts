import type { Inspection, InspectionSeen, SackRow } from '@wunsch/core/beans/records';
import { gramsFrom, gramsTo, type MassSystem } from '@wunsch/core/units/mass';
import { readNumber, typedNumber } from '../parts/number';
import type { Part } from '../record/form';
import { tallyOf, traysOf } from './tally';

export interface SackText {
  gross: string;
  tare: string;
  place: string;
}

/** What is weighed, read and counted on the way through an inspection. */
export interface InspectionCounts {
  sacks: SackText[];
  sackInHand: SackText;
  moisture: number[];
  per100g: number[];
  planned: number;
  marks: string;
  /** More beans than planned, on purpose. */
  beyond: boolean;
}

export const NOTHING_COUNTED: InspectionCounts = {
  sacks: [],
  sackInHand: { gross: '', tare: '', place: '' },
  moisture: [],
  per100g: [],
  planned: 300,
  marks: '',
  beyond: false,
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

/** The inspection as it will be saved. @param seen what is smelt and looked at, as far as it can be read */
export function inspectionOf(counts: InspectionCounts, seen: Part<InspectionSeen>): Inspection {
  const { webbing = false, droppings = false, rodents = false, looked = false, ...counted } = seen.signs ?? {};
  const { larvae = 0, moths = 0, wetSacks = 0, tornSacks = 0 } = counted;
  // A sign that was seen was looked for.
  const some = webbing || droppings || rodents || larvae + moths + wetSacks + tornSacks > 0;
  return {
    kind: 'inspection',
    smells: (seen.smells ?? []).filter((smell) => smell !== undefined),
    moisturePct: counts.moisture,
    per100g: counts.per100g,
    signs: { webbing, droppings, rodents, looked: looked || some, larvae, moths, wetSacks, tornSacks },
    cut:
      counts.marks === ''
        ? null
        : {
            planned: counts.planned,
            tally: tallyOf(counts.marks),
            trays: traysOf(counts.marks),
            beyond: counts.beyond,
          },
    note: seen.note ?? '',
  };
}
