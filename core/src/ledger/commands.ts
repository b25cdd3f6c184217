import { z } from 'zod';
import { STATIONS } from '../workshop/stations';
import { id, massG, massOrNoneG, money, name, note, pieces, tempC, word } from './fields';
import { BLOOMS, LOSS_CAUSES, SEEN } from './types';
import { loadFacts, startRoast } from '../workshop/roasting';
import { BAR_FAULTS, FILLED_BY, RELEASES, weights } from '../workshop/moulding';
import { meterFacts, pourMark, SCHOOLS } from '../workshop/tempering';

export * from './fields';

/** A room's air, °C and % relative humidity. */
const roomAir = z.object({
  tempC: z.number().min(-20, 'is colder than any room').max(60, 'is hotter than any room'),
  humidityPct: z.number().min(1, 'is 1 to 100').max(100, 'is 1 to 100').nullable(),
});

/** Grams (or, for bars, pieces) taken out of a holding. */
export const source = z
  .object({ holdingId: id, massG: massG.optional(), pieces: pieces.min(1, 'must be at least 1').optional() })
  .refine((value) => value.massG !== undefined || value.pieces !== undefined, {
    message: 'needs grams or pieces',
    path: ['massG'],
  });
export type Source = z.infer<typeof source>;
const sources = z.array(source).min(1, 'choose what goes in').max(60, 'is too many at once');

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

export const mould = z
  .object({
    kind: z.literal('mould'),
    sources,
    barG: z.number().positive('must be more than 0 g').max(20_000, 'is more than 20 kg'),
    cavities: z.number().int('must be whole').min(1).max(10_000),
    goodPieces: pieces,
    /** All good bars on the scale; left out, they count at their declared weight. */
    goodG: massOrNoneG.optional(),
    secondsPieces: pieces.default(0),
    remeltG: massOrNoneG.default(0),
    /** What was left over: poured as blocks, or eaten as samples. */
    blockG: massOrNoneG.optional(),
    sampleG: massOrNoneG.optional(),
    trimmingsG: massOrNoneG.default(0),
    holdUpG: massOrNoneG.default(0),
    /** Of the moulds as they were filled, °C. */
    mouldC: tempC.nullable().optional(),
    /** Where it set, °C, and that room's air: a bar colder than its dew point sweats. */
    setC: tempC.nullable().optional(),
    air: roomAir.nullable().optional(),
    /** What single pieces weighed, in the order in which they were weighed. */
    weightsG: weights.optional(),
    /** Of the seconds, why. */
    faults: z
      .array(z.object({ fault: z.enum(BAR_FAULTS), pieces }))
      .max(20)
      .optional(),
    release: z.enum(RELEASES).nullable().optional(),
    /** By hand or by a depositor, and whether the air was vibrated out. */
    filledBy: z.enum(FILLED_BY).optional(),
    vibrated: z.boolean().optional(),
    /** Minutes until bars had drawn back from their moulds. */
    contractMin: z.number().min(0, 'cannot be below 0').max(1440, 'is more than a day').nullable().optional(),
    note,
  })
  .refine(({ faults = [], secondsPieces }) => faults.reduce((sum, row) => sum + row.pieces, 0) <= secondsPieces, {
    message: 'are fewer than what is wrong with them adds up to',
    path: ['secondsPieces'],
  });

export const pack = z.object({
  kind: z.literal('pack'),
  holdingId: id,
  /** Bars, or packs of what is weighed. */
  pieces: pieces.min(1, 'must be at least 1'),
  /** Of blocks and tubs: what goes into the packs, all together. */
  massG: massG.optional(),
  labelCode: z
    .string()
    .trim()
    .regex(/^[A-Za-z0-9][A-Za-z0-9-]{1,23}$/, 'is 2 to 24 letters, digits and hyphens'),
  bestBefore: z.iso.date('is a date like 2027-05-31'),
  /** What is used up, and what of it was spoilt while packing. */
  packaging: z
    .array(z.object({ holdingId: id, pieces: pieces.min(1), damaged: pieces.optional() }))
    .max(10)
    .default([]),
  /** What it is sold as, in which version. */
  product: z.object({ id, version: z.number().int().min(1) }).optional(),
  note,
});

export const taste = z
  .object({
    kind: z.literal('taste'),
    /** Left out for goods of no batch: what began with bought chocolate. */
    batchId: id.nullable().default(null),
    holdingId: id.nullable().default(null),
    pieces: pieces.default(0),
    score: z.number().min(0, 'is 0 to 10').max(10, 'is 0 to 10'),
    note,
  })
  .refine((t) => t.batchId !== null || t.holdingId !== null, { message: 'is missing', path: ['holdingId'] });

export const remelt = z.object({ kind: z.literal('remelt'), sources, outG: massG.optional(), why: word, note });

/** What becomes of what goes out: husk and other by-products; goods that are not sold. */
export const HUSK_USES = ['sold', 'given', 'composted', 'used'] as const;
export const FREE_USES = ['sample', 'gift', 'class'] as const;
export const FREE_USE_WORDS: Readonly<Record<(typeof FREE_USES)[number], string>> = {
  sample: 'sample',
  gift: 'gift',
  class: 'class visitors',
};

export const sell = z
  .object({
    kind: z.literal('sell'),
    /** What was sold, and what each thing fetched. */
    sources: z
      .array(source.safeExtend({ takings: money.optional() }))
      .min(1, 'choose what goes out')
      .max(60, 'is too many at once'),
    takings: money,
    to: word,
    /** What became of it, where it was not simply sold. */
    use: z.enum([...HUSK_USES, ...FREE_USES]).optional(),
    /** By which channel, and for which order. */
    channel: z.string().trim().min(1, 'is missing').max(60, 'is longer than 60 letters').optional(),
    orderId: id.optional(),
    note,
  })
  .superRefine(({ sources: lines, takings }, context) => {
    const said = lines.filter((line) => line.takings !== undefined);
    if (said.length === 0) return;
    lines.forEach((line, index) => {
      if (line.takings === undefined)
        context.addIssue({ code: 'custom', path: ['sources', index, 'takings'], message: 'is missing' });
    });
    const sum = said.reduce((total, line) => total + (line.takings ?? 0), 0);
    // Half of the smallest coin of a currency with three decimals.
    if (said.length === lines.length && Math.abs(sum - takings) > 0.0005)
      context.addIssue({ code: 'custom', path: ['takings'], message: 'is not what the things sold add up to' });
  });

/** What becomes of goods that a buyer sent back. */
export const RETURN_FATES = ['back', 'waste'] as const;

export const giveBack = z
  .object({
    kind: z.literal('return'),
    /** The sale that they went out with. */
    saleId: id,
    holdingId: id,
    pieces: pieces.optional(),
    massG: massG.optional(),
    /** Money that went back to the buyer. */
    refund: money.default(0),
    /** Into the store again, or thrown away. */
    fate: z.enum(RETURN_FATES),
    why: word,
    note,
  })
  .refine((row) => (row.pieces ?? 0) > 0 || row.massG !== undefined, { message: 'is missing', path: ['pieces'] });

export const adjust = z.object({
  kind: z.literal('adjust'),
  holdingId: id,
  /** What is really there. */
  countedG: massOrNoneG.optional(),
  countedPieces: pieces.optional(),
  cause: z.enum(LOSS_CAUSES),
  note,
});

/** `move`: the batch goes on in another machine, that of the entry, under its own code. */
export const READINGS = [
  'micron',
  'felt',
  'bowl-temperature',
  'sourness',
  'astringency',
  'aroma',
  'rest-taste',
  'tension',
  'texture',
  'pass',
  'note',
  'move',
  'stones-stop',
  'stones-run',
  'stones-up',
  'stones-down',
  'spilled',
  'starved',
  'seen',
] as const;
/** What is only noted: there is no figure to it. */
const WITHOUT_VALUE: readonly string[] = [
  'pass',
  'move',
  'stones-stop',
  'stones-run',
  'stones-up',
  'stones-down',
  'spilled',
  'starved',
  'seen',
];
/** What is said in words. */
const IN_WORDS: readonly string[] = ['note', 'texture'];
/** Scored from none of it to all there can be. */
export const TASTED = ['sourness', 'astringency', 'aroma', 'rest-taste'] as const;

/** Why stones stopped. */
export const STOPS = ['power', 'night', 'stalled', 'other'] as const;

const gaugeChannels = z
  .array(z.number().min(1, 'must be at least 1 µm').max(500, 'is coarser than a gauge shows'))
  .max(8);

export const reading = z
  .object({
    kind: z.literal('reading'),
    batchId: id,
    what: z.enum(READINGS),
    value: z.number().min(-60).max(1000).nullable().default(null),
    /** The gauge's channels, each where its dense band is; `value` is their mean. */
    channels: gaugeChannels.optional(),
    /** Where single streaks begin in each channel, µm: the coarsest grains. */
    streaks: gaugeChannels.optional(),
    /** Why the stones stopped. */
    cause: z.enum(STOPS).optional(),
    /** The shelf's air while it was tasted. */
    air: roomAir.nullable().optional(),
    /** What is seen of its bars, and what the veil turned out to be. */
    seen: z.array(z.enum(SEEN)).min(1, 'choose what is seen').max(SEEN.length).optional(),
    bloom: z.enum(BLOOMS).nullable().optional(),
    note,
  })
  .refine((r) => r.what !== 'seen' || r.seen !== undefined, { message: 'choose what is seen', path: ['seen'] })
  .refine(
    (r) => WITHOUT_VALUE.includes(r.what) || (IN_WORDS.includes(r.what) ? r.note.trim() !== '' : r.value !== null),
    {
      message: 'is missing',
      path: ['value'],
    },
  )
  .refine((r) => r.what !== 'felt' || [0, 1, 2, 3, 4].includes(r.value ?? -1), {
    message: 'is one of the five words, 0 to 4',
    path: ['value'],
  })
  .refine((r) => !(TASTED as readonly string[]).includes(r.what) || ((r.value ?? 0) >= 0 && (r.value ?? 0) <= 10), {
    message: 'is 0 to 10',
    path: ['value'],
  })
  .refine((r) => r.what !== 'micron' || (r.value ?? 0) >= 1, { message: 'must be at least 1 µm', path: ['value'] });

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
