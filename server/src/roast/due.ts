import type { CoolingView } from '@wunsch/core/api/roast';
import type { DueItem } from '@wunsch/core/api/types';
import type { CommandOf } from '@wunsch/core/commands';
import { nextAct, nextStirS } from '@wunsch/core/roast/live';
import { momentOfS } from '@wunsch/core/run/clock';
import { formatTemperature } from '@wunsch/core/units/temperature';
import type { Work } from '@wunsch/core/workshop/work';
import type { Views } from '../ledger/views';

/** Cooling tubs are looked for among the loads of so long ago. */
const COOLING_MS = 48 * 3_600_000;

/** Roasted tubs that are still too warm to crack. */
export function coolingViews(views: Views): CoolingView[] {
  const { book } = views.workshop;
  const now = views.workshop.now();
  const found: CoolingView[] = [];
  const all = views.yields.of('roast');
  for (let i = all.length - 1; i >= 0; i -= 1) {
    const row = all[i];
    if (!row || row.at < now - COOLING_MS) break;
    const step = row.step;
    const loadId = step?.slots['good'];
    const coolMin = (step?.command as CommandOf<'roast'> | undefined)?.how?.plan?.coolMin;
    if (!step || loadId === undefined || coolMin === undefined || !book.live.has(loadId)) continue;
    const coolAt = step.at + coolMin * 60_000;
    if (coolAt <= now) continue;
    const { code, name } = book.holding(loadId);
    found.push({ code, name, massMg: book.balance(loadId).massMg, coolAt });
  }
  return found.sort((a, b) => a.coolAt - b.coolAt);
}

/** What a live roast wants next, as the line at the foot says it; null for other work, or without a program. */
export function roastDue(views: Views, work: Work, code: string, link: string): DueItem | null {
  const { roast } = work;
  if (!roast) return null;
  const row = (text: string, second: number): DueItem => ({
    id: work.id,
    station: 'roast',
    text: `${text}, ${code}`,
    link,
    at: momentOfS({ startedAt: work.startedAt, speed: roast.speed }, second),
  });
  if (roast.seconds !== null) return row('Weigh the roast out', roast.seconds);
  const next = nextAct(roast.plan, roast.settings);
  const stirS = nextStirS(roast.plan?.stirEveryMin ?? null, roast.stirs);
  if (!next || next.atS === null) return null;
  if (stirS !== null && stirS < next.atS) return row('Stir the roast', stirS);
  if (next.act.what === 'out') return row('Take the roast out', next.atS);
  return row(
    `Set the roaster to ${formatTemperature(next.act.setC, views.workshop.settings.temperatureUnit)}`,
    next.atS,
  );
}
