import type { CommandOf } from '@wunsch/core/commands';
import { lifeOf, runningIn, type Life, type RunEvent } from '@wunsch/core/grind/running';
import type { Batch, Step } from '@wunsch/core/ledger/types';
import { runningHours } from '@wunsch/core/run/stretches';
import type { Views } from '../ledger/views';

/** How a batch's bowl stood from when to when, on whatever machine. */
export interface Lived {
  startedAt: number;
  endedAt: number | null;
  life: Life;
}

/** A batch that was in a machine: when its first and its last step was. */
interface Begun {
  batch: Batch;
  firstAt: number;
  lastAt: number;
}

/** What was read or noted of a batch until it was emptied. */
export const notesOf = (steps: readonly Step[], endedAt: number | null) =>
  steps.flatMap((step) =>
    step.kind === 'reading' && (endedAt === null || step.at <= endedAt)
      ? [{ at: step.at, machineId: step.machineId, ...(step.command as CommandOf<'reading'>) }]
      : [],
  );

const EVENTS: Partial<Record<CommandOf<'reading'>['what'], Exclude<RunEvent['what'], 'into'>>> = {
  'stones-stop': 'stop',
  'stones-run': 'run',
  'stones-up': 'up',
  'stones-down': 'down',
};

/**
 * The lives of all batches, and the hours of machines that come of them. Less than what a forecast asks of a grind: all
 * that were ever ground are kept.
 */
export class BatchLives {
  /** How batches lived that are over, and of which steps that was read. */
  private readonly over = new Map<string, { steps: string; lived: Lived }>();

  constructor(private readonly views: Views) {}

  /** How a batch's bowl stood from when to when; null before anything was charged. */
  of(batch: Batch): Lived | null {
    const steps = this.views.stepsWord(batch.id);
    const before = this.over.get(batch.id);
    if (before?.steps === steps) return before.lived;
    const lived = this.read(batch, this.views.stepsOfBatch(batch.id));
    if (lived && lived.endedAt !== null) this.over.set(batch.id, { steps, lived });
    return lived;
  }

  private conches(machineId: string | null): boolean {
    return machineId !== null && this.views.workshop.machines.get(machineId)?.conches === true;
  }

  private read(batch: Batch, steps: readonly Step[]): Lived | null {
    const first = steps.find(({ kind }) => kind === 'charge');
    if (!first) return null;
    const emptied = steps.findLast(({ kind }) => kind === 'discharge');
    const endedAt = emptied && !this.views.workshop.book.live.has(batch.id) ? emptied.at : null;
    const began = first.machineId ?? batch.machineId;
    const events = notesOf(steps, endedAt).flatMap(({ at, what, machineId }): RunEvent[] => {
      const event = EVENTS[what];
      if (event) return [{ at, what: event }];
      return what === 'move' && machineId !== null
        ? [{ at, what: 'into', machineId, conches: this.conches(machineId) }]
        : [];
    });
    const begin = { machineId: began, conches: this.conches(began) };
    return { startedAt: first.at, endedAt, life: lifeOf(first.at, events, endedAt, begin) };
  }

  /** What was read of each batch's steps, and of which. */
  private readonly begun = new Map<string, { steps: string; begun: Begun; machines: ReadonlySet<string> }>();
  private byMachine = { of: '', number: 0, rows: new Map<string, Begun[]>() };

  /** Batches that were in a machine, oldest first; not yet read as runs. */
  inMachine(machineId: string): readonly Begun[] {
    return this.upToDate.rows.get(machineId) ?? [];
  }

  /** Batches by machine, and a number that is another whenever other steps of any are in force. */
  private get upToDate(): { number: number; rows: ReadonlyMap<string, readonly Begun[]> } {
    const { told, batches } = this.views.workshop;
    const of = `${this.views.stepsOfBatches} ${told}`;
    if (this.byMachine.of === of) return this.byMachine;
    let isSame = this.begun.size === batches.size;
    for (const batch of batches.values()) isSame = this.readBegun(batch) && isSame;
    for (const id of this.begun.keys()) if (!batches.has(id)) this.begun.delete(id);
    // What was entered is mostly no batch's.
    this.byMachine = isSame
      ? { ...this.byMachine, of }
      : { of, number: this.byMachine.number + 1, rows: this.grouped() };
    return this.byMachine;
  }

  /** @returns whether it is as it was read before */
  private readBegun(batch: Batch): boolean {
    const word = this.views.stepsWord(batch.id);
    const known = this.begun.get(batch.id);
    if (known?.steps === word && known.begun.batch === batch) return true;
    const steps = this.views.stepsOfBatch(batch.id);
    const machines = new Set([batch.machineId, ...steps.map(({ machineId }) => machineId)].filter((id) => id !== null));
    const begun = { batch, firstAt: steps[0]?.at ?? 0, lastAt: steps.at(-1)?.at ?? 0 };
    this.begun.set(batch.id, { steps: word, begun, machines });
    return false;
  }

  private grouped(): Map<string, Begun[]> {
    const rows = new Map<string, Begun[]>();
    for (const { begun, machines } of this.begun.values())
      for (const id of machines) {
        const list = rows.get(id);
        if (list) list.push(begun);
        else rows.set(id, [begun]);
      }
    for (const list of rows.values()) list.sort((a, b) => a.firstAt - b.firstAt);
    return rows;
  }

  private readonly summed = new Map<string, { of: string; hours: number; live: readonly Lived[] }>();

  /** Hours that a machine ran from a moment on, up to now. What has ended is summed once, until something is entered. */
  hoursSince(machineId: string, since: number, now: number): number {
    const state = `${this.upToDate.number} ${this.views.workshop.told}`;
    const key = `${machineId} ${since}`;
    const sum = (lives: readonly Lived[]): number =>
      lives.reduce((hours, { life }) => {
        const own = runningIn(life, machineId);
        return hours + runningHours(own, now) - runningHours(own, since);
      }, 0);
    let known = this.summed.get(key);
    if (known?.of !== state) {
      const lives = this.inMachine(machineId).flatMap(({ batch, lastAt }) => {
        const goesOn = this.views.workshop.book.live.has(batch.id) || lastAt > since;
        return (goesOn && this.of(batch)) || [];
      });
      const isLive = ({ endedAt }: Lived): boolean => endedAt === null;
      known = { of: state, hours: sum(lives.filter((lived) => !isLive(lived))), live: lives.filter(isLive) };
      this.summed.set(key, known);
    }
    return known.hours + sum(known.live);
  }
}
