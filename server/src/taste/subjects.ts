import type { SubjectView } from '@wunsch/core/api/taste';
import { DomainError } from '@wunsch/core/errors/domain-error';
import type { HoldingKind } from '@wunsch/core/ledger/types';
import type { OutsideBar, TasteSubject } from '@wunsch/core/taste/records';
import type { Views } from '../ledger/views';

/** What of the book is eaten, with its word and what has to be known before. */
const EATEN: Partial<Record<HoldingKind, string>> = {
  packed: 'packed bars',
  bars: 'bars',
  seconds: 'seconds',
  tempered: 'in temper',
  block: 'untempered block',
  mass: 'in the bowl',
  nibs: 'nibs',
  roasted: 'roasted beans',
  lot: 'beans',
};
const NO_KILL = 'Raw beans can carry pathogens: roast a handful first, or make them fit to eat another way.';

export const outsideBars = (views: Views): { id: string; at: number; personId: string; bar: OutsideBar }[] =>
  views.workshop.records
    .of('taste')
    .flatMap(({ id, at, personId, value }) => (value.kind === 'outside' ? [{ id, at, personId, bar: value.bar }] : []));

/** What is tasted, in words. @throws DomainError where it is not known, or nothing that is eaten */
export function subjectView(views: Views, subject: TasteSubject): SubjectView {
  const { book, batches } = views.workshop;
  if (subject.of === 'outside') {
    const found = outsideBars(views).find(({ id }) => id === subject.id);
    if (!found)
      throw new DomainError('http/not-found', 'There is no such bar.', [
        { path: 'subject.id', message: 'is not known' },
      ]);
    return {
      subject,
      code: null,
      name: `${found.bar.maker}, ${found.bar.bar}`,
      what: 'bar of another maker',
      batchCode: null,
      allergens: [],
      caution: 'What is in it says its wrapper: read the allergens there.',
      pieces: 0,
      earlier: [],
    };
  }
  const holding = book.holdings.get(subject.id);
  const what = holding && EATEN[holding.kind];
  if (!holding || what === undefined)
    throw new DomainError('taste/subject', 'That is nothing that is tasted.', [
      { path: 'subject.id', message: 'is nothing that is tasted' },
    ]);
  const raw = holding.kind === 'lot' && views.workshop.lots.get(holding.id)?.roasted !== true ? NO_KILL : null;
  const wet = holding.kind === 'mass' ? 'Stop the stones before anything goes near them; taste from a spoon.' : null;
  return {
    subject,
    code: holding.code,
    name: holding.name,
    what: views.workshop.lots.get(holding.id)?.form === 'nibs' ? 'nibs' : what,
    batchCode: holding.batchId === null ? null : (batches.get(holding.batchId)?.code ?? null),
    allergens: views.cocoa(holding.id).allergens,
    caution: raw ?? wet,
    pieces: book.balance(holding.id).pieces,
    earlier: [],
  };
}

/** What is tasted most comes first. */
const ORDER = Object.keys(EATEN);

/** What is here to be tasted, bars before all else, then the newest, by part of a code or name. */
export function findSubjects(views: Views, text: string, most: number): SubjectView[] {
  const { book } = views.workshop;
  const wanted = text.trim().toLowerCase();
  const rows = book.standing.flatMap(({ id, kind, code, name }) => {
    if (EATEN[kind] === undefined) return [];
    if (wanted !== '' && !`${code} ${name}`.toLowerCase().includes(wanted)) return [];
    return [{ id, rank: ORDER.indexOf(kind), at: book.firstEntry(id)?.at ?? 0 }];
  });
  // What is used up is still found by its whole code: nibs of a test roast, the last bar.
  const exact = wanted === '' ? undefined : book.byCode(text.trim().toUpperCase());
  if (exact && EATEN[exact.kind] !== undefined && !rows.some(({ id }) => id === exact.id))
    rows.push({ id: exact.id, rank: -1, at: 0 });
  const own = rows.sort((a, b) => a.rank - b.rank || b.at - a.at).slice(0, most);
  const outside = outsideBars(views)
    .filter(({ bar }) => `${bar.maker} ${bar.bar} ${bar.origin}`.toLowerCase().includes(wanted))
    .reverse()
    .slice(0, most);
  return [
    ...own.map(({ id }) => subjectView(views, { of: 'holding', id })),
    ...outside.map(({ id }) => subjectView(views, { of: 'outside', id })),
  ];
}

/** Beans, roast and age of what was tasted: what words are asked of. */
export function groupsOf(
  views: Views,
  subject: TasteSubject,
  at: number,
): { group: string; kind: 'bean' | 'roast' | 'age' }[] {
  if (subject.of === 'outside') return [{ group: 'other makers', kind: 'bean' }];
  const { book } = views.workshop;
  if (!book.holdings.has(subject.id)) return [];
  const weeks = Math.floor((at - (book.firstEntry(subject.id)?.at ?? at)) / (7 * 86_400_000));
  const age = weeks < 2 ? 'under two weeks' : weeks < 9 ? 'two weeks to two months' : 'over two months';
  const family = views.family(subject.id);
  return [...(family === '' ? [] : [{ group: family, kind: 'bean' as const }]), { group: age, kind: 'age' }];
}
