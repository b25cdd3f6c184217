import type { HoldingView } from '@wunsch/core/api/types';
import type { Nearby } from '@wunsch/core/entry/doubt';
import type { MassUnit } from '@wunsch/core/units/mass';
import type { ApiError } from '../parts/api';
import { unreadable } from '../parts/number';
import { count } from '../parts/workshop';
import {
  fieldG,
  isMass,
  massUnitOf,
  readNumber,
  textOfG,
  type Fields,
  type FieldSpec,
  type FieldState,
  type Problems,
} from './entry';

/* What is taken of what was picked, in the unit of the screen; and where the server's word about it belongs. */

/** Weights typed before the unit of the screen was chosen are in that unit. */
export const withUnit = (fields: Fields, specs: readonly FieldSpec[], unit: MassUnit): Fields =>
  Object.fromEntries(
    Object.entries(fields).map(([name, state]) => {
      const spec = specs.find((row) => row.name === name);
      return [
        name,
        spec && isMass(spec) && state.unit === undefined ? { ...state, unit: massUnitOf(spec, unit) } : state,
      ];
    }),
  );

/** Several weighings, each of them off by the same slip. */
export const scaled = (state: FieldState, factor: number, unit: MassUnit): FieldState => {
  const now = fieldG({ ...state, parts: [] }, unit);
  return {
    unit,
    text: state.text === '' || now === null ? '' : textOfG(now * factor, unit),
    parts: state.parts?.map((part) => part * factor),
  };
};

/** Grams that each holding gives where nothing is typed: all it has, or in turn until there is enough. */
export function usualTakes(chosen: readonly HoldingView[], takeG = Infinity): Map<string, number> {
  let left = takeG;
  return new Map(
    chosen.map(({ id, freeMg }) => {
      const massG = Math.min(freeMg / 1000, left);
      left -= massG;
      return [id, massG];
    }),
  );
}

/** What is taken of a holding, by weight or by the piece. */
export interface Source {
  holdingId: string;
  massG?: number;
  pieces?: number;
}

/** What a work under way has taken already. */
export const sourcesFixed = (fixed: readonly { holdingId: string; massMg: number; pieces: number }[]): Source[] =>
  fixed.map(({ holdingId, massMg, pieces }) =>
    pieces > 0 ? { holdingId, pieces } : { holdingId, massG: massMg / 1000 },
  );

/** What is taken of what was picked: as it was typed, else all pieces, and the usual grams. */
export const sourcesOf = (
  chosen: readonly HoldingView[],
  fields: Fields,
  unit: MassUnit,
  usualG: ReadonlyMap<string, number>,
): Source[] =>
  chosen.map(({ id, pieces }) => {
    const state = fields[`take.${id}`];
    return pieces > 0
      ? { holdingId: id, pieces: readNumber(state?.text ?? '') ?? pieces }
      : { holdingId: id, massG: fieldG(state, unit) ?? usualG.get(id) ?? 0 };
  });

/** What a source weighs; pieces as much as they do on the mean. */
export const massMgOf = ({ massMg, pieces }: HoldingView, source: Source | undefined): number =>
  source?.pieces === undefined ? (source?.massG ?? 0) * 1000 : (massMg * source.pieces) / Math.max(1, pieces);

/** Figures that were typed, by field: what was weighed in parts is one. */
export function figuresOf(values: Record<string, unknown>): Record<string, number | undefined> {
  const figures: Record<string, number | undefined> = {};
  for (const [name, value] of Object.entries(values))
    if (typeof value === 'number') figures[name] = value;
    else if (name === 'outsG') figures[name] = (value as number[]).reduce((sum, grams) => sum + grams, 0);
    else if (name === 'channels') figures[name] = (value as number[])[0];
  return figures;
}

/**
 * Grams that were typed to be taken, and what they are held against: what there is where that is far less, else what usually
 * goes in.
 */
export function takesNear(
  chosen: readonly HoldingView[],
  fields: Fields,
  unit: MassUnit,
  usualInG: number | null | undefined,
): { figures: Record<string, number>; near: Nearby } {
  const figures: Record<string, number> = {};
  const near: Record<string, Nearby[string]> = {};
  for (const { id, pieces, freeMg } of chosen) {
    const grams = pieces > 0 ? null : fieldG(fields[`take.${id}`], unit);
    if (grams === null) continue;
    const thereG = freeMg / 1000;
    figures[`take.${id}`] = grams;
    if (grams > FAR * thereG) near[`take.${id}`] = { value: thereG, of: 'There is' };
    else if (usualInG)
      near[`take.${id}`] = { value: Math.min(usualInG / chosen.length, thereG), of: 'Usually goes in' };
  }
  return { figures, near };
}

/** So many times what there is was never meant. */
const FAR = 8;

/** Fields with something in them that is no number. */
export function unread(specs: readonly FieldSpec[], fields: Fields, unit: MassUnit): Problems {
  const wrong: Problems = {};
  for (const { name, type } of specs) {
    const state = fields[name];
    const text = state?.text ?? '';
    const isUnread =
      type === 'mass' ? text.trim() !== '' && fieldG(state, unit) === null : unreadable(text) !== undefined;
    if (isUnread) wrong[name] = 'is not a number';
  }
  return wrong;
}

export const takeSpec = (holding: HoldingView, mass: (mg: number) => string): FieldSpec => ({
  name: `take.${holding.id}`,
  label: `${holding.code}, of ${holding.pieces > 0 ? `${count(holding.pieces)} ${holding.pieces === 1 ? 'piece' : 'pieces'}` : mass(holding.freeMg)}`,
  type: holding.pieces > 0 ? 'pieces' : 'mass',
  optional: true,
});

/** Puts the server's field problems at the fields they are about. */
export function fieldProblems(error: ApiError, chosen: readonly HoldingView[], specs: readonly FieldSpec[]): Problems {
  const problems: Problems = {};
  for (const { path, message } of error.problem.errors) {
    const clean = path.replace(/^command\./, '');
    const source = /^sources\.(\d+)/.exec(clean);
    const takings = /^sources\.(\d+)\.takings/.exec(clean);
    const reject = /^rejects\.(\d+)/.exec(clean);
    const name = takings
      ? `takings.${chosen[Number(takings[1])]?.id ?? ''}`
      : source
        ? `take.${chosen[Number(source[1])]?.id ?? ''}`
        : reject
          ? 'goodG'
          : (specs.find((spec) => spec.at === clean)?.name ?? clean.split('.')[0] ?? clean);
    if (name === 'at') problems['~at'] = message;
    else if (specs.some((spec) => spec.name === name)) problems[name] = message;
  }
  return problems;
}
