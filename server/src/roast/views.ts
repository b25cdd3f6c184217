import { curveData } from '@wunsch/core/roast/curve';
import { usual } from '@wunsch/core/entry/doubt';
import { programMinutes } from '@wunsch/core/roast/program';
import { usualSigns, type UsualSign } from '@wunsch/core/roast/usual-signs';
import type { LiveView, ProgramView, RoasterView } from '@wunsch/core/api/roast';
import { DomainError } from '@wunsch/core/errors/domain-error';
import type { CommandOf } from '@wunsch/core/ledger/commands';
import { roasterFacts } from '@wunsch/core/roast/records';
import { SIGNS } from '@wunsch/core/roast/words';
import type { Work } from '@wunsch/core/workshop/work';
import type { Machine } from '@wunsch/core/workshop/schemas';
import type { Views } from '../ledger/views';
import type { Workshop } from '../journal/workshop';
import type { LiveRoasts } from './live';
import { moistureOf } from './loads';

interface Counts {
  programs: Map<string, { loads: number; lastAt: number }>;
  roasters: Map<string, { loads: number; curves: number }>;
}

/** Counted once for each state of the book: ten years are many thousand loads. */
const counted = new WeakMap<Workshop, { state: string; counts: Counts }>();

/** How often each program was used and when last; loads and curves of each roaster. */
function countsOf(views: Views): Counts {
  const { workshop } = views;
  const { book, roasts } = workshop;
  const state = `${book.steps.size} ${book.timeline.at(-1)?.id} ${roasts.curveRevision}`;
  const known = counted.get(workshop);
  if (known?.state === state) return known.counts;
  const counts: Counts = { programs: new Map(), roasters: new Map() };
  for (const { stepId, at } of views.yields.of('roast')) {
    const step = book.steps.get(stepId);
    const loadId = step?.slots['good'];
    if (!step || loadId === undefined) continue;
    const programId = (step.command as CommandOf<'roast'>).how?.programId;
    if (programId != null) {
      const { loads = 0, lastAt = 0 } = counts.programs.get(programId) ?? {};
      counts.programs.set(programId, { loads: loads + 1, lastAt: Math.max(at, lastAt) });
    }
    if (step.machineId === null) continue;
    const { loads = 0, curves = 0 } = counts.roasters.get(step.machineId) ?? {};
    counts.roasters.set(step.machineId, { loads: loads + 1, curves: curves + (roasts.curveOf(loadId) ? 1 : 0) });
  }
  counted.set(workshop, { state, counts });
  return counts;
}

export function programViews(views: Views): ProgramView[] {
  const { roasts, machines } = views.workshop;
  const used = countsOf(views).programs;
  return roasts
    .programs()
    .flatMap(({ id, versions, shelved }) => {
      const last = versions.at(-1);
      if (!last) return [];
      return [
        {
          id,
          version: last.version,
          versions: versions.length,
          program: last.program,
          shelved,
          at: last.record.at,
          person: views.person(last.record.personId),
          roaster: last.program.roasterId === null ? null : (machines.get(last.program.roasterId)?.name ?? null),
          loads: used.get(id)?.loads ?? 0,
          lastAt: used.get(id)?.lastAt ?? null,
        },
      ];
    })
    .sort((a, b) => (b.lastAt ?? b.at) - (a.lastAt ?? a.at));
}

/** Roasters with what is known of each; one that nobody described counts as an oven set by hand. */
export function roasterViews(views: Views): RoasterView[] {
  const { machines } = views.workshop;
  const counts = countsOf(views).roasters;
  return [...machines.values()]
    .filter(({ station }) => station === 'roast')
    .map((machine) => ({ ...roaster(machine), ...(counts.get(machine.id) ?? { loads: 0, curves: 0 }) }));
}

const roaster = ({ id, name, minG, maxG, roaster: facts }: Machine): Omit<RoasterView, 'loads' | 'curves'> => ({
  id,
  name,
  minG,
  maxG,
  facts: facts ?? roasterFacts.parse({}),
});

/** A roast that is live. @throws DomainError when it is over, or was begun without following it */
export function liveWork(views: Views, workId: string): Work & { roast: NonNullable<Work['roast']> } {
  const work = views.workshop.works.get(workId);
  if (!work?.roast)
    throw new DomainError(
      'work/closed',
      'That roast is over, or was begun without being followed. Nothing was changed.',
    );
  return { ...work, roast: work.roast };
}

const LATELY = 60;
const MOST_OWN = 8;

/** Signs of the last loads that are in nobody's list but the maker's, the most used first. */
function ownSigns(views: Views): string[] {
  const counts = new Map<string, number>();
  for (const { stepId } of views.yields.of('roast').slice(-LATELY)) {
    const command = views.workshop.book.steps.get(stepId)?.command as CommandOf<'roast'> | undefined;
    for (const { what } of command?.how?.signs ?? [])
      if (!(SIGNS as readonly string[]).includes(what)) counts.set(what, (counts.get(what) ?? 0) + 1);
  }
  return [...counts]
    .sort(([, a], [, b]) => b - a)
    .slice(0, MOST_OWN)
    .map(([what]) => what);
}

/** Lengths and signs of earlier loads of the same program, else of all. */
function signsLike(views: Views, { plan, programId }: NonNullable<Work['roast']>): UsualSign[] {
  const loads = views.yields
    .of('roast')
    .slice(-LATELY)
    .flatMap(({ stepId }) => {
      const { how } = (views.workshop.book.steps.get(stepId)?.command ?? {}) as Partial<CommandOf<'roast'>>;
      return how?.seconds == null ? [] : [{ programId: how.programId, signs: how.signs, lengthS: how.seconds }];
    });
  const own = loads.filter((row) => programId !== null && row.programId === programId);
  const lengthS = plan ? 60 * programMinutes(plan.steps) : (usual(loads.map((row) => row.lengthS)) ?? USUAL_ROAST_S);
  return usualSigns(own.length >= 3 ? own : loads, lengthS);
}

/** Half an hour: an oven roast of ordinary beans. */
const USUAL_ROAST_S = 1800;

export async function liveView(views: Views, live: LiveRoasts, workId: string): Promise<LiveView> {
  const work = liveWork(views, workId);
  return {
    work: views.work(work),
    roast: work.roast,
    curve: curveData(await live.curve(work)),
    roaster: roasterViews(views).find(({ id }) => id === work.machineId) ?? null,
    moisture: moistureOf(views, work.roast, work.sources[0]?.holdingId ?? ''),
    ownSigns: ownSigns(views),
    usualSigns: signsLike(views, work.roast),
    now: views.workshop.now(),
  };
}
