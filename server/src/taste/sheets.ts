import type { Change, ComesUpView, SheetView, TastingView, VocabularyView } from '@wunsch/core/api/taste';
import { groupBy } from '@wunsch/core/stats/group';
import { SCALES, type TasteSheet } from '@wunsch/core/taste/records';
import { comesUp, Vocabulary, type Impression, type WordAct } from '@wunsch/core/taste/vocabulary';
import type { Views } from '../ledger/views';
import { batchFacts } from './facts';
import { groupsOf, subjectView } from './subjects';
import { celsiusTo, fixedTemperature, type TemperatureUnit } from '@wunsch/core/units/temperature';

const read = new WeakMap<Views, { of: string; sheets: SheetView[] }>();

/** All sheets, oldest first; read once for all who ask, until something is entered. */
export function sheetsOf(views: Views): SheetView[] {
  const { book, records } = views.workshop;
  const of = `${records.of('taste').length} ${book.state}`;
  const known = read.get(views);
  if (known?.of === of) return known.sheets;
  const sheets = readSheets(views);
  read.set(views, { of, sheets });
  return sheets;
}

function readSheets(views: Views): SheetView[] {
  const names = new Map<string, { name: string; code: string | null }>();
  return views.workshop.records.of('taste').flatMap(({ id, at, personId, value }) => {
    if (value.kind !== 'sheet') return [];
    const key = `${value.subject.of} ${value.subject.id}`;
    const known = names.get(key) ?? named(views, value);
    names.set(key, known);
    return [
      {
        ...value,
        id,
        at,
        palate: value.taster === '' ? views.person(personId) : value.taster,
        subjectName: known.name,
        subjectCode: known.code,
      },
    ];
  });
}

function named(views: Views, { subject }: TasteSheet): { name: string; code: string | null } {
  try {
    const { name, code } = subjectView(views, subject);
    return { name, code };
  } catch {
    // Taken back since: the impression stays.
    return { name: 'what is no longer in the book', code: null };
  }
}

/** Tastings that somebody made for themselves, the newest first: what moved when they went back is said. */
export function tastings(views: Views, most: number): TastingView[] {
  const own = sheetsOf(views).filter(({ sessionId }) => sessionId === null);
  return [...groupBy(own, ({ tastingId }) => tastingId)]
    .map(([tastingId, sheets]) => ({
      tastingId,
      at: sheets[0]?.at ?? 0,
      palate: sheets[0]?.palate ?? '',
      sheets,
      changes: changesOf(sheets),
    }))
    .reverse()
    .slice(0, most);
}

/** Figures of one thing that are not what they were at the visit before. */
function changesOf(sheets: readonly SheetView[]): Change[] {
  return [...groupBy(sheets, ({ subject }) => subject.id).values()].flatMap((visits) =>
    visits.slice(1).flatMap((now, i) => {
      const before = visits[i];
      if (!before) return [];
      const moved = (scale: string, from: number | null | undefined, to: number | null | undefined): Change[] =>
        from != null && to != null && from !== to ? [{ subjectName: now.subjectName, scale, from, to }] : [];
      return [
        ...moved('overall', before.overall, now.overall),
        ...SCALES.flatMap((scale) => moved(scale, before.scales[scale], now.scales[scale])),
      ];
    }),
  );
}

export function vocabularyOf(views: Views): Vocabulary {
  return new Vocabulary(
    views.workshop.records.of('taste').flatMap(({ value }): WordAct[] => {
      if (value.kind === 'word' || value.kind === 'join' || value.kind === 'part') return [value];
      return [];
    }),
  );
}

const wordsOf = ({ smell, notes }: TasteSheet): string[] => [...new Set([...smell, ...notes.map(({ word }) => word)])];

/** Impressions with what they are of: a bean, a roast, an age. */
function impressions(views: Views): (Impression & { kinds: Map<string, 'bean' | 'roast' | 'age'> })[] {
  const roasts = new Map<string, string | null>();
  const { book } = views.workshop;
  return sheetsOf(views).map((sheet) => {
    const rows: { group: string; kind: 'bean' | 'roast' | 'age' }[] = groupsOf(views, sheet.subject, sheet.at);
    const batchId = sheet.subject.of === 'holding' ? book.holdings.get(sheet.subject.id)?.batchId : null;
    if (batchId != null) {
      const roast =
        roasts.get(batchId) ??
        roastWord(batchFacts(views, batchId).peakC ?? null, views.workshop.settings.temperatureUnit);
      roasts.set(batchId, roast);
      if (roast !== null) rows.push({ group: roast, kind: 'roast' });
    }
    return {
      words: wordsOf(sheet),
      groups: rows.map(({ group }) => group),
      kinds: new Map(rows.map(({ group, kind }) => [group, kind])),
    };
  });
}

/** Beans at the end, in steps of five degrees. */
function roastWord(peakC: number | null, unit: TemperatureUnit): string | null {
  if (peakC === null) return null;
  const from = 5 * Math.floor(peakC / 5);
  return `roasted to ${celsiusTo(from, unit)} to ${fixedTemperature(from + 5, unit, 0)}`;
}

const KINDS = ['bean', 'roast', 'age'];

export function vocabularyView(views: Views): VocabularyView {
  const all = impressions(views);
  const groups = new Map<string, { group: string; kind: 'bean' | 'roast' | 'age'; impressions: number }>();
  for (const { kinds } of all)
    for (const [group, kind] of kinds)
      groups.set(group, { group, kind, impressions: (groups.get(group)?.impressions ?? 0) + 1 });
  return {
    words: vocabularyOf(views).words(all.flatMap(({ words }) => words)),
    groups: [...groups.values()].sort(
      (a, b) => KINDS.indexOf(a.kind) - KINDS.indexOf(b.kind) || b.impressions - a.impressions,
    ),
  };
}

export const comesUpView = (views: Views, group: string): ComesUpView => ({
  group,
  words: comesUp(impressions(views), group, vocabularyOf(views)),
});
