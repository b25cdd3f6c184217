import { z } from 'zod';
import { id, massG, tempC } from '../ledger/commands';

/*
 * What is written down about roasting beside the grams: programs in their versions, trials, panel scores, words
 * against a judgement. Only ever added to.
 */

const text = (most: number) => z.string().trim().max(most, `is longer than ${most} letters`).default('');
const minutes = z.number().min(0, 'cannot be below 0').max(1440, 'is more than a day');

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

export const SCHOOLS = ['steps', 'steady', 'hot and quick', 'low and long', 'drum', 'pan', 'nib', 'own'] as const;

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

export const TRIAL_TEMPERATURES = ['low', 'middle', 'high'] as const;

export const trialCell = z.object({
  /** How warm and how long, in the maker's words and figures. */
  peakC: tempC,
  minutes: minutes.gt(0, 'must be more than 0'),
});

export const trial = z.object({
  name: z.string().trim().min(1, 'is missing').max(80, 'is longer than 80 letters'),
  lotId: id,
  roasterId: id.nullable().default(null),
  loadG: massG,
  cells: z.array(trialCell).min(2, 'needs two roasts to compare').max(16, 'has too many roasts'),
  note: text(600),
});
export type Trial = z.infer<typeof trial>;

const programId = id;
export const roastRecord = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('program'), programId, version: z.number().int().min(1), program }),
  z.object({ kind: z.literal('shelved'), programId, shelved: z.boolean() }),
  z.object({ kind: z.literal('trial'), trialId: id, trial }),
  /** A roast load (the tub it made) belongs to a place of the plan. */
  z.object({ kind: z.literal('trial-load'), trialId: id, cell: z.number().int().min(0).max(15), loadId: id }),
  z.object({
    kind: z.literal('score'),
    loadId: id,
    score: z.number().min(0, 'is 0 to 10').max(10, 'is 0 to 10'),
    note: text(300),
  }),
  z.object({ kind: z.literal('word'), loadId: id, word: z.string().trim().min(2, 'is missing').max(500) }),
]);
export type RoastRecordValue = z.infer<typeof roastRecord>;

export interface RoastRecord {
  id: string;
  at: number;
  recordedAt: number;
  personId: string;
  value: RoastRecordValue;
}

/** Where the readings of a live roast come from. */
export const PROBES = ['simulated', 'sent', 'hand'] as const;
export type Probe = (typeof PROBES)[number];

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
export interface LiveRoast extends LoadFacts {
  curveId: string;
  /** Roast seconds that pass in a second of the clock: 1, or more with the simulated probe. */
  speed: number;
}

/** What makes a machine a roaster. */
export const roasterFacts = z.object({
  kind: z.enum(['oven', 'drum', 'pan', 'other']).default('oven'),
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
