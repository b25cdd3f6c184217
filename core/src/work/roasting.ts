import { z } from 'zod/mini';
import { field } from '../fields/registry';
import { id, massG, minutes, tempC, text } from '../fields/fields';
import { PROBES, ROASTER_KINDS, SCHOOLS } from './roasting-words';

/* Roasters, roast programs, and what a load carries beside its weights. */

export const sign = z
  .string()
  .check(z.trim(), z.minLength(1, 'is missing'), z.maxLength(40, 'is longer than 40 letters'));

/** A step lasts its minutes, or ends sooner when the beans are so warm or a sign is noticed. */
export const programStep = z.object({
  setC: field(tempC, { label: 'Set to' }),
  minutes: field(minutes.check(z.gt(0, 'must be more than 0')), { label: 'For', unit: 'min' }),
  until: z._default(
    z.nullable(
      z.discriminatedUnion('what', [
        z.object({ what: z.literal('bean'), beanC: field(tempC, { label: 'Beans at' }) }),
        z.object({ what: z.literal('sign'), sign }),
      ]),
    ),
    null,
  ),
  note: field(text(120), { label: 'Note' }),
});
export type ProgramStep = z.infer<typeof programStep>;

export const program = z.object({
  name: field(z.string().check(z.trim(), z.minLength(1, 'is missing'), z.maxLength(80, 'is longer than 80 letters')), {
    label: 'Name of the program',
  }),
  kind: field(z._default(z.enum(['bean', 'nib']), 'bean'), {
    label: 'Of',
    words: { bean: 'whole beans', nib: 'nibs' },
  }),
  school: field(z._default(z.enum(SCHOOLS), 'own'), { label: 'School' }),
  reason: field(text(600), { label: 'Why it is as it is', long: true }),
  roasterId: z._default(z.nullable(id), null),
  loadG: field(massG, { label: 'Beans in it', weighed: 'heavy' }),
  /** Set temperature when the load goes in. */
  preheatC: field(tempC, { label: 'Preheat to' }),
  stirEveryMin: field(z._default(z.nullable(minutes.check(z.gt(0, 'must be more than 0'))), null), {
    label: 'Stir every',
    unit: 'min',
  }),
  /** Of cooling before cracking. */
  coolMin: field(z._default(minutes, 60), { label: 'Cool for', unit: 'min' }),
  steps: z.array(programStep).check(z.minLength(1, 'needs a step'), z.maxLength(24, 'has too many steps')),
  /** Lots and families it suits, and why. */
  suits: z._default(
    z
      .array(
        z.object({
          family: field(z.string().check(z.trim(), z.minLength(1, 'is missing'), z.maxLength(120)), {
            label: 'Beans',
            example: 'country, region',
          }),
          why: field(text(200), { label: 'Why' }),
        }),
      )
      .check(z.maxLength(24)),
    [],
  ),
  note: field(text(600), { label: 'Notes', long: true }),
});
export type Program = z.infer<typeof program>;

/** Something noticed or done while it roasts; seconds since the load went in. */
export const signMark = z.object({
  second: z.number().check(z.minimum(0), z.maximum(86_400)),
  what: sign,
  word: text(120),
});
export type SignMark = z.infer<typeof signMark>;

/** A set temperature, and since when; `step` is its place in the program, −1 for one chosen by hand. */
export const setting = z.object({
  second: z.number().check(z.minimum(0), z.maximum(86_400)),
  setC: tempC,
  step: z.number().check(z.int(), z.minimum(-1), z.maximum(24)),
});
export type Setting = z.infer<typeof setting>;

/** What a load carries beside its weights: how it was roasted. */
export const loadFacts = z.object({
  programId: z._default(z.nullable(id), null),
  version: z._default(z.nullable(z.number().check(z.int(), z.minimum(1))), null),
  plan: z._default(z.nullable(program), null),
  /** Share of water in the beans as they went in, % of the wet weight. */
  moisturePct: z._default(
    z.nullable(z.number().check(z.minimum(0.5), z.maximum(30, 'is wetter than any beans to roast'))),
    null,
  ),
  /** Depth of the layer on the trays, mm. */
  layerMm: z._default(
    z.nullable(z.number().check(z.gt(0, 'must be more than 0'), z.maximum(500, 'is deeper than any tray'))),
    null,
  ),
  beanStartC: z._default(z.nullable(tempC), null),
  probe: z._default(z.enum(PROBES), 'hand'),
  /** Seconds in the roaster. */
  seconds: z._default(z.nullable(z.number().check(z.minimum(0), z.maximum(86_400))), null),
  settings: z._default(z.array(setting).check(z.maxLength(200)), []),
  signs: z._default(z.array(signMark).check(z.maxLength(100)), []),
  stirs: z._default(z.array(z.number().check(z.minimum(0), z.maximum(86_400))).check(z.maxLength(200)), []),
});
export type LoadFacts = z.infer<typeof loadFacts>;

/** A load that is in the roaster now. */
export const liveRoast = z.extend(loadFacts, {
  curveId: id,
  /** Roast seconds that pass in a second of the clock: 1, or more with the simulated probe. */
  speed: z.number().check(z.minimum(0), z.maximum(10_000)),
});
export type LiveRoast = z.infer<typeof liveRoast>;

/** What makes a machine a roaster. */
export const roasterFacts = z.object({
  kind: field(z._default(z.enum(ROASTER_KINDS), 'oven'), { label: 'Kind' }),
  trays: field(z._default(z.nullable(z.number().check(z.int(), z.minimum(1), z.maximum(60))), null), {
    label: 'Trays',
  }),
  /** Area of one tray, cm². */
  trayCm2: field(z._default(z.nullable(z.number().check(z.gt(0), z.maximum(40_000))), null), {
    label: 'Area of one',
    unit: 'cm²',
  }),
  preheatMin: field(z._default(minutes, 15), { label: 'Preheats in' }),
  /** `hand`: somebody turns the dial. `itself`: it runs the program on its own. */
  setBy: field(z._default(z.enum(['hand', 'itself']), 'hand'), {
    label: 'Who changes the temperature',
    words: { hand: 'somebody', itself: 'it runs a program' },
  }),
  how: field(text(300), {
    label: 'How it is set, in a word',
    example: 'dial on the door; the fan stops when it opens',
  }),
  /** The maker's own validation of the kill step; without it there is no figure. */
  kill: z._default(
    z.nullable(
      z.object({
        dMin: field(z.number().check(z.gt(0, 'must be more than 0'), z.maximum(100_000)), { label: 'D', unit: 'min' }),
        zC: field(z.number().check(z.gt(0, 'must be more than 0'), z.maximum(100)), { label: 'z, in °C' }),
        refC: field(tempC, { label: 'at' }),
        /** Decimal reductions the plan asks for. */
        wanted: field(z._default(z.nullable(z.number().check(z.gt(0), z.maximum(20))), null), {
          label: 'Reductions asked for',
        }),
        source: field(z.string().check(z.trim(), z.minLength(3, 'says who validated it, and when'), z.maxLength(300)), {
          label: 'Validated by whom, when, for which load',
          example: 'study of March, full trays, cold spot',
        }),
      }),
    ),
    null,
  ),
});
export type RoasterFacts = z.infer<typeof roasterFacts>;

/** What is said when a load goes in. */
export const startRoast = z.object({
  programId: z._default(z.nullable(id), null),
  version: z._default(z.nullable(z.number().check(z.int(), z.minimum(1))), null),
  plan: z._default(z.nullable(program), null),
  moisturePct: loadFacts.shape.moisturePct,
  layerMm: loadFacts.shape.layerMm,
  beanStartC: loadFacts.shape.beanStartC,
  probe: z._default(z.enum(PROBES), 'hand'),
});
export type StartRoast = z.infer<typeof startRoast>;
