import { z } from 'zod/mini';
import { massG, minutes, tempC } from '@wunsch/core/fields/fields';
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

const readings = z.array(z.nullable(tempC)).check(z.maxLength(MOST));
const curve = z
  .object({
    seconds: z
      .array(z.number().check(z.minimum(0), z.maximum(DAY_S, 'is more than a day')))
      .check(z.minLength(2), z.maxLength(MOST)),
    beanC: readings,
    airC: z.optional(readings),
  })
  .check(
    z.refine(
      ({ seconds, beanC, airC }) => beanC.length === seconds.length && (airC ?? beanC).length === seconds.length,
      {
        message: 'has not as many readings as seconds',
        path: ['beanC'],
      },
    ),
    z.refine(({ seconds }) => seconds.every((second, i) => i === 0 || second > (seconds[i - 1] ?? 0)), {
      message: 'does not rise',
      path: ['seconds'],
    }),
  );

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
  layerMm: z._default(z.nullable(z.number().check(z.gt(0, 'must be more than 0'), z.maximum(500))), null),
  moisturePct: z._default(z.number().check(z.minimum(0.5), z.maximum(30)), 7),
  beanStartC: z._default(tempC, 20),
};
const settings = z._default(z.array(setting).check(z.maxLength(200)), []);
const logged = z.intersection(
  curve,
  z.object({
    ...size,
    code: z._default(z.string().check(z.maxLength(20)), ''),
    preheatC: z._default(tempC, 140),
    weightLeft: z._default(z.nullable(z.number().check(z.gt(0), z.maximum(1))), null),
    settings,
  }),
);
const loads = z.array(logged).check(z.maxLength(MOST_LOADS));
const roaster = {
  kind: z._default(z.enum(ROASTER_KINDS), 'oven'),
  /** Logged loads of it; without any, what such roasters usually do. */
  loads: z._default(loads, []),
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
      steps: z.array(programStep).check(
        z.minLength(1),
        z.maxLength(24),
        z.refine((steps) => programMinutes(steps) <= LONGEST_MIN, 'are longer than twelve hours'),
      ),
      above: z._default(z.array(tempC).check(z.maxLength(6)), []),
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
    z.object({ ...roaster, loads: loads.check(z.minLength(1)), loadG: massG, layerMm: size.layerMm }),
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
    z.object({
      ...size,
      ...roaster,
      peakC: tempC,
      minutes: minutes.check(z.gt(0, 'must be more than 0'), z.maximum(600)),
    }),
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
    z.intersection(
      curve,
      z.object({
        settings,
        baseC: z._default(tempC, 100),
        bands: z.optional(z.array(tempC).check(z.minLength(1), z.maxLength(12))),
      }),
    ),
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
    z.intersection(curve, z.object({ dMin: z.number().check(z.gt(0)), zC: z.number().check(z.gt(0)), refC: tempC })),
    ({ dMin, zC, refC, ...data }) => ({
      reductions: killFigure(
        data.seconds.map((second) => second / 60),
        curveFrom(data).beanC,
        { dMin, zC, refC },
      ),
    }),
  );
  const measure = z._default(z.nullable(z.number()), null);
  router.away(
    '/api/calc/roast/fill',
    'How far the loads of one grinder fill lie apart, and whether one should stay out',
    z.object({
      loads: z
        .array(z.object({ code: z.string().check(z.maxLength(20)), endC: measure, area: measure, weightLeft: measure }))
        .check(z.minLength(1), z.maxLength(60)),
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
            minutes: minutes.check(z.gt(0, 'must be more than 0')),
            loads: z._default(
              z
                .array(
                  z.object({
                    score: z.number().check(z.minimum(0), z.maximum(10)),
                    tasters: z._default(z.number().check(z.int(), z.minimum(1), z.maximum(100)), 1),
                  }),
                )
                .check(z.maxLength(50)),
              [],
            ),
          }),
        )
        .check(z.minLength(2), z.maxLength(16)),
    }),
    ({ roasts }) => judgeTrial(roasts),
  );
}
