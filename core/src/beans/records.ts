import { z } from 'zod/mini';
import { field } from '../fields/registry';
import { id, massG, massOrNoneG, money, pieces, tempC } from '../fields/fields';
import { CUT_CLASSES, beansIn, type Tally } from './cut-test';
import { HOLD_METHODS } from './hold';
import { ACTIONS, COLOURS, SMELLS } from './words';

/*
 * What is written down about a lot beside the grams: its papers, sacks, inspections, decisions, holds and
 * diaries. Records are only ever added; a newer one of the same kind stands in the older one's place, and
 * taking one back is a record too.
 */

const text = (most: number) =>
  z._default(z.string().check(z.trim(), z.maxLength(most, `is longer than ${most} letters`)), '');
const count = z.number().check(z.int('must be whole'), z.minimum(0, 'cannot be below 0'));
const share = z.number().check(z.minimum(0, 'cannot be below 0'), z.maximum(100, 'is more than all of it'));
/** Percent by weight of stored or drying beans; fresh wet ones hold up to about 65. */
const moisture = z
  .number()
  .check(
    z.minimum(1, 'is drier than any bean'),
    z.maximum(25, 'is wetter than any meter reads in dry beans: check the reading'),
  );
const wetness = z.number().check(z.minimum(1, 'is drier than any bean'), z.maximum(75, 'is wetter than fresh beans'));

/** What the contract allows, % by count unless said otherwise; null where it says nothing. */
export const contractLimits = z.object({
  mouldyPct: field(z._default(z.nullable(share), 3), { label: 'Mouldy, by count' }),
  slatyPct: field(z._default(z.nullable(share), 3), { label: 'Slaty, by count' }),
  defectivePct: field(z._default(z.nullable(share), 3), { label: 'Insect, germinated, flat, by count' }),
  /** Flat beans alone, % by weight, as sorting finds them. */
  flatPct: field(z._default(z.nullable(share), null), { label: 'Flat, by weight' }),
  moisturePct: field(z._default(z.nullable(share), 8), { label: 'Moisture' }),
  /** Everything picked out, % by weight. */
  rejectPct: field(z._default(z.nullable(share), null), { label: 'All rejects, by weight' }),
  /** Short weight that is let pass, %. */
  weightPct: field(z._default(z.nullable(share), 0.5), { label: 'Short weight' }),
});

export const papers = z.object({
  kind: z.literal('papers'),
  people: field(text(200), { label: 'People' }),
  altitudeM: field(
    z._default(z.nullable(z.number().check(z.minimum(-100), z.maximum(4000, 'is higher than cacao grows'))), null),
    { label: 'Altitude', unit: 'm' },
  ),
  location: z._default(
    z.nullable(
      z.object({
        lat: field(z.number().check(z.minimum(-90, 'is −90 to 90'), z.maximum(90, 'is −90 to 90')), {
          label: 'Latitude, north is +',
          unit: '°',
        }),
        lon: field(z.number().check(z.minimum(-180, 'is −180 to 180'), z.maximum(180, 'is −180 to 180')), {
          label: 'Longitude, east is +',
          unit: '°',
        }),
      }),
    ),
    null,
  ),
  vessel: field(z._default(z.enum(['', 'box', 'heap', 'basket', 'tray', 'sack']), ''), { label: 'Fermented in a' }),
  fermentDays: field(
    z._default(z.nullable(z.number().check(z.minimum(0), z.maximum(30, 'is longer than any ferment'))), null),
    { label: 'Fermented', usual: [2, 8], unit: 'days' },
  ),
  turns: field(z._default(z.nullable(count.check(z.maximum(60))), null), { label: 'Turned', unit: 'times' }),
  dryingBy: field(z._default(z.enum(['', 'sun', 'dryer', 'sun and dryer']), ''), { label: 'Dried by' }),
  dryingDays: field(
    z._default(z.nullable(z.number().check(z.minimum(0), z.maximum(90, 'is longer than any drying'))), null),
    { label: 'Dried', unit: 'days' },
  ),
  certificates: field(
    z._default(
      z.array(z.string().check(z.trim(), z.minLength(1), z.maxLength(80))).check(z.maxLength(12, 'is too many')),
      [],
    ),
    { label: 'Certificates as claimed', hint: 'with commas between' },
  ),
  limits: z._default(contractLimits, () => contractLimits.parse({})),
  note: field(text(2000), { label: 'Note' }),
});
export type Papers = z.infer<typeof papers>;
export type ContractLimits = z.infer<typeof contractLimits>;

export const sackRow = z
  .object({
    no: z.number().check(z.int('must be whole'), z.minimum(1), z.maximum(5000)),
    grossG: massG.check(z.maximum(200_000, 'is more than a sack holds')),
    tareG: z._default(massOrNoneG.check(z.maximum(5_000, 'is more than an empty sack weighs')), 0),
    place: text(60),
  })
  .check(z.refine((row) => row.tareG < row.grossG, { message: 'is heavier than the full sack', path: ['tareG'] }));
export const sacks = z.object({
  kind: z.literal('sacks'),
  sacks: z.array(sackRow).check(
    z.minLength(1, 'weigh at least one sack'),
    z.maxLength(5000),
    z.refine((rows) => new Set(rows.map(({ no }) => no)).size === rows.length, 'names a sack twice'),
  ),
});
export type SackRow = z.infer<typeof sackRow>;

const tally = z.object(
  Object.fromEntries(CUT_CLASSES.map((name) => [name, count])) as Record<(typeof CUT_CLASSES)[number], typeof count>,
);

const counted = (label: string, most: number) =>
  field(z._default(count.check(z.maximum(most)), 0), { label, example: '0' });
const noticed = (label: string) => field(z._default(z.boolean(), false), { label });

/** What of an inspection is smelt and looked at. */
export const inspectionSeen = z.object({
  smells: field(z._default(z.array(z.enum(SMELLS)).check(z.maxLength(SMELLS.length)), []), { label: 'It smells of' }),
  signs: z.object({
    webbing: noticed('Webbing'),
    droppings: noticed('Droppings of insects'),
    larvae: counted('Larvae', 10_000),
    moths: counted('Live moths, beetles', 10_000),
    wetSacks: counted('Wet sacks', 5000),
    tornSacks: counted('Torn sacks', 5000),
    rodents: noticed('Gnawing or droppings of rats and mice'),
    /** Whether anybody looked. */
    looked: field(z._default(z.boolean(), true), { label: 'I looked: none of these' }),
  }),
  note: field(text(2000), { label: 'Note' }),
});
export type InspectionSeen = z.infer<typeof inspectionSeen>;

export const inspection = z.object({
  kind: z.literal('inspection'),
  smells: inspectionSeen.shape.smells,
  moisturePct: field(z._default(z.array(moisture).check(z.maxLength(40, 'is too many')), []), {
    label: 'Moisture',
    unit: '%',
  }),
  per100g: field(
    z._default(
      z
        .array(
          z
            .number()
            .check(z.minimum(20, 'is fewer than 100 g can hold'), z.maximum(400, 'is more than beans in 100 g')),
        )
        .check(z.maxLength(40)),
      [],
    ),
    { label: 'Beans in 100 g' },
  ),
  signs: inspectionSeen.shape.signs,
  cut: z._default(
    z.nullable(
      z
        .object({
          planned: z.number().check(z.int(), z.minimum(10, 'is too few to say anything'), z.maximum(2000)),
          tally,
          /** The same tray by tray, in the order cut; absent where nobody kept them apart. */
          trays: z.optional(z.array(tally).check(z.maxLength(110, 'are too many trays'))),
          /** More were cut than planned, on purpose. */
          beyond: z._default(z.boolean(), false),
        })
        .check(
          z.refine(({ tally: t, planned, beyond }) => beyond || beansIn(t) <= planned, {
            error: (issue) => {
              const { tally: t, planned } = issue.input as { tally: Tally; planned: number };
              return `adds up to ${beansIn(t)} beans in a test of ${planned}: count the trays again, or say that more were cut`;
            },
            path: ['tally'],
          }),
          z.refine(
            ({ tally: t, trays = [] }) =>
              trays.length === 0 || trays.reduce((sum, tray) => sum + beansIn(tray), 0) === beansIn(t),
            { message: 'do not add up to the tally', path: ['trays'] },
          ),
          z.refine(({ tally: t }) => beansIn(t) <= 5000, {
            message: 'is more beans than anybody cuts',
            path: ['tally'],
          }),
        ),
    ),
    null,
  ),
  note: inspectionSeen.shape.note,
});
export type Inspection = z.infer<typeof inspection>;

export const decision = z
  .object({
    kind: z.literal('decision'),
    action: z.enum(ACTIONS),
    /** What was proposed at that moment; differing from it asks for a word. */
    proposed: z._default(z.nullable(z.enum(ACTIONS)), null),
    /** Money asked for or granted, in the workshop's currency. */
    allowance: field(z._default(money, 0), { label: 'Allowance asked for' }),
    word: field(text(500), { label: 'Why' }),
  })
  .check(
    z.refine((d) => d.proposed === null || d.action === d.proposed || d.word.length >= 3, {
      message: 'says why it is decided otherwise, in a word or two',
      path: ['word'],
    }),
  );
export type Decision = z.infer<typeof decision>;

export const hold = z.object({
  kind: z.literal('hold'),
  method: field(z.enum(HOLD_METHODS), { label: 'Method' }),
  thresholdC: field(tempC, { label: 'Core at' }),
  hours: field(z.number().check(z.minimum(0), z.maximum(2000, 'is longer than 83 days')), {
    label: 'Hours',
    unit: 'h',
  }),
  restart: z._default(z.boolean(), true),
  maxGapHours: z._default(z.number().check(z.minimum(0), z.maximum(168)), 12),
  place: field(text(60), { label: 'Where' }),
  /** The simulated probe writes the core down every half hour. */
  probe: z._default(z.boolean(), false),
  /** With the roast as kill step: who has told the roast room. */
  toldBy: z._default(z.nullable(id), null),
  why: field(text(500), { label: 'Why' }),
});
export type Hold = z.infer<typeof hold>;

export const core = z.object({ kind: z.literal('core'), tempC, by: z._default(z.enum(['hand', 'probe']), 'hand') });
export const release = z.object({ kind: z.literal('release'), word: text(500) });
export const look = z.object({
  kind: z.literal('look'),
  /** Sacks that were moved, and where to. */
  moved: z._default(
    z
      .array(
        z.object({
          no: z.number().check(z.int(), z.minimum(1)),
          place: z.string().check(z.trim(), z.minLength(1, 'is missing'), z.maxLength(60)),
        }),
      )
      .check(z.maxLength(500)),
    [],
  ),
  signs: z._default(z.boolean(), false),
  note: text(500),
});

export const harvest = z.object({
  kind: z.literal('harvest'),
  pods: field(z._default(z.nullable(pieces), null), { label: 'Pods opened' }),
  podMassG: field(z._default(z.nullable(massG), null), { label: 'The pods weigh' }),
  ambientC: field(z._default(z.nullable(tempC), null), { label: 'Room around the heap' }),
  openedAt: z.iso.datetime({ offset: true, message: 'is a time like 2027-05-31T06:10:00Z' }),
  note: field(text(500), { label: 'Note' }),
});
export type Harvest = z.infer<typeof harvest>;

export const ferment = z
  .object({
    kind: z.literal('ferment'),
    /** A hand below the top of the heap, and in the middle, °C. */
    topC: field(z._default(z.nullable(tempC), null), { label: 'Below the top' }),
    coreC: field(z._default(z.nullable(tempC), null), { label: 'Middle' }),
    turned: field(z._default(z.boolean(), false), { label: 'Turned, outside in' }),
    smell: field(z._default(z.enum(['', ...SMELLS]), ''), { label: 'Smell' }),
    colour: field(z._default(z.enum(['', ...COLOURS]), ''), { label: 'Colour' }),
    ph: field(
      z._default(
        z.nullable(z.number().check(z.minimum(2, 'is not a pH of beans'), z.maximum(9, 'is not a pH of beans'))),
        null,
      ),
      { label: 'pH, if known' },
    ),
    /** Of so many beans cut, how many show a brown ring and liquid within. */
    cut: field(z._default(count.check(z.maximum(500)), 0), { label: 'Beans cut', example: '10' }),
    cutBrown: field(z._default(count.check(z.maximum(500)), 0), { label: 'with a brown ring' }),
    note: field(text(500), { label: 'Note' }),
  })
  .check(z.refine((d) => d.cutBrown <= d.cut, { message: 'is more than were cut', path: ['cutBrown'] }));
export type Ferment = z.infer<typeof ferment>;
/** A reading of the heap as somebody enters it: of an empty one nothing is learned. */
export const fermentEntry = ferment.check(
  z.refine(
    (d) =>
      d.topC !== null ||
      d.coreC !== null ||
      d.ph !== null ||
      d.cut > 0 ||
      d.turned ||
      d.smell !== '' ||
      d.colour !== '',
    {
      message: 'Nothing is filled in yet: a temperature, a smell, a cut or a turning.',
    },
  ),
);

export const drying = z.object({
  kind: z.literal('drying'),
  moisturePct: field(z._default(z.nullable(wetness), null), { label: 'Moisture', unit: '%' }),
  massG: field(z._default(z.nullable(massG), null), { label: 'All of it weighs', weighed: 'heavy' }),
  raked: field(z._default(z.boolean(), false), { label: 'Raked' }),
  weather: field(z._default(z.enum(['', 'sun', 'cloud', 'rain', 'dryer']), ''), { label: 'Weather' }),
  note: field(text(500), { label: 'Note' }),
});
export type Drying = z.infer<typeof drying>;
/** The same of the drying. */
export const dryingEntry = drying.check(
  z.refine((d) => d.moisturePct !== null || d.massG !== null || d.raked, {
    message: 'Nothing is filled in yet: a moisture, a weight or a raking.',
  }),
);

export const trap = z.object({
  kind: z.literal('trap'),
  trap: field(z.string().check(z.trim(), z.minLength(1, 'is missing'), z.maxLength(60)), {
    label: 'Trap',
    example: 'by the door',
  }),
  moths: field(count.check(z.maximum(10_000, 'is more than a trap holds')), { label: 'Moths in it' }),
  days: field(
    z._default(
      z.number().check(z.minimum(0.5, 'is less than half a day'), z.maximum(120, 'is longer than a lure works')),
      7,
    ),
    { label: 'Days it hung' },
  ),
});

/** Fat of the nibs, as it was measured or as a laboratory says. */
export const nibFat = z.object({
  kind: z.literal('nib-fat'),
  fatPct: field(z.number().check(z.minimum(30, 'is leaner than any nib'), z.maximum(70, 'is fatter than any nib')), {
    label: 'Fat',
    unit: '%',
  }),
  how: field(text(200), { label: 'How it was measured' }),
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
