import type { z } from 'zod/mini';
import { askedAt } from './asked';

/** What was sent, and what it was to be read by: to know what its fields are called. */
export interface Sent {
  schema: z.core.$ZodType;
  value: unknown;
}

/**
 * What a field is called, from its path in a request: `command.sources.0.massG` is “Weight (line 1)”.
 *
 * @param sent where its schema is known; a path that begins within its command is found too
 * @returns the last name of the path, spelled out, where no label is known
 */
export function labelOf(path: string, sent?: Sent): string {
  const names = path.split('.');
  const last = names.findLast((name) => !/^\d+$/.test(name)) ?? '';
  const index = names.find((name) => /^\d+$/.test(name));
  const asked =
    sent && (askedAt(sent.schema, names, sent.value) ?? askedAt(sent.schema, ['command', ...names], sent.value));
  const label =
    asked?.label ??
    (last === ''
      ? 'The entry'
      : last
          .replace(/(G|C|Pct|Id)$/, '')
          .replace(/([a-z])([A-Z])/g, '$1 $2')
          .replace(/^./, (letter) => letter.toUpperCase()));
  return index === undefined ? label : `${label} (line ${Number(index) + 1})`;
}
