import { z } from 'zod/mini';

/* What is said of a field that cannot be read, where its schema has no words of its own: "Net weight is missing". */

const KINDS: Readonly<Record<string, string>> = {
  number: 'is not a number',
  int: 'is not a whole number',
  string: 'is not text',
  boolean: 'is neither true nor false',
  array: 'is not a list',
  object: 'cannot be read',
  record: 'cannot be read',
};

const listed = (values: readonly unknown[]): string =>
  values.length > 12
    ? 'is none that is known'
    : `is not ${values
        .map(String)
        .join(', ')
        .replace(/, ([^,]*)$/, ' or $1')}`;

/** @returns the words of a refusal, to follow the label of its field */
export function refusal(issue: z.core.$ZodRawIssue): string {
  if (issue.input === undefined || issue.input === null) return 'is missing';
  switch (issue.code) {
    case 'invalid_type':
      return KINDS[issue.expected] ?? 'cannot be read';
    case 'invalid_value':
      return listed(issue.values);
    case 'invalid_union':
      return typeof issue.input === 'object' ? 'is of no kind that is known' : 'cannot be read';
    case 'too_small':
      if (issue.origin === 'string') return 'is missing';
      return issue.origin === 'array' ? `has fewer than ${issue.minimum}` : `is below ${issue.minimum}`;
    case 'too_big':
      if (issue.origin === 'string') return `is longer than ${issue.maximum} letters`;
      return issue.origin === 'array' ? `has more than ${issue.maximum}` : `is above ${issue.maximum}`;
    case 'not_multiple_of':
      return `is no multiple of ${issue.divisor}`;
    case 'unrecognized_keys':
      return `has what does not belong here: ${issue.keys.join(', ')}`;
    default:
      return 'cannot be read';
  }
}

z.config({ customError: refusal });
