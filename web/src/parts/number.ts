/** A number as people type it: comma or point; null when it is empty or not a number. */
export function readNumber(text: string): number | null {
  const clean = text.trim().replace(/\s/g, '').replace(',', '.');
  if (clean === '' || !/^-?\d*\.?\d+$|^-?\d+\.$/.test(clean)) return null;
  const value = Number(clean);
  return Number.isFinite(value) ? value : null;
}

/**
 * Several figures typed side by side: what they say, and which cannot be read. Empty ones are null.
 *
 * @param texts as typed, by name
 */
export function readNumbers<K extends string>(
  texts: Record<K, string>,
): { values: Record<K, number | null>; wrong: Partial<Record<K, string>> } {
  const names = Object.keys(texts) as K[];
  const entries = names.map((name) => [name, readNumber(texts[name])] as const);
  return {
    values: Object.fromEntries(entries) as Record<K, number | null>,
    wrong: Object.fromEntries(
      entries
        .filter(([name, value]) => value === null && texts[name].trim() !== '')
        .map(([name]) => [name, 'is not a number']),
    ) as Partial<Record<K, string>>,
  };
}

/** What is wrong with one figure while it is typed: unreadable, or nothing. */
export const unreadable = (text: string): string | undefined =>
  text.trim() !== '' && readNumber(text) === null ? 'is not a number' : undefined;
