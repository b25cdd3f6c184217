const HALF_A_PAIR = /[\uD800-\uDBFF](?![\uDC00-\uDFFF])|(?<![\uD800-\uDBFF])[\uDC00-\uDFFF]/;

/** Deeper than anything that is sent here. */
const DEEPEST = 60;

/**
 * Where a body holds text that no database keeps: the NUL character, or half of a surrogate pair; or lists in lists in
 * lists, deeper than anything that is sent here.
 *
 * @returns the dotted path of the first, or null
 */
export function unstorable(value: unknown, path = '', depth = 0): string | null {
  if (typeof value === 'string') return value.includes('\u0000') || HALF_A_PAIR.test(value) ? path : null;
  if (value === null || typeof value !== 'object') return null;
  if (depth > DEEPEST) return path;
  for (const [key, part] of Object.entries(value)) {
    if (key.includes('\u0000')) return path;
    const found = unstorable(part, path === '' ? key : `${path}.${key}`, depth + 1);
    if (found !== null) return found;
  }
  return null;
}
