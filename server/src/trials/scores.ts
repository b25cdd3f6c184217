import { judgePanel } from '@wunsch/core/taste/panel';
import type { Views } from '../ledger/views';
import { loadRow } from '../roast/loads';
import { benchScores } from '../taste/scores';
import { scoresOf, sessionsOf } from '../taste/sessions';
import { sheetsOf } from '../taste/sheets';

/** Scores of what was made: of the batch, of the load, and of the blind sessions of this trial. */
export function scoresFor(
  views: Views,
  trialId: string,
  thing: { batchId: string | null; loadId: string | null },
): number[] {
  const panel = [...sessionsOf(views).values()]
    .filter(({ session, state }) => session.trialId === trialId && state === 'opened')
    .flatMap((row) => {
      const named = new Set(
        row.session.bars
          .filter(({ subject }) => {
            const holding = views.workshop.book.holdings.get(subject.id);
            return holding !== undefined && (holding.batchId ?? holding.id) === (thing.batchId ?? thing.loadId);
          })
          .map(({ name }) => name),
      );
      const scores = scoresOf(views, row);
      // As the panel has it, tasters and places taken out; too few to be one they stand as they are.
      const { bars } = judgePanel(scores);
      return bars.length > 0
        ? bars.flatMap(({ bar, mean, n }) => (named.has(bar) ? Array.from({ length: n }, () => mean) : []))
        : scores.flatMap(({ bar, score }) => (named.has(bar) ? [score] : []));
    });
  // The blind panel of the trial is what it was made for; without it what was scored at the bench counts.
  if (panel.length > 0) return panel;
  if (thing.batchId !== null) return benchScores(views, thing.batchId).map(({ score }) => score);
  const loadId = thing.loadId ?? '';
  const own = [
    ...views.workshop.roasts.scoresOf(loadId).map(({ value }) => value.score),
    ...sheetsOf(views).flatMap(({ subject, visit, sessionId, overall }) =>
      subject.id === loadId && visit === 1 && sessionId === null && overall !== null ? [overall] : [],
    ),
  ];
  if (own.length > 0) return own;
  // Without a word on the load itself the bars made of it speak.
  const bars = loadRow(views, loadId)?.score ?? null;
  return bars === null ? [] : [bars];
}
