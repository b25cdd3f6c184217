import type { CommandOf } from '@wunsch/core/commands';
import type { ActView } from '@wunsch/core/api/grind';
import { nightChoice } from '@wunsch/core/grind/moved';
import { actDues, waitsWords, wentIn, type Charged, type WentIn } from '@wunsch/core/grind/acts';
import { conchePriorFrom, type ConchePast } from '@wunsch/core/grind/conche';
import type { Batch, PlannedAct, Step } from '@wunsch/core/ledger/types';
import type { Due } from '@wunsch/core/run/acts';
import { localIn } from '@wunsch/core/units/zone';
import type { BowlTemp } from '@wunsch/core/grind/warming';
import type { Population, Solid } from '@wunsch/core/grind/fineness';
import type { GrindPrior, GrindReading } from '@wunsch/core/grind/forecast';
import { evidenceOf, priorFrom, type GrindEvidence } from '@wunsch/core/grind/prior';
import { grinding, moving } from '@wunsch/core/grind/running';
import { isRunning, momentReached, runningHours, type Stretch } from '@wunsch/core/run/stretches';
import { momentOf } from '@wunsch/core/run/attended';
import type { ConcheStudy, GrindStudy } from '@wunsch/core/grind/tonight';
import type { Views } from '../ledger/views';
import { BatchLives, notesOf, type Lived } from './lives';

/** What a grind was, by its own steps. */
export interface GrindRun extends Lived {
  batch: Batch;
  machineId: string | null;
  /** When it was ground, and when it was moved at all. */
  stretches: Stretch[];
  moved: Stretch[];
  charges: Charged[];
  populations: Population[];
  readings: (GrindReading & { at: number })[];
  conche: Pick<ConcheStudy, 'tastes' | 'astringency' | 'aroma' | 'heat'>;
  /** Moments at which the tension was changed. */
  tensions: number[];
  massG: number;
  group: string;
}

/** Earlier batches of a bean whose conching is looked back on. */
const MOST_CONCHED = 12;
/** From so many percent on, an ingredient counts as what it is mostly. */
const MOSTLY = 40;
/** Newer grinds say more: of a machine's past so many are asked. */
const MOST_PAST = 60;
/** Readings from which on a finished grind teaches anything. */
const LEAST_READINGS = 2;

const shared = new WeakMap<Views, GrindRuns>();

/** The runs of a workshop, read once for all who ask. */
export function grindRuns(views: Views): GrindRuns {
  const known = shared.get(views) ?? new GrindRuns(views);
  shared.set(views, known);
  return known;
}

interface KeptRun {
  /** Of which steps it was read. */
  steps: string;
  run: GrindRun;
  evidence: GrindEvidence | null;
}

/** Runs of grinders, read from the book; what finished ones teach is kept. */
export class GrindRuns {
  private readonly kept = new Map<string, KeptRun>();
  private readonly priors = new Map<string, { key: string; prior: GrindPrior }>();

  readonly lives: BatchLives;

  constructor(private readonly views: Views) {
    this.lives = new BatchLives(views);
  }

  /** A batch's run; null before anything was charged. */
  run(batch: Batch): GrindRun | null {
    const steps = this.views.stepsWord(batch.id);
    const before = this.kept.get(batch.id);
    if (before?.run.batch === batch && before.steps === steps) return before.run;
    const run = this.read(batch, this.views.stepsOfBatch(batch.id));
    if (run) this.kept.set(batch.id, { steps, run, evidence: null });
    return run;
  }

  private read(batch: Batch, steps: readonly Step[]): GrindRun | null {
    const lived = this.lives.of(batch);
    if (!lived) return null;
    const { startedAt, endedAt, life } = lived;
    const charged = steps.filter(({ kind }) => kind === 'charge');
    const emptied = steps.findLast(({ kind }) => kind === 'discharge');
    const notes = notesOf(steps, endedAt);
    const [stretches, moved] = [grinding(life), moving(life)];
    const hoursAt = (at: number): number => runningHours(stretches, at);
    const movedAt = (at: number): number => runningHours(moved, at);
    const readings = notes.flatMap(({ at, what, value }): GrindRun['readings'] => {
      if (value === null) return [];
      if (what === 'micron') return [{ kind: 'gauge', at, atH: hoursAt(at), micron: value }];
      return what === 'felt' ? [{ kind: 'tongue', at, atH: hoursAt(at), felt: value }] : [];
    });
    const micron = emptied && (emptied.command as CommandOf<'discharge'>).micron;
    if (emptied && micron != null && endedAt !== null)
      readings.push({ kind: 'gauge', at: endedAt, atH: hoursAt(endedAt), micron });
    const charges = charged.map((step) => ({ at: step.at, solids: this.solidsOf(step) }));
    // Only what was done says when it went in: what is to come is asked for at the moment of the question.
    const went = wentIn(
      (batch.acts ?? []).filter(({ doneAt }) => doneAt !== null),
      charges,
      new Map(),
      startedAt,
    );
    const scores = (asked: string) =>
      notes.flatMap(({ at, what, value }) =>
        what === asked && value !== null ? [{ atH: movedAt(at), score: value }] : [],
      );
    return {
      batch,
      machineId: this.views.machineOf(batch.id),
      startedAt,
      endedAt,
      life,
      stretches,
      moved,
      charges,
      populations: this.populations(went.solids, stretches),
      readings: readings.sort((a, b) => a.atH - b.atH),
      conche: {
        tastes: scores('sourness'),
        astringency: scores('astringency'),
        aroma: scores('aroma'),
        heat: notes.flatMap(({ at, what, value }) =>
          what === 'bowl-temperature' && value !== null ? [{ atH: movedAt(at), tempC: value }] : [],
        ),
      },
      tensions: notes.flatMap(({ at, what }) => (what === 'tension' ? [at] : [])),
      massG: charged.reduce((sum, step) => sum + chargedMg(step, batch.id), 0) / 1000,
      group: batch.recipe?.id ?? batch.name,
    };
  }

  private populations(solids: readonly { solid: Solid; at: number }[], stretches: readonly Stretch[]): Population[] {
    const found = new Map<string, Population>();
    for (const { solid, at } of solids) {
      // Portions of one hour are one: the last of them is the coarsest.
      const atH = Math.round(100 * runningHours(stretches, at)) / 100;
      found.set(`${solid} ${Math.floor(atH)}`, { solid, atH });
    }
    return [...found.values()];
  }

  /** What of a charge has to be ground. */
  private solidsOf(step: Step): Solid[] {
    const { workshop } = this.views;
    const found = new Set<Solid>();
    for (const { holdingId, massMg } of step.postings) {
      if (holdingId === null || massMg >= 0) continue;
      const holding = workshop.book.holding(holdingId);
      if (holding.kind === 'nibs' || holding.kind === 'lot') found.add('cocoa');
      if (holding.kind !== 'ingredient') continue;
      const { figures } = workshop.compositions.of(holdingId);
      if (figures.sugarPct + figures.polyolsPct > MOSTLY) found.add('sugar');
      else if (figures.fatPct < 100 - MOSTLY) found.add('milk');
    }
    return [...found];
  }

  /** What the finished grinds of a machine teach, oldest first. @param before only those that were ended by then */
  past(machineId: string | null, before: number): { run: GrindRun; evidence: GrindEvidence }[] {
    if (machineId === null) return [];
    const { book } = this.views.workshop;
    const runs: GrindRun[] = [];
    // From the one begun last: no more are read than are asked.
    for (const { batch, firstAt } of this.lives.inMachine(machineId).toReversed()) {
      if (runs.length === MOST_PAST) break;
      if (book.live.has(batch.id) || firstAt > before) continue;
      const run = this.run(batch);
      if (run?.machineId !== machineId || run.endedAt === null || run.endedAt > before) continue;
      if (run.readings.length >= LEAST_READINGS && run.populations.length > 0) runs.push(run);
    }
    runs.sort((a, b) => (a.endedAt ?? 0) - (b.endedAt ?? 0));
    return runs.map((run) => {
      const kept = this.kept.get(run.batch.id);
      const evidence = kept?.evidence ?? evidenceOf(run);
      if (kept) kept.evidence = evidence;
      return { run, evidence };
    });
  }

  /** What the grinds before a run let expect of it. */
  private prior({ batch, machineId, startedAt, massG, group }: GrindRun): GrindPrior {
    const past = this.past(machineId, startedAt).map(({ evidence }) => evidence);
    const key = JSON.stringify([past.length, past.at(-1)?.last, past[0]?.last, massG, group]);
    const before = this.priors.get(batch.id);
    if (before?.key === key) return before.prior;
    const prior = priorFrom(past, Math.max(1, massG), group);
    this.priors.set(batch.id, { key, prior });
    return prior;
  }

  /**
   * When the acts of a run are due, and what went in by them.
   *
   * @param now the moment it is asked for
   */
  acts(run: GrindRun, now: number): { acts: PlannedAct[]; dues: Map<string, Due>; went: WentIn } {
    const { settings } = this.views.workshop;
    const planned = run.batch.acts ?? [];
    const dues = actDues(planned, {
      now,
      momentOf: (hours) =>
        momentReached(run.stretches, hours, now) ??
        momentOf(
          hours,
          { at: now, hours: runningHours(run.stretches, now) },
          settings.unattended,
          settings.attended,
          localIn(settings.timeZone),
        ),
      // The one channel that acts at a bowl wait for is its gauge's, and it only falls.
      crossed: (_, __, micron) => {
        const seen = run.readings.find((row) => row.kind === 'gauge' && row.micron <= micron && row.at <= now);
        return seen ? { at: seen.at, seen: true } : null;
      },
    });
    const went = wentIn(planned, run.charges, dues, now);
    return {
      acts: planned.map((act) => ({ ...act, doneAt: act.doneAt ?? went.done.get(act.id) ?? null })),
      dues,
      went,
    };
  }

  /** The acts of a run with what is known of them now. */
  actViews(run: GrindRun, now: number): ActView[] {
    const { settings } = this.views.workshop;
    const { acts, dues } = this.acts(run, now);
    const local = localIn(settings.timeZone);
    return acts.map((act) => {
      const dueAt = dues.get(act.id)?.at ?? null;
      return {
        ...act,
        dueAt,
        waitsWords: waitsWords(act, acts),
        night: act.doneAt !== null || dueAt === null ? null : nightChoice(dueAt, now, settings.attended, local),
      };
    });
  }

  /** How often a batch went through its machine. */
  passes({ batch }: GrindRun): number {
    return this.views
      .stepsOfBatch(batch.id)
      .filter((step) => step.kind === 'reading' && (step.command as CommandOf<'reading'>).what === 'pass').length;
  }

  /** Runs that were in a machine, oldest first. */
  ofMachine(machineId: string): readonly GrindRun[] {
    return this.lives
      .inMachine(machineId)
      .flatMap(({ batch }) => this.run(batch) ?? [])
      .filter(({ life }) => life.some((row) => row.machineId === machineId));
  }

  /** Earlier batches of the same recipe or bean: how long they were conched, and what became of them. */
  private concheOf(run: GrindRun, at: number): Pick<ConcheStudy, 'prior' | 'past'> {
    const { workshop } = this.views;
    const runs = [...workshop.batches.values()]
      .filter((batch) => batch.id !== run.batch.id && (batch.recipe?.id ?? batch.name) === run.group)
      .flatMap((batch) => this.run(batch) ?? [])
      .filter((past) => past.endedAt !== null && past.endedAt <= at)
      .sort((a, b) => (a.endedAt ?? 0) - (b.endedAt ?? 0))
      .slice(-MOST_CONCHED);
    const past = runs.map(({ batch, moved, endedAt, conche }): ConchePast => {
      const tastes = this.views
        .stepsOfBatch(batch.id)
        .flatMap((step) => (step.kind === 'taste' ? [step.command as CommandOf<'taste'>] : []));
      return {
        code: batch.code,
        hours: runningHours(moved, endedAt ?? at),
        sourness: conche.tastes.at(-1)?.score ?? null,
        score: tastes.length === 0 ? null : tastes.reduce((sum, { score }) => sum + score, 0) / tastes.length,
        words: tastes.find(({ note }) => note !== '')?.note ?? '',
      };
    });
    const taught = runs.filter(({ conche }) => conche.tastes.length >= LEAST_READINGS);
    return { past, prior: taught.length === 0 ? null : conchePriorFrom(taught.map(({ conche }) => conche)) };
  }

  /**
   * Everything a forecast of a run is made from.
   *
   * @param at the moment it is asked for: readings after it are not known then
   * @param heat what a probe in the mass logged, UTC ms
   */
  study(run: GrindRun, at: number, heat: readonly BowlTemp[] = []): GrindStudy {
    const { workshop } = this.views;
    const { settings } = workshop;
    const { batch, machineId } = run;
    const { getsUnder, ...prior } = this.prior(run);
    const live = run.endedAt === null;
    const { acts, dues, went } = this.acts(run, at);
    const last = run.life.at(-1);
    const read = run.readings.filter((reading) => reading.at <= at);
    const lastRead = read.at(-1)?.at ?? 0;
    return {
      batchId: batch.id,
      code: batch.code,
      machine: machineId === null ? null : (workshop.machines.get(machineId)?.name ?? null),
      now: at,
      startedAt: run.startedAt,
      nowH: runningHours(run.stretches, at),
      running: live && isRunning(run.stretches),
      state: !last || !last.running ? 'standing' : last.conches ? 'conching' : last.lifted ? 'lifted' : 'grinding',
      populations: live ? this.populations(went.solids, run.stretches) : run.populations,
      planned: live ? went.planned : [],
      acts: live
        ? acts
            .filter(({ doneAt }) => doneAt === null)
            .map((act) => ({
              id: act.id,
              what: act.what,
              kind: act.kind ?? 'other',
              at: dues.get(act.id)?.at ?? null,
              micron: act.waits?.by === 'reading' && dues.get(act.id)?.at === null ? act.waits.micron : null,
            }))
        : [],
      assumed: [
        ...went.assumed.map((what) => `“${what}” was due and nobody said that it was done: it counts as done then.`),
        ...(run.tensions.some((moment) => moment > lastRead && moment <= at)
          ? ['The tension was changed since the last reading: the pace can differ until it is read again.']
          : []),
      ],
      readings: read,
      targetMicron: batch.targetMicron,
      prior: { ...prior, getsUnder: Number.isFinite(getsUnder) ? getsUnder : null },
      attended: settings.attended,
      unattended: settings.unattended,
      timeZone: settings.timeZone,
      conche: {
        ...run.conche,
        nowH: runningHours(run.moved, at),
        heat: [
          ...run.conche.heat,
          ...heat.map((row) => ({ atH: runningHours(run.moved, row.at), tempC: row.tempC })),
        ].sort((a, b) => a.atH - b.atH),
        ...(live ? this.concheOf(run, at) : { past: [], prior: null }),
      },
    };
  }
}

const chargedMg = (step: Step, batchId: string): number =>
  step.postings.reduce((sum, { holdingId, massMg }) => (holdingId === batchId ? sum + massMg : sum), 0);
