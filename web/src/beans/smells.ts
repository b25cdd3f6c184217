import { SMELLS, type Smell } from '@wunsch/core/beans/words';

export const SMELL_OPTIONS: readonly (readonly [Smell, string])[] = SMELLS.map((name) => [name, name] as const);
