import type { Book } from '@wunsch/core/ledger/book';
import type { Position } from '@wunsch/core/ledger/entries';
import type { State, StepCost, Totals, Valuation, WorthThen } from '@wunsch/core/ledger/valuation';
import { columnSections, ends, Growing, openColumns, type Columns } from './columns';
import { Lately } from '../store/lately';
import type { Sections } from './sections';
import { SealedStep } from './sealed-steps';
import type { Words } from './words';

/*
 * What everything was worth at a place in the order of the work, in columns of numbers: a valuation goes on from there
 * instead of from the first sack.
 */

/** By the number of a holding; `filled` is 0 where it never was, `root…` says what it is made of. */
const STATE = {
  filled: 'u8',
  value: 'narrow',
  mass: 'narrow',
  pieces: 'narrow',
  unit: 'narrow',
  rootEnd: 'near',
} as const;
const ROOT = { holding: 'u32', share: 'f64' } as const;
/** By the row of a step; `known` is 0 where it had no cost. */
const COST = {
  known: 'u8',
  inputs: 'narrow',
  credit: 'narrow',
  sold: 'narrow',
  lost: 'narrow',
  outputEnd: 'near',
} as const;
const OUTPUT = { holding: 'u32', value: 'narrow' } as const;

/** States that are kept as they were read. */
const ASKED = 6000;

/** What is said of it beside the columns. */
export interface WorthHead {
  upTo: Position;
  steps: number;
  sales: string[];
  totals: Totals;
}

interface Tables {
  states: Columns<typeof STATE>;
  roots: Columns<typeof ROOT>;
  costs: Columns<typeof COST>;
  outputs: Columns<typeof OUTPUT>;
}

export class SealedWorth implements WorthThen {
  readonly upTo: Position;
  readonly steps: number;
  readonly sales: readonly string[];
  readonly totals: Readonly<Totals>;

  constructor(
    { upTo, steps, sales, totals }: WorthHead,
    private readonly tables: Tables,
    private readonly words: Words,
    private readonly book: Book,
  ) {
    [this.upTo, this.steps, this.sales, this.totals] = [upTo, steps, sales, totals];
  }

  isSettled(): boolean {
    return this.book.isSettled(this.upTo);
  }

  /** What is worked out of states goes by them. */
  private readonly asked = new Lately<string, State>(ASKED);

  state(holdingId: string): Readonly<State> | undefined {
    const known = this.asked.get(holdingId);
    if (known) return known;
    const found = this.open(holdingId);
    if (found) this.asked.set(holdingId, found);
    return found;
  }

  private open(holdingId: string): State | undefined {
    const { states, roots } = this.tables;
    const holding = this.words.find(holdingId);
    if (holding === undefined || !states.filled[holding]) return undefined;
    const makeUp = new Map<string, number>();
    const [from, to] = ends(states.rootEnd, holding);
    for (let i = from; i < to; i += 1) makeUp.set(this.words.text(roots.holding[i] ?? 0) ?? '', roots.share[i] ?? 0);
    return {
      valueMilli: states.value.at(holding),
      massMg: states.mass.at(holding),
      pieces: states.pieces.at(holding),
      unitMilli: states.unit.at(holding),
      makeUp,
    };
  }

  cost(stepId: string): StepCost | undefined {
    const { costs, outputs } = this.tables;
    const step = this.book.steps.get(stepId);
    if (!(step instanceof SealedStep) || !costs.known[step.row]) return undefined;
    const { row, money } = step;
    const made = new Map<string, number>();
    const [from, to] = ends(costs.outputEnd, row);
    for (let i = from; i < to; i += 1) made.set(this.words.text(outputs.holding[i] ?? 0) ?? '', outputs.value.at(i));
    return {
      inputsMilli: costs.inputs.at(row),
      purchaseMilli: money.purchaseMilli,
      labourMilli: money.labourMilli,
      energyMilli: money.energyMilli,
      creditMilli: costs.credit.at(row),
      outputs: made,
      soldMilli: costs.sold.at(row),
      lostMilli: costs.lost.at(row),
    };
  }
}

/** What a valuation knows of steps and holdings that are sealed, in columns. */
export function worthTables(words: Words, stepIds: Iterable<string>, valuation: Valuation): Tables {
  const states = new Growing(STATE, null);
  const roots = new Growing(ROOT, null);
  for (const text of words) {
    const state = valuation.stateOf(text);
    for (const [root, share] of state?.makeUp ?? []) roots.add({ holding: words.number(root), share });
    states.add({
      // One that was never filled has no unit that is a number.
      filled: state && !Number.isNaN(state.unitMilli) ? 1 : 0,
      value: state?.valueMilli ?? 0,
      mass: state?.massMg ?? 0,
      pieces: state?.pieces ?? 0,
      unit: state?.unitMilli ?? 0,
      rootEnd: roots.length,
    });
  }
  const costs = new Growing(COST, null);
  const outputs = new Growing(OUTPUT, null);
  for (const id of stepIds) {
    const cost = valuation.costOf(id);
    for (const [holdingId, value] of cost?.outputs ?? []) outputs.add({ holding: words.number(holdingId), value });
    costs.add({
      known: cost ? 1 : 0,
      inputs: cost?.inputsMilli ?? 0,
      credit: cost?.creditMilli ?? 0,
      sold: cost?.soldMilli ?? 0,
      lost: cost?.lostMilli ?? 0,
      outputEnd: outputs.length,
    });
  }
  return { states: states.whole(), roots: roots.whole(), costs: costs.whole(), outputs: outputs.whole() };
}

export const worthSections = ({ states, roots, costs, outputs }: Tables): Sections => ({
  ...columnSections('state', states),
  ...columnSections('root', roots),
  ...columnSections('cost', costs),
  ...columnSections('output', outputs),
});

/** The worth of a checkpoint. @throws Error where it is no whole one */
export const openWorth = (head: WorthHead, words: Words, book: Book, sections: Sections): SealedWorth =>
  new SealedWorth(
    head,
    {
      states: openColumns('state', STATE, sections),
      roots: openColumns('root', ROOT, sections),
      costs: openColumns('cost', COST, sections),
      outputs: openColumns('output', OUTPUT, sections),
    },
    words,
    book,
  );
