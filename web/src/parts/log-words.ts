import type { StepView } from '@wunsch/core/api/types';
import { LOSS_NAMES, type StepKind } from '@wunsch/core/ledger/types';
import { count, type Show } from './workshop';

/** How a kind of step is told of. */
export interface KindWords {
  /** `Roasted`. */
  name: string;
  /** What it moved or said; left out, its grams. */
  words?: (step: StepView, show: Show) => string;
}

export type OfferedWords = Partial<Record<StepKind, KindWords>>;

const KINDS = new Map<string, KindWords>();

/** Takes in how a room tells of its steps: `kinds.ts` is the registry. */
export function offerWords(offered: OfferedWords): void {
  for (const [kind, words] of Object.entries(offered)) KINDS.set(kind, words);
}

export const stepName = (kind: StepKind): string => KINDS.get(kind)?.name ?? kind;

export const textOf = (value: unknown): string => (typeof value === 'string' ? value : '');

/** What was noted with a step, where its words do not say it already. */
export function noteOf(step: StepView, show: Show): string {
  const note = textOf((step.command as { note?: unknown }).note);
  return note !== '' && stepWords(step, show).includes(note) ? '' : note;
}

/** One step in words: `25.50 kg in, 24.36 kg on (95.5 %), 1.10 kg rejects`. */
export const stepWords = (step: StepView, show: Show): string =>
  step.withdrawn ? 'taken back' : (KINDS.get(step.kind)?.words ?? gramWords)(step, show);

/** The losses of a step, each with its grams. */
export const lossWords = (step: StepView, show: Show): string[] =>
  step.lines
    .filter((line) => line.loss !== null && line.massMg !== 0)
    .map(
      (line) =>
        `${show.mass(line.massMg)} ${LOSS_NAMES[line.loss ?? 'unaccounted'].toLowerCase()}${line.reason === null ? '' : ` (${line.reason})`}`,
    );

/** What any step moved. @param losses as they are told; @param onTo whether what goes on is told as well */
export function gramWords(step: StepView, show: Show, losses = lossWords(step, show), onTo = true): string {
  const good = step.lines.filter((line) => line.holdingId !== null && line.massMg > 0 && line.kind !== 'husk');
  const bars = good
    .filter((line) => line.pieces > 0)
    .map((line) => `${count(line.pieces)} ${line.kind === 'seconds' ? 'seconds' : line.pieces === 1 ? 'bar' : 'bars'}`);
  const husk = step.lines
    .filter((line) => line.kind === 'husk' && line.massMg > 0)
    .map((line) => `${show.mass(line.massMg)} husk`);
  const main =
    step.inMg > 0
      ? `${show.mass(step.inMg)} in${step.goodMg > 0 && onTo ? `, ${show.massBeside(step.goodMg, step.inMg)} on` : ''}`
      : show.mass(step.goodMg);
  return [main, ...bars, ...husk, ...losses].join(', ');
}
