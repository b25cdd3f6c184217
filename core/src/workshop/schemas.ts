import { z } from 'zod/mini';
import { field } from '../fields/registry';
import { allergens, datedFacts, madeOf } from '../ledger/contents';
import { id, massG, money, tempC } from '../fields/fields';
import { roasterFacts } from '../work/roasting';
import { STATIONS } from '../work/stations';
import { dateFormat } from '../units/formats';
import { MASS_UNITS } from '../units/mass';
import { DECIMAL_MARKS } from '../units/number';

const name = z.string().check(z.trim(), z.minLength(1, 'is missing'), z.maxLength(120, 'is longer than 120 letters'));

/** Hours of the day in which somebody is there, minutes after midnight, and on which days; 1 is Monday. */
export const attended = z
  .object({
    fromMin: field(z.number().check(z.int(), z.minimum(0), z.maximum(1440)), { label: 'Somebody is here from' }),
    toMin: field(z.number().check(z.int(), z.minimum(0), z.maximum(1440, 'is after midnight')), { label: 'to' }),
    days: field(z.array(z.number().check(z.int(), z.minimum(1), z.maximum(7))).check(z.maxLength(7)), { label: 'On' }),
  })
  .check(z.refine(({ fromMin, toMin }) => toMin > fromMin, { message: 'ends before it begins', path: ['toMin'] }));

export const settings = z.object({
  name: field(name, { label: 'Name of the workshop' }),
  currency: field(z.string().check(z.regex(/^[A-Z]{3}$/, 'is a three-letter code')), { label: 'Currency' }),
  timeZone: field(
    z.string().check(
      z.refine((zone) => {
        try {
          dateFormat({ timeZone: zone });
          return true;
        } catch {
          return false;
        }
      }, 'is not a time zone, as Europe/Lisbon is'),
    ),
    { label: 'Time zone' },
  ),
  wagePerHour: field(money, { label: 'An hour of work costs' }),
  energyPerKwh: field(money, { label: 'A kWh costs' }),
  /** What they were before: each holds up to, and without, its day. */
  earlierRates: z._default(
    z
      .array(z.object({ until: z.iso.date('is a date like 2027-05-31'), wagePerHour: money, energyPerKwh: money }))
      .check(z.maxLength(500, 'are too many')),
    [],
  ),
  massSystem: field(z.enum(['metric', 'imperial']), {
    label: 'Weights',
    words: { metric: 'g and kg', imperial: 'oz and lb' },
  }),
  temperatureUnit: field(z.enum(['C', 'F']), { label: 'Temperatures', words: { C: '°C', F: '°F' } }),
  /** What begins the decimals where figures are typed. */
  decimalMark: field(z._default(z.enum(DECIMAL_MARKS), '.'), { label: 'Half a gram is written' }),
  /** Days that blocks rest before they are offered to temper. */
  restDays: field(z.number().check(z.minimum(0), z.maximum(365)), { label: 'Days that blocks rest' }),
  /** Hours between readings of a running grind. */
  readingHours: field(z.number().check(z.minimum(1), z.maximum(168)), { label: 'Hours between gauge readings' }),
  /** When somebody is at the workshop. */
  attended: z._default(attended, { fromMin: 420, toMin: 1080, days: [1, 2, 3, 4, 5, 6] }),
  /** Whether stones may run while nobody is there, by the workshop's own rule, and what the rule is. */
  unattended: field(z._default(z.boolean(), true), { label: 'Stones may run while nobody is here' }),
  unattendedRule: field(z._default(z.string().check(z.trim(), z.maxLength(300, 'is longer than 300 letters')), ''), {
    label: 'By which rule of the workshop',
    example: 'smoke alarm, tested cut-out, own circuit; what the insurer allows',
  }),
  /** Days between looks at the sacks in the bean store. */
  lookDays: field(z._default(z.number().check(z.minimum(1), z.maximum(365)), 14), {
    label: 'Days between looks at the sacks',
  }),
  /** Days after which stored beans are inspected again. */
  reinspectDays: field(z._default(z.number().check(z.minimum(7), z.maximum(1000)), 120), {
    label: 'Days until beans are inspected again',
  }),
  /** Piles that this workshop sorts out beside the usual ones. */
  rejectReasons: field(
    z._default(
      z
        .array(z.string().check(z.trim(), z.minLength(1, 'is missing'), z.maxLength(30)))
        .check(z.maxLength(12, 'are too many')),
      [],
    ),
    { label: 'Piles of your own when sorting, apart by commas', example: 'slaty, double' },
  ),
  /** Made up for show; the interface says so and offers to begin again. */
  demo: z.boolean(),
});
export type Settings = z.infer<typeof settings>;

/** What is changed of the settings, and from which day new costs hold. */
export const settingsChange = z.extend(z.omit(settings, { demo: true, earlierRates: true }), {
  /** First day of new wages and energy prices; left out, today. */
  ratesFrom: field(z.optional(z.iso.date('is a date like 2027-05-31')), {
    label: 'The new costs hold from',
    hint: 'Work done before that day, entered late or corrected, is costed at what held then.',
  }),
});

export const DEFAULT_SETTINGS: Settings = {
  name: 'My workshop',
  currency: 'EUR',
  timeZone: 'UTC',
  wagePerHour: 15,
  energyPerKwh: 0.3,
  earlierRates: [],
  massSystem: 'metric',
  temperatureUnit: 'C',
  decimalMark: '.',
  restDays: 14,
  readingHours: 24,
  attended: { fromMin: 420, toMin: 1080, days: [1, 2, 3, 4, 5, 6] },
  unattended: true,
  unattendedRule: '',
  lookDays: 14,
  reinspectDays: 120,
  rejectReasons: [],
  demo: false,
};

export const person = z.object({ id, name, active: z.boolean() });
export type Person = z.infer<typeof person>;
export const newPerson = z.object({ name: field(name, { label: 'Name' }) });

const percent = z.optional(
  z.nullable(z.number().check(z.minimum(0, 'cannot be below 0'), z.maximum(100, 'is more than all of it'))),
);
const capacity = z._default(z.nullable(massG), null);
export const newMachine = z.object({
  name: field(name, { label: 'Machine' }),
  station: field(z.enum(STATIONS), { label: 'Station' }),
  minG: field(capacity, { label: 'Least', unit: 'g', weighed: 'heavy' }),
  maxG: field(capacity, { label: 'Most', unit: 'g', weighed: 'heavy' }),
  /** What its plate says, where its own bowls taught otherwise. */
  plateMinG: z.optional(z.nullable(massG)),
  plateMaxG: z.optional(z.nullable(massG)),
  kw: field(z._default(z.number().check(z.minimum(0, 'cannot be below 0'), z.maximum(1000, 'is too much')), 0), {
    label: 'Power',
    unit: 'kW',
  }),
  /** Grinds by hand, blade or saddle stone: its texture is described, no particle size is aimed at or foretold. */
  coarse: z.optional(z.boolean()),
  /** Keeps the mass warm and moving, and grinds nothing. */
  conches: z.optional(z.boolean()),
  /** Turns a minute; how loud it is where people stand, dB; how its tension is set, in words; whether it has a lid. */
  rpm: field(
    z.optional(
      z.nullable(z.number().check(z.minimum(0, 'cannot be below 0'), z.maximum(10_000, 'is faster than stones turn'))),
    ),
    { label: 'Speed', unit: 'turns a minute' },
  ),
  noiseDb: field(
    z.optional(
      z.nullable(
        z.number().check(z.minimum(20, 'is quieter than a room'), z.maximum(140, 'is louder than anybody bears')),
      ),
    ),
    { label: 'Noise', unit: 'dB' },
  ),
  tension: field(z.optional(z.string().check(z.trim(), z.maxLength(120, 'is longer than 120 letters'))), {
    label: 'Tension, as it is usually set',
  }),
  lid: field(z.optional(z.boolean()), { label: 'It has a lid' }),
  /** Running hours after which its stones are dressed, and after which it is serviced. */
  dressEveryH: field(
    z.optional(z.nullable(z.number().check(z.minimum(1, 'must be at least 1'), z.maximum(100_000, 'is too long')))),
    { label: 'Stones dressed every', unit: 'h' },
  ),
  serviceEveryH: field(
    z.optional(z.nullable(z.number().check(z.minimum(1, 'must be at least 1'), z.maximum(100_000, 'is too long')))),
    { label: 'Service every', unit: 'h' },
  ),
  /** Sold, broken or given away: nothing is begun on it any more. */
  retired: field(z.optional(z.boolean()), { label: 'No longer used' }),
  /** What a roaster is; null for other machines, and for roasters nobody has described. */
  roaster: z.optional(z.nullable(roasterFacts)),
});
/** A machine as it is described anew. */
export const machineFacts = newMachine.check(
  z.refine(({ minG, maxG }) => minG === null || maxG === null || minG <= maxG, {
    message: 'is more than the most',
    path: ['minG'],
  }),
);
/** A cleaning that takes allergens away, as it was recorded. */
export const newCleaning = z.object({
  at: z.optional(z.iso.datetime({ offset: true, message: 'is a time like 2027-05-31T06:10:00Z' })),
  personId: id,
  how: field(
    z
      .string()
      .check(z.trim(), z.minLength(3, 'says how, in a word or two'), z.maxLength(300, 'is longer than 300 letters')),
    { label: 'Cleaned of allergens, how', example: 'Taken apart, hot water, dried' },
  ),
});
const cleaning = z.object({ at: z.number().check(z.int()), personId: id, how: z.string().check(z.maxLength(300)) });
/** What was done to a machine itself. */
export const SERVICES = ['dressed', 'serviced', 'repaired'] as const;
export const newService = z.object({
  at: newCleaning.shape.at,
  personId: id,
  what: z.enum(SERVICES),
  note: z._default(z.string().check(z.trim(), z.maxLength(300, 'is longer than 300 letters')), ''),
});
const service = z.object({
  at: z.number().check(z.int()),
  personId: id,
  what: z.enum(SERVICES),
  note: z.string().check(z.maxLength(300)),
});
export const machine = z.extend(newMachine, {
  id,
  cleanings: z.optional(z.array(cleaning).check(z.maxLength(2000))),
  services: z.optional(z.array(service).check(z.maxLength(2000))),
});
export type Machine = z.infer<typeof machine>;

export const newMaterial = z.object({
  name: field(name, { label: 'Name' }),
  kind: z.enum(['ingredient', 'packaging']),
  cocoa: z._default(z.enum(['none', 'butter', 'liquor', 'powder', 'couverture']), 'none'),
  sugar: z._default(z.boolean(), false),
  allergens: field(z._default(allergens, []), { label: 'Allergens, apart by commas' }),
  cocoaPct: field(percent, { label: 'Cocoa on its label', unit: '%' }),
  addedButterPct: field(percent, { label: 'Of it, added butter', unit: '%' }),
  sugarPct: field(percent, { label: 'Sugar', unit: '%' }),
  keepsMonths: field(
    z.optional(
      z.nullable(z.number().check(z.positive('must be more than 0'), z.maximum(120, 'is more than ten years'))),
    ),
    { label: 'Goods with it keep, months' },
  ),
  contents: z.optional(z.array(datedFacts).check(z.maxLength(60, 'are too many'))),
  madeOf: field(z.optional(madeOf), { label: 'What it is made of' }),
  pricePerKg: field(z.optional(z.nullable(money)), { label: 'Price', unit: 'a kg', priced: true }),
  origin: field(z.optional(z.string().check(z.trim(), z.maxLength(120, 'is longer than 120 letters'))), {
    label: 'Origin',
  }),
  retired: z.optional(z.boolean()),
});

export const newRoute = z.object({
  name: field(name, { label: 'Name of the route' }),
  note: field(z._default(z.string().check(z.maxLength(500, 'is longer than 500 letters')), ''), { label: 'Note' }),
  stations: field(
    z.array(z.enum(STATIONS)).check(
      z.minLength(2, 'needs at least two stations'),
      z.refine((list) => new Set(list).size === list.length, 'names a station twice'),
      z.refine((list) => list[0] === 'beans', 'begins at Beans'),
    ),
    { label: 'Stations' },
  ),
  /** The mass may not get hotter than this; null or absent: no such bound, or the usual one of an unroasted route. */
  ceilingC: field(z.optional(z.nullable(tempC)), { label: 'The mass is never hotter than' }),
});

export const massUnit = z.enum(MASS_UNITS);
