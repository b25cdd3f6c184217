import type { GuestView, PalateView, SeatView, SessionView, SheetView } from '@wunsch/core/api/taste';
import { DomainError } from '@wunsch/core/errors/domain-error';
import { seeded } from '@wunsch/core/stats/chance';
import { groupBy } from '@wunsch/core/stats/group';
import { judgePanel } from '@wunsch/core/taste/panel';
import type { PanelScore } from '@wunsch/core/taste/palates';
import { SCALES, type BlindSession } from '@wunsch/core/taste/records';
import { blindCodes, servings } from '@wunsch/core/taste/serving';
import type { Views } from '../ledger/views';
import { sheetsOf, vocabularyOf } from './sheets';
import { subjectView } from './subjects';

export interface KeptSession {
  id: string;
  at: number;
  personId: string;
  session: BlindSession;
  state: 'open' | 'closed' | 'opened';
  /** Who sits where. */
  seats: Map<number, string>;
}

/** Blind sessions, oldest first. */
export function sessionsOf(views: Views): Map<string, KeptSession> {
  const found = new Map<string, KeptSession>();
  for (const { id, at, personId, value } of views.workshop.records.of('taste')) {
    if (value.kind === 'session')
      found.set(id, { id, at, personId, session: value.session, state: 'open', seats: new Map() });
    else if (value.kind === 'session-state') {
      const session = found.get(value.sessionId);
      if (session) session.state = value.state;
    } else if (value.kind === 'seat') found.get(value.sessionId)?.seats.set(value.seat, value.taster);
  }
  return found;
}

export function sessionAt(views: Views, id: string): KeptSession {
  const found = sessionsOf(views).get(id);
  if (!found) throw new DomainError('http/not-found', 'There is no such session.');
  return found;
}

/** Codes of the bars and orders of the seats: always the same for one session. */
export function layOut({ bars, tasters, seed }: BlindSession): { codes: string[]; orders: number[][] } {
  const chance = seeded(seed);
  const orders = servings(bars.length, tasters, chance).map(({ order }) => order);
  return { codes: blindCodes(bars.length, chance), orders };
}

const sheetsIn = (views: Views, sessionId: string): SheetView[] =>
  sheetsOf(views).filter((sheet) => sheet.sessionId === sessionId);

/** The bar of a sheet, from its place in the session. */
const barOf = ({ session }: KeptSession, { subject }: SheetView): number =>
  session.bars.findIndex((bar) => bar.subject.of === subject.of && bar.subject.id === subject.id);

/** The last word of each taster on each bar; what they said before stays in the book. */
function lastWords(kept: KeptSession, sheets: readonly SheetView[]): SheetView[] {
  return [...groupBy(sheets, (sheet) => `${sheet.palate} ${barOf(kept, sheet)}`).values()].flatMap(
    (visits) => visits.at(-1) ?? [],
  );
}

/** Scores of a session as a panel: bars by their names. */
export const scoresOf = (views: Views, kept: KeptSession): PanelScore[] =>
  lastWords(kept, sheetsIn(views, kept.id)).flatMap((sheet) => {
    const bar = kept.session.bars[barOf(kept, sheet)];
    return bar && sheet.overall !== null
      ? [{ bar: bar.name, taster: sheet.palate, session: kept.id, place: sheet.place, score: sheet.overall }]
      : [];
  });

export function sessionView(views: Views, kept: KeptSession): SessionView {
  const { session } = kept;
  const { codes, orders } = layOut(session);
  const sheets = sheetsIn(views, kept.id);
  const last = lastWords(kept, sheets);
  const subjects = session.bars.flatMap(({ subject }) => {
    try {
      return [subjectView(views, subject)];
    } catch {
      return [];
    }
  });
  return {
    id: kept.id,
    at: kept.at,
    host: views.person(kept.personId),
    session,
    state: kept.state,
    codes,
    seats: orders.map((order, seat) => {
      const taster = kept.seats.get(seat) ?? '';
      const own = taster === '' ? [] : sheets.filter(({ palate }) => palate === taster);
      return { seat, taster, order, done: new Set(own.map((sheet) => barOf(kept, sheet))).size, sheets: own.length };
    }),
    allergens: [...new Set(subjects.flatMap(({ allergens }) => allergens))].sort(),
    cautions: [...new Set(subjects.flatMap(({ caution }) => caution ?? []))],
    result:
      kept.state === 'opened'
        ? {
            // How one tastes concerns nobody but oneself.
            verdict: { ...judgePanel(scoresOf(views, kept)), tasters: [] },
            words: codes.map((code, bar) => ({ code, words: commonWords(views, last, kept, bar) })),
            scales: codes.map((code, bar) => ({ code, means: meansOf(last.filter((s) => barOf(kept, s) === bar)) })),
          }
        : null,
  };
}

/** Words that more than one taster had, or the most of them. */
function commonWords(views: Views, last: readonly SheetView[], kept: KeptSession, bar: number): string[] {
  const vocabulary = vocabularyOf(views);
  const counts = new Map<string, number>();
  for (const sheet of last) {
    if (barOf(kept, sheet) !== bar) continue;
    for (const word of new Set([...sheet.smell, ...sheet.notes.map((n) => n.word)].map((w) => vocabulary.meaning(w))))
      counts.set(word, (counts.get(word) ?? 0) + 1);
  }
  return [...counts]
    .sort((a, b) => b[1] - a[1] || a[0].localeCompare(b[0]))
    .slice(0, 6)
    .map(([word, n]) => (n > 1 ? `${word} (${n})` : word));
}

function meansOf(sheets: readonly SheetView[]): Partial<Record<string, number>> {
  return Object.fromEntries(
    SCALES.flatMap((scale) => {
      const values = sheets.flatMap(({ scales }) => scales[scale] ?? []);
      return values.length === 0 ? [] : [[scale, values.reduce((sum, value) => sum + value, 0) / values.length]];
    }),
  );
}

/** What who tastes may know: no names, no scores. */
export function guestView(views: Views, kept: KeptSession): GuestView {
  const { session, state, id } = kept;
  return {
    id,
    workshop: views.workshop.settings.name,
    name: session.name,
    question: session.question,
    state,
    bars: session.bars.length,
    scales: session.scales,
    allergens: sessionView(views, { ...kept, state: 'open' }).allergens,
    words: vocabularyOf(views)
      .words([])
      .map(({ word }) => word),
  };
}

/** The next free seat, or the one that somebody of this name has already. @throws DomainError where all are taken */
export function seatFor(kept: KeptSession, taster: string): number {
  const own = [...kept.seats].find(([, name]) => name.toLowerCase() === taster.toLowerCase());
  if (own) return own[0];
  for (let seat = 0; seat < kept.session.tasters; seat += 1) if (!kept.seats.has(seat)) return seat;
  throw new DomainError('taste/full', `All ${kept.session.tasters} seats are taken.`, [
    { path: 'taster', message: 'finds no seat' },
  ]);
}

/** What is served at a seat; once it was opened, what each code was and how this palate did. */
export function seatView(views: Views, kept: KeptSession, seat: number): SeatView {
  const { codes, orders } = layOut(kept.session);
  const taster = kept.seats.get(seat);
  if (taster === undefined) throw new DomainError('http/not-found', 'Nobody sits there.');
  const opened = kept.state === 'opened';
  return {
    seat,
    taster,
    codes: (orders[seat] ?? []).map((bar) => codes[bar] ?? ''),
    names: opened ? (orders[seat] ?? []).map((bar) => kept.session.bars[bar]?.name ?? '') : null,
    palate: opened ? (judgePanel(scoresOf(views, kept)).tasters.find((row) => row.taster === taster) ?? null) : null,
  };
}

/** How one palate does over all sessions that were opened: shown to whom it concerns only. */
export function palateView(views: Views, personId: string): PalateView {
  const opened = [...sessionsOf(views).values()].filter(({ state }) => state === 'opened');
  const name = views.person(personId);
  const own = opened.filter((kept) => [...kept.seats.values()].includes(name));
  // Bars of one name in two sessions are not one bar.
  const scores = own.flatMap((kept) =>
    scoresOf(views, kept).map((row) => {
      const subject = kept.session.bars.find((bar) => bar.name === row.bar)?.subject;
      return { ...row, bar: subject?.id ?? row.bar };
    }),
  );
  return {
    palate: judgePanel(scores).tasters.find(({ taster }) => taster === name) ?? null,
    sessions: own.length,
  };
}
