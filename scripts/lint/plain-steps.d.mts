import type { ESLint } from 'eslint';

export const plainSteps: NonNullable<ESLint.Plugin['rules']>[string];
