import { z } from 'zod/mini';
import { id, text } from '../fields/fields';
import type { RoomRecord } from '../records';

/* Words of people who know better than a verdict. Only ever added to. */

/** What is judged: every verdict can be overruled with a word. Loads of the roaster have their own. */
export const JUDGED = [
  'arrival',
  'change',
  'grind',
  'harvest',
  'history',
  'ladder',
  'matters',
  'pour',
  'rest',
  'session',
  'traps',
  'trial',
  'winnow',
  'yield',
] as const;
export type Judged = (typeof JUDGED)[number];

export const judgementRecord = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('word'),
    judged: z.enum(JUDGED),
    /** The step, lot, batch, product, session, ladder or trial that the verdict is about. */
    subject: z.string().check(z.trim(), z.minLength(1, 'is missing'), z.maxLength(200, 'is longer than 200 letters')),
    /** The verdict as it read then: figures move on, the word was about this. */
    said: text(1000),
    word: z
      .string()
      .check(z.trim(), z.minLength(2, 'says what is known better'), z.maxLength(500, 'is longer than 500 letters')),
  }),
  z.object({ kind: z.literal('taken-back'), recordId: id }),
]);
export type JudgementRecordValue = z.infer<typeof judgementRecord>;

/** A word against a verdict that nobody took back. */
export interface JudgementWord {
  id: string;
  at: number;
  personId: string;
  judged: Judged;
  subject: string;
  said: string;
  word: string;
}

/** The words that count, oldest first: without those that were taken back. */
export function wordsInForce(records: readonly RoomRecord<'judgement'>[]): JudgementWord[] {
  const gone = new Set(records.flatMap(({ value }) => (value.kind === 'taken-back' ? [value.recordId] : [])));
  return records.flatMap(({ id: recordId, at, personId, value }) => {
    if (value.kind !== 'word' || gone.has(recordId)) return [];
    const { judged, subject, said, word } = value;
    return [{ id: recordId, at, personId, judged, subject, said, word }];
  });
}
