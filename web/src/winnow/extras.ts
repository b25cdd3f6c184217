import type { Dial, Dials } from '@wunsch/core/winnow/response';
import type { PickedSample } from '@wunsch/core/winnow/samples';
import type { Sieve } from '@wunsch/core/winnow/sieve';
import type { Fields, FieldState } from '../entry/entry';
import type { CommandOf } from '@wunsch/core/commands';
import { readNumber, typedNumber, unreadable } from '../parts/number';

/** What a winnowing asks for beside its weights; kept in the same draft, under names of its own. */
export interface Pass {
  what: 'first' | 'again' | 'picked';
  nibsG: number;
  minutes: number;
}
/** A pass, and a sample, as they are typed: no part of the entry until they are added. */
export interface TypedPass {
  what: Pass['what'];
  nibs: string;
  minutes: string;
}
export interface TypedSample {
  size: string;
  found: string;
}
export interface Extras {
  method: string;
  dials: Partial<Record<Dial, string>>;
  shell: PickedSample[];
  nib: PickedSample[];
  passes: Pass[];
  sieve: Partial<Record<keyof Sieve, string>>;
  typed: { pass?: TypedPass; shell?: TypedSample; nib?: TypedSample };
}

export const METHOD_NAMES = {
  hand: 'Peeled by hand',
  dryer: 'Bowl and hair dryer',
  column: 'Suction column',
  machine: 'Machine',
} as const;

export const PASS_NAMES: Record<Pass['what'], string> = {
  first: 'First run',
  again: 'Husk again',
  picked: 'Picked by hand',
};

const NAME = '~winnow';
const EMPTY: Extras = { method: '', dials: {}, shell: [], nib: [], passes: [], sieve: {}, typed: {} };

export function extrasOf(fields: Fields): Extras {
  const text = fields[NAME]?.text;
  return text === undefined || text === '' ? EMPTY : { ...EMPTY, ...(JSON.parse(text) as Partial<Extras>) };
}

export const extrasField = (extras: Extras): readonly [string, FieldState] => [NAME, { text: JSON.stringify(extras) }];

const number = (text: string | undefined): number | null => readNumber(text ?? '');

export const dialsOf = (extras: Extras): Dials =>
  Object.fromEntries(Object.entries(extras.dials).map(([name, text]) => [name, number(text)]));

export function sieveOf({ sieve }: Extras): Sieve | null {
  const grams = {
    coarseG: number(sieve.coarseG) ?? 0,
    goodG: number(sieve.goodG) ?? 0,
    finesG: number(sieve.finesG) ?? 0,
    dustG: number(sieve.dustG) ?? 0,
  };
  return Object.values(grams).some((value) => value > 0) ? grams : null;
}

/** The extras of a winnowing that was saved. */
export function extrasFrom(command: Partial<CommandOf<'winnow'>>): Extras {
  const text = (value: number | null | undefined): string => (value == null ? '' : typedNumber(value));
  return {
    method: command.method ?? '',
    dials: Object.fromEntries(Object.entries(command.settings ?? {}).map(([name, value]) => [name, text(value)])),
    shell: command.shellSamples ?? [],
    nib: command.nibSamples ?? [],
    passes: command.passes ?? [],
    sieve: Object.fromEntries(Object.entries(command.sieve ?? {}).map(([name, value]) => [name, text(value)])),
    typed: {},
  };
}

/** The extras as the command wants them. */
export function extrasCommand(fields: Fields): Record<string, unknown> {
  const extras = extrasOf(fields);
  const sieve = sieveOf(extras);
  return {
    ...(extras.method === '' ? {} : { method: extras.method }),
    ...(Object.keys(extras.dials).length > 0 ? { settings: dialsOf(extras) } : {}),
    ...(extras.shell.length > 0 ? { shellSamples: extras.shell } : {}),
    ...(extras.nib.length > 0 ? { nibSamples: extras.nib } : {}),
    ...(extras.passes.length > 0 ? { passes: extras.passes } : {}),
    ...(sieve ? { sieve } : {}),
  };
}

/** What cannot be read among the extras, or is typed and in none of them yet, in words; null when all is well. */
export function extrasProblem(fields: Fields): string | null {
  const extras = extrasOf(fields);
  const texts = [...Object.values(extras.dials), ...Object.values(extras.sieve)];
  const bad = texts.find((text) => unreadable(text) !== undefined);
  if (bad !== undefined) return `“${bad}” among the dials and sieves is not a number.`;
  const { pass, shell, nib } = extras.typed;
  const waiting = [
    ['a pass', pass?.nibs],
    ['a sample of shell in nibs', shell?.found],
    ['a sample of nib in husk', nib?.found],
  ].find(([, text]) => (text ?? '').trim() !== '');
  return waiting ? `“${waiting[1]}” is typed as ${waiting[0]} and not added: add it, or clear it.` : null;
}
