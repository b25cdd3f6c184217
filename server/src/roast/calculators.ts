import { z } from 'zod';
import { massG, minutes, tempC } from '@wunsch/core/ledger/commands';
import { simulateBand } from '@wunsch/core/roast/band';
import { judgeFill } from '@wunsch/core/roast/compare';
import { clean, smooth, type Curve } from '@wunsch/core/roast/curve';
import { jumpsIn, stallsIn } from '@wunsch/core/roast/events';
import { killFigure, roastFigures } from '@wunsch/core/roast/figures';
import { expectLoad, fitRoaster, fitWords, type LoggedLoad } from '@wunsch/core/roast/fit';
import { programMinutes } from '@wunsch/core/roast/program';
import { programStep, setting } from '@wunsch/core/roast/records';
import { steadySetting } from '@wunsch/core/roast/solve';
import { judgeTrial } from '@wunsch/core/roast/trial';
import { ROASTER_KINDS } from '@wunsch/core/work/roasting-words';
import type { Calculators } from '../http/calculating';

/** A curve of a day and more would keep others waiting. */
const MOST = 20_000;
/** Nothing roasts for longer: what does is a slip of the clock, and would keep others waiting. */
const DAY_S = 86_400;
const LONGEST_MIN = 720;
/** Loads that one fit is asked to take. */
const MOST_LOADS = 40;

const readings = z.array(tempC.nullable()).max(MOST);
const curve = z
  .object({
    seconds: z.array(z.number().min(0).max(DAY_S, 'is more than a day')).min(2).max(MOST),
    beanC: readings,
    airC: readings.optional(),
  })
  .refine(({ seconds, beanC, airC }) => beanC.length === seconds.length && (airC ?? beanC).length === seconds.length, {
    message: 'has not as many readings as seconds',
    path: ['beanC'],
  })
  .refine(({ seconds }) => seconds.every((second, i) => i === 0 || second > (seconds[i - 1] ?? 0)), {
    message: 'does not rise',
    path: ['seconds'],
  });

const floats = (values: readonly (number | null)[]): Float64Array => Float64Array.from(values, (value) => value ?? NaN);

function curveFrom({ seconds, beanC, airC }: z.infer<typeof curve>): Curve {
  return {
    seconds: Float64Array.from(seconds),
    beanC: floats(beanC),
    airC: airC ? floats(airC) : new Float64Array(seconds.length).fill(NaN),
  };
}

const size = {
  loadG: massG,
  layerMm: z.number().gt(0, 'must be more than 0').max(500).nullable().default(null),
  moisturePct: z.number().min(0.5).max(30).default(7),
  beanStartC: tempC.default(20),
};
const settings = z.array(setting).max(200).default([]);
const logged = curve.and(
  z.object({
    ...size,
    code: z.string().max(20).default(''),
    preheatC: tempC.default(140),
    weightLeft: z.number().gt(0).max(1).nullable().default(null),
    settings,
  }),
);
const roaster = {
  kind: z.enum(ROASTER_KINDS).default('oven'),
  /** Logged loads of it; without any, what such roasters usually do. */
  loads: z.array(logged).max(MOST_LOADS).default([]),
};

const loadFrom = ({ loadG, moisturePct, ...load }: z.infer<typeof logged>): LoggedLoad => {
  const { seconds, beanC, airC } = curveFrom(load);
  return { ...load, massG: loadG, moisture: moisturePct / 100, minutes: seconds.map((s) => s / 60), beanC, airC };
};

/** The arithmetic of roasting, scriptable. */
export function roastCalculators(router: Calculators): void {
  router.away(
    '/api/calc/roast/simulate',
    'A roast program run through the bean model, with the band in which eight of ten loads fall',
    z.object({
      ...size,
      ...roaster,
      preheatC: tempC,
      steps: z
        .array(programStep)
        .min(1)
        .max(24)
        .refine((steps) => programMinutes(steps) <= LONGEST_MIN, 'are longer than twelve hours'),
      above: z.array(tempC).max(6).default([]),
    }),
    ({ kind, loads, steps, preheatC, loadG, layerMm, moisturePct, beanStartC, above }) => {
      const fit = fitRoaster(kind, loads.map(loadFrom));
      const start = { beanC: beanStartC, moisture: moisturePct / 100 };
      const { middle, ...band } = simulateBand({ steps, preheatC }, { massG: loadG, layerMm }, fit, start, above);
      return {
        ...band,
        middle: {
          minutes: [...middle.minutes],
          beanC: [...middle.beanC],
          airC: [...middle.airC],
          setC: [...middle.setC],
          water: [...middle.water],
        },
        fit: fitWords(fit),
      };
    },
  );
  router.away(
    '/api/calc/roast/fit',
    'What a roaster does, from logged loads: warming and drying per minute, and how well loads are foretold',
    z.object({ ...roaster, loads: roaster.loads.unwrap().min(1), loadG: massG, layerMm: size.layerMm }),
    ({ kind, loads, loadG, layerMm }) => {
      const fit = fitRoaster(kind, loads.map(loadFrom));
      const { warming, drying } = expectLoad(fit, { massG: loadG, layerMm });
      const perMin = ({ mean, low, high }: typeof warming) => ({
        mean: Math.exp(mean),
        low: Math.exp(low),
        high: Math.exp(high),
      });
      return {
        warmingPerMin: perMin(warming),
        dryingPerMin: perMin(drying),
        air: fit.air,
        loads: fit.loads,
        heldOut: fit.heldOut,
      };
    },
  );
  router.away(
    '/api/calc/roast/steady',
    'The one setting that brings a load to a bean temperature in so many minutes; null where none does',
    z.object({ ...size, ...roaster, peakC: tempC, minutes: minutes.gt(0, 'must be more than 0').max(600) }),
    ({ kind, loads, loadG, layerMm, moisturePct, beanStartC, ...wanted }) => ({
      setC: steadySetting(wanted, { massG: loadG, layerMm }, fitRoaster(kind, loads.map(loadFrom)), {
        beanC: beanStartC,
        moisture: moisturePct / 100,
      }),
    }),
  );
  router.away(
    '/api/calc/roast/figures',
    'Peak, time and area above a base, bands, climb, stalls, jumps, gaps of a logged curve',
    curve.and(z.object({ settings, baseC: tempC.default(100), bands: z.array(tempC).min(1).max(12).optional() })),
    ({ settings: set, baseC, bands, ...data }) => {
      const cleaned = clean(curveFrom(data));
      const smoothed = smooth(cleaned);
      const stalls = stallsIn(smoothed, set);
      return {
        ...roastFigures(smoothed, { baseC, ...(bands ? { bands } : {}) }),
        stalls,
        jumps: jumpsIn(smoothed, set, stalls),
        gaps: cleaned.gaps,
        stuck: cleaned.stuck,
        slips: cleaned.slips,
      };
    },
  );
  router.calc(
    '/api/calc/roast/heat-kill',
    'Decimal reductions of a curve by validated D, z and reference; a figure, never a promise of safety',
    curve.and(z.object({ dMin: z.number().gt(0), zC: z.number().gt(0), refC: tempC })),
    ({ dMin, zC, refC, ...data }) => ({
      reductions: killFigure(
        data.seconds.map((second) => second / 60),
        curveFrom(data).beanC,
        { dMin, zC, refC },
      ),
    }),
  );
  const measure = z.number().nullable().default(null);
  router.away(
    '/api/calc/roast/fill',
    'How far the loads of one grinder fill lie apart, and whether one should stay out',
    z.object({
      loads: z
        .array(z.object({ code: z.string().max(20), endC: measure, area: measure, weightLeft: measure }))
        .min(1)
        .max(60),
    }),
    ({ loads }) => judgeFill(loads),
  );
  router.away(
    '/api/calc/roast/trial',
    'Which of the planned roasts suits best so far, and which to make next',
    z.object({
      roasts: z
        .array(
          z.object({
            peakC: tempC,
            minutes: minutes.gt(0, 'must be more than 0'),
            loads: z
              .array(
                z.object({ score: z.number().min(0).max(10), tasters: z.number().int().min(1).max(100).default(1) }),
              )
              .max(50)
              .default([]),
          }),
        )
        .min(2)
        .max(16),
    }),
    ({ roasts }) => judgeTrial(roasts),
  );
}
