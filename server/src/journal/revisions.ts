import { nanoid } from 'nanoid';
import { DomainError } from '@wunsch/core/errors/domain-error';
import type { Book } from '@wunsch/core/ledger/book';
import type { Command } from '@wunsch/core/commands';
import { planStep } from '@wunsch/core/stations';
import { plainStep } from '@wunsch/core/ledger/plain-step';
import type { HoldingFacts, PlanContext, StepPlan } from '@wunsch/core/ledger/planner';
import { cannotFollow, consequences, type Consequence, type Revision } from '@wunsch/core/ledger/revision';
import type { Holding, Step } from '@wunsch/core/ledger/types';

/** A step that is ready to enter, with what has to be made for it. */
export interface Entering {
  step: Step;
  plan: StepPlan;
}

/** A later step that a change reaches, with its new version; null where it cannot stand. */
export type Reached = Consequence<Command> & { next: Step | null };

/** What a change means for everything that came after it. */
export class Revisions {
  /**
   * @param book as it stands at each moment; @param contextOf planning in the place of a step, on the book as it would
   *   be or as it is
   */
  constructor(
    private readonly book: () => Book,
    private readonly contextOf: (old: Step, on?: Revision) => PlanContext,
  ) {}

  private plan(command: Command, old: Step, on?: Revision): StepPlan {
    return planStep(command, this.contextOf(old, on));
  }

  /**
   * The later steps that a change reaches, in the order of the work.
   *
   * @param edits commands corrected along with it, by step id; @param propose see `consequences`
   */
  reached(step: Step, edits?: ReadonlyMap<string, Command>, propose = false): Reached[] {
    let { seq } = step;
    const made = new Map<string, Step>();
    const version = (old: Step, command: Command, plan: StepPlan): Step => {
      const next: Step = {
        ...plainStep(old),
        id: nanoid(12),
        seq: (seq += 1),
        recordedAt: step.recordedAt,
        personId: step.personId,
        supersedes: old.id,
        reason: edits?.has(old.id) ? (step.reason ?? '') : 'Worked out again: what it was made from changed.',
        command,
        slots: plan.slots,
        money: {
          ...old.money,
          purchaseMilli: plan.purchaseMilli,
          revenueMilli: plan.revenueMilli,
          ...(plan.takingsMilli ? { takingsMilli: plan.takingsMilli } : {}),
        },
        postings: plan.postings,
      };
      made.set(old.id, next);
      return next;
    };
    const plan = (command: Command, old: Step, on: Revision): StepPlan => this.plan(command, old, on);
    return consequences(this.book(), [step], plan, version, edits, propose).map((row) => ({
      ...row,
      next: made.get(row.old.id) ?? null,
    }));
  }

  /**
   * The same, to be entered with the change.
   *
   * @throws DomainError `ledger/later-step` naming a step that cannot stand as it was entered
   */
  following(step: Step, edits?: ReadonlyMap<string, Command>): Entering[] {
    return this.reached(step, edits).map((row) => {
      if (!row.next || !row.plan) throw cannotFollow(row);
      return { step: row.next, plan: row.plan };
    });
  }

  /**
   * Says of holdings what a correction says, and of everything that was made from them what follows: names, materials
   * (and with them allergens), label codes.
   *
   * @param corrected the newest version of a step, entered already: what it says depends on what earlier ones say now
   * @param before told each holding as it is before something else is said of it
   * @returns the holdings of which something else is said now
   */
  restate(corrected: Step, before: (holding: Holding) => void): Holding[] {
    const book = this.book();
    const changed: Holding[] = [];
    const waiting: HoldingFacts[] = [...this.plan(corrected.command as Command, corrected).restated];
    const done = new Set<string>();
    for (let next = waiting.shift(); next; next = waiting.shift()) {
      const [wanted, there] = [next, book.holding(next.id)];
      const same = (Object.keys(wanted) as (keyof HoldingFacts)[]).every((key) => there[key] === wanted[key]);
      if (same || done.has(wanted.id)) continue;
      done.add(wanted.id);
      before(there);
      changed.push(book.restate(wanted));
      for (const entry of book.entriesOf(wanted.id)) {
        const user = book.steps.get(entry.stepId);
        if (!user || (entry.massMg >= 0 && entry.pieces >= 0)) continue;
        try {
          waiting.push(...this.plan(user.command as Command, user).restated);
        } catch (error) {
          // A step that today's rules would refuse keeps the names it gave.
          if (!(error instanceof DomainError)) throw error;
        }
      }
    }
    return changed;
  }
}
