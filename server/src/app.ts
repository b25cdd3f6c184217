import { existsSync } from 'node:fs';
import { Readable } from 'node:stream';
import helmet from '@fastify/helmet';
import fastifyStatic from '@fastify/static';
import Fastify, { type FastifyInstance } from 'fastify';
import { DomainError } from '@wunsch/core/errors/domain-error';
import type { Lasting } from '@wunsch/core/ledger/follower';
import { beanRoutes } from './beans/plugin';
import { clockOf, clockRoutes, type Clock } from './devices/clock';
import { CoreProbe, watchProbes } from './devices/core-probe';
import { SimulatedRoastProbe } from './devices/roast-probe';
import { deviceRoutes } from './devices/plugin';
import { SimulatedScale } from './devices/scale';
import { demoRoutes } from './demo/plugin';
import { briefError } from './http/brief';
import { workHere } from './heavy/away';
import { perform } from './tasks';
import { calculatorRoutes } from './http/calculators';
import { openApiOf, type AnswerSchemas } from './http/openapi';
import { problem, problemFrom, sendProblem } from './http/problem';
import { isOurs } from './http/hosts';
import { unstorable } from './store/text';
import { limitPatience, PATIENCE, type Patience } from './http/patience';
import { Router } from './http/router';
import { openingRoutes } from './ledger/opening';
import { floorRoutes } from './floor/plugin';
import { ledgerRoutes } from './ledger/plugin';
import { Views } from './ledger/views';
import { workAhead } from './ledger/ahead';
import { lossIndex } from './losses/index-by-month';
import { watchAhead } from './losses/series';
import { marksAhead, notesOf } from './trace/search';
import { lossRoutes } from './losses/plugin';
import { LiveRoasts } from './roast/live';
import { roastCalculators } from './roast/calculators';
import { roastRoutes } from './roast/plugin';
import { mouldRoutes } from './mould/plugin';
import { moneyRoutes } from './money/plugin';
import { BowlProbes } from './devices/bowl-probe';
import { SimulatedGauge } from './devices/gauge';
import { grindRoutes } from './grind/plugin';
import { grindRuns } from './grind/study';
import { restRoutes } from './rest/plugin';
import { orderRoutes } from './orders/plugin';
import { packRoutes } from './pack/plugin';
import { productRoutes } from './products/plugin';
import { tasteRoutes } from './taste/plugin';
import { trialRoutes } from './trials/plugin';
import { recipeRoutes } from './recipe/plugin';
import { temperRoutes } from './temper/plugin';
import { Pours } from './temper/pours';
import { judgementRoutes } from './judgement/plugin';
import { traceRoutes } from './trace/plugin';
import type { Backups } from './store/backups';
import { pictureRoutes } from './pictures/plugin';
import { backupRoutes, watchBackups } from './workshop/backup-routes';
import { dataRoutes } from './workshop/data';
import { winnowRoutes } from './winnow/plugin';
import { workshopRoutes } from './workshop/plugin';
import { watchStore } from './workshop/upkeep';
import type { Workshop } from './journal/workshop';

export interface AppOptions {
  workshop: Workshop;
  /** Directory of the built interface; left out, only the interface of programs is served. */
  web?: string;
  log?: boolean;
  /** Further names that this server goes by. */
  hosts?: readonly string[];
  /** Where whole copies of the workshop are kept; left out, none are made. */
  backups?: Backups;
  /** The clock that the workshop goes by; left out, the machine's own. */
  clock?: Clock;
  /** Largest body in bytes; a restore may be larger. */
  bodyLimit?: number;
  /** How long a request may take to arrive. */
  patience?: Patience;
  /** What its description says of answers; left out, nothing. */
  answers?: AnswerSchemas | null;
}

const BODY_LIMIT = 1024 * 1024;

/** Puts the server together: one function an area, one error format, one log. */
export async function buildApp({
  workshop,
  web,
  log = false,
  hosts = [],
  backups,
  clock = clockOf(undefined),
  bodyLimit = BODY_LIMIT,
  patience = PATIENCE,
  answers = null,
}: AppOptions): Promise<FastifyInstance> {
  const app = Fastify({
    logger: log
      ? {
          level: 'info',
          serializers: {
            req: (r: { method: string; url: string }) => ({ method: r.method, url: r.url }),
            err: briefError,
          },
        }
      : false,
    bodyLimit,
    forceCloseConnections: true,
  });
  await app.register(helmet, {
    contentSecurityPolicy: {
      useDefaults: false,
      directives: {
        defaultSrc: ["'self'"],
        // The solver of recipes is WebAssembly; nothing else may be compiled.
        scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
        styleSrc: ["'self'", "'unsafe-inline'"],
        imgSrc: ["'self'", 'data:', 'blob:'],
        fontSrc: ["'self'"],
        connectSrc: ["'self'"],
        workerSrc: ["'self'", 'blob:'],
        objectSrc: ["'none'"],
        baseUri: ["'self'"],
        formAction: ["'self'"],
        frameAncestors: ["'none'"],
      },
    },
    strictTransportSecurity: false,
  });
  app.setErrorHandler((error, request, reply) => {
    const { body: schema } = request.routeOptions.config;
    const document = problemFrom(error, schema && { schema, value: request.body });
    if (document.status >= 500) request.log.error(error);
    return sendProblem(reply, document);
  });
  app.addHook('onRequest', async (request, reply) => {
    if (isOurs(request.headers.host, hosts)) return;
    await sendProblem(
      reply,
      problem(421, 'http/foreign-host', 'This server does not go by that name. List it in WUNSCH_HOSTS if it should.'),
    );
  });
  limitPatience(app, (url) => url.startsWith('/api/workshop/restore'), patience);
  app.addHook('preHandler', (request, _reply, done) => {
    // What comes as a stream is looked at as it is read.
    const path = request.body instanceof Readable ? null : unstorable(request.body);
    if (path === null) return done();
    done(
      new DomainError(
        'http/unstorable',
        'Some text holds characters that cannot be kept, or lists lie too deep in one another.',
        [{ path, message: 'holds characters that cannot be kept' }],
      ),
    );
  });
  // A page from elsewhere must not write here through the maker's browser.
  app.addHook('onRequest', async (request, reply) => {
    const { origin, host } = request.headers;
    if (request.method === 'GET' || request.method === 'HEAD' || origin === undefined) return;
    if (URL.canParse(origin) && new URL(origin).host === host) return;
    await sendProblem(reply, problem(403, 'http/foreign-origin', 'Writes come from this address only.'));
  });

  workHere(perform);
  const router = new Router(app, workshop);
  const views = new Views(workshop);
  const { lives } = grindRuns(views);
  const lasting = new Map<string, Lasting>([...views.lasting, ['losses', lossIndex(views)], ['lives', lives]]);
  workshop.resume(lasting);
  const startedAt = workshop.now();
  let stopProbes = (): void => undefined;
  let stopBackups = (): void => undefined;
  let stopAhead = (): void => undefined;
  let stopStore = (): void => undefined;
  let stopRuns: (() => Promise<void>)[] = [];
  router.read('/api/health', 'Whether it is up', () => ({
    ok: true,
    version: workshop.version,
    steps: workshop.book.steps.size,
    upMs: workshop.now() - startedAt,
  }));
  router.read('/api/openapi.json', 'This description', () => openApiOf(router.routes, answers));
  clockRoutes(router, clock);
  workshopRoutes(router);
  dataRoutes(router);
  if (backups) backupRoutes(router, backups);
  ledgerRoutes(router, views);
  floorRoutes(router, views);
  openingRoutes(router);
  traceRoutes(router, views);
  judgementRoutes(router, views);
  moneyRoutes(router);
  const probe = new CoreProbe();
  const roastProbe = new SimulatedRoastProbe();
  const logError = (error: unknown): void => app.log.error(error);
  const live = new LiveRoasts(workshop, roastProbe, logError);
  workshop.follow('roast', {
    curve: (work) => live.row(work),
    speed: ({ roast }) => (roast?.probe === 'simulated' ? roastProbe.mood.speed : 1),
  });
  deviceRoutes(router, new SimulatedScale(workshop.now), probe, roastProbe);
  roastRoutes(router, views, live);
  recipeRoutes(router, views);
  const bowls = new BowlProbes(workshop, (batch) => grindRuns(views).run(batch)?.life ?? null, logError);
  grindRoutes(router, views, new SimulatedGauge(), bowls);
  restRoutes(router, views);
  const pours = new Pours(views, logError);
  workshop.follow('temper', { curve: (work) => pours.row(work) });
  beanRoutes(router, views);
  pictureRoutes(router, views);
  winnowRoutes(router, views);
  lossRoutes(router, views);
  calculatorRoutes(router);
  roastCalculators(router);
  temperRoutes(router, views, pours);
  mouldRoutes(router, views);
  packRoutes(router, views);
  productRoutes(router, views);
  orderRoutes(router, views);
  tasteRoutes(router, views);
  trialRoutes(router, views);
  demoRoutes(router);

  let askedAt = -Infinity;
  const isAsked = (_request: unknown, _reply: unknown, done: () => void): void => {
    askedAt = performance.now();
    done();
  };
  app.addHook('onRequest', isAsked);
  app.addHook('onResponse', isAsked);
  app.addHook('onListen', (done) => {
    stopStore = watchStore(workshop, logError);
    stopProbes = watchProbes(workshop, probe, logError);
    stopRuns = [live.watch(), bowls.watch(clock.speed), pours.watch()];
    if (backups) stopBackups = watchBackups(router, backups);
    stopAhead = workAhead(
      [
        ...Array.from(lasting.values(), ({ follower }) => follower),
        lives.ahead,
        { catchUp: () => (workshop.keepMade(lasting), true) },
        watchAhead(views),
        notesOf(views).follower,
        marksAhead(views),
      ],
      logError,
      () => performance.now() - askedAt,
    );
    done();
  });
  app.addHook('preClose', async () => {
    stopProbes();
    stopStore();
    stopBackups();
    stopAhead();
    await Promise.all(stopRuns.map((stop) => stop()));
  });
  app.addHook('onSend', (request, reply, payload, done) => {
    if (request.url.startsWith('/api/')) {
      void reply.header('cache-control', 'no-store');
      const isTable = reply.statusCode < 400 && (request.url.split('?')[0] ?? '').endsWith('.csv');
      if (isTable) void reply.type('text/csv; charset=utf-8');
    }
    done(null, payload);
  });
  if (web !== undefined && existsSync(web)) {
    await app.register(fastifyStatic, {
      root: web,
      preCompressed: true,
      immutable: true,
      maxAge: '30d',
      index: false,
      wildcard: true,
    });
    const page = (_: unknown, reply: { sendFile(name: string, options?: object): unknown }): unknown =>
      reply.sendFile('index.html', { maxAge: 0, immutable: false });
    app.get('/', page as never);
    app.setNotFoundHandler((request, reply) => {
      if (
        request.method === 'GET' &&
        !request.url.startsWith('/api/') &&
        !/\.\w+$/.test(request.url.split('?')[0] ?? '')
      ) {
        return reply.sendFile('index.html', { maxAge: 0, immutable: false });
      }
      return sendProblem(reply, problem(404, 'http/not-found', 'There is nothing at this address.'));
    });
  } else {
    app.setNotFoundHandler((_, reply) =>
      sendProblem(reply, problem(404, 'http/not-found', 'There is nothing at this address.')),
    );
  }
  return app;
}
