import type { BenchView, HoldingView } from '@wunsch/core/api/types';
import { canBeWorked } from '@wunsch/core/beans/state';
import type { Holding } from '@wunsch/core/ledger/types';
import { acceptsOf, endsAs, isInMachine, waitsAt } from '@wunsch/core/stations';
import type { Station } from '@wunsch/core/work/stations';
import { AREAS } from '../areas';
import { judgeNewest, yieldHistory, yieldStep } from '../ledger/judged-yield';
import type { Views } from '../ledger/views';

const MOST_WAITING = 120;
const MOST_ELSEWHERE = 40;
const RECENT = 12;

/** What a person at a station sees. */
export function benchView(views: Views, station: Station): BenchView {
  const { workshop } = views;
  const { book } = workshop;
  const reserved = workshop.reserved();
  const waiting: string[] = [];
  const elsewhere: string[] = [];
  const pantry: string[] = [];
  for (const holding of book.standing) {
    if (holding.place === 'pantry') pantry.push(holding.id);
    else if (waitsAt(station, holding.kind)) waiting.push(holding.id);
    else if (canBeTaken(views, holding, station))
      (isMeantFor(views, holding, station) ? waiting : elsewhere).push(holding.id);
  }
  const since = (id: string): number => book.firstEntry(id)?.at ?? 0;
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
    recent: recentSteps(views, station),
    history: kind === undefined ? [] : yieldHistory(views, kind).map((row) => row.toJSON()),
    judgement: judgeNewest(views, station),
    grinds: [],
    packing: {},
    untasted: [],
    ...AREAS[station]?.bench?.(views, here),
  };
}

/** Lots that are wet, on hold or refused are taken to no bench, nor what is still in a machine. */
function canBeTaken(views: Views, holding: Holding, station: Station): boolean {
  const { workshop } = views;
  if (!acceptsOf(station).includes(holding.kind) || isInMachine(holding)) return false;
  if (!workshop.lots.has(holding.id)) return true;
  const route = workshop.routes.get(holding.routeId ?? '');
  return canBeWorked(workshop.standing(holding.id), endsAs({ station }) ?? 'charge', route);
}

/** Whether it stands here, or its route leads here first. */
function isMeantFor(views: Views, { place, kind, routeId }: Holding, station: Station): boolean {
  return place === station || (kind === 'lot' && views.workshop.routes.get(routeId ?? '')?.stations[1] === station);
}

function recentSteps(views: Views, station: Station): BenchView['recent'] {
  const recent: BenchView['recent'] = [];
  for (const step of views.workshop.book.timeline.backwards()) {
    if (recent.length === RECENT) break;
    if (step.station === station) recent.push(views.step(step));
  }
  return recent;
}
