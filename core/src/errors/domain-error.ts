/** One thing wrong with one field of what was asked. `path` is dotted, as in `sources.0.massG`. */
export interface FieldProblem {
  path: string;
  message: string;
}

/**
 * A refusal the maker can act on. Everything in the core that can say no says it with this.
 *
 * `code` is stable and names area and reason (`ledger/short`); `message` says what happened and
 * what to do; `fields` ties it to what was entered; `facts` carries evidence (ids, grams).
 */
export class DomainError extends Error {
  constructor(
    readonly code: string,
    message: string,
    readonly fields: readonly FieldProblem[] = [],
    readonly facts: Readonly<Record<string, unknown>> = {},
  ) {
    super(message);
    this.name = 'DomainError';
  }
}
