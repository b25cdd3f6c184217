import { bytesOf, numbersIn, type Sections } from './sections';

/* Numbers that are not below zero, in as few bytes each as hold all of them. */

const KINDS = { u8: Uint8Array, u16: Uint16Array, u32: Uint32Array, f64: Float64Array } as const;
type Kind = keyof typeof KINDS;
export type Fitting = InstanceType<(typeof KINDS)[Kind]>;

const MOST = { u8: 0xff, u16: 0xffff, u32: 0xffffffff } as const;

function kindOf(numbers: readonly number[]): Kind {
  let most = 0;
  for (const number of numbers) {
    if (!Number.isInteger(number) || number < 0) return 'f64';
    if (number > most) most = number;
  }
  return most <= MOST.u8 ? 'u8' : most <= MOST.u16 ? 'u16' : most <= MOST.u32 ? 'u32' : 'f64';
}

export const fitting = (numbers: readonly number[]): Fitting => KINDS[kindOf(numbers)].from(numbers);

/** As a section of a file, whose name says how wide they are. */
export function fittingSections(name: string, numbers: Fitting): Sections {
  const [kind] = Object.entries(KINDS).find(([, Numbers]) => numbers instanceof Numbers) ?? ['f64'];
  return { [`${name}.${kind}`]: bytesOf(numbers) };
}

/** Where they lie in a file. @throws Error where they are not there */
export function openFitting(name: string, sections: Sections): Fitting {
  const kind = (Object.keys(KINDS) as Kind[]).find((each) => `${name}.${each}` in sections) ?? 'u8';
  return numbersIn<Fitting>(KINDS[kind], sections, `${name}.${kind}`);
}
