import type { BenchView, HoldingView } from '@wunsch/core/api/types';
import { canBeWorked } from '@wunsch/core/beans/state';
import { acceptsOf, endsAs } from '@wunsch/core/stations';
import type { Step, StepKind } from '@wunsch/core/ledger/types';
import { judgeYield, stepYield, YIELD_STEP } from '@wunsch/core/ledger/yields';
import type { Station } from '@wunsch/core/work/stations';
import { keepsUntil, usualKeeping } from '@wunsch/core/pack/best-before';
import { dayText } from '@wunsch/core/units/zone';
import { keepsOf } from '../journal/stops';
import type { Views } from './views';
import type { IndexedYield } from './yield-index';

/** Whose yield speaks at a station, if any. */
const yieldStep = (station: Station): StepKind | undefined =>
  (YIELD_STEP as Partial<Record<Station, StepKind>>)[station];

const HISTORY = 120;
const MOST_WAITING = 120;
const MOST_ELSEWHERE = 40;
const RECENT = 12;

/** Yields of one kind of step, oldest first; the newest `HISTORY` of one family, or of all. */
export function yieldHistory(views: Views, kind: StepKind, family?: string, before?: Step): readonly IndexedYield[] {
  const all = family === undefined ? views.yields.of(kind) : views.yields.ofFamily(kind, family);
  if (!before) return all.slice(-HISTORY);
  const end = all.findLastIndex(({ stepId }) => stepId === before.id);
  return all.slice(0, end < 0 ? all.length : end).slice(-HISTORY);
}

/** The newest yield of a station against earlier ones of its family. */
export function judgeNewest(views: Views, station: Station): BenchView['judgement'] {
  const kind = yieldStep(station);
  const newest = kind === undefined ? undefined : yieldHistory(views, kind).at(-1);
  return newest ? judgeStep(views, newest.stepId) : null;
}

/** One step's yield against the earlier ones of its family. */
export function judgeStep(views: Views, stepId: string): BenchView['judgement'] {
  const step = views.workshop.book.steps.get(stepId);
  const made = step?.slots['good'];
  const point = step ? stepYield(views.workshop.book, step) : null;
  if (!step || made === undefined || !point) return null;
  const family = views.family(made);
  const past = yieldHistory(views, step.kind, family, step).map(({ value }) => value);
  return {
    ...judgeYield(step.kind, point.value, past, family || 'this workshop'),
    code:
      step.batchId === null
        ? views.workshop.book.holding(made).code
        : (views.workshop.batches.get(step.batchId)?.code ?? ''),
    stepId,
  };
}

/** What a person at a station sees. */
export function benchView(views: Views, station: Station): BenchView {
  const { workshop } = views;
  const { book } = workshop;
  const reserved = workshop.reserved();
  const waiting: string[] = [];
  const elsewhere: string[] = [];
  const pantry: string[] = [];
  for (const holding of book.standing) {
    const holdingId = holding.id;
    if (holding.place === 'pantry') pantry.push(holdingId);
    else if (station === 'beans' && holding.kind === 'lot') waiting.push(holdingId);
    else if (kept(views, holdingId, station)) continue;
    else if (acceptsOf(station).includes(holding.kind) && !(holding.kind === 'mass' && holding.place === 'grind')) {
      const route = holding.routeId === null ? undefined : workshop.routes.get(holding.routeId);
      const here =
        holding.place === station ||
        (holding.kind === 'lot' && route?.stations[1] === station) ||
        (station === 'taste' && holding.kind === 'packed');
      (here ? waiting : elsewhere).push(holdingId);
    }
  }
  const since = (id: string): number => book.entriesOf(id)[0]?.at ?? 0;
  /** The newest of what there is, oldest first, as the shelf is worked off. */
  const shown = (ids: string[], most: number): HoldingView[] =>
    ids
      .sort((a, b) => since(a) - since(b))
      .slice(-most)
      .map((id) => views.holding(id, reserved));
  const here = shown(waiting, MOST_WAITING);
  const kind = yieldStep(station);
  return {
    station,
    waiting: here,
    elsewhere: shown(elsewhere, MOST_ELSEWHERE),
    pantry: shown(pantry, MOST_WAITING),
    works: [...workshop.works.values()].filter((work) => work.station === station).map((work) => views.work(work)),
    grinds: station === 'grind' ? views.grinds(true) : [],
    recent: recentSteps(views, station),
    history: kind === undefined ? [] : [...yieldHistory(views, kind)],
    judgement: judgeNewest(views, station),
    packing: station === 'pack' ? packing(views, here) : {},
    untasted: station === 'taste' ? untasted(views, here) : [],
  };
}

/** Lots that are wet, on hold or refused wait for nothing. */
function kept(views: Views, holdingId: string, station: Station): boolean {
  const { workshop } = views;
  if (!workshop.lots.has(holdingId)) return false;
  const kind = endsAs({ station }) ?? 'charge';
  const { routeId } = workshop.book.holding(holdingId);
  return !canBeWorked(workshop.standing(holdingId), kind, workshop.routes.get(routeId ?? ''));
}

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

function recentSteps(views: Views, station: Station): BenchView['recent'] {
  const recent: BenchView['recent'] = [];
  for (const step of views.workshop.book.timeline.backwards()) {
    if (recent.length === RECENT) break;
    if (step.station === station) recent.push(views.step(step));
  }
  return recent;
}

function untasted(views: Views, bars: readonly HoldingView[]): BenchView['untasted'] {
  const byBatch = new Map<string, HoldingView[]>();
  for (const row of bars) {
    if (row.batchId === null) continue;
    byBatch.set(row.batchId, [...(byBatch.get(row.batchId) ?? []), row]);
  }
  return [...byBatch]
    .filter(([batchId]) => !views.stepsOfBatch(batchId).some(({ kind }) => kind === 'taste'))
    .flatMap(([batchId, rows]) => {
      const batch = views.workshop.batches.get(batchId);
      return batch ? [{ batch, bars: rows }] : [];
    });
}
