import { useEffect, useRef, type RefObject } from 'react';

/**
 * Brings into view what has come up below the fold, and again for each new subject.
 *
 * @param subject what it is about: another text, or another thing, is another subject
 * @returns goes to what comes up
 */
export function useIntoView<T extends HTMLElement>(subject: unknown): RefObject<T | null> {
  const box = useRef<T>(null);
  useEffect(() => {
    // In braces: newer browsers return a promise here, which must not become the effect's clean-up.
    box.current?.scrollIntoView({ block: 'nearest' });
  }, [subject]);
  return box;
}
