import { DomainError } from '@wunsch/core/errors/domain-error';

/** What was looked for. @throws `http/not-found` with these words, where it is not there */
export function found<T>(value: T | null | undefined, words: string): T {
  if (value == null) throw new DomainError('http/not-found', words);
  return value;
}
