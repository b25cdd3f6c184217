import type { HoldingView } from '@wunsch/core/api/types';
import type { MassUnit } from '@wunsch/core/units/mass';
import type { ApiError } from '../parts/api';
import { count } from '../parts/workshop';
import {
  fieldG,
  isMass,
  massUnitOf,
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
