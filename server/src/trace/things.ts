import type { SharedThingView } from '@wunsch/core/api/recall';
import { DomainError } from '@wunsch/core/errors/domain-error';
import { THINGS } from '@wunsch/core/stations';
import { SHARED_ANYWHERE } from '@wunsch/core/trace/shared';
import { dayIn, dayText } from '@wunsch/core/units/zone';
import { STATION_NAMES } from '@wunsch/core/work/stations';
import type { SharedThing } from '@wunsch/core/workshop/things';
import { AREAS } from '../areas';
import type { ThingWordsOf } from '../ledger/thing-words';
import type { Views } from '../ledger/views';

const placeWords = (place: string): string =>
  (STATION_NAMES as Readonly<Record<string, string | undefined>>)[place] ?? place;

/** How what lies in nobody's room is called. */
const ANYWHERE: Record<(typeof SHARED_ANYWHERE)[number], ThingWordsOf> = {
  machine: ({ workshop }, id) => ({ words: workshop.machines.get(id)?.name ?? 'a machine', link: null }),
  person: (views, id) => {
    const [station = '', personId = ''] = id.split(' ');
    return { words: `${views.person(personId)} at ${placeWords(station)}`, link: null };
  },
  day: (_, id) => {
    const [station = '', day = ''] = id.split(' ');
    const noon = Date.parse(`${day}T12:00:00Z`);
    if (Number.isNaN(noon) || dayText(noon, 'UTC') !== day)
      throw new DomainError('http/not-found', 'There is no such day.');
    return { words: `${placeWords(station)} on ${dayIn('UTC')(noon)}`, link: null };
  },
};

const WORDS: ReadonlyMap<string, ThingWordsOf> = new Map([
  ...Object.entries(ANYWHERE),
  ...Object.values(AREAS).flatMap((area) => Object.entries(area?.things ?? {})),
]);

/** Kinds of what goods can have in common. */
export const SHARED_KINDS = [...[...THINGS.values()].flatMap(({ kinds }) => kinds), ...SHARED_ANYWHERE];

/** A thing in words, and where it is looked at. @throws DomainError where there can be none of that id */
export const thingView = (views: Views, { kind, id }: SharedThing): SharedThingView => ({
  kind,
  id,
  ...(WORDS.get(kind)?.(views, id) ?? { words: id, link: null }),
});
