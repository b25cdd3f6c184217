/** Something that grows with the book and is asked for sooner or later. @returns whether all of it is taken in */
export type Growing = (until: number) => boolean;

/** A slice of work, ms, and the pause after it in which others get their turn. */
const SLICE_MS = 8;
const PAUSE_MS = 12;

/**
 * Takes in what was entered before the start while nobody waits for it, a few milliseconds at a time, so that who looks
 * first does not wait. What is asked for meanwhile is made at once, as it always was.
 *
 * @returns stop
 */
export function workAhead(growing: readonly Growing[], log: (error: unknown) => void): () => void {
  const left = [...growing];
  let timer: NodeJS.Timeout | null = null;
  const slice = (): void => {
    try {
      if (left[0]?.(performance.now() + SLICE_MS) === true) left.shift();
    } catch (error) {
      left.shift();
      log(error);
    }
    timer = left.length > 0 ? setTimeout(slice, PAUSE_MS).unref() : null;
  };
  timer = setTimeout(slice, PAUSE_MS).unref();
  return () => {
    if (timer) clearTimeout(timer);
  };
}
