import { Follower } from '@wunsch/core/ledger/follower';
import type { SearchHit } from '@wunsch/core/api/types';
import { notedIn } from '@wunsch/core/ledger/noted';
import type { Mark } from '@wunsch/core/workshop/mark';
import type { Holding } from '@wunsch/core/ledger/types';
import { STATION_NAMES } from '@wunsch/core/work/stations';
import { lossWatch } from '../losses/series';
import { eachAhead, type Ahead } from '../ledger/ahead';
import type { Views } from '../ledger/views';

const HITS = 14;
/** Letters around a word that was found in a note. */
const AROUND = 60;

type Ranked = SearchHit & { rank: number };

/** Codes and names first; then what goods are marked with, and what was noted about them. */
export function search(views: Views, q: string): SearchHit[] {
  const words = q.trim().toLowerCase();
  if (words === '') return [];
  const hits = [...byName(views, words), ...byRecipe(views, words)];
  // A code is looked for by its beginning: who types two letters means no word in a note.
  if (words.length > 2) hits.push(...byMark(views, words), ...byNote(views, words), ...byWatch(views, words));
  const best = new Map<string, Ranked>();
  for (const hit of hits) if ((best.get(hit.link)?.rank ?? Infinity) > hit.rank) best.set(hit.link, hit);
  return [...best.values()]
    .sort((a, b) => a.rank - b.rank || b.code.localeCompare(a.code))
    .slice(0, HITS)
    .map(({ rank: _, ...hit }) => hit);
}

function hitOf(views: Views, { id, code, name, kind: what }: Holding, detail: string | null, rank: number): Ranked {
  const { batches, lots } = views.workshop;
  const kind = batches.has(id) ? 'batch' : lots.has(id) ? 'lot' : 'holding';
  const path = kind === 'holding' ? 'tub' : kind;
  return { rank, kind, code, name, detail: detail ?? (kind === 'holding' ? what : kind), link: `/${path}/${code}` };
}

function* byName(views: Views, words: string): Generator<Ranked> {
  const { book, batches, lots } = views.workshop;
  const hit = (holding: Holding, rank: number): Ranked => {
    const { id } = holding;
    return hitOf(views, holding, null, rank * 4 + (batches.has(id) ? 0 : lots.has(id) ? 1 : book.live.has(id) ? 2 : 3));
  };
  for (const holding of book.holdings.startingWith(words))
    yield hit(holding, holding.code.toLowerCase() === words ? 0 : 1);
  for (const id of new Set([...batches.keys(), ...lots.keys(), ...book.live])) {
    const holding = book.holdings.get(id);
    if (holding?.name.toLowerCase().includes(words)) yield hit(holding, 2);
  }
}

function* byRecipe(views: Views, words: string): Generator<Ranked> {
  for (const { id, versions, shelved } of views.workshop.recipes.all()) {
    const recipe = versions.at(-1)?.recipe;
    if (!recipe?.name.toLowerCase().includes(words)) continue;
    const detail = `version ${versions.length}${shelved ? ', put aside' : ''}`;
    yield { rank: 9, kind: 'page', code: 'Recipe', name: recipe.name, detail, link: `/recipe/${id}` };
  }
}

const MARKED = 12;
const NOTED = 16;

/** What can be found by its marks. */
const markable = ({ workshop: { batches, lots, book } }: Views): string[] => [
  ...batches.keys(),
  ...lots.keys(),
  ...book.live,
];

export const marksAhead = (views: Views): Ahead =>
  eachAhead(
    () => markable(views),
    4,
    (id) => marksOf(views, id),
  );

const marksOf = (views: Views, id: string): readonly Mark[] =>
  views.workshop.batches.has(id) ? views.batchMarks(id) : views.marks(id);

function* byMark(views: Views, words: string): Generator<Ranked> {
  const { book, batches } = views.workshop;
  for (const id of markable(views)) {
    const mark = marksOf(views, id).find(
      ({ label, why }) => label.includes(words) || why.toLowerCase().includes(words),
    );
    if (mark) yield hitOf(views, book.holding(id), `${mark.label}: ${mark.why}`, MARKED + (batches.has(id) ? 0 : 1));
  }
}

/** The part of a text around a word. */
function around(text: string, words: string): string {
  const at = text.toLowerCase().indexOf(words);
  const from = Math.max(0, at - AROUND / 2);
  return `${from > 0 ? '… ' : ''}${text.slice(from, at + words.length + AROUND / 2)}${at + words.length + AROUND / 2 < text.length ? ' …' : ''}`;
}

interface Noted {
  /** Where the step is in the order of the work. */
  place: number;
  /** What was noted, in small letters. */
  lower: string;
}

/** Steps at which something was noted, in the order of the work, kept up to date with the book. */
class Notes {
  private readonly noted: Noted[] = [];
  /** How many of them are settled. */
  private settled = 0;
  /** Can be caught up ahead of the first question. */
  readonly follower: Follower;

  constructor({ workshop }: Views) {
    this.follower = new Follower({
      book: () => workshop.book,
      begin: () => this.goBack(0),
      take: (step, _book, place) => {
        const text = notedIn(step);
        if (text !== '') this.noted.push({ place, lower: text.toLowerCase() });
      },
      layers: {
        settle: () => (this.settled = this.noted.length),
        back: () => this.goBack(this.settled),
      },
    });
  }

  private goBack(count: number): void {
    this.noted.length = count;
  }

  get rows(): readonly Noted[] {
    this.follower.catchUp();
    return this.noted;
  }
}

const notes = new WeakMap<Views, Notes>();

export function notesOf(views: Views): Notes {
  const known = notes.get(views) ?? new Notes(views);
  notes.set(views, known);
  return known;
}

function* byNote(views: Views, words: string): Generator<Ranked> {
  const { book, lots, beans, batches } = views.workshop;
  const { rows } = notesOf(views);
  let found = 0;
  for (let i = rows.length - 1; i >= 0 && found < HITS; i -= 1) {
    const { place, lower } = rows[i] as Noted;
    const step = lower.includes(words) ? book.timeline.at(place) : undefined;
    if (!step) continue;
    found += 1;
    const text = notedIn(step);
    const about = batches.get(step.batchId ?? '')?.code ?? book.holdings.get(step.slots['good'] ?? '')?.code ?? '';
    const station = STATION_NAMES[step.station];
    yield {
      rank: NOTED,
      kind: 'step',
      code: about,
      name: around(text, words),
      detail: station,
      link: `/step/${step.id}`,
    };
  }
  for (const lotId of lots.keys()) {
    const facts = lots.get(lotId);
    const texts = [facts?.note ?? '', ...beans.of(lotId).flatMap(({ value }) => wordsOf(value))];
    const text = texts.find((row) => row.toLowerCase().includes(words));
    if (text !== undefined) yield hitOf(views, book.holding(lotId), around(text, words), NOTED);
  }
}

/** Every text in a record, whatever it is about. */
function wordsOf(value: unknown): string[] {
  if (typeof value === 'string') return [value];
  if (Array.isArray(value)) return value.flatMap(wordsOf);
  if (value !== null && typeof value === 'object') return Object.values(value).flatMap(wordsOf);
  return [];
}

/** Machines that have left their level: drift, and where. */
function* byWatch(views: Views, words: string): Generator<Ranked> {
  for (const { station, metric, sentence } of lossWatch(views)) {
    const text = `drift ${STATION_NAMES[station]} ${sentence}`.toLowerCase();
    if (!text.includes(words)) continue;
    const link = `/losses?station=${station}&metric=${metric}`;
    yield { rank: MARKED, kind: 'page', code: STATION_NAMES[station], name: sentence, detail: 'drift', link };
  }
}
