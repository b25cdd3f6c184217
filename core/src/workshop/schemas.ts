import { z } from 'zod/mini';
import { allergens, datedFacts, madeOf } from '../ledger/contents';
import { id, massG, money, tempC } from '../fields/fields';
import { roasterFacts } from '../work/roasting';
import { STATIONS } from '../work/stations';
import { MASS_UNITS } from '../units/mass';
import { DECIMAL_MARKS } from '../units/number';

const name = z.string().check(z.trim(), z.minLength(1, 'is missing'), z.maxLength(120, 'is longer than 120 letters'));

/** Hours of the day in which somebody is there, minutes after midnight, and on which days; 1 is Monday. */
export const attended = z
  .object({
    fromMin: z.number().check(z.int(), z.minimum(0), z.maximum(1440)),
    toMin: z.number().check(z.int(), z.minimum(0), z.maximum(1440, 'is after midnight')),
    days: z.array(z.number().check(z.int(), z.minimum(1), z.maximum(7))).check(z.maxLength(7)),
  })
  .check(z.refine(({ fromMin, toMin }) => toMin > fromMin, { message: 'ends before it begins', path: ['toMin'] }));

export const settings = z.object({
  name,
  currency: z.string().check(z.regex(/^[A-Z]{3}$/, 'is a three-letter code')),
  timeZone: z.string().check(
    z.refine((zone) => {
      try {
        new Intl.DateTimeFormat('en-GB', { timeZone: zone });
        return true;
      } catch {
        return false;
      }
    }, 'is not a time zone, as Europe/Lisbon is'),
  ),
  wagePerHour: money,
  energyPerKwh: money,
  /** What they were before: each holds up to, and without, its day. */
  earlierRates: z._default(
    z
      .array(z.object({ until: z.iso.date('is a date like 2027-05-31'), wagePerHour: money, energyPerKwh: money }))
      .check(z.maxLength(500, 'are too many')),
    [],
  ),
  massSystem: z.enum(['metric', 'imperial']),
  temperatureUnit: z.enum(['C', 'F']),
  /** What begins the decimals where figures are typed. */
  decimalMark: z._default(z.enum(DECIMAL_MARKS), '.'),
  /** Days that blocks rest before they are offered to temper. */
  restDays: z.number().check(z.minimum(0), z.maximum(365)),
  /** Hours between readings of a running grind. */
  readingHours: z.number().check(z.minimum(1), z.maximum(168)),
  /** When somebody is at the workshop. */
  attended: z._default(attended, { fromMin: 420, toMin: 1080, days: [1, 2, 3, 4, 5, 6] }),
  /** Whether stones may run while nobody is there, by the workshop's own rule, and what the rule is. */
  unattended: z._default(z.boolean(), true),
  unattendedRule: z._default(z.string().check(z.trim(), z.maxLength(300, 'is longer than 300 letters')), ''),
  /** Days between looks at the sacks in the bean store. */
  lookDays: z._default(z.number().check(z.minimum(1), z.maximum(365)), 14),
  /** Days after which stored beans are inspected again. */
  reinspectDays: z._default(z.number().check(z.minimum(7), z.maximum(1000)), 120),
  /** Piles that this workshop sorts out beside the usual ones. */
  rejectReasons: z._default(
    z
      .array(z.string().check(z.trim(), z.minLength(1, 'is missing'), z.maxLength(30)))
      .check(z.maxLength(12, 'are too many')),
    [],
  ),
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

const percent = z.optional(
  z.nullable(z.number().check(z.minimum(0, 'cannot be below 0'), z.maximum(100, 'is more than all of it'))),
);
const capacity = z._default(z.nullable(massG), null);
export const newMachine = z.object({
  name,
  station: z.enum(STATIONS),
  minG: capacity,
  maxG: capacity,
  /** What its plate says, where its own bowls taught otherwise. */
  plateMinG: z.optional(z.nullable(massG)),
  plateMaxG: z.optional(z.nullable(massG)),
  kw: z._default(z.number().check(z.minimum(0, 'cannot be below 0'), z.maximum(1000, 'is too much')), 0),
  /** Grinds by hand, blade or saddle stone: its texture is described, no particle size is aimed at or foretold. */
  coarse: z.optional(z.boolean()),
  /** Keeps the mass warm and moving, and grinds nothing. */
  conches: z.optional(z.boolean()),
  /** Turns a minute; how loud it is where people stand, dB; how its tension is set, in words; whether it has a lid. */
  rpm: z.optional(
    z.nullable(z.number().check(z.minimum(0, 'cannot be below 0'), z.maximum(10_000, 'is faster than stones turn'))),
  ),
  noiseDb: z.optional(
    z.nullable(
      z.number().check(z.minimum(20, 'is quieter than a room'), z.maximum(140, 'is louder than anybody bears')),
    ),
  ),
  tension: z.optional(z.string().check(z.trim(), z.maxLength(120, 'is longer than 120 letters'))),
  lid: z.optional(z.boolean()),
  /** Running hours after which its stones are dressed, and after which it is serviced. */
  dressEveryH: z.optional(
    z.nullable(z.number().check(z.minimum(1, 'must be at least 1'), z.maximum(100_000, 'is too long'))),
  ),
  serviceEveryH: z.optional(
    z.nullable(z.number().check(z.minimum(1, 'must be at least 1'), z.maximum(100_000, 'is too long'))),
  ),
  /** What a roaster is; null for other machines, and for roasters nobody has described. */
  roaster: z.optional(z.nullable(roasterFacts)),
});
/** A cleaning that takes allergens away, as it was recorded. */
export const newCleaning = z.object({
  at: z.optional(z.iso.datetime({ offset: true, message: 'is a time like 2027-05-31T06:10:00Z' })),
  personId: id,
  how: z
    .string()
    .check(z.trim(), z.minLength(3, 'says how, in a word or two'), z.maxLength(300, 'is longer than 300 letters')),
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
  name,
  kind: z.enum(['ingredient', 'packaging']),
  cocoa: z._default(z.enum(['none', 'butter', 'liquor', 'powder', 'couverture']), 'none'),
  sugar: z._default(z.boolean(), false),
  allergens: z._default(allergens, []),
  cocoaPct: percent,
  addedButterPct: percent,
  sugarPct: percent,
  keepsMonths: z.optional(
    z.nullable(z.number().check(z.positive('must be more than 0'), z.maximum(120, 'is more than ten years'))),
  ),
  contents: z.optional(z.array(datedFacts).check(z.maxLength(60, 'are too many'))),
  madeOf: z.optional(madeOf),
  pricePerKg: z.optional(z.nullable(money)),
  origin: z.optional(z.string().check(z.trim(), z.maxLength(120, 'is longer than 120 letters'))),
  retired: z.optional(z.boolean()),
});

export const newRoute = z.object({
  name,
  note: z._default(z.string().check(z.maxLength(500, 'is longer than 500 letters')), ''),
  stations: z.array(z.enum(STATIONS)).check(
    z.minLength(2, 'needs at least two stations'),
    z.refine((list) => new Set(list).size === list.length, 'names a station twice'),
    z.refine((list) => list[0] === 'beans', 'begins at Beans'),
  ),
  /** The mass may not get hotter than this; null or absent: no such bound, or the usual one of an unroasted route. */
  ceilingC: z.optional(z.nullable(tempC)),
});

export const massUnit = z.enum(MASS_UNITS);
