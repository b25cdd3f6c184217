/* Contents: what others use of this room, file by file. Kept by scripts/contents.mjs. */

export { DomainError, type FieldProblem } from './domain-error';
