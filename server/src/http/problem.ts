import type { FastifyReply } from 'fastify';
import { z } from 'zod/mini';
import type { Problem } from '@wunsch/core/api/types';
import { labelOf, type Sent } from '@wunsch/core/fields/labels';
import { DomainError, type FieldProblem } from '@wunsch/core/errors/domain-error';

const CONFLICTS = new Set([
  'ledger/superseded',
  'work/closed',
  'gate/closed',
  'pack/code-taken',
  'http/key-reused',
  'workshop/not-empty',
]);
const MISSING = new Set([
  'http/not-found',
  'trace/unknown-code',
  'ledger/unknown-step',
  'roast/no-load',
  'roast/no-curve',
]);

/** Nothing that whoever asked could mend: try again later. */
const LATER: Record<string, number> = { 'store/disk-full': 507, 'http/too-long': 503 };

const statusOf = (code: string): number => LATER[code] ?? (CONFLICTS.has(code) ? 409 : MISSING.has(code) ? 404 : 422);

export function problem(
  status: number,
  code: string,
  detail: string,
  errors: readonly FieldProblem[] = [],
  facts?: Record<string, unknown>,
  sent?: Sent,
): Problem {
  return {
    type: `urn:wunsch:problem:${code.replace('/', ':')}`,
    title: status === 409 ? 'Conflict' : status === 404 ? 'Not found' : status >= 500 ? 'Fault' : 'Refused',
    status,
    code,
    detail,
    errors: errors.map((row) => ({ ...row, label: labelOf(row.path, sent) })),
    ...(facts && Object.keys(facts).length > 0 ? { facts } : {}),
  };
}

/** Every way a request can fail, as one problem document. @param sent what was asked for, to name its fields */
export function problemFrom(error: unknown, sent?: Sent): Problem {
  if (error instanceof DomainError) {
    return problem(statusOf(error.code), error.code, error.message, error.fields, { ...error.facts }, sent);
  }
  if (error instanceof z.core.$ZodError) {
    const errors = error.issues.map((issue) => ({ path: issue.path.join('.'), message: issue.message }));
    const [first] = errors;
    return problem(
      422,
      'http/invalid',
      first
        ? `${first.path === '' ? 'The body' : labelOf(first.path, sent)} ${first.message}.`
        : 'That cannot be read.',
      errors,
      undefined,
      sent,
    );
  }
  const { statusCode, code, message } = error as { statusCode?: number; code?: string; message?: string };
  if (statusCode === 413)
    return problem(413, 'http/too-large', 'That is larger than this address takes. Nothing was saved.');
  if (code === 'FST_ERR_CTP_INVALID_MEDIA_TYPE')
    return problem(415, 'http/media-type', 'Send JSON: Content-Type application/json.');
  if (
    error instanceof SyntaxError ||
    code === 'FST_ERR_CTP_EMPTY_JSON_BODY' ||
    code === 'FST_ERR_CTP_INVALID_JSON_BODY' ||
    statusCode === 400
  ) {
    return problem(400, 'http/broken-json', `That is not JSON: ${message ?? 'it cannot be read'}. Nothing was saved.`);
  }
  if (statusCode !== undefined && statusCode < 500) return problem(statusCode, 'http/refused', message ?? 'Refused.');
  return problem(
    500,
    'http/fault',
    'Something failed here. Nothing of this request was saved; what was saved before is kept.',
  );
}

export const sendProblem = (reply: FastifyReply, document: Problem): FastifyReply =>
  reply.code(document.status).type('application/problem+json').send(document);
