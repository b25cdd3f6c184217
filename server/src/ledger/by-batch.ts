import type { Views } from './views';

interface Known<T> {
  of: string;
  rows: Map<string, { steps: string; value: T }>;
}

/**
 * What is worked out of a batch, kept until something is entered, said or logged that can change it: a step of its own,
 * a correction or late entry anywhere, a machine or an ingredient, a curve.
 *
 * @returns reads it, or has it from before
 */
export function byBatch<T>(read: (views: Views, batchId: string) => T): (views: Views, batchId: string) => T {
  const kept = new WeakMap<Views, Known<T>>();
  return (views, batchId) => {
    const { book, told, roasts } = views.workshop;
    const of = `${book.line} ${told} ${roasts.curveRevision}`;
    let known = kept.get(views);
    if (known?.of !== of) kept.set(views, (known = { of, rows: new Map() }));
    const steps = views.stepsWord(batchId);
    const before = known.rows.get(batchId);
    if (before?.steps === steps) return before.value;
    const value = read(views, batchId);
    known.rows.set(batchId, { steps, value });
    return value;
  };
}
