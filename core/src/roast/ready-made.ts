import type { Program, ProgramStep } from './records';

const step = (setC: number, minutes: number, note = '', until: ProgramStep['until'] = null): ProgramStep => ({
  setC,
  minutes,
  until,
  note,
});

const base = {
  kind: 'bean' as const,
  roasterId: null,
  coolMin: 60,
  stirEveryMin: null,
  suits: [],
  note: '',
};

/**
 * Starting points, one for each school of the trade. None is right for a lot before it was tasted; times are for
 * sound beans at 7 % water in a layer of two to three centimetres.
 */
export const READY_MADE: readonly Program[] = [
  {
    ...base,
    name: 'Falling steps',
    school: 'steps',
    reason:
      'Hot while the beans are cold and wet and can take it, then lower before the edges scorch: even inside and out.',
    loadG: 5000,
    preheatC: 160,
    stirEveryMin: 8,
    steps: [step(160, 6, 'load cold beans'), step(145, 8), step(130, 10, '', { what: 'bean', beanC: 120 })],
  },
  {
    ...base,
    name: 'Rising steps',
    school: 'steps',
    reason:
      'Dries gently first, so that acids leave with the water, and develops at the end. Kind to small, uneven beans.',
    loadG: 5000,
    preheatC: 110,
    stirEveryMin: 10,
    steps: [step(110, 12, 'drying'), step(125, 8), step(140, 12, '', { what: 'bean', beanC: 122 })],
  },
  {
    ...base,
    name: 'Steady and moderate',
    school: 'steady',
    reason: 'One setting, nothing to forget; what changes is only how long. A good first roast for an unknown lot.',
    loadG: 4000,
    preheatC: 135,
    stirEveryMin: 10,
    steps: [step(135, 28, 'out when a broken bean smells of brownie', { what: 'sign', sign: 'brownie' })],
  },
  {
    ...base,
    name: 'Hot and quick',
    school: 'hot and quick',
    reason: 'Keeps fruit and flowers of fine, well-fermented beans. Little room for error: stay beside it.',
    loadG: 2500,
    preheatC: 185,
    stirEveryMin: 4,
    steps: [step(185, 5), step(165, 9, '', { what: 'bean', beanC: 124 })],
  },
  {
    ...base,
    name: 'Low and long',
    school: 'low and long',
    reason: 'Rounds sharp, astringent beans and keeps bitterness low. Costs time and power, and some of the fruit.',
    loadG: 5000,
    preheatC: 118,
    stirEveryMin: 15,
    steps: [step(118, 45), step(112, 15)],
  },
  {
    ...base,
    name: 'Drum',
    school: 'drum',
    reason:
      'The load is turned all the time: even, and quicker than trays at the same air. Heat is taken back before the end.',
    loadG: 5000,
    preheatC: 170,
    steps: [
      step(165, 9),
      step(150, 6, 'shell loosens', { what: 'sign', sign: 'shell rubs off' }),
      step(138, 6, '', { what: 'bean', beanC: 121 }),
    ],
  },
  {
    ...base,
    name: 'Pan or clay pot',
    school: 'pan',
    reason:
      'Over fire, stirred without a pause, judged by popping and by rubbing a shell off. A small load in one layer.',
    loadG: 600,
    preheatC: 180,
    stirEveryMin: 1,
    coolMin: 30,
    steps: [
      step(180, 8, 'stir all the time', { what: 'sign', sign: 'popping' }),
      step(150, 6, 'lower the fire', { what: 'sign', sign: 'shell rubs off' }),
    ],
  },
  {
    ...base,
    kind: 'nib',
    name: 'Loosen the shell',
    school: 'nib',
    reason: 'First of two: a short heat so that the shell parts from raw beans at the cracker. It is no kill step.',
    loadG: 4000,
    preheatC: 120,
    steps: [step(120, 10)],
  },
  {
    ...base,
    kind: 'nib',
    name: 'Nib roast',
    school: 'nib',
    reason: 'Second of two: nibs take heat on all sides and lose acid quickly; a third shorter than whole beans.',
    loadG: 3000,
    preheatC: 130,
    stirEveryMin: 4,
    coolMin: 30,
    steps: [step(130, 8), step(120, 8, '', { what: 'bean', beanC: 116 })],
  },
];
