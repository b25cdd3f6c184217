import { z } from 'zod';
import { STATIONS } from '../work/stations';
import { id, massG, massOrNoneG, money, name, note, pieces, tempC, word } from '../fields/fields';
import { adjust, giveBack, mould, pack, remelt, sell, taste } from './goods-commands';
import { reading } from './reading-command';
import { sources } from './sources';
import { loadFacts, startRoast } from '../work/roasting';
import { meterFacts, pourMark, SCHOOLS } from '../work/tempering';

export * from '../fields/fields';
export * from './goods-commands';
export * from './reading-command';
export { source, type Source } from './sources';

export const receive = z.object({
  kind: z.literal('receive'),
  name,
  /** Where it is from can follow, as the rest of its papers. */
  producer: word,
  country: word,
  region: word,
  variety: word,
  harvest: word,
  /** `wet` beans, in their pulp, are fermented and dried here before anything else. */
  form: z.enum(['beans', 'nibs', 'wet']).default('beans'),
  /** Nibs come raw or roasted; left out, nobody said. */
  roasted: z.boolean().nullable().optional(),
  routeId: id,
  sacks: z.number().int('must be whole').min(1, 'must be at least 1').max(5000, 'is too many').default(1),
  netG: massG,
  /** What the invoice says, and is paid for; left out, what was weighed. */
  invoiceNetG: massG.nullable().optional(),
  invoiceSacks: z
    .number()
    .int('must be whole')
    .min(1, 'must be at least 1')
    .max(5000, 'is too many')
    .nullable()
    .optional(),
  pricePerKg: money.default(0),
  currency: z.string().regex(/^[A-Z]{3}$/, 'is a three-letter code'),
  /** Units of the workshop's currency for one of the invoice's. */
  rate: z.number().positive('must be more than 0').max(100_000, 'is too much').default(1),
  freight: money.default(0),
  /** Customs duty, in the workshop's currency. */
  duty: money.optional(),
  sample: z.boolean().optional(),
  /** The sample lot it was bought on. */
  sampleId: id.nullable().optional(),
  moisturePct: z
    .number()
    .min(0, 'cannot be below 0')
    .max(40, 'is wetter than fresh beans: check the reading')
    .nullable()
    .default(null),
  note,
});

/** Wet beans become dry ones: the lot stays, the water leaves. */
export const dry = z.object({ kind: z.literal('dry'), lotId: id, outG: massG, note });

export const buy = z.object({
  kind: z.literal('buy'),
  materialId: id,
  supplier: name,
  supplierBatch: word,
  /** The day that the supplier says it keeps to. */
  bestBefore: z.iso.date('is a date like 2027-05-31').nullable().optional(),
  massG: massG.optional(),
  pieces: pieces.min(1, 'must be at least 1').optional(),
  price: money,
  note,
});

/** One of the usual piles, or one of the workshop's own. */
const rejectReason = z.string().trim().min(1, 'is missing').max(30, 'is longer than 30 letters');

export const sort = z.object({
  kind: z.literal('sort'),
  sources,
  rejects: z
    .array(z.object({ reason: rejectReason, massG: massOrNoneG }))
    .max(20)
    .default([]),
  goodG: massG,
  /** The sacks that were opened for it, by number. */
  sacks: z.array(z.number().int('must be whole').min(1).max(5000)).max(60).optional(),
  note,
});

export const roastStep = z.object({ setC: tempC, minutes: z.number().min(0).max(1440), note: word });

export const roast = z.object({
  kind: z.literal('roast'),
  sources,
  program: z.array(roastStep).max(40).default([]),
  endBeanC: tempC.nullable().default(null),
  outG: massG,
  /** How it was roasted: program, settings, signs. */
  how: loadFacts.optional(),
  /** The logged curve, if there is one. */
  curveId: id.nullable().optional(),
  note,
});

export const WINNOW_METHODS = ['hand', 'dryer', 'column', 'machine'] as const;

/** So many grams looked through, so many of them what should not be there. */
const pickedSample = z
  .object({ sampleG: massG.max(20_000, 'is more than anybody picks through'), foundG: massOrNoneG })
  .refine((s) => s.foundG <= s.sampleG, { message: 'is more than the sample weighs', path: ['foundG'] });
const setting = z.number().min(0, 'cannot be below 0').max(10_000, 'is more than any dial shows').nullable().optional();

export const winnow = z
  .object({
    kind: z.literal('winnow'),
    sources,
    /** All nibs of the session, whatever pass they came from. */
    nibsG: massG,
    huskG: massOrNoneG,
    dustG: massOrNoneG.default(0),
    setting: word,
    method: z.enum(WINNOW_METHODS).optional(),
    settings: z.object({ gapMm: setting, air: setting, feedKgPerHour: setting, passes: setting }).optional(),
    /** Where the nibs came from: the first run, husk run again, picked by hand. */
    passes: z
      .array(
        z.object({
          what: z.enum(['first', 'again', 'picked']),
          nibsG: massOrNoneG,
          minutes: z.number().min(0).max(1440).default(0),
        }),
      )
      .max(12)
      .optional(),
    /** Shell picked out of samples of nibs; nib picked out of samples of husk. */
    shellSamples: z.array(pickedSample).max(12).optional(),
    nibSamples: z.array(pickedSample).max(12).optional(),
    /** A cracking test: what stays on each sieve. */
    sieve: z.object({ coarseG: massOrNoneG, goodG: massOrNoneG, finesG: massOrNoneG, dustG: massOrNoneG }).optional(),
    note,
  })
  .refine(
    ({ passes = [], nibsG }) =>
      passes.length === 0 ||
      Math.abs(passes.reduce((sum, pass) => sum + pass.nibsG, 0) - nibsG) <= Math.max(20, 0.01 * nibsG),
    { message: 'is not what the passes add up to', path: ['nibsG'] },
  );

/** What a batch is to become. */
export const newBatch = z.object({
  name,
  routeId: id,
  targetMicron: z.number().min(5, 'is finer than any stone').max(200, 'is coarser than a grit').default(20),
  cocoaTargetPct: z.number().min(0).max(100, 'is more than all of it').nullable().default(null),
  /** The version of a recipe that it was weighed by. */
  recipe: z
    .object({ id, version: z.number().int().min(1) })
    .nullable()
    .optional(),
});

export const charge = z.object({
  kind: z.literal('charge'),
  /** The batch in the bowl; leave out to begin a new one. */
  batchId: id.optional(),
  batch: newBatch.optional(),
  sources,
  note,
});

export const discharge = z.object({
  kind: z.literal('discharge'),
  batchId: id,
  /** Each block or tub that was poured. */
  outsG: z.array(massG).min(1, 'weigh what was poured').max(40),
  /** What stays in the bowl and runs on; left out, nothing. */
  leftG: massG.optional(),
  holdUpG: massOrNoneG.default(0),
  /** What the sieve kept back. */
  sievedG: massOrNoneG.optional(),
  micron: z.number().min(1).max(500).nullable().default(null),
  note,
});

export const rest = z.object({ kind: z.literal('rest'), sources, outG: massG.optional(), note });

export const temper = z.object({
  kind: z.literal('temper'),
  sources,
  method: z.enum(SCHOOLS),
  meltC: tempC,
  coolC: tempC,
  workC: tempC,
  test: z.enum(['set', 'slow', 'failed', 'none']).default('none'),
  /** What a cooling-curve meter said; left out, none was asked. */
  meter: meterFacts.nullable().optional(),
  /** What was marked while it was worked. */
  marks: z.array(pourMark).max(400, 'are too many').optional(),
  outG: massG.optional(),
  note,
});

/** Cocoa butter held warm until it is a paste of stable crystal: seed for pours to come. */
export const silk = z.object({
  kind: z.literal('silk'),
  sources,
  /** °C and hours that it was held. */
  heldC: tempC,
  hours: z.number().min(0.5, 'is too short for any silk').max(1000, 'is more than six weeks'),
  outG: massG.optional(),
  bestBefore: z.iso.date('is a date like 2027-05-31').nullable().optional(),
  note,
});

/** What can be there before the book begins: everything but lots (received) and the pantry (bought). */
export const OPENING_KINDS = [
  'beans',
  'roasted',
  'nibs',
  'husk',
  'mass',
  'block',
  'remelt',
  'bars',
  'seconds',
  'packed',
] as const;
export type OpeningKind = (typeof OPENING_KINDS)[number];
const share = z.number().min(0, 'cannot be below 0').max(100, 'is more than all of it').nullable().default(null);

export const open = z.object({
  kind: z.literal('open'),
  what: z.enum(OPENING_KINDS),
  name,
  /** The code on it already; left out, a new one. */
  code: z
    .string()
    .trim()
    .regex(/^[A-Za-z0-9][A-Za-z0-9-]{1,23}$/, 'is 2 to 24 letters, digits and hyphens')
    .optional(),
  routeId: id.nullable().default(null),
  massG: massG.optional(),
  pieces: pieces.min(1, 'must be at least 1').optional(),
  /** What it is worth, all of it. */
  value: money.default(0),
  /** What is known of its past. */
  producer: word,
  country: word,
  roasted: z.boolean().nullable().default(null),
  cocoaPct: share,
  withoutButterPct: share,
  sugarPct: share,
  allergens: z.array(z.string().trim().min(1).max(40)).max(14).default([]),
  targetMicron: z.number().min(5).max(200).default(20),
  note,
});

export const command = z.discriminatedUnion('kind', [
  receive,
  dry,
  buy,
  sort,
  roast,
  winnow,
  charge,
  discharge,
  rest,
  temper,
  silk,
  mould,
  pack,
  taste,
  remelt,
  sell,
  giveBack,
  adjust,
  reading,
  open,
]);
export type Command = z.infer<typeof command>;
export type CommandOf<K extends Command['kind']> = Extract<Command, { kind: K }>;

/** Stops that are gone past by name, each with a word that is kept. */
const overrides = z
  .array(
    z.object({
      gate: z.string().min(1).max(60),
      word: z.string().trim().min(3, 'says why, in a word or two').max(500, 'is longer than 500 letters'),
    }),
  )
  .max(20)
  .optional();

/** What every entry carries besides its command. */
export const entryHead = z.object({
  /** When it was done; left out, now. */
  at: z.iso.datetime({ offset: true, message: 'is a time like 2027-05-31T06:10:00Z' }).optional(),
  personId: id,
  machineId: id.nullable().default(null),
  /** Hands-on minutes. */
  minutes: z.number().min(0, 'cannot be below 0').max(10_080, 'is more than a week').default(0),
  energyKwh: z.number().min(0, 'cannot be below 0').max(10_000, 'is too much').default(0),
  overrides,
});
export type EntryHead = z.infer<typeof entryHead>;

/** Work begun and not yet finished: what is in the roaster, the winnower, the moulds now. */
export const startWork = z.object({
  station: z.enum(STATIONS),
  sources,
  machineId: id.nullable().default(null),
  personId: id,
  at: entryHead.shape.at,
  /** When a person is needed next, if known. */
  dueAt: z.iso.datetime({ offset: true }).nullable().default(null),
  /** Sacks opened for it, by number. */
  sacks: z.array(z.number().int('must be whole').min(1).max(5000)).max(60).optional(),
  /** For a roast that is followed live. */
  roast: startRoast.optional(),
  /** Cocoa butter that is held warm until it is silk. */
  silk: z.boolean().optional(),
  overrides,
  note,
});
export type StartWork = z.infer<typeof startWork>;
