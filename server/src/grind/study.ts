import type { CommandOf } from '@wunsch/core/ledger/commands';
import type { Batch, Step } from '@wunsch/core/ledger/types';
import type { Population, Solid } from '@wunsch/core/grind/fineness';
import type { GrindPrior, GrindReading } from '@wunsch/core/grind/forecast';
import { evidenceOf, priorFrom, type GrindEvidence } from '@wunsch/core/grind/prior';
import { isRunning, runningHours, stretchesOf, type Stretch } from '@wunsch/core/grind/running';
import type { GrindStudy } from '@wunsch/core/grind/tonight';
import type { Views } from '../ledger/views';

/** What a grind was, by its own steps. */
export interface GrindRun {
  batch: Batch;
  machineId: string | null;
  startedAt: number;
  endedAt: number | null;
  stretches: Stretch[];
  populations: Population[];
  readings: (GrindReading & { at: number })[];
  conche: GrindStudy['conche'];
  massG: number;
  group: string;
}

/** From so many percent on, an ingredient counts as what it is mostly. */
const MOSTLY = 40;
/** Newer grinds say more: of a machine's past so many are asked. */
const MOST_PAST = 60;
/** Readings from which on a finished grind teaches anything. */
const LEAST_READINGS = 2;

/** Runs of grinders, read from the book; what finished ones teach is kept. */
export class GrindRuns {
  private readonly kept = new Map<string, { key: string; run: GrindRun; evidence: GrindEvidence | null }>();
  private readonly priors = new Map<string, { key: string; prior: GrindPrior }>();

  constructor(private readonly views: Views) {}

  /** A batch's run; null before anything was charged. */
  run(batch: Batch): GrindRun | null {
    const steps = this.views.stepsOfBatch(batch.id);
    const key = steps.map(({ id }) => id).join();
    const before = this.kept.get(batch.id);
    if (before?.key === key) return { ...before.run, batch };
    const run = this.read(batch, steps);
    if (run) this.kept.set(batch.id, { key, run, evidence: null });
    return run;
  }

  private read(batch: Batch, steps: readonly Step[]): GrindRun | null {
    const charges = steps.filter(({ kind }) => kind === 'charge');
    const first = charges[0];
    if (!first) return null;
    const emptied = steps.findLast(({ kind }) => kind === 'discharge');
    const endedAt = emptied && !this.views.workshop.book.live.has(batch.id) ? emptied.at : null;
    const notes = steps.flatMap((step) =>
      step.kind === 'reading' ? [{ at: step.at, ...(step.command as CommandOf<'reading'>) }] : [],
    );
    const stretches = stretchesOf(
      first.at,
      notes.flatMap(({ at, what }) =>
        what === 'stones-stop' || what === 'stones-run' ? [{ at, on: what === 'stones-run' }] : [],
      ),
      endedAt,
    );
    const hoursAt = (at: number): number => runningHours(stretches, at);
    const readings = notes.flatMap(({ at, what, value }): GrindRun['readings'] => {
      if (value === null) return [];
      if (what === 'micron') return [{ kind: 'gauge', at, atH: hoursAt(at), micron: value }];
      return what === 'felt' ? [{ kind: 'tongue', at, atH: hoursAt(at), felt: value }] : [];
    });
    const micron = emptied && (emptied.command as CommandOf<'discharge'>).micron;
    if (emptied && micron != null && endedAt !== null)
      readings.push({ kind: 'gauge', at: endedAt, atH: hoursAt(endedAt), micron });
    return {
      batch,
      machineId: this.views.machineOf(batch.id),
      startedAt: first.at,
      endedAt,
      stretches,
      populations: charges.flatMap((step) =>
        this.solidsOf(step).map((solid) => ({ solid, atH: Math.round(100 * hoursAt(step.at)) / 100 })),
      ),
      readings: readings.sort((a, b) => a.atH - b.atH),
      conche: {
        tastes: notes.flatMap(({ at, what, value }) =>
          what === 'sourness' && value !== null ? [{ atH: hoursAt(at), score: value }] : [],
        ),
        heat: notes.flatMap(({ at, what, value }) =>
          what === 'bowl-temperature' && value !== null ? [{ atH: hoursAt(at), tempC: value }] : [],
        ),
      },
      massG: charges.reduce((sum, step) => sum + chargedMg(step, batch.id), 0) / 1000,
      group: batch.recipe?.id ?? batch.name,
    };
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
    const { workshop } = this.views;
    const runs = [...workshop.batches.values()]
      .filter((batch) => !workshop.book.live.has(batch.id))
      .flatMap((batch) => this.run(batch) ?? [])
      .filter((run) => run.machineId === machineId && run.endedAt !== null && run.endedAt <= before)
      .filter(({ readings, populations }) => readings.length >= LEAST_READINGS && populations.length > 0)
      .sort((a, b) => (a.endedAt ?? 0) - (b.endedAt ?? 0))
      .slice(-MOST_PAST);
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
   * Everything a forecast of a run is made from.
   *
   * @param at the moment it is asked for: readings after it are not known then
   */
  study(run: GrindRun, at: number): GrindStudy {
    const { workshop } = this.views;
    const { settings } = workshop;
    const { batch, machineId } = run;
    const { getsUnder, ...prior } = this.prior(run);
    return {
      batchId: batch.id,
      code: batch.code,
      machine: machineId === null ? null : (workshop.machines.get(machineId)?.name ?? null),
      now: at,
      startedAt: run.startedAt,
      nowH: runningHours(run.stretches, at),
      running: run.endedAt === null && isRunning(run.stretches),
      populations: run.populations,
      readings: run.readings.filter((reading) => reading.at <= at),
      targetMicron: batch.targetMicron,
      prior: { ...prior, getsUnder: Number.isFinite(getsUnder) ? getsUnder : null },
      attended: settings.attended,
      unattended: settings.unattended,
      timeZone: settings.timeZone,
      conche: run.conche,
    };
  }
}

const chargedMg = (step: Step, batchId: string): number =>
  step.postings.reduce((sum, { holdingId, massMg }) => (holdingId === batchId ? sum + massMg : sum), 0);
