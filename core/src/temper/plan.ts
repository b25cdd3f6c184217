import { duesOf, type Act, type Cause, type Way } from '../run/acts';
import { crossedAt } from '../run/readings';
import { BOWL } from './channels';
import { formatDegrees, formatTemperature, type TemperatureUnit } from '../units/temperature';
import type { PourAct, School } from '../work/tempering';
import type { TemperReading } from './judge';
import { seed, silk, slab } from './sums';
import type { Windows } from './windows';

/** What a plan goes by. */
export interface PourBowl {
  massG: number;
  windows: Windows;
  /** Share of the mass that is fat, and of the fat that is soft, 0 to 1. */
  fatShare: number;
  softShare: number;
  roomC: number;
  /** The bowl's own heat, J/K; 0 where it weighs nothing beside the mass. */
  bowlJperK?: number;
}

/** °C at which a bowl is kept while a part of it is worked on the slab, and over which seed goes in. */
const KEPT_C = 40;
const SEED_FROM_C = 34;
/** Minutes that the slab takes, and in which a bowl in a room comes two thirds of the way to it. */
const SLAB_MIN = 8;
const BOWL_TAU_MIN = 45;
const MELTS = 0.7;

/**
 * The acts of a pour by a school, with their grams and temperatures for this bowl.
 *
 * @throws DomainError `temper/impossible` where the heat balance has no answer
 */
export function planPour(
  school: School,
  { massG, windows, fatShare, softShare, roomC, bowlJperK = 0 }: PourBowl,
): PourAct[] {
  const { melt, cool, work } = windows;
  const workC = round((work.from + work.to) / 2);
  const lowC = round((cool.from + cool.to) / 2);
  const acts: Omit<PourAct, 'id' | 'doneS'>[] = [];
  const act = (what: string, rest: Partial<Omit<PourAct, 'id' | 'what' | 'doneS'>> = {}): void => {
    acts.push({ what, way: null, tempC: null, minutes: null, grams: null, ...rest });
  };
  if (school === 'none') {
    act('Melt it', { way: 'up', tempC: melt.from });
    act('Fill it: it will bloom, and that is said to who buys it');
    return numbered(acts);
  }
  act('Melt it out, stirring', { way: 'up', tempC: melt.from, minutes: 10 });
  switch (school) {
    case 'slab': {
      const keptC = Math.max(KEPT_C, work.to + 4);
      // What stays in the bowl loses heat to the room for as long as the rest is worked.
      const laterC = roomC + (keptC - roomC) * Math.exp(-SLAB_MIN / BOWL_TAU_MIN);
      const { warmG, spreadG } = slab(massG, laterC, cool.from, workC, { heatJperK: bowlJperK, tempC: laterC });
      act('Let it come down in the bowl', { way: 'down', tempC: keptC });
      act('Keep in the covered bowl', { grams: round(warmG) });
      act('Spread on the slab and work it', { way: 'down', tempC: cool.from, grams: round(spreadG) });
      act('Scrape it back and stir: together', { way: 'up', tempC: work.from });
      break;
    }
    case 'seed': {
      const { thirdsG } = seed(massG, SEED_FROM_C, workC, roomC, fatShare, MELTS);
      act('Let it come down, stirring', { way: 'down', tempC: SEED_FROM_C });
      thirdsG.forEach((grams, index) =>
        act(`Seed in, ${['first', 'second', 'last'][index] ?? ''} third, stirred until it is gone`, { grams }),
      );
      act('Stir it down to the work; fish out what is left', { way: 'down', tempC: work.to });
      break;
    }
    case 'silk': {
      const { silkG, atC } = silk(massG, softShare);
      act('Let it come down, stirring', { way: 'down', tempC: atC });
      act('Silk in, stirred until it is gone', { grams: round(silkG) });
      act('Stir it down to the work', { way: 'down', tempC: work.to });
      break;
    }
    case 'bath':
      act('Over cold water, scraping the sides', { way: 'down', tempC: cool.to });
      act('Off the water, stirred at the low point', { way: 'down', tempC: cool.to, minutes: 4 });
      act('Over warm water, gently', { way: 'up', tempC: work.from });
      break;
    case 'bag':
      act('Bags into cold water, kneaded all the time', { way: 'down', tempC: cool.to, minutes: 5 });
      act(`Bags into water of the work, kneaded`, { way: 'up', tempC: work.from, minutes: 5 });
      break;
    case 'machine':
      act('Machine cools', { way: 'down', tempC: lowC, minutes: 3 });
      act('Machine warms to the work', { way: 'up', tempC: work.from });
      break;
  }
  act('Temper test: set and glossy within five minutes', { minutes: null });
  act('Fill the moulds, within the window', { tempC: null });
  return numbered(acts);
}

const numbered = (acts: readonly Omit<PourAct, 'id' | 'doneS'>[]): PourAct[] =>
  acts.map((act, index) => ({ ...act, id: `a${index + 1}`, doneS: null }));
const round = (value: number): number => Math.round(10 * value) / 10;

/** How far an act has come. */
export interface ActState {
  state: 'done' | 'now' | 'to come';
  /** When it ended, seconds into the pour. */
  endedS: number | null;
  /** °C that are still missing, and minutes of its time. */
  missingC: number | null;
  leftMin: number | null;
}

/** A probe is off by so much, °C: that close it counts as there. */
const NEAR_C = 0.3;

/**
 * How far each act has come: one after the other, each from where the one before ended. An act ends at its temperature
 * and after its minutes there, or when somebody says so; one without either waits for that.
 *
 * @param nowS seconds into the pour
 */
export function walkActs(acts: readonly PourAct[], readings: readonly TemperReading[], nowS: number): ActState[] {
  const [seconds, bowlC] = [readings.map(({ second }) => second), readings.map(({ tempC }) => tempC)];
  const reached = (way: Way, line: number, since: number): number | null =>
    crossedAt(seconds, bowlC, way, line, { since, near: NEAR_C });
  const dues = duesOf(
    acts.map((act, index) => runAct(act, acts[index - 1]?.id)),
    {
      now: nowS,
      crossed: (_, way, line, since) => {
        const at = reached(way, line, since);
        return at === null ? null : { at, seen: true };
      },
    },
  );
  let isOpen = false;
  let sinceS = 0;
  return acts.map((act): ActState => {
    const due = dues.get(act.id)?.at ?? null;
    const endedS = act.doneS ?? (isOpen || due === null || due > nowS ? null : due);
    if (endedS !== null) {
      if (!isOpen) sinceS = endedS;
      return { state: 'done', endedS, missingC: null, leftMin: null };
    }
    if (isOpen) return { state: 'to come', endedS, missingC: null, leftMin: null };
    isOpen = true;
    const last = readings.findLast(({ second }) => second >= sinceS) ?? readings.at(-1);
    const isThere = act.way === null || act.tempC === null || reached(act.way, act.tempC, sinceS) !== null;
    return {
      state: 'now',
      endedS: null,
      missingC: !isThere && act.tempC !== null && last ? Math.max(0, Math.abs(act.tempC - last.tempC)) : null,
      leftMin: due === null || act.minutes === null ? null : Math.max(0, (due - nowS) / 60),
    };
  });
}

/** An act of a pour as that of a run, in seconds. @param after the act before it */
function runAct({ id, way, tempC, minutes, doneS }: PourAct, after: string | undefined): Act {
  const then = 60 * (minutes ?? 0);
  const causes: Cause[] =
    way !== null && tempC !== null
      ? [{ by: 'reading', channel: BOWL, way, line: tempC, then, ...(after === undefined ? {} : { after }) }]
      : tempC === null && minutes === null
        ? // Over when somebody says so.
          []
        : after === undefined
          ? [{ by: 'clock', at: then }]
          : [{ by: 'act', actId: after, then }];
  return { id, causes, doneAt: doneS, endsItself: true };
}

/** What is to be done now, in a sentence, with what is still missing. @returns null when every act is done */
export function actNow(
  acts: readonly PourAct[],
  states: readonly ActState[],
  unit: TemperatureUnit,
): { act: PourAct; sentence: string; missing: string | null } | null {
  const at = states.findIndex(({ state }) => state === 'now');
  const [act, state] = [acts[at], states[at]];
  if (!act || !state) return null;
  const goal =
    act.tempC === null
      ? ''
      : `, ${act.way === 'up' ? 'up' : 'down'} to ${formatTemperature(act.tempC, unit)}${act.minutes === null ? '' : `, ${act.minutes} min there`}`;
  const missing =
    state.missingC !== null
      ? `${formatDegrees(state.missingC, unit)} to go, keep it moving.`
      : state.leftMin !== null
        ? `${Math.max(1, Math.ceil(state.leftMin))} min to go there, keep it moving.`
        : null;
  return { act, sentence: `${act.what}${goal}.`, missing };
}
