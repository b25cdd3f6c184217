import { z } from 'zod/mini';
import { landedMilli } from '@wunsch/core/beans/receive';
import { massG, massOrNoneG, money } from '@wunsch/core/fields/fields';
import { barsFrom } from '@wunsch/core/mould/mould';
import { compositionOf } from '@wunsch/core/composition/composition';
import { findChange } from '@wunsch/core/stats/change-point';
import { individuals, signalAtEnd } from '@wunsch/core/stats/individuals';
import { majorFromMilli } from '@wunsch/core/units/money';
import { sampleShare, secondPass } from '@wunsch/core/winnow/samples';
import type { Calculators } from './calculating';

/** The arithmetic of the benches, scriptable. */
export function calculatorRoutes(router: Calculators): void {
  router.calc(
    '/api/calc/beans/landed',
    'Landed cost of a lot',
    z.object({
      netG: massG,
      invoiceNetG: z.optional(massG),
      pricePerKg: money,
      rate: z._default(z.number().check(z.positive()), 1),
      freight: z._default(money, 0),
      duty: z._default(money, 0),
    }),
    ({ netG, invoiceNetG, ...price }) => {
      const total = majorFromMilli(landedMilli({ paidG: invoiceNetG ?? netG, ...price }));
      return { total, perKg: total / (netG / 1000) };
    },
  );
  router.calc(
    '/api/calc/mould/bars',
    'Bars from a pour',
    z.object({
      chocolateG: massG,
      holdUpG: z._default(massOrNoneG, 0),
      barG: massG,
      cavities: z.number().check(z.int(), z.minimum(1)),
    }),
    ({ chocolateG, holdUpG, barG, cavities }) => barsFrom(chocolateG, holdUpG, barG, cavities),
  );
  router.calc(
    '/api/calc/recipe/cocoa',
    'Cocoa percent, with and without added butter',
    z
      .object({
        nibsG: massOrNoneG,
        butterG: z._default(massOrNoneG, 0),
        sugarG: z._default(massOrNoneG, 0),
        otherG: z._default(massOrNoneG, 0),
      })
      .check(
        z.refine((b) => b.nibsG + b.butterG + b.sugarG + b.otherG > 0, {
          message: 'nothing is in the bowl',
          path: ['nibsG'],
        }),
      ),
    ({ nibsG, butterG, sugarG, otherG }) => {
      const total = nibsG + butterG + sugarG + otherG;
      const none = { id: '', name: '', kind: 'ingredient' as const, allergens: [] };
      const figures = compositionOf(
        new Map([
          ['nibs', nibsG / total],
          ['butter', butterG / total],
          ['sugar', sugarG / total],
          ['other', otherG / total],
        ]),
        (root) =>
          root === 'nibs'
            ? { kind: 'cacao', lotId: 'nibs' }
            : {
                kind: 'ingredient',
                material: { ...none, cocoa: root === 'butter' ? 'butter' : 'none', sugar: root === 'sugar' },
              },
      );
      return { cocoaPct: figures.cocoaPct, withoutButterPct: figures.withoutButterPct, sugarPct: figures.sugarPct };
    },
  );
  const share = z.object({
    mean: z.number(),
    low: z.number(),
    high: z.number(),
    n: z.number().check(z.int(), z.minimum(1)),
  });
  router.calc(
    '/api/calc/winnow/second-pass',
    'Whether running the husk again pays',
    z.object({
      huskG: massG,
      nibInHusk: share,
      efficiency: z._default(z.number().check(z.minimum(0), z.maximum(1)), 0.7),
      nibPerKg: money,
      wagePerHour: money,
      minutes: z.number().check(z.minimum(0), z.maximum(1440)),
    }),
    secondPass,
  );
  router.calc(
    '/api/calc/winnow/samples',
    'Share found in picked samples, with its interval',
    z.object({
      samples: z.array(z.object({ sampleG: massG, foundG: massOrNoneG })).check(z.minLength(1), z.maxLength(100)),
    }),
    ({ samples }) => sampleShare(samples),
  );
  router.away(
    '/api/calc/stats/change-point',
    'Where a series steps or begins to drift',
    z.object({
      values: z.array(z.number()).check(z.maxLength(2000)),
      groups: z._default(z.array(z.string()).check(z.maxLength(2000)), []),
    }),
    ({ values, groups }) => ({ change: findChange(values, groups) }),
  );
  router.calc(
    '/api/calc/stats/individuals',
    'Individuals and moving-range chart',
    z.object({ values: z.array(z.number()).check(z.minLength(2), z.maxLength(10_000)) }),
    ({ values }) => {
      const chart = individuals(values);
      return { chart, signal: chart ? signalAtEnd(values, chart) : null };
    },
  );
}
