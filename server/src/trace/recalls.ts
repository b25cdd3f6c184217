import type {
  ComplaintView,
  RecallRow,
  RecallView,
  SharedGroupView,
  SharedView,
  SharingView,
} from '@wunsch/core/api/recall';
import { DomainError } from '@wunsch/core/errors/domain-error';
import type { RoomRecord } from '@wunsch/core/records';
import { recallOf } from '@wunsch/core/trace/recall';
import type { TraceRecordValue } from '@wunsch/core/trace/records';
import { goodsHaving, sharedBy, type SharedGroup, type SharedOptions } from '@wunsch/core/trace/shared';
import { THINGS } from '@wunsch/core/stations';
import type { SharedThing } from '@wunsch/core/workshop/things';
import { dayText, instantOf } from '@wunsch/core/units/zone';
import type { Views } from '../ledger/views';
import { thingView } from './things';
import { fileView } from '../journal/files';
import { blocksOf } from '@wunsch/core/trace/blocks';

type Of<K extends TraceRecordValue['kind']> = RoomRecord<'trace'> & { value: Extract<TraceRecordValue, { kind: K }> };

/** Groups that anybody reads. */
const MOST_GROUPS = 12;
const MOST_GOODS = 400;
const DAY_MS = 86_400_000;

function sharedHere(views: Views): SharedOptions {
  const { timeZone } = views.workshop.settings;
  return {
    things: THINGS,
    dayOf: (at) => dayText(at, timeZone),
    dayRange: (day) => {
      const next = dayText(Date.parse(`${day}T12:00:00Z`) + DAY_MS, 'UTC');
      return [instantOf(`${day}T00:00`, timeZone) ?? 0, instantOf(`${next}T00:00`, timeZone) ?? 0];
    },
  };
}

export function ofKind<K extends TraceRecordValue['kind']>(views: Views, kind: K): Of<K>[] {
  return views.workshop.records.of('trace').filter((row): row is Of<K> => row.value.kind === kind);
}

/** A holding by the code on it. @throws DomainError `trace/unknown-code` at its field */
export function byCode(views: Views, code: string, path = 'code') {
  const holding = views.workshop.book.byCode(code.trim().toUpperCase());
  if (!holding)
    throw new DomainError('trace/unknown-code', `Nothing here carries the code ${code}.`, [
      { path, message: 'is not known here' },
    ]);
  return holding;
}

/** Complaints, the newest first. */
export function complaintViews(views: Views): ComplaintView[] {
  const { book, batches, beans } = views.workshop;
  const answers = new Map(ofKind(views, 'complaint-answered').map(({ value }) => [value.complaintId, value.word]));
  return ofKind(views, 'complaint')
    .map(({ value, at, personId }): ComplaintView => {
      const { code, name, batchId } = book.holding(value.holdingId);
      return {
        id: value.complaintId,
        at,
        person: views.person(personId),
        code,
        name,
        batchCode: batches.get(batchId ?? '')?.code ?? null,
        what: value.what,
        from: value.from,
        pieces: value.pieces,
        note: value.note,
        photos: beans.picturesOf(`complaint:${value.complaintId}`).map((file) => fileView(views, file)),
        answer: answers.get(value.complaintId) ?? null,
      };
    })
    .reverse();
}

function groupView(views: Views, { things, having, of, pieces, share, chance }: SharedGroup): SharedGroupView {
  const all = having === of;
  const percent = share < 0.1 ? (100 * share).toFixed(1) : Math.round(100 * share).toFixed(0);
  return {
    things: things.map((thing) => thingView(views, thing)),
    having,
    of,
    pieces,
    share,
    chance,
    sentence: `${all ? (of === 1 ? 'It has it' : `All ${of} have it`) : `${having} of ${of} have it`}; of all bars ${percent} % do.${of > 1 && chance >= 0.01 ? ` ${Math.round(100 * chance)} in 100 that it is this, if it is one of these.` : ''}`,
  };
}

/** What goods with these codes have in common, the likeliest cause first. */
export function sharedView(views: Views, codes: readonly string[]): SharedView {
  const holdings = codes.map((code, index) => byCode(views, code, `codes.${index}`));
  const groups = sharedBy(
    views.workshop.book,
    holdings.map(({ id }) => id),
    sharedHere(views),
  );
  return {
    codes: holdings.map(({ code }) => code),
    groups: groups.slice(0, MOST_GROUPS).map((group) => groupView(views, group)),
  };
}

/** Everything else that shares a thing. */
export function sharingView(views: Views, thing: SharedThing): SharingView {
  const { book } = views.workshop;
  const { words } = thingView(views, thing);
  const ids = goodsHaving(book, thing, sharedHere(views));
  return {
    words,
    goods: ids.slice(-MOST_GOODS).map((id) => {
      const { code, name, kind } = book.holding(id);
      let [made, sold] = [0, 0];
      for (const entry of book.entriesOf(id)) {
        if (entry.kind === 'sell' || entry.kind === 'return') sold -= entry.pieces;
        else if (entry.pieces > 0) made += entry.pieces;
      }
      return { code, name, kind, pieces: made, here: book.balance(id).pieces, sold };
    }),
  };
}

function recallRow(views: Views, { value, at, personId }: Of<'recall'>): RecallRow {
  const end = ofKind(views, 'recall-ended').find((row) => row.value.recallId === value.recallId);
  return {
    id: value.recallId,
    at,
    person: views.person(personId),
    why: value.why,
    mock: value.mock,
    codes: value.subjects.map((id) => views.workshop.book.holding(id).code),
    endedAt: end?.at ?? null,
  };
}

/** Recalls, the newest first. */
export const recallRows = (views: Views): RecallRow[] =>
  ofKind(views, 'recall')
    .map((record) => recallRow(views, record))
    .reverse();

/** @throws DomainError where there is none of that id */
export function recallRecord(views: Views, recallId: string): Of<'recall'> {
  const record = ofKind(views, 'recall').find(({ value }) => value.recallId === recallId);
  if (!record) throw new DomainError('http/not-found', 'There is no such recall.');
  return record;
}

/** A recall with where everything is now. */
export function recallView(views: Views, recallId: string): RecallView {
  const { book, records } = views.workshop;
  const record = recallRecord(views, recallId);
  const found = recallOf(book, record.value.subjects);
  const blocked = blocksOf(records);
  const buyers = new Map<string, RecallView['buyers'][number]>();
  for (const { to, pieces, massMg, holdingId } of found.sold) {
    const row = buyers.get(to) ?? { to, pieces: 0, massMg: 0, codes: [] };
    const { code } = book.holding(holdingId);
    row.pieces += pieces;
    row.massMg += massMg;
    if (!row.codes.includes(code)) row.codes.push(code);
    buyers.set(to, row);
  }
  return {
    ...recallRow(views, record),
    endWord: ofKind(views, 'recall-ended').find((row) => row.value.recallId === recallId)?.value.word ?? '',
    here: found.here.map(({ holdingId, pieces, massMg, share }) => {
      const { code, name, kind, place } = book.holding(holdingId);
      return { code, name, kind, place, pieces, massMg, share, blocked: blocked.has(holdingId) };
    }),
    sold: found.sold.map(({ holdingId, to, at, pieces, massMg }) => ({
      code: book.holding(holdingId).code,
      to,
      at,
      pieces,
      massMg,
    })),
    lost: found.lost,
    hereMg: found.hereMg,
    soldMg: found.soldMg,
    lostMg: found.lostMg,
    foundShare: found.foundShare,
    affected: found.affected.flatMap((id) => {
      const { code, kind } = book.holding(id);
      return kind === 'packed' || kind === 'bars' || kind === 'seconds' ? [code] : [];
    }),
    buyers: [...buyers.values()].sort((a, b) => b.pieces - a.pieces || b.massMg - a.massMg || a.to.localeCompare(b.to)),
  };
}
