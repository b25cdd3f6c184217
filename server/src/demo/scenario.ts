import type { CommandOf } from '@wunsch/core/commands';
import type { Material } from '@wunsch/core/ledger/types';
import { localIn } from '@wunsch/core/units/zone';
import type { Machine, Person, Settings } from '@wunsch/core/workshop/schemas';

/** The demo workshop is made up from end to end: maker, town, producers, buyers and people. */
const SETTINGS: Settings = {
  name: 'Orrin & Lusk, Saltgarth',
  currency: 'EUR',
  timeZone: 'Europe/Lisbon',
  wagePerHour: 16.5,
  energyPerKwh: 0.27,
  earlierRates: [],
  massSystem: 'metric',
  temperatureUnit: 'C',
  decimalMark: '.',
  rejectReasons: [],
  restDays: 14,
  readingHours: 12,
  attended: { fromMin: 420, toMin: 1110, days: [1, 2, 3, 4, 5, 6] },
  unattended: true,
  unattendedRule: 'Smoke alarm, cut-out tested each month, nothing else on that circuit',
  lookDays: 14,
  reinspectDays: 120,
  demo: true,
};

/** Clocks that the town may go by, one for each hour of the day; it lies in Europe where it is a working day there. */
const ZONES = [
  SETTINGS.timeZone,
  ...['Africa/Algiers', 'Africa/Maputo', 'Africa/Nairobi', 'Asia/Dubai', 'Indian/Maldives', 'Asia/Dhaka'],
  ...['Asia/Bangkok', 'Asia/Singapore', 'Asia/Tokyo', 'Australia/Brisbane', 'Pacific/Guadalcanal', 'Pacific/Fiji'],
  ...['Atlantic/Cape_Verde', 'Atlantic/South_Georgia', 'America/Sao_Paulo', 'America/La_Paz', 'America/Lima'],
  ...['America/Costa_Rica', 'America/Hermosillo', 'Pacific/Pitcairn', 'Pacific/Gambier', 'Pacific/Honolulu'],
];
/** Minutes of the day at which a workshop is busy, and the best of them. */
const BUSY = { fromMin: 9 * 60, toMin: 16.5 * 60, bestMin: 10.5 * 60 };
const MONDAY_SHUT = [2, 3, 4, 5, 6, 7];

/**
 * The settings of a demo that is made at some moment: whenever that is, it is a busy hour of a working day there. A shop
 * that is looked at on a Sunday opens on Sundays and is shut on Mondays.
 */
export function settingsAt(now: number): Settings {
  const found = [SETTINGS.attended.days, MONDAY_SHUT].flatMap((days) =>
    ZONES.flatMap((timeZone) => {
      const { minute, weekday } = localIn(timeZone)(now);
      return days.includes(weekday) && minute >= BUSY.fromMin && minute <= BUSY.toMin
        ? [{ timeZone, days, minute }]
        : [];
    }),
  );
  const home = found.find(({ timeZone }) => timeZone === SETTINGS.timeZone);
  const off = ({ minute }: { minute: number }): number => Math.abs(minute - BUSY.bestMin);
  const best =
    home ?? found.reduce((a, b) => (off(b) < off(a) ? b : a), found[0] ?? { ...SETTINGS, days: [], minute: 0 });
  const days = best.days.length > 0 ? best.days : SETTINGS.attended.days;
  return { ...SETTINGS, timeZone: best.timeZone, attended: { ...SETTINGS.attended, days: [...days] } };
}

export const PEOPLE: Person[] = [
  { id: 'ilse', name: 'Ilse', active: true },
  { id: 'tomo', name: 'Tomo', active: true },
  { id: 'perpetua', name: 'Perpetua', active: true },
  { id: 'danso', name: 'Danso', active: true },
];

/** The oven that roasts everything that is sold. */
export const OVEN: Machine = {
  id: 'convection-oven',
  name: 'Convection oven',
  station: 'roast',
  minG: 2_000,
  maxG: 8_000,
  kw: 4.2,
  roaster: {
    kind: 'oven',
    trays: 3,
    trayCm2: 2400,
    preheatMin: 20,
    setBy: 'hand',
    how: 'Dial on the door; the fan stops when it is opened.',
    kill: null,
  },
};

export const MACHINES: Machine[] = [
  { id: 'sorting-table', name: 'Sorting table', station: 'sort', minG: null, maxG: 70_000, kw: 0 },
  OVEN,
  {
    id: 'test-drum',
    name: 'Test drum',
    station: 'roast',
    minG: 150,
    maxG: 1_200,
    kw: 1.2,
    roaster: {
      kind: 'drum',
      trays: null,
      trayCm2: null,
      preheatMin: 10,
      setBy: 'itself',
      how: 'Runs a program on its own.',
      kill: null,
    },
  },
  { id: 'cracker-column', name: 'Cracker and suction column', station: 'winnow', minG: 500, maxG: 40_000, kw: 1.1 },
  {
    id: 'stone-large',
    name: 'Large stone grinder',
    station: 'grind',
    minG: 14_000,
    maxG: 34_000,
    kw: 0.75,
    rpm: 125,
    noiseDb: 78,
    tension: 'three turns from loose',
    lid: true,
    dressEveryH: 4_000,
    serviceEveryH: 2_000,
  },
  {
    id: 'stone-small',
    name: 'Small stone grinder',
    station: 'grind',
    minG: 5_000,
    maxG: 15_000,
    kw: 0.37,
    rpm: 140,
    noiseDb: 86,
    tension: 'two turns from loose',
    lid: true,
    dressEveryH: 3_000,
    serviceEveryH: 1_500,
  },
  { id: 'temper-machine', name: 'Continuous temper machine', station: 'temper', minG: 4_000, maxG: 24_000, kw: 1.4 },
  { id: 'marble', name: 'Marble slab', station: 'temper', minG: null, maxG: 5_000, kw: 0 },
  { id: 'cabinet', name: 'Vibrating table and cabinet', station: 'mould', minG: null, maxG: 30_000, kw: 0.6 },
];

const ingredient = (id: string, name: string, rest: Partial<Material> = {}): Material => ({
  id,
  name,
  kind: 'ingredient',
  cocoa: 'none',
  sugar: false,
  allergens: [],
  ...rest,
});

export const MATERIALS: Material[] = [
  ingredient('sugar', 'Raw cane sugar', { sugar: true }),
  ingredient('butter', 'Cocoa butter', { cocoa: 'butter' }),
  ingredient('milk', 'Whole milk powder', { allergens: ['milk'], pricePerKg: 6.5 }),
  ingredient('silk', 'Silk (tempered cocoa butter)', { cocoa: 'butter' }),
  { ...ingredient('wrapper', 'Foil and wrapper, 70 g'), kind: 'packaging' },
];

export type Supply = { materialId: string; supplier: string; massG?: number; pieces?: number; price: number };

/** What a purchase of each thing usually is. */
export const SUPPLIES: Record<string, Supply> = {
  sugar: { materialId: 'sugar', supplier: 'Saltgarth Dry Goods', massG: 125_000, price: 231.25 },
  butter: { materialId: 'butter', supplier: 'Pell Harbour Imports', massG: 25_000, price: 487.5 },
  milk: { materialId: 'milk', supplier: 'Upper Fenn Dairy', massG: 25_000, price: 162.5 },
  silk: { materialId: 'silk', supplier: 'Made here', massG: 4_000, price: 84 },
  wrapper: { materialId: 'wrapper', supplier: 'Quill & Fold Printers', pieces: 4_000, price: 520 },
};

/** An origin the workshop buys from, and how its beans behave: yields are what a simulated bench sees. */
export interface Origin {
  lot: Omit<CommandOf<'receive'>, 'kind' | 'sacks' | 'netG' | 'harvest' | 'moisturePct' | 'note' | 'name'>;
  bar: string;
  cocoaPct: number;
  sortYield: number;
  roastYield: number;
  nibYield: number;
  huskShare: number;
  roastC: number;
  roastMinutes: number;
  grindHours: number;
  score: number;
}

const lot = (
  producer: string,
  country: string,
  region: string,
  variety: string,
  pricePerKg: number,
  freight: number,
): Origin['lot'] => ({
  producer,
  country,
  region,
  variety,
  form: 'beans',
  routeId: 'whole-bean',
  pricePerKg,
  currency: 'EUR',
  rate: 1,
  freight,
});

export const ORIGINS: Origin[] = [
  {
    lot: lot('Tam Lụa Growers', 'Viet Nam', 'southern delta', 'Trinitario mix', 6.4, 210),
    bar: 'Viet Nam',
    cocoaPct: 72,
    sortYield: 0.955,
    roastYield: 0.941,
    nibYield: 0.832,
    huskShare: 0.14,
    roastC: 128,
    roastMinutes: 26,
    grindHours: 52,
    score: 7.4,
  },
  {
    lot: lot('Roça Vento Manso', 'São Tomé', 'north slope', 'Amelonado', 7.1, 260),
    bar: 'São Tomé',
    cocoaPct: 75,
    sortYield: 0.965,
    roastYield: 0.936,
    nibYield: 0.821,
    huskShare: 0.148,
    roastC: 134,
    roastMinutes: 24,
    grindHours: 58,
    score: 7.8,
  },
  {
    lot: lot('Kasule Ridge Society', 'Uganda', 'western hills', 'Upper Amazon', 5.6, 240),
    bar: 'Uganda',
    cocoaPct: 70,
    sortYield: 0.94,
    roastYield: 0.938,
    nibYield: 0.815,
    huskShare: 0.152,
    roastC: 131,
    roastMinutes: 25,
    grindHours: 55,
    score: 6.9,
  },
  {
    lot: lot('Nawaira Bay Farmers', 'Fiji', 'windward bay', 'Trinitario mix', 8.2, 390),
    bar: 'Fiji',
    cocoaPct: 68,
    sortYield: 0.962,
    roastYield: 0.944,
    nibYield: 0.838,
    huskShare: 0.135,
    roastC: 122,
    roastMinutes: 30,
    grindHours: 60,
    score: 8.1,
  },
];

/** Who buys, by which channel, and what a bar fetches there. */
export const BUYERS: readonly { name: string; channel: string; price: number }[] = [
  { name: 'Market stall, Fish Quay', channel: 'market', price: 7.5 },
  { name: 'Lantern Books café', channel: 'cafés', price: 4.6 },
  { name: 'Own web shop', channel: 'web', price: 7.5 },
  { name: 'Ferry kiosk', channel: 'shops', price: 5.2 },
  { name: 'Hotel Breakwater', channel: 'cafés', price: 4.6 },
  { name: 'Cheese shop, Mill Lane', channel: 'shops', price: 5.2 },
];

export const TASTING_WORDS = [
  'Opens with dried plum, long cocoa finish.',
  'Clean snap, honey and toast, a little dry at the end.',
  'Bright, red fruit, sourness gone by the second piece.',
  'Round and nutty; short finish.',
  'Citrus first, then bread crust. Best of the month.',
  'Slightly grainy on the tongue, flavour good.',
];

/** As the scale writes it. @param step of the scale, g */
export const round = (value: number, step = 5): number => Math.round(value / step) * step;
