import { newestOf, papers as papersSchema, type BeanRecord, type Papers } from './records';

/** Papers of a lot as last written; empty ones where nobody has. */
export function papersOf(records: readonly BeanRecord[]): Papers {
  return newestOf(records, 'papers')?.value ?? papersSchema.parse({ kind: 'papers' });
}
