import type { Upgrades } from '../record/upgrades';

/** How older records of beans are read. */
export const beanUpgrades: Upgrades = {
  inspection: [
    // Once nobody was asked whether they had looked for signs of insects: who inspected had.
    ({ signs, ...value }) => ({
      ...value,
      signs: typeof signs === 'object' && signs !== null ? { looked: true, ...signs } : signs,
    }),
  ],
};
