import type { BenchView, HoldingView } from '@wunsch/core/api/types';
import { keepsUntil, usualKeeping } from '@wunsch/core/pack/best-before';
import { dayText } from '@wunsch/core/units/zone';
import { keepsOf } from '../journal/stops';
import type { Area } from '../ledger/area';
import { stepWords } from '../ledger/thing-words';
import type { Views } from '../ledger/views';

export const area: Area = {
  bench: (views, here) => ({ packing: packing(views, here) }),
  things: { packing: stepWords('packing') },
};

/** What a label of each tub would say next: a code that is free, a date that what is in it keeps to. */
function packing(views: Views, here: readonly HoldingView[]): BenchView['packing'] {
  const { workshop } = views;
  const { book, settings } = workshop;
  const keeps = keepsOf(workshop.materials.values());
  return Object.fromEntries(
    here.map(({ id, batchCode, code, since }) => {
      const base = batchCode ?? code;
      let n = 1;
      while (book.byCode(`${base}-${n}`)) n += 1;
      const usual = usualKeeping(views.cocoa(id), keeps);
      const bestBefore = dayText(keepsUntil(since, usual).getTime(), settings.timeZone);
      return [id, { label: `${base}-${n}`, bestBefore, because: `${usual.months} months: ${usual.because}` }];
    }),
  );
}
