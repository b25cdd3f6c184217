import type { Book } from './book';
import type { Step } from './types';

/** The first version of a step: what its corrections have in common. */
export function firstVersion(book: Book, stepId: string): string {
  let id = stepId;
  for (let step = book.steps.get(id); step && step.supersedes !== null; step = book.steps.get(id)) id = step.supersedes;
  return id;
}

/** The version of a step that counts; undefined where there is no such step. */
export function newestVersion(book: Book, stepId: string): Step | undefined {
  let step = book.steps.get(stepId);
  for (let next = step && book.successorOf(step.id); next !== undefined; next = book.successorOf(next))
    step = book.steps.get(next) ?? step;
  return step;
}
