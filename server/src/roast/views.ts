import { curveData } from '@wunsch/core/roast/curve';
import { usual } from '@wunsch/core/entry/doubt';
import { programMinutes } from '@wunsch/core/roast/program';
import { usualSigns, type UsualSign } from '@wunsch/core/roast/usual-signs';
import type { LiveView, ProgramView, RoasterView } from '@wunsch/core/api/roast';
import { DomainError } from '@wunsch/core/errors/domain-error';
import type { CommandOf } from '@wunsch/core/commands';
import { roasterFacts } from '@wunsch/core/roast/records';
import { SIGNS } from '@wunsch/core/roast/words';
import type { Work } from '@wunsch/core/workshop/work';
import type { Machine } from '@wunsch/core/workshop/schemas';
import type { Views } from '../ledger/views';
import type { IndexedYield } from '../ledger/yield-index';
import type { Workshop } from '../journal/workshop';
import type { LiveRoasts } from './live';
import { moistureOf } from './loads';

interface Counts {
  programs: Map<string, { loads: number; lastAt: number }>;
  roasters: Map<string, { loads: number; curves: number }>;
}

interface Counted {
  /** What was counted of, and how many of it. */
  rows: readonly IndexedYield[];
  seen: number;
  programs: Counts['programs'];
  loads: Map<string, number>;
  machineOf: Map<string, string>;
  curves: { of: number; seen: number; counts: Map<string, number> };
}

/** Counted as the book grows: ten years are many thousand loads. */
const counted = new WeakMap<Workshop, Counted>();

/** How often each program was used and when last; loads and curves of each roaster. */
function countsOf(views: Views): Counts {
  const { workshop } = views;
  const { roasts } = workshop;
  const rows = views.yields.of('roast');
  let known = counted.get(workshop);
  if (known?.rows !== rows) {
    const curves = { of: -1, seen: 0, counts: new Map<string, number>() };
    known = { rows, seen: 0, programs: new Map(), loads: new Map(), machineOf: new Map(), curves };
    counted.set(workshop, known);
  }
  const { programs, loads, machineOf, curves } = known;
  for (; known.seen < rows.length; known.seen += 1) {
    const { step, at } = rows[known.seen] as IndexedYield;
    const loadId = step?.slots['good'];
    if (!step || loadId === undefined) continue;
    const programId = (step.command as CommandOf<'roast'>).how?.programId;
    if (programId != null) {
      const before = programs.get(programId) ?? { loads: 0, lastAt: 0 };
      programs.set(programId, { loads: before.loads + 1, lastAt: Math.max(at, before.lastAt) });
    }
    if (step.machineId === null) continue;
    loads.set(step.machineId, (loads.get(step.machineId) ?? 0) + 1);
    machineOf.set(loadId, step.machineId);
  }
  if (curves.of !== roasts.curveRevision || curves.seen !== known.seen) {
    const counts = new Map<string, number>();
    for (const { loadId } of roasts.curves.values()) {
      const machineId = loadId === null ? undefined : machineOf.get(loadId);
      if (machineId !== undefined) counts.set(machineId, (counts.get(machineId) ?? 0) + 1);
    }
    known.curves = { of: roasts.curveRevision, seen: known.seen, counts };
  }
  const { counts } = known.curves;
  return {
    programs,
    roasters: new Map([...loads].map(([id, count]) => [id, { loads: count, curves: counts.get(id) ?? 0 }])),
  };
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

const roaster = ({
  id,
  name,
  minG,
  maxG,
  retired,
  roaster: facts,
}: Machine): Omit<RoasterView, 'loads' | 'curves'> => ({
  id,
  name,
  minG,
  maxG,
  facts: facts ?? roasterFacts.parse({}),
  retired: retired ?? false,
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
  for (const { step } of views.yields.of('roast').slice(-LATELY)) {
    const command = step?.command as CommandOf<'roast'> | undefined;
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
    .flatMap(({ step }) => {
      const { how } = (step?.command ?? {}) as Partial<CommandOf<'roast'>>;
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
