import type { Bloom, Seen } from '../ledger/types';
import type { Fault, TemperVerdict } from './judge';

export const SEEN_WORDS: Readonly<Record<Seen, string>> = {
  glossy: 'glossy',
  snaps: 'snaps',
  released: 'let go of its mould',
  dull: 'dull',
  streaks: 'streaks',
  spots: 'spots',
  veil: 'a grey veil',
  soft: 'soft',
  grainy: 'grainy',
  sticky: 'sticky',
  stuck: 'stuck in its mould',
};
const GOOD: readonly Seen[] = ['glossy', 'snaps', 'released'];
export const isFault = (seen: Seen): boolean => !GOOD.includes(seen);

/**
 * What a grey veil is: a drop of water takes sugar away and leaves a dry ring; the warmth of a finger takes fat away.
 *
 * @returns null where neither did
 */
export const bloomBy = (waterTakesIt: boolean, fingerTakesIt: boolean): Bloom | null =>
  fingerTakesIt ? 'fat' : waterTakesIt ? 'sugar' : null;

export interface Sight {
  /** Days since the bars were moulded. */
  days: number;
  seen: readonly Seen[];
  bloom: Bloom | null;
}

/** Presses so close to each other, hours, are one look at the bars. */
const ONE_LOOK_H = 12;

/** Looks at bars, from what was pressed one by one. @param pressed oldest first; `apart`: no look goes over a change of it */
export function looksOf<T extends Sight & { at: number; person: string; apart: number }>(pressed: readonly T[]): T[] {
  const looks: T[] = [];
  for (const row of pressed) {
    const last = looks.at(-1);
    const isSame =
      last !== undefined &&
      last.person === row.person &&
      last.apart === row.apart &&
      row.at - last.at < ONE_LOOK_H * 3_600_000;
    if (isSame)
      looks[looks.length - 1] = {
        ...last,
        seen: [...new Set([...last.seen, ...row.seen])],
        bloom: row.bloom ?? last.bloom,
      };
    else looks.push(row);
  }
  return looks;
}

/** Days after moulding at which bars are looked at again, and the day from which it is no use asking any more. */
const LOOKS = [
  { day: 1, untilDay: 4, words: 'a day' },
  { day: 7, untilDay: 13, words: 'a week' },
  { day: 30, untilDay: 45, words: 'a month' },
] as const;

/** Days after which nobody is asked to look again. */
export const LAST_LOOK_DAY = Math.max(...LOOKS.map(({ untilDay }) => untilDay));

/**
 * Which look at bars is due.
 *
 * @param ageDays since they were moulded; @param lookedAtDays of earlier looks
 * @returns null where none is
 */
export function lookDue(
  ageDays: number,
  lookedAtDays: readonly number[],
): { untilDay: number; words: (typeof LOOKS)[number]['words'] } | null {
  const stage = LOOKS.find(({ day, untilDay }) => ageDays >= day && ageDays < untilDay);
  return stage && !lookedAtDays.some((day) => day >= 0.75 * stage.day) ? stage : null;
}

export interface Cause {
  tone: 'good' | 'watch' | 'quiet';
  sentence: string;
  todo: string | null;
  /** The pour that it points to, where it is one. */
  pour: string | null;
}

/** Faults of a pour that each sight goes with. */
const GOES_WITH: Readonly<Record<Seen, readonly Fault['id'][]>> = {
  glossy: [],
  snaps: [],
  released: [],
  dull: ['worked-cold', 'too-cold', 'held-long', 'cold-mould', 'not-cooled', 'not-stirred', 'overheated'],
  streaks: ['not-cooled', 'not-stirred', 'overheated', 'warm-set'],
  spots: ['not-melted', 'not-cooled', 'not-stirred'],
  veil: ['not-cooled', 'overheated', 'not-melted', 'warm-set'],
  soft: ['not-cooled', 'overheated', 'warm-set'],
  grainy: ['not-melted', 'not-stirred', 'damp'],
  sticky: ['damp', 'overheated', 'not-cooled'],
  stuck: ['overheated', 'not-cooled', 'too-cold', 'warm-set'],
};
/** What shows only after so many days came later than the pour. */
const LATE_DAYS = 10;

/**
 * Why bars look as they do: the first fault of a pour that goes with what is seen; where their pours were without one,
 * what else it can be.
 *
 * @param pours judged, oldest first; @param sights oldest first
 */
export function whyIt(pours: readonly { code: string; verdict: TemperVerdict }[], sights: readonly Sight[]): Cause {
  const wrong = sights.filter(({ seen }) => seen.some(isFault));
  const last = wrong.at(-1);
  if (!last)
    return sights.length > 0
      ? { tone: 'good', sentence: 'Nothing wrong is seen of it.', todo: null, pour: null }
      : { tone: 'quiet', sentence: 'Nobody has said yet how it looks.', todo: null, pour: null };
  const words = last.seen.filter(isFault).map((seen) => SEEN_WORDS[seen]);
  const seenWords = words.join(', ');
  if (last.bloom === 'sugar')
    return {
      tone: 'watch',
      sentence: `Sugar bloom (${seenWords}): damp, not temper. A bar colder than the dew point of the room sweats.`,
      todo: 'Set and store it drier, and let cold bars come to the room in a closed box.',
      pour: null,
    };
  const ids = new Set(last.seen.flatMap((seen) => GOES_WITH[seen]));
  const found = pours.flatMap(({ code, verdict }) =>
    [verdict.first, ...verdict.others].flatMap((fault) => (fault && ids.has(fault.id) ? [{ code, fault }] : [])),
  );
  const [best] = found;
  if (best)
    return {
      tone: 'watch',
      sentence: `${seenWords[0]?.toUpperCase() ?? ''}${seenWords.slice(1)}: ${best.code}. ${best.fault.sentence}`,
      todo: best.fault.todo,
      pour: best.code,
    };
  const first = sights.find(({ seen }) => seen.some(isFault));
  const late =
    sights.some(({ days, seen }) => days < LATE_DAYS && !seen.some(isFault)) && (first?.days ?? 0) >= LATE_DAYS;
  return {
    tone: 'watch',
    sentence: late
      ? `It was right at first, and ${seenWords} after ${last.days.toFixed(0)} days: warm or swinging storage, or oil that moves out of nuts and fillings.`
      : `${seenWords[0]?.toUpperCase() ?? ''}${seenWords.slice(1)}, and no pour of it shows why: a drop of water, a cold or unclean mould, or a probe that is off.`,
    todo: late
      ? 'Store it at 16 to 18 °C, dark and dry; look at the boxes that stand elsewhere.'
      : 'Try the probe in ice water and in warm water against another one; log the next pour.',
    pour: null,
  };
}
