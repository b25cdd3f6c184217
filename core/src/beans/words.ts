/** What a sack can smell of, in a few plain words. */
export const SMELLS = [
  'clean cocoa',
  'fruity',
  'vinegar',
  'yeast',
  'earth',
  'smoke',
  'musty',
  'ham or rot',
  'ammonia',
  'fuel or chemical',
] as const;
export type Smell = (typeof SMELLS)[number];

/** Smells no roast takes out. */
export const FAULTY_SMELLS: readonly Smell[] = ['smoke', 'musty', 'ham or rot', 'ammonia', 'fuel or chemical'];

/** Colour of fermenting beans. */
export const COLOURS = ['white', 'pink', 'violet', 'tan', 'reddish brown', 'dark brown'] as const;

export const ACTIONS = ['take-in', 'allowance', 'hold', 'refuse'] as const;
export type Action = (typeof ACTIONS)[number];

export const ACTION_NAMES: Record<Action, string> = {
  'take-in': 'Take it in',
  allowance: 'Take it in with an allowance',
  hold: 'Hold it',
  refuse: 'Refuse it',
};
