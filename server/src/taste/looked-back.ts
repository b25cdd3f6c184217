import type { HistoryView, MattersView, SampleChoice } from '@wunsch/core/api/taste';
import { groupBy } from '@wunsch/core/stats/group';
import { judgeHistory } from '@wunsch/core/taste/history';
import { judgeMatters } from '@wunsch/core/taste/matters';
import type { Batch } from '@wunsch/core/ledger/types';
import { samplesView } from '../beans/views';
import type { Views } from '../ledger/views';
import { productOf } from '../products/products';
import { sheetsOf } from './sheets';
import { batchFacts, FACT_NAMES, FACT_UNITS } from './facts';
import { scoresByBatch } from './scores';

const DAY_MS = 86_400_000;
/** Of the last years so many batches of one thing are looked back on. */
const MOST = 60;

interface Tasted {
  batch: Batch;
  at: number;
  score: number;
  tasters: number;
  ageDays: number | null;
}

/** Batches that were tasted, in order of time. */
function tasted(views: Views): Tasted[] {
  const scoresOf = scoresByBatch(views);
  return [...views.workshop.batches.values()]
    .flatMap((batch): Tasted[] => {
      const scores = scoresOf(batch.id);
      if (scores.length === 0) return [];
      const steps = views.stepsOfBatch(batch.id);
      const moulded = steps.findLast(({ kind }) => kind === 'mould')?.at ?? null;
      const last = Math.max(...scores.map(({ at }) => at));
      return [
        {
          batch,
          at: moulded ?? last,
          score: scores.reduce((sum, { score }) => sum + score, 0) / scores.length,
          tasters: new Set(scores.map(({ palate }) => palate)).size,
          ageDays: moulded === null ? null : Math.max(0, (last - moulded) / DAY_MS),
        },
      ];
    })
    .sort((a, b) => a.at - b.at);
}

/** What a batch is sold as, or its own name. */
function soldAs(views: Views, { batch }: Tasted): string {
  for (const step of views.stepsOfBatch(batch.id)) {
    const packed = step.kind === 'pack' ? Object.values(step.slots)[0] : undefined;
    const product = packed === undefined ? undefined : productOf(views, packed);
    if (product) return product.facts.name;
  }
  return batch.name;
}

/** Scores of each product over its batches and their age. */
export function historyView(views: Views): HistoryView {
  const { book } = views.workshop;
  const scoresOf = scoresByBatch(views);
  const sheets = groupBy(
    sheetsOf(views).filter(({ subject }) => subject.of === 'holding'),
    ({ subject }) => book.holdings.get(subject.id)?.batchId ?? '',
  );
  const byProduct = groupBy(tasted(views), (row) => soldAs(views, row));
  return {
    factNames: FACT_NAMES,
    products: [...byProduct]
      .map(([name, all]) => {
        const rows = all.slice(-MOST);
        return {
          name,
          batches: rows.map(({ batch, at, score, tasters, ageDays }) => ({
            code: batch.code,
            at,
            score,
            tasters,
            ageDays,
          })),
          tastings: rows.flatMap(({ batch, at }) => {
            const age = (when: number): number => Math.max(0, (when - at) / DAY_MS);
            return [
              ...scoresOf(batch.id).map(({ score, at: when }) => ({
                code: batch.code,
                at: when,
                ageDays: age(when),
                values: { overall: score },
              })),
              ...(sheets.get(batch.id) ?? []).map(({ scales, at: when }) => ({
                code: batch.code,
                at: when,
                ageDays: age(when),
                values: scales,
              })),
            ];
          }),
          verdict: judgeHistory(
            rows.map(({ batch, at, score }) => ({
              code: batch.code,
              at,
              score,
              facts: withoutGaps(batchFacts(views, batch.id)),
            })),
            FACT_NAMES,
          ),
        };
      })
      .sort((a, b) => b.batches.length - a.batches.length),
  };
}

const withoutGaps = (facts: object): Record<string, number | null> => ({ ...facts });

/** What goes with the score, by bean: batches of mostly one origin. */
export function mattersView(views: Views): MattersView {
  const byBean = groupBy(tasted(views), ({ batch }) => beansOf(views, batch));
  byBean.delete('');
  return {
    factNames: FACT_NAMES,
    units: FACT_UNITS,
    beans: [...byBean]
      .map(([family, rows]) => ({
        family,
        verdict: judgeMatters(
          rows.slice(-MOST).map(({ batch, score }) => ({
            code: batch.code,
            score,
            facts: withoutGaps(batchFacts(views, batch.id)),
          })),
          FACT_NAMES,
        ),
      }))
      .sort((a, b) => b.verdict.batches - a.verdict.batches),
  };
}

/** The bean that a batch was charged from. */
function beansOf(views: Views, batch: Batch): string {
  const charge = views.stepsOfBatch(batch.id).find(({ kind }) => kind === 'charge');
  const source = charge?.postings.find(
    ({ holdingId, massMg }) =>
      holdingId !== null && massMg < 0 && views.workshop.book.holding(holdingId).kind !== 'ingredient',
  );
  return source?.holdingId == null ? '' : views.family(source.holdingId);
}

/** Of beans into a bar of 70 g of 70 percent, through the usual losses. */
const BAR_G = 70;
const COCOA = 0.7;

/** Buy this sample? Samples of one season beside each other and the bean that is bought now, with what a bar costs. */
export function sampleChoice(views: Views): SampleChoice {
  const { workshop } = views;
  const all = samplesView(views);
  const nibYield = usualNibs(views);
  const perBar = (perKgMilli: number | null, own: number | null): number | null =>
    perKgMilli === null ? null : Math.round((perKgMilli * ((BAR_G * COCOA) / (own ?? nibYield))) / 1000);
  const scoresOf = scoresByBatch(views);
  const countries = new Set(all.map(({ facts }) => facts.country));
  const present = [...workshop.lots].flatMap(([id, facts]) => {
    if (facts.sample === true || !workshop.book.live.has(id) || !countries.has(facts.country)) return [];
    const scores = [...workshop.batches.values()]
      .filter((batch) => beansOf(views, batch) === views.family(id))
      .slice(-6)
      .flatMap((batch) => scoresOf(batch.id).map(({ score }) => score));
    return [{ id, scores }];
  });
  const rows: SampleChoice['samples'] = [
    ...all.map(({ code, name, score, landedPerKgMilli, nibYield: own, batches }) => ({
      code,
      name,
      score,
      tasters: batches.filter((batch) => batch.score !== null).length,
      landedPerKgMilli,
      costPerBarMilli: perBar(landedPerKgMilli, own),
      standing: 'sample' as const,
    })),
    ...present.map(({ id, scores }) => {
      const holding = workshop.book.holding(id);
      const landedPerKgMilli = workshop.valuation.perKgMilli(id);
      return {
        code: holding.code,
        name: holding.name,
        score: scores.length === 0 ? null : scores.reduce((sum, score) => sum + score, 0) / scores.length,
        tasters: scores.length,
        landedPerKgMilli,
        costPerBarMilli: perBar(landedPerKgMilli, null),
        standing: 'present' as const,
      };
    }),
  ];
  return { samples: rows, sentence: choiceWords(rows) };
}

/** Grams of nibs from a gram of beans, as winnowing here usually gives. */
function usualNibs(views: Views): number {
  const rows = views.yields.of('winnow').slice(-40);
  const [made, cracked] = rows.reduce(([good, all], row) => [good + row.goodMg, all + row.inMg], [0, 0]);
  return cracked > 0 ? (0.92 * made) / cracked : 0.75;
}

function choiceWords(rows: SampleChoice['samples']): string {
  const samples = rows.filter(({ standing }) => standing === 'sample');
  const tastedOnes = samples.filter(({ score }) => score !== null).sort((a, b) => (b.score ?? 0) - (a.score ?? 0));
  const [best] = tastedOnes;
  if (samples.length === 0) return 'No samples are here.';
  if (!best) return 'None of the samples was tasted as a bar yet: make a small batch of each, and taste them blind.';
  const present = rows.find(({ standing, score }) => standing === 'present' && score !== null);
  if (!present) return `${best.name} (${best.code}) tastes best of the samples, at ${(best.score ?? 0).toFixed(1)}.`;
  const over = (best.score ?? 0) - (present.score ?? 0);
  return over > 0.3
    ? `${best.name} (${best.code}) scores ${over.toFixed(1)} over the bean that is bought now; a blind session of both says whether that holds.`
    : `None of the samples scores over the bean that is bought now by more than ${Math.max(0, over).toFixed(1)}.`;
}
