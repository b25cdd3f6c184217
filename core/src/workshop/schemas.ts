import { z } from 'zod';
import { allergens, datedFacts, madeOf } from '../ledger/contents';
import { id, massG, money, tempC } from '../fields/fields';
import { roasterFacts } from '../work/roasting';
import { STATIONS } from '../work/stations';
import { MASS_UNITS } from '../units/mass';
import { DECIMAL_MARKS } from '../units/number';

const name = z.string().trim().min(1, 'is missing').max(120, 'is longer than 120 letters');

/** Hours of the day in which somebody is there, minutes after midnight, and on which days; 1 is Monday. */
export const attended = z
  .object({
    fromMin: z.number().int().min(0).max(1440),
    toMin: z.number().int().min(0).max(1440, 'is after midnight'),
    days: z.array(z.number().int().min(1).max(7)).max(7),
  })
  .refine(({ fromMin, toMin }) => toMin > fromMin, { message: 'ends before it begins', path: ['toMin'] });

export const settings = z.object({
  name,
  currency: z.string().regex(/^[A-Z]{3}$/, 'is a three-letter code'),
  timeZone: z.string().refine((zone) => {
    try {
      new Intl.DateTimeFormat('en-GB', { timeZone: zone });
      return true;
    } catch {
      return false;
    }
  }, 'is not a time zone, as Europe/Lisbon is'),
  wagePerHour: money,
  energyPerKwh: money,
  /** What they were before: each holds up to, and without, its day. */
  earlierRates: z
    .array(z.object({ until: z.iso.date('is a date like 2027-05-31'), wagePerHour: money, energyPerKwh: money }))
    .max(500, 'are too many')
    .default([]),
  massSystem: z.enum(['metric', 'imperial']),
  temperatureUnit: z.enum(['C', 'F']),
  /** What begins the decimals where figures are typed. */
  decimalMark: z.enum(DECIMAL_MARKS).default('.'),
  /** Days that blocks rest before they are offered to temper. */
  restDays: z.number().min(0).max(365),
  /** Hours between readings of a running grind. */
  readingHours: z.number().min(1).max(168),
  /** When somebody is at the workshop. */
  attended: attended.default({ fromMin: 420, toMin: 1080, days: [1, 2, 3, 4, 5, 6] }),
  /** Whether stones may run while nobody is there, by the workshop's own rule, and what the rule is. */
  unattended: z.boolean().default(true),
  unattendedRule: z.string().trim().max(300, 'is longer than 300 letters').default(''),
  /** Days between looks at the sacks in the bean store. */
  lookDays: z.number().min(1).max(365).default(14),
  /** Days after which stored beans are inspected again. */
  reinspectDays: z.number().min(7).max(1000).default(120),
  /** Piles that this workshop sorts out beside the usual ones. */
  rejectReasons: z.array(z.string().trim().min(1, 'is missing').max(30)).max(12, 'are too many').default([]),
  /** Made up for show; the interface says so and offers to begin again. */
  demo: z.boolean(),
});
export type Settings = z.infer<typeof settings>;

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
export const newPerson = z.object({ name });

const percent = z.number().min(0, 'cannot be below 0').max(100, 'is more than all of it').nullable().optional();
const capacity = massG.nullable().default(null);
export const newMachine = z.object({
  name,
  station: z.enum(STATIONS),
  minG: capacity,
  maxG: capacity,
  /** What its plate says, where its own bowls taught otherwise. */
  plateMinG: massG.nullable().optional(),
  plateMaxG: massG.nullable().optional(),
  kw: z.number().min(0, 'cannot be below 0').max(1000, 'is too much').default(0),
  /** Grinds by hand, blade or saddle stone: its texture is described, no particle size is aimed at or foretold. */
  coarse: z.boolean().optional(),
  /** Keeps the mass warm and moving, and grinds nothing. */
  conches: z.boolean().optional(),
  /** Turns a minute; how loud it is where people stand, dB; how its tension is set, in words; whether it has a lid. */
  rpm: z.number().min(0, 'cannot be below 0').max(10_000, 'is faster than stones turn').nullable().optional(),
  noiseDb: z.number().min(20, 'is quieter than a room').max(140, 'is louder than anybody bears').nullable().optional(),
  tension: z.string().trim().max(120, 'is longer than 120 letters').optional(),
  lid: z.boolean().optional(),
  /** Running hours after which its stones are dressed, and after which it is serviced. */
  dressEveryH: z.number().min(1, 'must be at least 1').max(100_000, 'is too long').nullable().optional(),
  serviceEveryH: z.number().min(1, 'must be at least 1').max(100_000, 'is too long').nullable().optional(),
  /** What a roaster is; null for other machines, and for roasters nobody has described. */
  roaster: roasterFacts.nullable().optional(),
});
/** A cleaning that takes allergens away, as it was recorded. */
export const newCleaning = z.object({
  at: z.iso.datetime({ offset: true, message: 'is a time like 2027-05-31T06:10:00Z' }).optional(),
  personId: id,
  how: z.string().trim().min(3, 'says how, in a word or two').max(300, 'is longer than 300 letters'),
});
const cleaning = z.object({ at: z.number().int(), personId: id, how: z.string().max(300) });
/** What was done to a machine itself. */
export const SERVICES = ['dressed', 'serviced', 'repaired'] as const;
export const newService = z.object({
  at: newCleaning.shape.at,
  personId: id,
  what: z.enum(SERVICES),
  note: z.string().trim().max(300, 'is longer than 300 letters').default(''),
});
const service = z.object({ at: z.number().int(), personId: id, what: z.enum(SERVICES), note: z.string().max(300) });
export const machine = newMachine.extend({
  id,
  cleanings: z.array(cleaning).max(2000).optional(),
  services: z.array(service).max(2000).optional(),
});
export type Machine = z.infer<typeof machine>;

export const newMaterial = z.object({
  name,
  kind: z.enum(['ingredient', 'packaging']),
  cocoa: z.enum(['none', 'butter', 'liquor', 'powder', 'couverture']).default('none'),
  sugar: z.boolean().default(false),
  allergens: allergens.default([]),
  cocoaPct: percent,
  addedButterPct: percent,
  sugarPct: percent,
  keepsMonths: z.number().positive('must be more than 0').max(120, 'is more than ten years').nullable().optional(),
  contents: z.array(datedFacts).max(60, 'are too many').optional(),
  madeOf: madeOf.optional(),
  pricePerKg: money.nullable().optional(),
  origin: z.string().trim().max(120, 'is longer than 120 letters').optional(),
  retired: z.boolean().optional(),
});

export const newRoute = z.object({
  name,
  note: z.string().max(500, 'is longer than 500 letters').default(''),
  stations: z
    .array(z.enum(STATIONS))
    .min(2, 'needs at least two stations')
    .refine((list) => new Set(list).size === list.length, 'names a station twice')
    .refine((list) => list[0] === 'beans', 'begins at Beans'),
  /** The mass may not get hotter than this; null or absent: no such bound, or the usual one of an unroasted route. */
  ceilingC: tempC.nullable().optional(),
});

export const massUnit = z.enum(MASS_UNITS);
