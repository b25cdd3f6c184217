import { contents, type Contents } from '../ledger/contents';

/* Usual compositions of ingredients, g per 100 g, as food composition tables have them. The maker's own replace them. */

export interface UsualContents {
  contents: Contents;
  source: string;
}

const TABLES = 'usual food composition tables';
const usual = (given: Partial<Contents>, source = TABLES): UsualContents => ({
  contents: contents.parse(given),
  source,
});
const cocoa = (fatPct: number, waterPct: number, more: Partial<Contents>): Partial<Contents> => ({
  fatPct,
  cocoaButterPct: fatPct,
  waterPct,
  dryCocoaPct: 100 - fatPct - waterPct,
  ...more,
});

/** Fat of nibs that nobody measured, %, and the range of what is usual. */
export const NIB_FAT = { usual: 53, low: 48, high: 57 } as const;

/**
 * Nibs of so much fat.
 *
 * @param fatPct grams of cocoa butter in 100 g
 */
export const nibContents = (fatPct: number = NIB_FAT.usual): Contents =>
  contents.parse(cocoa(fatPct, 2.5, { sugarsPct: 1, proteinPct: 13, fibrePct: 10 }));

export const USUAL_CONTENTS = {
  nibs: { contents: nibContents(), source: `${TABLES}; nibs have ${NIB_FAT.low} to ${NIB_FAT.high} % fat` },
  liquor: usual(cocoa(54, 1.5, { sugarsPct: 1, proteinPct: 13, fibrePct: 10 })),
  butter: usual({ fatPct: 100, cocoaButterPct: 100 }),
  powder: usual(cocoa(11, 4, { sugarsPct: 1, proteinPct: 20, fibrePct: 30 }), `${TABLES}; 10 to 12 % fat`),
  richPowder: usual(cocoa(21, 4, { sugarsPct: 1, proteinPct: 18, fibrePct: 27 }), `${TABLES}; 20 to 22 % fat`),
  sugar: usual({ sugarPct: 100, sugarsPct: 100 }),
  caneSugar: usual({ sugarPct: 99.5, sugarsPct: 99.5, waterPct: 0.3 }),
  muscovado: usual({ sugarPct: 96, sugarsPct: 96, waterPct: 2 }),
  coconutSugar: usual({ sugarPct: 90, sugarsPct: 90, waterPct: 2, fibrePct: 2, proteinPct: 1.5 }),
  polyol: usual({ polyolsPct: 100 }),
  inulin: usual({ waterPct: 5, fibrePct: 88, sugarsPct: 7 }),
  wholeMilk: usual({ fatPct: 26, milkFatPct: 26, dryMilkPct: 71, waterPct: 3, sugarsPct: 38, proteinPct: 26 }),
  skimmedMilk: usual({ fatPct: 1, milkFatPct: 1, dryMilkPct: 95, waterPct: 4, sugarsPct: 52, proteinPct: 35 }),
  butterOil: usual({ fatPct: 99.8, milkFatPct: 99.8, waterPct: 0.1 }),
  oat: usual(
    { fatPct: 7, waterPct: 9, proteinPct: 13, fibrePct: 10, sugarsPct: 1 },
    `${TABLES}; dry it before it goes in`,
  ),
  coconutMilk: usual(
    { fatPct: 60, waterPct: 2, proteinPct: 7, sugarsPct: 12 },
    `${TABLES}; often made with milk protein`,
  ),
  almond: usual({ fatPct: 50, waterPct: 5, proteinPct: 21, sugarsPct: 4, fibrePct: 12 }),
  hazelnut: usual({ fatPct: 61, waterPct: 5, proteinPct: 15, sugarsPct: 4, fibrePct: 10 }),
  sesame: usual({ fatPct: 50, waterPct: 5, proteinPct: 18, sugarsPct: 0.3, fibrePct: 12 }),
  lecithin: usual({ fatPct: 97, lecithinPct: 97, waterPct: 1 }, `${TABLES}; counts as fat, 93 to 100 %`),
  vanilla: usual({ fatPct: 8, waterPct: 10, proteinPct: 4, sugarsPct: 12, fibrePct: 30 }),
  salt: usual({ saltPct: 99.8, waterPct: 0.2 }),
  spice: usual({ fatPct: 4, waterPct: 10, proteinPct: 6, sugarsPct: 2, fibrePct: 45 }),
  coffee: usual({ fatPct: 13, waterPct: 3, proteinPct: 13, fibrePct: 40 }),
  driedFruit: usual(
    { fatPct: 4, waterPct: 3, proteinPct: 8, sugarsPct: 40, fibrePct: 30 },
    `${TABLES}; takes up water from the air`,
  ),
} satisfies Record<string, UsualContents>;
