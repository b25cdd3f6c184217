import type { CommandOf } from '@wunsch/core/commands';
import { lifeOf, runningIn, type Life, type RunEvent } from '@wunsch/core/grind/running';
import type { Follower, Lasting } from '@wunsch/core/ledger/follower';
import type { Batch, Step } from '@wunsch/core/ledger/types';
import { runningHours } from '@wunsch/core/run/stretches';
import { eachAhead, type Ahead } from '../ledger/ahead';
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

/** What is kept of lives that are over. */
interface Past {
  conching: string;
  over: ReadonlyMap<string, { steps: string; lived: Lived }>;
}

/** Which steps a word means, in whatever book. */
const ofSteps = (word: string): string => word.slice(word.indexOf(' ') + 1);

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
export class BatchLives implements Lasting {
  /** How batches lived that are over, and of which steps that was read. */
  private readonly over = new Map<string, { steps: string; lived: Lived }>();

  constructor(private readonly views: Views) {}

  /** A life is read of a batch's steps, and as settled as they are. */
  get follower(): Follower {
    return this.views.batchSteps.follower;
  }

  /** Can be caught up ahead of the first question. */
  get ahead(): Ahead {
    return eachAhead(
      () => this.views.workshop.batches.values(),
      4,
      (batch) => this.of(batch),
    );
  }

  /** Machines that conche, as every life was read with it. */
  private get conching(): string {
    return Array.from(this.views.workshop.machines.values(), ({ id, conches }) => (conches === true ? id : '')).join(
      ' ',
    );
  }

  past(): Past {
    const over = [...this.over].filter(([batchId]) => this.views.batchSteps.isSettled(batchId));
    return {
      conching: this.conching,
      over: new Map(over.map(([id, { steps, lived }]) => [id, { steps: ofSteps(steps), lived }])),
    };
  }

  resume(past: unknown): void {
    const { conching, over } = past as Past;
    if (conching !== this.conching) return;
    const [book] = this.views.workshop.book.line.split('.');
    for (const [batchId, { steps, lived }] of over) this.over.set(batchId, { steps: `${book} ${steps}`, lived });
  }

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

  private byMachine = { of: '', rows: new Map<string, Begun[]>() };

  /** Another word whenever other steps of any batch are in force, or something else was changed beside the book. */
  private get state(): string {
    return `${this.views.stepsOfBatches} ${this.views.workshop.told}`;
  }

  /** Batches that were in a machine, oldest first; not yet read as runs. */
  inMachine(machineId: string): readonly Begun[] {
    const { state: of } = this;
    if (this.byMachine.of !== of) this.byMachine = { of, rows: this.grouped() };
    return this.byMachine.rows.get(machineId) ?? [];
  }

  private grouped(): Map<string, Begun[]> {
    const rows = new Map<string, Begun[]>();
    for (const batch of this.views.workshop.batches.values()) {
      const { firstAt, lastAt, machines } = this.views.spanOfBatch(batch.id) ?? { firstAt: 0, lastAt: 0, machines: [] };
      for (const id of new Set([batch.machineId, ...machines])) {
        if (id === null) continue;
        const list = rows.get(id);
        if (list) list.push({ batch, firstAt, lastAt });
        else rows.set(id, [{ batch, firstAt, lastAt }]);
      }
    }
    for (const list of rows.values()) list.sort((a, b) => a.firstAt - b.firstAt);
    return rows;
  }

  private readonly summed = new Map<string, { of: string; hours: number; live: readonly Lived[] }>();

  /** Hours that a machine ran from a moment on, up to now. What has ended is summed once, until something is entered. */
  hoursSince(machineId: string, since: number, now: number): number {
    const { state } = this;
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
