import { z } from 'zod/mini';
import { entryHead } from '@wunsch/core/work/start';
import { id, massOrNoneG, note, pieces } from '@wunsch/core/fields/fields';
import { LOSS_CAUSES } from '@wunsch/core/ledger/types';
import { YIELDS } from '@wunsch/core/stations';
import type { Router } from '../http/router';
import type { Views } from '../ledger/views';
import { lossBook } from './book';
import { lossWatch, seriesView } from './series';
import { stockTakeView } from './stock-take';

const ALL_MONTHS = 1200;

/** The loss book, its charts, and the stock-take. */
export function lossRoutes(router: Router, views: Views): void {
  const { workshop } = router;
  router.still(
    '/api/losses/book',
    'Where the grams went',
    (_, { months, family }) => lossBook(views, months, family ?? null),
    z.object({
      months: z._default(z.coerce.number().check(z.int(), z.minimum(1), z.maximum(ALL_MONTHS)), 12),
      family: z.optional(z.string().check(z.maxLength(200))),
    }),
  );
  router.still(
    '/api/losses/series',
    'Yields, or unaccounted grams, of a station in order, with chart and change point',
    (_, { station, metric, family, machine }) =>
      seriesView(views, { station, metric, family: family ?? null, machineId: machine ?? null }),
    z.object({
      station: z.enum(YIELDS.map(({ station }) => station)),
      metric: z._default(z.enum(['yield', 'unaccounted']), 'yield'),
      family: z.optional(z.string().check(z.maxLength(200))),
      machine: z.optional(z.string().check(z.maxLength(64))),
    }),
  );
  router.read('/api/losses/watch', 'Stations that have left their level lately', () => ({ watch: lossWatch(views) }));
  router.still('/api/losses/stock-take', 'What is there by the book, to be counted', () => stockTakeView(views));
  router.write(
    'POST',
    '/api/losses/stock-takes',
    'Count what is really there: every difference becomes a correction with its cause; all or nothing',
    z.object({
      personId: id,
      at: entryHead.shape.at,
      note,
      counts: z
        .array(
          z.object({
            holdingId: id,
            countedG: z.optional(massOrNoneG),
            countedPieces: z.optional(pieces),
            cause: z._default(z.enum(LOSS_CAUSES), 'unaccounted'),
          }),
        )
        .check(
          z.minLength(1, 'count something first'),
          z.maxLength(500, 'is too much at once'),
          z.refine(
            (rows) => new Set(rows.map(({ holdingId }) => holdingId)).size === rows.length,
            'counts something twice',
          ),
        ),
    }),
    ({ counts, personId, at, note: why }) => {
      const steps = counts.map((count) =>
        workshop.record(
          { kind: 'adjust', ...count, note: why },
          { personId, machineId: null, minutes: 0, energyKwh: 0, ...(at === undefined ? {} : { at }) },
        ),
      );
      return { steps: steps.map((step) => views.step(step)) };
    },
  );
}
