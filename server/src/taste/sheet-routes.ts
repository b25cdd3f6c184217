import { nanoid } from 'nanoid';
import { z } from 'zod/mini';
import type { OutsideView, SubjectView } from '@wunsch/core/api/taste';
import { DomainError } from '@wunsch/core/errors/domain-error';
import { entryHead } from '@wunsch/core/work/start';
import { id } from '@wunsch/core/fields/fields';
import { pieces } from '@wunsch/core/fields/fields';
import { groupBy } from '@wunsch/core/stats/group';
import { outsideBar, sheet, tasteWord } from '@wunsch/core/taste/records';
import { param } from '../http/param';
import type { Router } from '../http/router';
import type { Views } from '../ledger/views';
import { fileView } from '../journal/files';
import { historyView, mattersView, sampleChoice } from './looked-back';
import { comesUpView, sheetsOf, tastings, vocabularyOf, vocabularyView } from './sheets';
import { findSubjects, outsideBars, subjectView } from './subjects';

const ownSheet = z.extend(z.omit(sheet, { kind: true, sessionId: true, tastingId: true }), {
  /** Left out: a tasting begins. */
  tastingId: z._default(z.nullable(id), null),
});

/** Guided sheets of one palate, own words, bars of other makers, and what all of it says when looked back on. */
export function sheetRoutes(router: Router, views: Views): void {
  const { workshop } = router;
  /** Adds what a thing got on other days, from tastings that were not blind. */
  function withEarlier(): (subject: SubjectView) => SubjectView {
    const sheets = groupBy(
      sheetsOf(views).filter(({ sessionId, overall }) => sessionId === null && overall !== null),
      ({ subject }) => subject.id,
    );
    return (view) => ({
      ...view,
      earlier: (sheets.get(view.subject.id) ?? [])
        .slice(-3)
        .reverse()
        .map(({ at, palate, overall }) => ({ at, palate, overall: overall ?? 0 })),
    });
  }
  router.read(
    '/api/taste/subjects',
    'What can be tasted: of the book, and bars of other makers',
    (_, { find, limit }) => ({ subjects: findSubjects(views, find, limit).map(withEarlier()) }),
    z.object({
      find: z._default(z.string().check(z.maxLength(80)), ''),
      limit: z._default(z.coerce.number().check(z.int(), z.minimum(1), z.maximum(100)), 24),
    }),
  );
  router.read(
    '/api/taste/subject',
    'One thing to taste, by its code or as a bar of another maker',
    (_, { code, outside }) => {
      if (outside !== undefined) return withEarlier()(subjectView(views, { of: 'outside', id: outside }));
      const batch = [...workshop.batches.values()].find((row) => row.code === code);
      const holding = workshop.book.byCode(code ?? '');
      const of = holding?.id ?? (batch && barsOf(batch.id)) ?? batch?.id;
      if (of === undefined) throw new DomainError('http/not-found', `${code ?? 'That'} is not here.`);
      return withEarlier()(subjectView(views, { of: 'holding', id: of }));
    },
    z.object({ code: z.optional(z.string().check(z.maxLength(60))), outside: z.optional(id) }),
  );
  /** Bars of a batch that are still there: what its code means to a tongue. */
  function barsOf(batchId: string): string | undefined {
    return workshop.book.standing.find(
      ({ batchId: of, kind }) => of === batchId && (kind === 'packed' || kind === 'bars'),
    )?.id;
  }
  router.read(
    '/api/taste/tastings',
    'Guided tastings, the newest first, with what moved on going back',
    (_, { limit }) => ({ tastings: tastings(views, limit) }),
    z.object({ limit: z._default(z.coerce.number().check(z.int(), z.minimum(1), z.maximum(200)), 30) }),
  );
  router.write(
    'POST',
    '/api/taste/sheets',
    'Keep an impression; the first one of bars of a batch is its score in the book as well',
    z.object({
      personId: id,
      at: entryHead.shape.at,
      sheet: ownSheet,
      eaten: z._default(pieces.check(z.maximum(20)), 0),
    }),
    ({ personId, at, sheet: { tastingId, ...value }, eaten }) => {
      const subject = subjectView(views, value.subject);
      const kept = {
        kind: 'sheet' as const,
        sessionId: null,
        ...value,
        tastingId: tastingId ?? nanoid(10),
      };
      if (value.visit > 1 && !sheetsOf(views).some((row) => row.tastingId === tastingId))
        throw new DomainError('taste/no-tasting', 'There is no such tasting to go back to.', [
          { path: 'sheet.tastingId', message: 'is not known' },
        ]);
      const { id: sheetId } = workshop.addRecord('taste', kept, { personId, at });
      const holding = value.subject.of === 'holding' ? workshop.book.holding(value.subject.id) : null;
      const scored = holding !== null && ['bars', 'packed', 'seconds'].includes(holding.kind);
      // Going back to it is another impression, and no second score; a guest’s is nobody’s of the workshop.
      if (scored && value.overall !== null && value.visit === 1 && value.taster === '')
        workshop.record(
          {
            kind: 'taste',
            batchId: holding.batchId,
            holdingId: holding.id,
            pieces: Math.min(eaten, subject.pieces),
            score: value.overall,
            note: value.note.slice(0, 2000),
          },
          { personId, machineId: null, minutes: 0, energyKwh: 0, ...(at === undefined ? {} : { at }) },
        );
      return { id: sheetId, tastingId: kept.tastingId };
    },
  );
  router.read('/api/taste/words', 'The vocabulary, and what words can be asked of', () => vocabularyView(views));
  router.read(
    '/api/taste/words/of',
    'Which words come up for a bean, a roast, an age',
    (_, { group }) => comesUpView(views, group),
    z.object({ group: z.string().check(z.maxLength(200)) }),
  );
  router.write(
    'POST',
    '/api/taste/words',
    'Add a word, join near words, or part them again: what was said stays as said',
    z.object({
      personId: id,
      act: z.discriminatedUnion('kind', [
        z.object({ kind: z.literal('word'), word: tasteWord }),
        z.object({ kind: z.literal('join'), word: tasteWord, into: tasteWord }),
        z.object({ kind: z.literal('part'), word: tasteWord }),
      ]),
    }),
    ({ personId, act }) => {
      if (act.kind === 'join' && vocabularyOf(views).meaning(act.into) === vocabularyOf(views).meaning(act.word))
        throw new DomainError('taste/same-word', `${act.word} and ${act.into} mean one thing already.`, [
          { path: 'act.into', message: 'means it already' },
        ]);
      workshop.addRecord('taste', act, { personId });
      return vocabularyView(views);
    },
  );
  router.read('/api/taste/outside', 'Bars of other makers, the newest first', () => {
    const sheets = sheetsOf(views).filter(({ subject }) => subject.of === 'outside');
    return {
      bars: outsideBars(views)
        .reverse()
        .map(({ id: barId, at, personId, bar }): OutsideView => {
          const own = sheets.filter(({ subject }) => subject.id === barId);
          const scores = own.flatMap(({ overall }) => (overall === null ? [] : [overall]));
          return {
            id: barId,
            at,
            person: views.person(personId),
            bar,
            photos: workshop.beans.picturesOf(`bar:${barId}`).map((file) => fileView(views, file)),
            sheets: own.length,
            score: scores.length === 0 ? null : scores.reduce((sum, score) => sum + score, 0) / scores.length,
          };
        }),
    };
  });
  router.write(
    'POST',
    '/api/taste/outside',
    'Keep a bar of another maker: outside the ledger',
    z.object({ personId: id, bar: outsideBar }),
    ({ personId, bar }) => ({ id: workshop.addRecord('taste', { kind: 'outside', bar }, { personId }).id }),
  );
  router.still('/api/taste/history', 'Scores of each product over its batches', () => historyView(views));
  router.still('/api/taste/matters', 'Which logged facts go with the score, by bean', () => mattersView(views));
  router.still('/api/taste/samples', 'Buy this sample? Scores and what a bar costs, beside the present bean', () =>
    sampleChoice(views),
  );
  router.read('/api/taste/sheets/:id', 'One impression', (request) => {
    const found = sheetsOf(views).find((row) => row.id === param(request.params, 'id'));
    if (!found) throw new DomainError('http/not-found', 'There is no such sheet.');
    return found;
  });
}
