import { z } from 'zod';
import { id, massG, minutes, tempC, text } from '../fields/fields';
import { PROBES, ROASTER_KINDS, SCHOOLS } from './roasting-words';

/* Roasters, roast programs, and what a load carries beside its weights. */

export const sign = z.string().trim().min(1, 'is missing').max(40, 'is longer than 40 letters');

/** A step lasts its minutes, or ends sooner when the beans are so warm or a sign is noticed. */
export const programStep = z.object({
  setC: tempC,
  minutes: minutes.gt(0, 'must be more than 0'),
  until: z
    .discriminatedUnion('what', [
      z.object({ what: z.literal('bean'), beanC: tempC }),
      z.object({ what: z.literal('sign'), sign }),
    ])
    .nullable()
    .default(null),
  note: text(120),
});
export type ProgramStep = z.infer<typeof programStep>;

export const program = z.object({
  name: z.string().trim().min(1, 'is missing').max(80, 'is longer than 80 letters'),
  kind: z.enum(['bean', 'nib']).default('bean'),
  school: z.enum(SCHOOLS).default('own'),
  /** Why it is as it is. */
  reason: text(600),
  roasterId: id.nullable().default(null),
  loadG: massG,
  /** Set temperature when the load goes in, °C. */
  preheatC: tempC,
  stirEveryMin: minutes.gt(0, 'must be more than 0').nullable().default(null),
  /** Minutes of cooling before cracking. */
  coolMin: minutes.default(60),
  steps: z.array(programStep).min(1, 'needs a step').max(24, 'has too many steps'),
  /** Lots and families it suits, and why. */
  suits: z
    .array(z.object({ family: z.string().trim().min(1).max(120), why: text(200) }))
    .max(24)
    .default([]),
  note: text(600),
});
export type Program = z.infer<typeof program>;

/** Something noticed or done while it roasts; seconds since the load went in. */
export const signMark = z.object({ second: z.number().min(0).max(86_400), what: sign, word: text(120) });
export type SignMark = z.infer<typeof signMark>;

/** A set temperature, and since when; `step` is its place in the program, −1 for one chosen by hand. */
export const setting = z.object({
  second: z.number().min(0).max(86_400),
  setC: tempC,
  step: z.number().int().min(-1).max(24),
});
export type Setting = z.infer<typeof setting>;

/** What a load carries beside its weights: how it was roasted. */
export const loadFacts = z.object({
  programId: id.nullable().default(null),
  version: z.number().int().min(1).nullable().default(null),
  plan: program.nullable().default(null),
  /** Share of water in the beans as they went in, % of the wet weight. */
  moisturePct: z.number().min(0.5).max(30, 'is wetter than any beans to roast').nullable().default(null),
  /** Depth of the layer on the trays, mm. */
  layerMm: z.number().gt(0, 'must be more than 0').max(500, 'is deeper than any tray').nullable().default(null),
  beanStartC: tempC.nullable().default(null),
  probe: z.enum(PROBES).default('hand'),
  /** Seconds in the roaster. */
  seconds: z.number().min(0).max(86_400).nullable().default(null),
  settings: z.array(setting).max(200).default([]),
  signs: z.array(signMark).max(100).default([]),
  stirs: z.array(z.number().min(0).max(86_400)).max(200).default([]),
});
export type LoadFacts = z.infer<typeof loadFacts>;

/** A load that is in the roaster now. */
export const liveRoast = loadFacts.extend({
  curveId: id,
  /** Roast seconds that pass in a second of the clock: 1, or more with the simulated probe. */
  speed: z.number().min(0).max(10_000),
});
export type LiveRoast = z.infer<typeof liveRoast>;

/** What makes a machine a roaster. */
export const roasterFacts = z.object({
  kind: z.enum(ROASTER_KINDS).default('oven'),
  trays: z.number().int().min(1).max(60).nullable().default(null),
  /** Area of one tray, cm². */
  trayCm2: z.number().gt(0).max(40_000).nullable().default(null),
  preheatMin: minutes.default(15),
  /** `hand`: somebody turns the dial. `itself`: it runs the program on its own. */
  setBy: z.enum(['hand', 'itself']).default('hand'),
  how: text(300),
  /** The maker's own validation of the kill step; without it there is no figure. */
  kill: z
    .object({
      dMin: z.number().gt(0, 'must be more than 0').max(100_000),
      zC: z.number().gt(0, 'must be more than 0').max(100),
      refC: tempC,
      /** Decimal reductions the plan asks for. */
      wanted: z.number().gt(0).max(20).nullable().default(null),
      source: z.string().trim().min(3, 'says who validated it, and when').max(300),
    })
    .nullable()
    .default(null),
});
export type RoasterFacts = z.infer<typeof roasterFacts>;

/** What is said when a load goes in. */
export const startRoast = z.object({
  programId: id.nullable().default(null),
  version: z.number().int().min(1).nullable().default(null),
  plan: program.nullable().default(null),
  moisturePct: loadFacts.shape.moisturePct,
  layerMm: loadFacts.shape.layerMm,
  beanStartC: loadFacts.shape.beanStartC,
  probe: z.enum(PROBES).default('hand'),
});
export type StartRoast = z.infer<typeof startRoast>;
