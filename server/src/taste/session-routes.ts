import QRCode from 'qrcode';
import { z } from 'zod/mini';
import { DomainError } from '@wunsch/core/errors/domain-error';
import { id } from '@wunsch/core/fields/fields';
import { blindSession, sheet } from '@wunsch/core/taste/records';
import { away } from '../heavy/away';
import { param } from '../http/param';
import type { Router } from '../http/router';
import type { Views } from '../ledger/views';
import { guestView, layOut, palateView, seatFor, seatView, sessionAt, sessionsOf, sessionView } from './sessions';
import { subjectView } from './subjects';

const guestSheet = z.extend(
  z.omit(sheet, {
    kind: true,
    sessionId: true,
    tastingId: true,
    subject: true,
    taster: true,
    place: true,
    visit: true,
  }),
  { code: z.string().check(z.regex(/^\d{3}$/, 'is three digits')) },
);

/** Blind sessions: planned, served in codes, tasted on any phone, closed, then opened. */
export function sessionRoutes(router: Router, views: Views): void {
  const { workshop } = router;
  router.read('/api/taste/sessions', 'Blind sessions, the newest first', () => ({
    sessions: [...sessionsOf(views).values()].reverse().map((kept) => sessionView(views, kept)),
  }));
  router.write(
    'POST',
    '/api/taste/sessions',
    'Plan a blind session',
    z.object({ personId: id, session: blindSession }),
    ({ personId, session }) => {
      session.bars.forEach(({ subject }, index) => {
        try {
          subjectView(views, subject);
        } catch (error) {
          if (!(error instanceof DomainError)) throw error;
          throw new DomainError(error.code, error.message, [{ path: `session.bars.${index}`, message: 'is not here' }]);
        }
      });
      const names = session.bars.map(({ name }) => name.toLowerCase());
      if (new Set(names).size < names.length)
        throw new DomainError('taste/one-name', 'Two of the bars have one name: tell them apart.', [
          { path: 'session.bars', message: 'have one name twice' },
        ]);
      return { id: workshop.addRecord('taste', { kind: 'session', session }, { personId }).id };
    },
  );
  router.read('/api/taste/sessions/:id', 'A blind session, for its host: scores once it was opened', (request) =>
    sessionView(views, sessionAt(views, param(request.params, 'id'))),
  );
  router.write(
    'POST',
    '/api/taste/sessions/:id/state',
    'Close a session, and open it: the answer first',
    z.object({ personId: id, state: z.enum(['closed', 'opened']) }),
    ({ personId, state }, request) => {
      const kept = sessionAt(views, param(request.params, 'id'));
      if (kept.state === state) return sessionView(views, kept);
      if (state === 'closed' && kept.state === 'opened')
        throw new DomainError('taste/opened', 'This session was opened: what is known cannot be unknown again.');
      if (state === 'opened' && kept.state !== 'closed')
        throw new DomainError('taste/not-closed', 'Close the session first: who still tastes should not see it.');
      workshop.addRecord('taste', { kind: 'session-state', sessionId: kept.id, state }, { personId });
      return sessionView(views, sessionAt(views, kept.id));
    },
  );
  router.file('/api/taste/sessions/:id/codes', 'The codes, to be cut out and laid on the plates', async (request) => {
    const kept = sessionAt(views, param(request.params, 'id'));
    const { codes } = layOut(kept.session);
    // One label for every piece that is served; the back of the sheet says nothing.
    const labels = codes.flatMap((code) => Array.from({ length: kept.session.tasters }, () => code));
    const head = { title: kept.session.name, author: workshop.settings.name, at: workshop.now() };
    return {
      type: 'application/pdf',
      name: `codes-${kept.session.name}.pdf`,
      bytes: await away('cards', [head, labels]),
      inline: true,
    };
  });
  router.file('/api/taste/sessions/:id/qr', 'The address for phones, as a QR code', async (request) => {
    const kept = sessionAt(views, param(request.params, 'id'));
    const svg = await QRCode.toString(`${request.protocol}://${request.host}/guest/${kept.id}`, {
      type: 'svg',
      margin: 1,
    });
    return { type: 'image/svg+xml', name: 'session.svg', bytes: Buffer.from(svg), inline: true };
  });
  router.read('/api/taste/palate/:person', 'How somebody tastes, for themselves', (request) =>
    palateView(views, param(request.params, 'person')),
  );
  router.read('/api/taste/guest/:id', 'A blind session, for who tastes: codes only', (request) =>
    guestView(views, sessionAt(views, param(request.params, 'id'))),
  );
  router.read('/api/taste/guest/:id/seats/:seat', 'What is served at a seat, in order', (request) =>
    seatView(views, sessionAt(views, param(request.params, 'id')), Number(param(request.params, 'seat'))),
  );
  router.write(
    'POST',
    '/api/taste/guest/:id/seats',
    'Sit down at a session',
    z.object({
      taster: z.string().check(z.trim(), z.minLength(1, 'is missing'), z.maxLength(60, 'is longer than 60 letters')),
    }),
    ({ taster }, request) => {
      const kept = sessionAt(views, param(request.params, 'id'));
      const seat = seatFor(kept, taster);
      if (kept.seats.has(seat)) return seatView(views, kept, seat);
      if (kept.state !== 'open') throw new DomainError('taste/closed', 'This session is closed.');
      workshop.addRecord('taste', { kind: 'seat', sessionId: kept.id, seat, taster }, { personId: kept.personId });
      return seatView(views, sessionAt(views, kept.id), seat);
    },
  );
  router.write(
    'POST',
    '/api/taste/guest/:id/seats/:seat/sheets',
    'An impression of one code; another one of the same code is a second look',
    guestSheet,
    ({ code, ...value }, request) => {
      const kept = sessionAt(views, param(request.params, 'id'));
      const seat = Number(param(request.params, 'seat'));
      if (kept.state !== 'open')
        throw new DomainError('taste/closed', 'This session is closed: nothing is taken any more.');
      const { codes: own, taster } = seatView(views, kept, seat);
      const bar = kept.session.bars[layOut(kept.session).codes.indexOf(code)];
      if (!bar || !own.includes(code))
        throw new DomainError('taste/no-code', `${code} is not served here.`, [
          { path: 'code', message: 'is not served here' },
        ]);
      const before = sessionView(views, kept).seats[seat]?.sheets ?? 0;
      workshop.addRecord(
        'taste',
        {
          kind: 'sheet',
          ...value,
          tastingId: `${kept.id}.${seat}`,
          sessionId: kept.id,
          subject: bar.subject,
          taster,
          place: own.indexOf(code) + 1,
          visit: Math.min(20, before + 1),
        },
        { personId: kept.personId },
      );
      return { code };
    },
  );
}
