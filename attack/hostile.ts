/*
 * Requests that nobody should send, made up from the server's own description of its routes: most of a body is as it should
 * be, one or two leaves of it are not. Everything follows from a seed.
 */

/** JSON Schema, as far as the description uses it. */
export interface Schema {
  type?: string | string[];
  properties?: Record<string, Schema>;
  required?: string[];
  items?: Schema | boolean;
  enum?: unknown[];
  const?: unknown;
  anyOf?: Schema[];
  oneOf?: Schema[];
  allOf?: Schema[];
  minimum?: number;
  maximum?: number;
  minLength?: number;
  minItems?: number;
  format?: string;
  pattern?: string;
  additionalProperties?: Schema | boolean;
}

export interface Route {
  method: 'GET' | 'POST' | 'PUT' | 'DELETE';
  url: string;
  summary: string;
  schema: Schema | null;
}

export interface Attack {
  method: Route['method'];
  url: string;
  /** As it is sent; null: no body. */
  body: string | null;
}

interface Document {
  paths: Record<
    string,
    Record<string, { summary?: string; requestBody?: { content?: Record<string, { schema?: Schema }> } }>
  >;
}

/** What would empty or replace the workshop, or never ends: not part of a storm of requests. */
const LEFT_OUT = /restore|server-sent events|\/api\/demo|\/api\/clock/;

/** Routes of a server, from its own description. */
export function routesOf({ paths }: Document): Route[] {
  return Object.entries(paths).flatMap(([url, methods]) =>
    Object.entries(methods).flatMap(([method, { summary = '', requestBody }]): Route[] => {
      if (LEFT_OUT.test(url) || LEFT_OUT.test(summary)) return [];
      const schema = requestBody?.content?.['application/json']?.schema ?? null;
      return [{ method: method.toUpperCase() as Route['method'], url, summary, schema }];
    }),
  );
}

const deep = (depth: number): unknown => Array.from({ length: depth }).reduce((inner) => [inner], 'in here' as unknown);

/** Values that no field asks for. */
const HOSTILE: readonly unknown[] = [
  null,
  true,
  '',
  ' ',
  -1,
  0,
  0.5,
  -0.0001,
  1e21,
  1e308,
  2 ** 53,
  Number.MIN_VALUE,
  'x'.repeat(3000),
  'a\u0000b',
  '\ud800',
  '" =2+5',
  '＝cmd',
  '<script>alert(1)</script>',
  '../../../etc/passwd',
  'T99999999999999999999999',
  '0001-01-01',
  '2026-13-45',
  '9999-12-31',
  '9999-12-31T23:59:59Z',
  '1969-12-31T23:59:59Z',
  'NaN',
  [],
  {},
  { __proto__: null, constructor: { prototype: { polluted: true } } },
  deep(400),
  Array.from({ length: 5000 }, () => 'x'),
];
/** Values that only spoil what comes after them. */
const QUERIES = ['', '-1', '1e99', 'NaN', 'x'.repeat(500), '%00', '..%2f..', '9999999999', '2026-13-45', '%ED%A0%80'];

export class Storm {
  /** @param chance from 0 to 1; @param known ids and codes that the server has: what is sent reaches deeper with them */
  constructor(
    private readonly routes: readonly Route[],
    private readonly chance: () => number,
    private readonly known: () => readonly string[],
  ) {}

  private pick<T>(values: readonly T[]): T {
    return values[Math.floor(this.chance() * values.length)] as T;
  }

  /** The next request. */
  next(): Attack {
    const { method, url, schema } = this.pick(this.routes);
    const path = url.replace(/\{\w+\}|:\w+/g, () =>
      this.chance() < 0.8 ? encodeURIComponent(this.pick(this.known()) ?? 'x') : encodeURIComponent(this.text()),
    );
    const query =
      method === 'GET' && this.chance() < 0.3
        ? `?${this.pick(['limit', 'q', 'code', 'from', 'group', 'find', 'codes', 'station'])}=${this.pick(QUERIES)}`
        : '';
    return { method, url: path + query, body: schema ? this.body(schema) : null };
  }

  private text(): string {
    const value = this.pick(HOSTILE.filter((row): row is string => typeof row === 'string'));
    // A lone half of a pair cannot stand in an address.
    return /[\ud800-\udfff]/.test(value) ? 'x' : value;
  }

  private body(schema: Schema): string {
    const roll = this.chance();
    if (roll < 0.02) return '{"';
    if (roll < 0.04) return JSON.stringify(this.pick(HOSTILE)) ?? 'null';
    const value = this.valid(schema, '');
    const spoiled = roll < 0.2 ? value : this.spoil(value);
    return JSON.stringify(spoiled) ?? 'null';
  }

  /** Something that the schema takes, as far as it says. */
  private valid(schema: Schema, name: string): unknown {
    const one = schema.anyOf ?? schema.oneOf;
    if (one) return this.valid(this.pick(one), name);
    if (schema.allOf) return Object.assign({}, ...schema.allOf.map((part) => this.valid(part, name) as object));
    if (schema.const !== undefined) return schema.const;
    if (schema.enum) return this.pick(schema.enum);
    const type = Array.isArray(schema.type) ? this.pick(schema.type) : schema.type;
    if (type === 'object' || schema.properties) {
      const required = new Set(schema.required);
      return Object.fromEntries(
        Object.entries(schema.properties ?? {}).flatMap(([key, inner]) =>
          required.has(key) || this.chance() < 0.5 ? [[key, this.valid(inner, key)]] : [],
        ),
      );
    }
    if (type === 'array') {
      const count = Math.max(schema.minItems ?? 0, Math.floor(3 * this.chance()));
      const items = typeof schema.items === 'object' ? schema.items : {};
      return Array.from({ length: count }, () => this.valid(items, name));
    }
    if (type === 'integer' || type === 'number') {
      const low = Math.max(schema.minimum ?? 0, -1e6);
      const high = Math.min(schema.maximum ?? 1000, 1e6);
      const value = low + this.chance() * Math.max(0, high - low) * (this.chance() < 0.7 ? 0.02 : 1);
      return type === 'integer' ? Math.floor(value) : value;
    }
    if (type === 'boolean') return this.chance() < 0.5;
    if (type === 'null') return null;
    return this.string(schema, name);
  }

  private string({ format, minLength = 0 }: Schema, name: string): string {
    if (name === 'personId') return this.pick(['ann', 'ilse', 'bo']);
    if (/id$|code|holding|batch|lot|machine|material/i.test(name) && this.chance() < 0.9)
      return this.pick(this.known()) ?? 'x';
    if (format === 'date') return this.pick(['2026-03-04', '2027-11-30', '2024-02-29']);
    if (format === 'date-time') return this.pick(['2026-03-04T05:06:07Z', '2026-10-25T00:30:00Z']);
    return this.pick(['Ridge', '12,5', 'x', 'Größe 70 %', 'ordinary words']).padEnd(minLength, 'x');
  }

  /** Puts one or two hostile values in the place of leaves. */
  private spoil(value: unknown): unknown {
    const leaves: [object, string][] = [];
    const walk = (node: unknown): void => {
      if (typeof node !== 'object' || node === null) return;
      for (const key of Object.keys(node)) {
        leaves.push([node, key]);
        walk((node as Record<string, unknown>)[key]);
      }
    };
    walk(value);
    if (leaves.length === 0) return value;
    const count = this.chance() < 0.8 ? 1 : 2;
    for (let i = 0; i < count; i += 1) {
      const [node, key] = this.pick(leaves);
      (node as Record<string, unknown>)[key] = this.pick(HOSTILE);
    }
    return value;
  }
}

/** What came back, counted. */
export interface Tally {
  tried: number;
  taken: number;
  refused: number;
  faults: string[];
}

/** No answer may be a failure of the server, or late: ms. What is a copy of everything may take its time. */
export const SLOWEST_MS = 2000;
const COPIES = /^\/api\/workshop\/(?:export|backups)/;

/**
 * Sends a storm, one request after another, and counts.
 *
 * @param send answers status and milliseconds; @param slowestMs what is later is at fault
 */
export async function send(
  storm: Storm,
  count: number,
  send: (attack: Attack) => Promise<{ status: number; ms: number }>,
  slowestMs = SLOWEST_MS,
): Promise<Tally> {
  const tally: Tally = { tried: 0, taken: 0, refused: 0, faults: [] };
  for (let i = 0; i < count; i += 1) {
    const attack = storm.next();
    const { status, ms } = await send(attack);
    tally.tried += 1;
    if (status < 400) tally.taken += 1;
    else tally.refused += 1;
    if (status >= 500 || ms > (COPIES.test(attack.url) ? 5 : 1) * slowestMs)
      tally.faults.push(
        `${status} in ${Math.round(ms)} ms: ${attack.method} ${attack.url.slice(0, 200)} ${(attack.body ?? '').slice(0, 400)}`,
      );
  }
  return tally;
}

/**
 * An export with one value in it that is not as it should be.
 *
 * @returns the file, and where it was spoiled
 */
export function spoiled(bytes: string, chance: () => number): { where: string; file: string } {
  const document = JSON.parse(bytes) as Record<string, unknown>;
  const path: string[] = [];
  let at: Record<string, unknown> = document;
  for (;;) {
    const keys = Object.keys(at);
    const key = keys[Math.floor(chance() * keys.length)];
    if (key === undefined) break;
    path.push(key);
    const inner = at[key];
    if (inner !== null && typeof inner === 'object' && Object.keys(inner).length > 0 && chance() > 0.1) {
      at = inner as Record<string, unknown>;
      continue;
    }
    if (chance() < 0.2) Reflect.deleteProperty(at, key);
    else at[key] = HOSTILE[Math.floor(chance() * HOSTILE.length)];
    break;
  }
  const whole = JSON.stringify(document);
  return { where: path.join('.'), file: chance() < 0.05 ? whole.slice(0, Math.floor(whole.length * chance())) : whole };
}
