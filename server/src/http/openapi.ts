import { existsSync, readFileSync } from 'node:fs';
import { z } from 'zod/mini';
import { FIELDS } from '@wunsch/core/fields/registry';
import { VERSION } from './version';

/** A route as the document tells of it. */
export interface Route {
  method: 'GET' | 'POST' | 'PUT' | 'DELETE';
  url: string;
  summary: string;
  query?: z.ZodMiniType | undefined;
  body?: z.ZodMiniType;
  /** What is answered is a file or a stream, no JSON. */
  isFile?: boolean;
}

/** Schemas of what is answered, and the shapes that they share: made from the types when the server is built. */
export interface AnswerSchemas {
  /** By method and address: `GET /api/ledger/floor`. */
  answers: Record<string, object>;
  schemas: Record<string, object>;
}

/** Answers as they were made beside the server; null where it runs from its source. */
export const readAnswers = (file: string): AnswerSchemas | null =>
  existsSync(file) ? (JSON.parse(readFileSync(file, 'utf8')) as AnswerSchemas) : null;

/** What the document says of a field: its name, its unit, what is usual. */
const described = ({
  zodSchema,
  jsonSchema,
}: {
  zodSchema: z.core.$ZodType;
  jsonSchema: z.core.JSONSchema.BaseSchema;
}): void => {
  const { label, unit, hint, usual } = FIELDS.get(zodSchema) ?? {};
  if (label !== undefined) jsonSchema.title = label;
  const said = [unit, hint, usual && `usually ${usual[0]} to ${usual[1]}`].filter(Boolean).join('; ');
  if (said !== '') jsonSchema.description = said;
};

const schemaOf = (of: z.ZodMiniType): z.core.JSONSchema.BaseSchema =>
  z.toJSONSchema(of, { io: 'input', unrepresentable: 'any', override: described });

const json = (schema: object): object => ({ 'application/json': { schema } });

/** OpenAPI 3.1: bodies and queries from the Zod schemas that guard the routes, answers from the types that both sides share. */
export function openApiOf(routes: readonly Route[], answers: AnswerSchemas | null): object {
  const paths: Record<string, Record<string, unknown>> = {};
  const refused = answers?.schemas['Problem'] ? { schema: { $ref: '#/components/schemas/Problem' } } : {};
  for (const { method, url, summary, query, body, isFile = false } of routes) {
    const path = url.replace(/:(\w+)/g, '{$1}');
    const parameters = [
      ...[...url.matchAll(/:(\w+)/g)].map(([, name]) => ({
        name,
        in: 'path',
        required: true,
        schema: { type: 'string' },
      })),
      ...(query ? queryParameters(query) : []),
    ];
    const answer = answers ? answerAt(answers.answers, `${method} ${url}`) : undefined;
    paths[path] = {
      ...paths[path],
      [method.toLowerCase()]: {
        summary,
        ...(parameters.length > 0 ? { parameters } : {}),
        ...(body ? { requestBody: { required: true, content: json(schemaOf(body)) } } : {}),
        responses: {
          '2XX': { description: 'Done', ...(isFile || url.endsWith('.csv') ? {} : { content: json(answer ?? {}) }) },
          '4XX': { description: 'Refused', content: { 'application/problem+json': refused } },
        },
      },
    };
  }
  return {
    openapi: '3.1.0',
    info: { title: 'Wunsch', version: VERSION },
    paths,
    ...(answers ? { components: { schemas: answers.schemas } } : {}),
  };
}

/** What is answered at an address: by its name, else by that of several, as `GET /api/:station/bench`. */
export function answerAt(answers: AnswerSchemas['answers'], asked: string): object | undefined {
  const parts = asked.split('/');
  const fits = (name: string): boolean => {
    const own = name.split('/');
    return own.length === parts.length && own.every((part, i) => part.startsWith(':') || part === parts[i]);
  };
  return answers[asked] ?? answers[Object.keys(answers).find(fits) ?? ''];
}

function queryParameters(query: z.ZodMiniType): object[] {
  const { properties = {}, required = [] } = schemaOf(query);
  return Object.entries(properties).map(([name, schema]) => ({
    name,
    in: 'query',
    required: required.includes(name),
    schema,
  }));
}
