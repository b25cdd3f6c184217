import { TZDate } from '@date-fns/tz';
import { clockText, dayText, localIn } from '../units/zone';
import type { ActKind } from '../ledger/types';
import type { NormalPrior } from '../stats/importance';
import type { ConcheHeat, ConchePast, ConcheTaste } from './conche';
import { bestReading, forecastGrind, type GrindForecast, type GrindPrior, type GrindReading } from './forecast';
import { gaugeSd, type Population, type Solid } from './fineness';
import { attendedHours, hoursAt, isAttended, momentOf, type Attended } from '../run/attended';

/** Everything that a grind's forecast is made from. */
export interface GrindStudy {
  batchId: string;
  code: string;
  machine: string | null;
  /** UTC ms. */
  now: number;
  startedAt: number;
  /** Running hours now, and whether the stones grind. */
  nowH: number;
  running: boolean;
  /** Why they do not: they stand, they are lifted, or it is in a conche. */
  state: 'grinding' | 'standing' | 'lifted' | 'conching';
  populations: Population[];
  /** What is still to go in and has to be ground, with the moment it is planned for. */
  planned: { actId: string; what: string; solid: Solid; at: number }[];
  /** Acts to come, with the moment each is due: null where nobody can say yet. */
  acts: StudyAct[];
  /** What the forecast takes for granted, in sentences. */
  assumed: string[];
  readings: GrindReading[];
  targetMicron: number;
  prior: Omit<GrindPrior, 'getsUnder'> & { getsUnder: number | null };
  attended: Attended;
  unattended: boolean;
  timeZone: string;
  /** Sourness as it was tasted, and temperatures of the mass, by running hours. */
  conche: ConcheStudy;
}

export interface StudyAct {
  id: string;
  what: string;
  kind: ActKind;
  at: number | null;
  /** Waits for a reading at or under so many µm, which was not read yet. */
  micron: number | null;
}

export interface ConcheStudy {
  /** Hours that the mass was moved so far. */
  nowH: number;
  tastes: ConcheTaste[];
  astringency: ConcheTaste[];
  aroma: ConcheTaste[];
  heat: ConcheHeat[];
  /** What earlier batches teach; null: nothing. */
  prior: NormalPrior | null;
  past: ConchePast[];
}

export interface GrindTonight {
  tone: 'good' | 'watch' | 'stop' | 'quiet';
  sentence: string;
  /** Why, and what it rests on. */
  because: string[];
  todo: string | null;
  /** Running hours, and the moments they will be if the stones go on; null: too far off, or never. */
  p10: { hours: number; at: number | null };
  p50: { hours: number; at: number | null };
  p90: { hours: number; at: number | null };
  reached: boolean;
  neverShare: number;
  /** Size by running hour, µm. */
  curve: { hour: number; p10: number; p50: number; p90: number }[];
  /** Chance of being done, and the size to expect, at hours when somebody is there. */
  attended: { at: number; chance: number; micron: number }[];
  /** When acts that wait for a reading are to be expected: by their id, null for never. */
  expected: Record<string, number | null>;
  /** The reading that would narrow it most. */
  next: { at: number; widthH: number; nowWidthH: number } | null;
}

/** Under it the mass turns thick and gummy, µm; and how far under its target a mass is ground too far. */
const GUMMY_MICRON = 14;
const TOO_FAR = 0.82;
/** Hours to come that are shown. */
const MOST_HOURS = 30;
/** Chance from which on somebody can count on it. */
const SURE = 0.8;

/** What is in the bowl and what is still to come, by running hours. */
export function populationsOf(study: GrindStudy): Population[] {
  const { now, nowH, attended, unattended, timeZone, populations, planned } = study;
  const local = localIn(timeZone);
  const come = planned.map(({ solid, at }) => ({
    solid,
    // What is to come is not in yet.
    atH: Math.max(nowH + 0.01, hoursAt(at, { at: now, hours: nowH }, unattended, attended, local)),
  }));
  return [...populations, ...come];
}

/** The forecast behind the words. */
export function forecastOf(study: GrindStudy): GrindForecast {
  const { readings, targetMicron, nowH } = study;
  const prior: GrindPrior = { ...study.prior, getsUnder: study.prior.getsUnder ?? Infinity };
  return forecastGrind({ populations: populationsOf(study), readings, targetMicron, prior, nowH });
}

/** When to pull a batch off the stones: the forecast by the workshop's clock, in words. Seeded; some tens of milliseconds. */
export function tonight(study: GrindStudy): GrindTonight {
  const { now, nowH, targetMicron, attended, unattended, timeZone, readings } = study;
  const prior: GrindPrior = { ...study.prior, getsUnder: study.prior.getsUnder ?? Infinity };
  const question = { populations: populationsOf(study), readings, targetMicron, prior, nowH };
  const forecast = forecastGrind(question);
  const local = localIn(timeZone);
  const clock = { at: now, hours: nowH };
  const momentAt = (hours: number): number | null => momentOf(hours, clock, unattended, attended, local);
  const mark = (hours: number) => ({ hours, at: momentAt(hours) });
  const [p10, p50, p90] = [mark(forecast.p10), mark(forecast.p50), mark(forecast.p90)];
  // What does not grind gets no finer by the clock.
  const grinds = study.state === 'grinding';
  const open = (grinds ? attendedHours(now, attended, local, MOST_HOURS) : []).map((at) => {
    const hours = hoursAt(at, clock, unattended, attended, local);
    return { at, chance: forecast.chanceBy(hours), micron: forecast.micronBy(hours).p50 };
  });
  const nowWidthH = Math.min(forecast.p90, 400) - forecast.p10;
  const candidates = open.filter(({ at }) => (p90.at === null || at <= p90.at) && at > now).slice(0, 14);
  const best =
    forecast.reached || candidates.length === 0
      ? null
      : bestReading(
          forecast,
          question,
          candidates.map(({ at }) => hoursAt(at, clock, unattended, attended, local)),
        );
  const bestAt = best && candidates.find(({ at }) => hoursAt(at, clock, unattended, attended, local) === best.atH)?.at;
  const next =
    best && bestAt !== undefined && bestAt !== null && best.widthH < nowWidthH
      ? { at: bestAt, widthH: best.widthH, nowWidthH }
      : null;
  const said = words(study, forecast, { p10, p50, p90 }, open);
  return {
    ...said,
    p10,
    p50,
    p90,
    reached: forecast.reached,
    neverShare: forecast.neverShare,
    curve: forecast.curve,
    attended: open,
    expected: Object.fromEntries(
      study.acts.flatMap(({ id, micron }) =>
        micron === null || !grinds ? [] : [[id, momentAt(forecast.reaches(micron))]],
      ),
    ),
    next,
  };
}

interface Marks {
  p10: { hours: number; at: number | null };
  p50: { hours: number; at: number | null };
  p90: { hours: number; at: number | null };
}

/** Standard deviations from which on a reading stands off. */
const STANDS_OFF = 3;

/** Readings that do not go with the others: they are kept and count less. */
function standingOff(readings: readonly GrindReading[], { micronBy }: Pick<GrindForecast, 'micronBy'>): string[] {
  const gauges = readings.flatMap((row) => (row.kind === 'gauge' ? [row] : []));
  if (gauges.length < 3) return [];
  return gauges.flatMap(({ atH, micron }) => {
    const { p10, p50, p90 } = micronBy(atH);
    const off = Math.abs(micron - p50) / Math.hypot(gaugeSd(p50), (p90 - p10) / 2.56);
    return off > STANDS_OFF
      ? [`The ${micron} µm at ${atH.toFixed(0)} h stand off from the other readings: kept, and counted less.`]
      : [];
  });
}

function words(
  {
    now,
    nowH,
    running,
    state,
    targetMicron,
    readings,
    prior,
    machine,
    timeZone,
    attended,
    planned,
    assumed,
  }: GrindStudy,
  forecast: GrindForecast,
  marks: Marks,
  open: GrindTonight['attended'],
): Pick<GrindTonight, 'tone' | 'sentence' | 'because' | 'todo'> {
  const { reached, neverShare, micronBy, p10, p90 } = forecast;
  const gauges = readings.flatMap((row) => (row.kind === 'gauge' ? [row] : []));
  const last = gauges.at(-1);
  const because: string[] = [];
  because.push(
    prior.grinds === 0
      ? `No finished grind of ${machine ?? 'this machine'} to learn from yet: the trade’s usual range is behind it.`
      : `Learned from ${prior.grinds} finished ${prior.grinds === 1 ? 'grind' : 'grinds'} of ${machine ?? 'this machine'}.`,
    gauges.length === 0
      ? 'No gauge reading of this batch yet.'
      : `${gauges.length} gauge ${gauges.length === 1 ? 'reading' : 'readings'} of this batch.`,
  );
  if (readings.length > gauges.length) because.push('What a tongue feels narrows it little.');
  because.push(
    ...assumed,
    ...planned.map(
      ({ what, at }) => `“${what}” is still to come and starts coarse: counted in from ${atWords(at, now, timeZone)}.`,
    ),
    ...standingOff(readings, forecast),
  );
  if (last && last.micron < Math.max(GUMMY_MICRON, TOO_FAR * targetMicron) && last.micron < targetMicron)
    return {
      tone: 'watch',
      sentence: `Finer than meant: ${last.micron} µm, target ${targetMicron} µm. Pull it now.`,
      because: [
        ...because,
        `Under about ${GUMMY_MICRON} µm the mass turns thick and gummy; more fat is what would thin it.`,
      ],
      todo: 'Pour it out, or lift the stones and only conche.',
    };
  if (reached)
    return {
      tone: 'good',
      sentence: `It is there: ${last?.micron ?? targetMicron} µm, target ${targetMicron} µm.`,
      because,
      todo: 'Pour it out when the taste says so; every hour makes it finer.',
    };
  if (neverShare > 0.5)
    return {
      tone: 'watch',
      sentence: `These stones may not get it to ${targetMicron} µm: it levels off above.`,
      because,
      todo: 'Tighten the stones, or choose a coarser target for this batch.',
    };
  const left = [p10 - nowH, p90 - nowH].map((hours) => Math.max(0, hours));
  const hoursLeft = Number.isFinite(p90)
    ? `${round(left[0] ?? 0)} to ${round(left[1] ?? 0)} more running hours`
    : `${round(left[0] ?? 0)} running hours or more`;
  if (state === 'lifted' || state === 'conching')
    return {
      tone: 'quiet',
      sentence: `${state === 'lifted' ? 'The stones are up' : 'It is in the conche'}: it stays at about ${micronBy(nowH).p50.toFixed(0)} µm, target ${targetMicron} µm.`,
      because,
      todo:
        micronBy(nowH).p50 > targetMicron + 2
          ? `It is not at its target: ${hoursLeft} of grinding are left, if it is meant to get there.`
          : null,
    };
  if (!running)
    return {
      tone: 'watch',
      sentence: `The stones stand. ${hoursLeft[0]?.toUpperCase() ?? ''}${hoursLeft.slice(1)} to ${targetMicron} µm.`,
      because,
      todo: 'Start them again and press Stones run.',
    };
  const between = betweenWords(marks, now, timeZone);
  // What stands at night is pulled when somebody comes: what it will be by then.
  const reachable = open.find(({ chance }) => chance >= SURE);
  const middle = marks.p50.at;
  const night = middle !== null && !isAttended(attended, localIn(timeZone)(middle));
  const todo =
    night && reachable
      ? `It gets there while nobody is here. At ${atWords(reachable.at, now, timeZone)} it will be about ${reachable.micron.toFixed(0)} µm${reachable.micron < GUMMY_MICRON + 1 ? ': too fine. Stop the stones or lift them before you leave' : ''}.`
      : null;
  return {
    tone: 'quiet',
    sentence: between === null ? `${hoursLeft} to ${targetMicron} µm.` : `${night ? 'At target' : 'Pull'} ${between}.`,
    because: [...because, `Eight in ten; now about ${micronBy(nowH).p50.toFixed(0)} µm, ${hoursLeft}.`],
    todo,
  };
}

const round = (hours: number): string => (hours < 3 ? hours.toFixed(1) : hours.toFixed(0));

/** `tomorrow between 07:10 and 09:40`; null where the far end is beyond what can be planned. */
function betweenWords({ p10, p90 }: Marks, now: number, zone: string): string | null {
  if (p10.at === null || p90.at === null) return null;
  const [first, second] = [p10.at, p90.at].map((at) => ({
    day: dayWords(at, now, zone),
    time: clockText(ten(at), zone).slice(11),
  }));
  if (!first || !second) return null;
  if (p10.at <= now) return `${second.day === 'today' ? '' : `${second.day} `}by ${second.time}`.trim();
  return first.day === second.day
    ? `${first.day} between ${first.time} and ${second.time}`
    : `between ${first.day} ${first.time} and ${second.day} ${second.time}`;
}
const ten = (at: number): number => Math.round(at / 600_000) * 600_000;

const DAYS = ['Sunday', 'Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday'];
const DAY_MS = 86_400_000;
function dayWords(at: number, now: number, zone: string): string {
  if (dayText(at, zone) === dayText(now, zone)) return 'today';
  if (dayText(at, zone) === dayText(now + DAY_MS, zone)) return 'tomorrow';
  const name = DAYS[new TZDate(at, zone).getDay()] ?? '';
  return at - now < 6 * DAY_MS ? `on ${name}` : `on ${dayText(at, zone)}`;
}
const atWords = (at: number, now: number, zone: string): string =>
  `${clockText(at, zone).slice(11)} ${dayWords(at, now, zone)}`;
