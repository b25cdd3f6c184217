import { z } from 'zod';
import { id, massG, massOrNoneG, money, pieces, tempC } from '../ledger/commands';
import { CUT_CLASSES, beansIn, type Tally } from './cut-test';
import { HOLD_METHODS } from './hold';
import { ACTIONS, COLOURS, SMELLS } from './words';

/*
 * What is written down about a lot beside the grams: its papers, sacks, inspections, decisions, holds and
 * diaries. Records are only ever added; a newer one of the same kind stands in the older one's place, and
 * taking one back is a record too.
 */

const text = (most: number) => z.string().trim().max(most, `is longer than ${most} letters`).default('');
const count = z.number().int('must be whole').min(0, 'cannot be below 0');
const share = z.number().min(0, 'cannot be below 0').max(100, 'is more than all of it');
/** Percent by weight of stored or drying beans; fresh wet ones hold up to about 65. */
const moisture = z
  .number()
  .min(1, 'is drier than any bean')
  .max(25, 'is wetter than any meter reads in dry beans: check the reading');
const wetness = z.number().min(1, 'is drier than any bean').max(75, 'is wetter than fresh beans');

/** What the contract allows, % by count unless said otherwise; null where it says nothing. */
export const contractLimits = z.object({
  mouldyPct: share.nullable().default(3),
  slatyPct: share.nullable().default(3),
  defectivePct: share.nullable().default(3),
  /** Flat beans alone, % by weight, as sorting finds them. */
  flatPct: share.nullable().default(null),
  moisturePct: share.nullable().default(8),
  /** Everything picked out, % by weight. */
  rejectPct: share.nullable().default(null),
  /** Short weight that is let pass, %. */
  weightPct: share.nullable().default(0.5),
});

export const papers = z.object({
  kind: z.literal('papers'),
  people: text(200),
  altitudeM: z.number().min(-100).max(4000, 'is higher than cacao grows').nullable().default(null),
  location: z
    .object({
      lat: z.number().min(-90, 'is −90 to 90').max(90, 'is −90 to 90'),
      lon: z.number().min(-180, 'is −180 to 180').max(180, 'is −180 to 180'),
    })
    .nullable()
    .default(null),
  vessel: z.enum(['', 'box', 'heap', 'basket', 'tray', 'sack']).default(''),
  fermentDays: z.number().min(0).max(30, 'is longer than any ferment').nullable().default(null),
  turns: count.max(60).nullable().default(null),
  dryingBy: z.enum(['', 'sun', 'dryer', 'sun and dryer']).default(''),
  dryingDays: z.number().min(0).max(90, 'is longer than any drying').nullable().default(null),
  certificates: z.array(z.string().trim().min(1).max(80)).max(12, 'is too many').default([]),
  limits: contractLimits.default(() => contractLimits.parse({})),
  note: text(2000),
});
export type Papers = z.infer<typeof papers>;
export type ContractLimits = z.infer<typeof contractLimits>;

export const sackRow = z
  .object({
    no: z.number().int('must be whole').min(1).max(5000),
    grossG: massG.max(200_000, 'is more than a sack holds'),
    tareG: massOrNoneG.max(5_000, 'is more than an empty sack weighs').default(0),
    place: text(60),
  })
  .refine((row) => row.tareG < row.grossG, { message: 'is heavier than the full sack', path: ['tareG'] });
export const sacks = z.object({
  kind: z.literal('sacks'),
  sacks: z
    .array(sackRow)
    .min(1, 'weigh at least one sack')
    .max(5000)
    .refine((rows) => new Set(rows.map(({ no }) => no)).size === rows.length, 'names a sack twice'),
});
export type SackRow = z.infer<typeof sackRow>;

const tally = z.object(
  Object.fromEntries(CUT_CLASSES.map((name) => [name, count])) as Record<(typeof CUT_CLASSES)[number], typeof count>,
);

export const inspection = z.object({
  kind: z.literal('inspection'),
  smells: z.array(z.enum(SMELLS)).max(SMELLS.length).default([]),
  moisturePct: z.array(moisture).max(40, 'is too many').default([]),
  per100g: z
    .array(z.number().min(20, 'is fewer than 100 g can hold').max(400, 'is more than beans in 100 g'))
    .max(40)
    .default([]),
  signs: z.object({
    webbing: z.boolean().default(false),
    droppings: z.boolean().default(false),
    larvae: count.max(10_000).default(0),
    moths: count.max(10_000).default(0),
    wetSacks: count.max(5000).default(0),
    tornSacks: count.max(5000).default(0),
    rodents: z.boolean().default(false),
    /** Whether anybody looked; absent in older records: it was. */
    looked: z.boolean().optional(),
  }),
  cut: z
    .object({
      planned: z.number().int().min(10, 'is too few to say anything').max(2000),
      tally,
      /** The same tray by tray, in the order cut; absent where nobody kept them apart. */
      trays: z.array(tally).max(110, 'are too many trays').optional(),
      /** More were cut than planned, on purpose. */
      beyond: z.boolean().default(false),
    })
    .refine(({ tally: t, planned, beyond }) => beyond || beansIn(t) <= planned, {
      error: (issue) => {
        const { tally: t, planned } = issue.input as { tally: Tally; planned: number };
        return `adds up to ${beansIn(t)} beans in a test of ${planned}: count the trays again, or say that more were cut`;
      },
      path: ['tally'],
    })
    .refine(
      ({ tally: t, trays = [] }) =>
        trays.length === 0 || trays.reduce((sum, tray) => sum + beansIn(tray), 0) === beansIn(t),
      { message: 'do not add up to the tally', path: ['trays'] },
    )
    .refine(({ tally: t }) => beansIn(t) <= 5000, { message: 'is more beans than anybody cuts', path: ['tally'] })
    .nullable()
    .default(null),
  note: text(2000),
});
export type Inspection = z.infer<typeof inspection>;

export const decision = z
  .object({
    kind: z.literal('decision'),
    action: z.enum(ACTIONS),
    /** What was proposed at that moment; differing from it asks for a word. */
    proposed: z.enum(ACTIONS).nullable().default(null),
    /** Money asked for or granted, in the workshop's currency. */
    allowance: money.default(0),
    word: text(500),
  })
  .refine((d) => d.proposed === null || d.action === d.proposed || d.word.length >= 3, {
    message: 'says why it is decided otherwise, in a word or two',
    path: ['word'],
  });
export type Decision = z.infer<typeof decision>;

export const hold = z.object({
  kind: z.literal('hold'),
  method: z.enum(HOLD_METHODS),
  thresholdC: tempC,
  hours: z.number().min(0).max(2000, 'is longer than 83 days'),
  restart: z.boolean().default(true),
  maxGapHours: z.number().min(0).max(168).default(12),
  place: text(60),
  /** The simulated probe writes the core down every half hour. */
  probe: z.boolean().default(false),
  /** With the roast as kill step: who has told the roast room. */
  toldBy: id.nullable().default(null),
  why: text(500),
});
export type Hold = z.infer<typeof hold>;

export const core = z.object({ kind: z.literal('core'), tempC, by: z.enum(['hand', 'probe']).default('hand') });
export const release = z.object({ kind: z.literal('release'), word: text(500) });
export const look = z.object({
  kind: z.literal('look'),
  /** Sacks that were moved, and where to. */
  moved: z
    .array(z.object({ no: z.number().int().min(1), place: z.string().trim().min(1, 'is missing').max(60) }))
    .max(500)
    .default([]),
  signs: z.boolean().default(false),
  note: text(500),
});

export const harvest = z.object({
  kind: z.literal('harvest'),
  pods: pieces.nullable().default(null),
  podMassG: massG.nullable().default(null),
  ambientC: tempC.nullable().default(null),
  openedAt: z.iso.datetime({ offset: true, message: 'is a time like 2027-05-31T06:10:00Z' }),
  note: text(500),
});
export type Harvest = z.infer<typeof harvest>;

export const ferment = z
  .object({
    kind: z.literal('ferment'),
    /** A hand below the top of the heap, and in the middle, °C. */
    topC: tempC.nullable().default(null),
    coreC: tempC.nullable().default(null),
    turned: z.boolean().default(false),
    smell: z.enum(['', ...SMELLS]).default(''),
    colour: z.enum(['', ...COLOURS]).default(''),
    ph: z.number().min(2, 'is not a pH of beans').max(9, 'is not a pH of beans').nullable().default(null),
    /** Of so many beans cut, how many show a brown ring and liquid within. */
    cut: count.max(500).default(0),
    cutBrown: count.max(500).default(0),
    note: text(500),
  })
  .refine((d) => d.cutBrown <= d.cut, { message: 'is more than were cut', path: ['cutBrown'] });
export type Ferment = z.infer<typeof ferment>;

export const drying = z.object({
  kind: z.literal('drying'),
  moisturePct: wetness.nullable().default(null),
  massG: massG.nullable().default(null),
  raked: z.boolean().default(false),
  weather: z.enum(['', 'sun', 'cloud', 'rain', 'dryer']).default(''),
  note: text(500),
});
export type Drying = z.infer<typeof drying>;

export const trap = z.object({
  kind: z.literal('trap'),
  trap: z.string().trim().min(1, 'is missing').max(60),
  moths: count.max(10_000, 'is more than a trap holds'),
  days: z.number().min(0.5, 'is less than half a day').max(120, 'is longer than a lure works').default(7),
});

/** Fat of the nibs, as it was measured or as a laboratory says. */
export const nibFat = z.object({
  kind: z.literal('nib-fat'),
  fatPct: z.number().min(30, 'is leaner than any nib').max(70, 'is fatter than any nib'),
  how: text(200),
});
export const takenBack = z.object({ kind: z.literal('taken-back'), recordId: id, word: text(500) });

export const beanRecord = z.discriminatedUnion('kind', [
  papers,
  sacks,
  inspection,
  decision,
  hold,
  core,
  release,
  look,
  harvest,
  ferment,
  drying,
  trap,
  nibFat,
  takenBack,
]);
export type BeanRecordValue = z.infer<typeof beanRecord>;
export type BeanKind = BeanRecordValue['kind'];
export type RecordOf<K extends BeanKind> = Extract<BeanRecordValue, { kind: K }>;

/** A record with who and when. */
export interface BeanRecord {
  id: string;
  /** The lot; null for what concerns the whole bean store. */
  lotId: string | null;
  at: number;
  recordedAt: number;
  personId: string;
  value: BeanRecordValue;
}

/** Records in force, oldest first: without those taken back. */
export function inForce(records: readonly BeanRecord[]): BeanRecord[] {
  const gone = new Set(records.flatMap(({ value }) => (value.kind === 'taken-back' ? [value.recordId] : [])));
  return records
    .filter((row) => !gone.has(row.id) && row.value.kind !== 'taken-back')
    .sort((a, b) => a.at - b.at || a.recordedAt - b.recordedAt);
}

export type RecordWith<K extends BeanKind> = BeanRecord & { value: RecordOf<K> };

/** All records of a kind, oldest first. @param records in force */
export const ofKind = <K extends BeanKind>(records: readonly BeanRecord[], kind: K): RecordWith<K>[] =>
  records.filter((row): row is RecordWith<K> => row.value.kind === kind);

export const newestOf = <K extends BeanKind>(records: readonly BeanRecord[], kind: K): RecordWith<K> | null =>
  ofKind(records, kind).at(-1) ?? null;
