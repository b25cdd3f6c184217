import type { AnswerAt } from '@wunsch/core/api/reads';
import type { AskedAt, WrittenAt } from '@wunsch/core/api/writes';
import { createHash } from 'node:crypto';
import { Readable } from 'node:stream';
import type { FastifyInstance, FastifyReply, FastifyRequest } from 'fastify';
import type { z } from 'zod/mini';
import { DomainError } from '@wunsch/core/errors/domain-error';
import { away } from '../heavy/away';
import type { Calculators } from './calculating';
import type { Workshop } from '../journal/workshop';
import type { Route } from './openapi';
import { Lately } from '../store/lately';

/** So many answers are kept: what a few screens ask for. */
const MOST_STILLS = 40;
const JSON_TYPE = 'application/json; charset=utf-8';

declare module 'fastify' {
  interface FastifyContextConfig {
    /** What a request's body is read by: a refusal calls its fields as their registry does. */
    body?: z.ZodMiniType;
  }
}

/** Registers routes and remembers them for the OpenAPI document. */
export class Router implements Calculators {
  readonly routes: Route[] = [];
  private readonly open = new Set<() => void>();
  /** Answers that nothing has changed since, by their address. */
  private readonly stills = new Lately<string, { of: string; text: string }>(MOST_STILLS);

  constructor(
    readonly app: FastifyInstance,
    readonly workshop: Workshop,
  ) {
    app.addHook('preClose', (done) => {
      for (const end of [...this.open]) end();
      done();
    });
  }

  read<Q extends z.ZodMiniType, U extends string = string>(
    url: U,
    summary: string,
    answer: (request: FastifyRequest, query: z.infer<Q>) => AnswerAt<U>,
    query?: Q,
  ): void {
    this.routes.push({ method: 'GET', url, summary, query });
    this.app.get(url, (request) => answer(request, query ? query.parse(request.query) : (undefined as z.infer<Q>)));
  }

  /**
   * A read of what changes with what is entered, and with the clock not within a minute: asked for again before that, it is
   * answered as it was.
   */
  still<Q extends z.ZodMiniType, U extends string = string>(
    url: U,
    summary: string,
    answer: (request: FastifyRequest, query: z.infer<Q>) => AnswerAt<U>,
    query?: Q,
  ): void {
    this.routes.push({ method: 'GET', url, summary, query });
    this.app.get(url, async (request, reply) => {
      const { workshop } = this;
      const of = `${workshop.version}.${Math.floor(workshop.now() / 60_000)}`;
      const known = workshop.isDirty ? undefined : this.stills.get(request.url);
      if (known?.of !== of) {
        const said = await Promise.resolve(
          answer(request, query ? query.parse(request.query) : (undefined as z.infer<Q>)),
        );
        if (workshop.isDirty) return said;
        const text = JSON.stringify(said);
        this.stills.set(request.url, { of, text });
        return reply.type(JSON_TYPE).send(text);
      }
      return reply.type(JSON_TYPE).send(known.text);
    });
  }

  /** Something large, sent as it is made. */
  download(
    url: string,
    summary: string,
    answer: (request: FastifyRequest) => Promise<{ type: string; stream: Readable }>,
  ): void {
    this.routes.push({ method: 'GET', url, summary, isFile: true });
    this.app.get(url, async (request, reply) => {
      const { type, stream } = await answer(request);
      return reply.type(type).send(stream);
    });
  }

  /** Something to download: a picture, a sheet. Served so that a browser never runs it. */
  file(
    url: string,
    summary: string,
    answer: (request: FastifyRequest) => Promise<{ type: string; name: string; bytes: Uint8Array; inline: boolean }>,
  ): void {
    this.routes.push({ method: 'GET', url, summary, isFile: true });
    this.app.get(url, async (request, reply) => {
      const { type, name, bytes, inline } = await answer(request);
      const ascii = name.replace(/[^\w. -]/g, '_');
      void reply
        .type(type)
        .header('content-security-policy', "sandbox; default-src 'none'")
        .header(
          'content-disposition',
          `${inline ? 'inline' : 'attachment'}; filename="${ascii}"; filename*=UTF-8''${encodeURIComponent(name)}`,
        );
      return reply.send(Buffer.from(bytes));
    });
  }

  /**
   * Server-sent events until the other side goes, or this server does.
   *
   * @param start begins to send; what it returns stops it. What it throws is answered as a refusal.
   */
  stream(
    url: string,
    summary: string,
    start: (send: (data: unknown) => void, request: FastifyRequest) => () => void,
  ): void {
    this.routes.push({ method: 'GET', url, summary: `${summary} (server-sent events)`, isFile: true });
    this.app.get(url, (request, reply) => {
      const { raw } = reply;
      let begun = false;
      const begin = (): void => {
        if (begun) return;
        begun = true;
        reply.hijack();
        raw.writeHead(200, {
          'content-type': 'text/event-stream',
          'cache-control': 'no-store',
          'x-accel-buffering': 'no',
        });
      };
      const stop = start((data) => {
        begin();
        raw.write(`data: ${JSON.stringify(data)}\n\n`);
      }, request);
      begin();
      raw.flushHeaders();
      const end = (): void => {
        stop();
        this.open.delete(end);
        raw.end();
      };
      this.open.add(end);
      request.raw.on('close', end);
    });
  }

  /** A calculation: takes a body, changes nothing. */
  calc<B extends z.ZodMiniType, U extends string = string>(
    url: U,
    summary: string,
    body: B,
    answer: (body: z.infer<B>, request: FastifyRequest) => AskedAt<U>,
    bodyLimit?: number,
  ): void {
    this.routes.push({ method: 'POST', url, summary, body });
    this.app.post(url, { config: { body }, ...(bodyLimit === undefined ? {} : { bodyLimit }) }, (request) =>
      answer(body.parse(request.body), request),
    );
  }

  /** The same, done away from everybody else: what may take its time. The answer comes from the body alone. */
  away<B extends z.ZodMiniType, U extends string = string>(
    url: U,
    summary: string,
    body: B,
    _answer: (body: z.infer<B>) => AskedAt<U>,
    bodyLimit?: number,
  ): void {
    this.calc<B>(url, summary, body, (input) => away('calculate', [url, input]), bodyLimit);
  }

  /**
   * A write: validated, one at a time, durable before it is answered. With an `Idempotency-Key` a repeated
   * write returns the first answer and says so in `Idempotent-Replay`.
   */
  write<B extends z.ZodMiniType, M extends 'POST' | 'PUT' | 'DELETE', U extends string = string>(
    method: M,
    url: U,
    summary: string,
    body: B,
    act: (body: z.infer<B>, request: FastifyRequest) => WrittenAt<M, U>,
    bodyLimit?: number,
  ): void {
    this.routes.push({ method, url, summary, ...(method === 'DELETE' ? {} : { body }) });
    this.app.route({
      method,
      url,
      config: { body },
      ...(bodyLimit === undefined ? {} : { bodyLimit }),
      handler: async (request, reply) => {
        const input = body.parse(request.body ?? (method === 'DELETE' ? {} : request.body));
        return this.workshop.exclusively(() => this.once(request, reply, input, () => act(input, request)));
      },
    });
  }

  /**
   * Something long that takes its own turns among the writers: validated, told when it is done; never repeated under a
   * key.
   */
  act<B extends z.ZodMiniType, U extends string = string>(
    url: U,
    summary: string,
    body: B,
    act: (body: z.infer<B>, request: FastifyRequest) => Promise<Awaited<WrittenAt<'POST', U>>>,
  ): void {
    this.routes.push({ method: 'POST', url, summary, body });
    this.app.post(url, { config: { body } }, async (request, reply) => {
      const answer = await act(body.parse(request.body), request);
      void reply.code(201);
      return answer;
    });
  }

  /** Something large that is read as it comes, of any size. @param take reads it, and takes its own turn to write */
  upload<U extends string>(
    url: U,
    summary: string,
    take: (stream: Readable) => Promise<Awaited<WrittenAt<'POST', U>>>,
  ): void {
    this.routes.push({ method: 'POST', url, summary });
    void this.app.register((scope, _, done) => {
      scope.removeAllContentTypeParsers();
      scope.addContentTypeParser('*', (_request, payload, read) => read(null, payload));
      scope.post(url, async (request, reply) => {
        if (!(request.body instanceof Readable))
          throw new DomainError('http/invalid', 'Send the file as the body. Nothing was saved.');
        const answer = await take(request.body);
        void reply.code(201);
        return answer;
      });
      done();
    });
  }

  private async once(
    request: FastifyRequest,
    reply: FastifyReply,
    input: unknown,
    act: () => unknown,
  ): Promise<unknown> {
    const header = request.headers['idempotency-key'];
    const key = typeof header === 'string' && header.length > 0 ? header : null;
    if (key !== null && key.length > 100)
      throw new DomainError('http/long-key', 'An Idempotency-Key has at most 100 letters. Nothing was saved.');
    const fingerprint = createHash('sha256')
      .update(`${request.method} ${request.url} ${JSON.stringify(input)}`)
      .digest('hex');
    if (key !== null) {
      const known = await this.workshop.answerFor(key);
      if (known && known.fingerprint !== fingerprint) {
        throw new DomainError(
          'http/key-reused',
          'This entry was saved already, with other figures, perhaps in another tab. Reload to see what was kept.',
        );
      }
      if (known) {
        void reply.header('idempotent-replay', 'true').code(known.status);
        return known.body;
      }
    }
    try {
      this.workshop.ready();
      const answer = (await act()) ?? {};
      const status = request.method === 'POST' ? 201 : 200;
      if (key !== null) this.workshop.keepAnswer({ key, fingerprint, status, body: answer, at: this.workshop.now() });
      await this.workshop.commit();
      void reply.code(status);
      return answer;
    } catch (error) {
      this.workshop.discard();
      throw error;
    }
  }
}
