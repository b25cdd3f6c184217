import { SCHOOLS, SCHOOL_WORDS } from '@wunsch/core/work/tempering';
import { NOTE, type OfferedFields } from '../entry/entry';

const TESTS = [
  { value: 'set', label: 'Set in 5 min' },
  { value: 'slow', label: 'Slow' },
  { value: 'failed', label: 'Failed' },
  { value: 'none', label: 'Not tested' },
] as const;

export const METHODS = SCHOOLS.map((value) => ({ value, label: SCHOOL_WORDS[value] }));

/** What is asked at the end of each kind of work, in the order in which the hands do it. */
export const fields: OfferedFields = {
  temper: [
    { name: 'method', label: 'Method', type: 'choice', choices: METHODS },
    { name: 'meltC', label: 'Melted out at', type: 'temp' },
    { name: 'coolC', label: 'Cooled to', type: 'temp' },
    { name: 'workC', label: 'Worked at', type: 'temp' },
    { name: 'test', label: 'Temper test', type: 'choice', choices: TESTS },
    { name: 'outG', label: 'In temper (empty: all of it)', type: 'mass', optional: true },
    NOTE,
  ],
  silk: [
    { name: 'outG', label: 'Silk (empty: all of it)', type: 'mass', optional: true },
    { name: 'heldC', label: 'Held at', type: 'temp' },
    { name: 'hours', label: 'For', type: 'number', unit: 'h' },
    { name: 'bestBefore', label: 'It keeps to', type: 'date', optional: true },
    NOTE,
  ],
  remelt: [
    { name: 'outG', label: 'Back as (empty: all of it)', type: 'mass', optional: true },
    { name: 'why', label: 'Why', type: 'text', optional: true },
    NOTE,
  ],
};
