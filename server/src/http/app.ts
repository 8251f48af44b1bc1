// The Express application: guards first, then exactly the operations of the contract, then the browser's files.
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { ROUTES, type Route, validateInSlices, validateQuery } from '@lastmark/contract';
import compression from 'compression';
import express, {
  type ErrorRequestHandler,
  type Express,
  type Request,
  type RequestHandler,
  type Response,
  type Router,
} from 'express';
import helmet from 'helmet';
import type { Logger } from 'pino';
import { pinoHttp } from 'pino-http';
import type { Database } from '../db/database.ts';
import { newId } from '../db/ids.ts';
import type { Metrics } from '../watch/metrics.ts';
import { admission } from './admission.ts';
import { bodyOf, bodyParser, dropFile } from './body.ts';
import { type Door, guard } from './door.ts';
import type { Answer, Call, Handler, Handlers } from './handlers.ts';
import { withIds } from './own-ids.ts';
import { isApi, PRACTICE } from './paths.ts';
import { invalid, ProblemError, toProblem } from './problem.ts';
import { sameOrigin } from './same-origin.ts';

/** How long a body is gone through before others have their turn, ms. */
const SLICE_MILLISECONDS = 8;
const rest = (): Promise<void> => new Promise((resolve) => setImmediate(resolve));
const YEAR_SECONDS = 31_536_000;

export interface AppParts {
  readonly db: Database;
  readonly handlers: Handlers;
  readonly log: Logger;
  /** Folder of the built browser files. */
  readonly web: string;
  readonly door: Door;
  /** Told after every write: what follows from it is worked out anew. */
  readonly wrote: () => void;
  readonly metrics?: Pick<Metrics, 'measure'> | undefined;
  /** Answers for the world of practice; left out where there is none. */
  readonly practice?: RequestHandler | undefined;
}

/** Path of a contract route as Express writes it. */
export const expressPath = (path: string): string => `/api${path.replace(/\{(\w+)\}/g, ':$1')}`;

function send(response: Response, route: Route, answer: Answer): void {
  response.status(route.status);
  if (answer.etag) response.setHeader('ETag', answer.etag);
  for (const [name, value] of Object.entries(answer.headers ?? {})) response.setHeader(name, value);
  if (route.status === 204) response.end();
  else if (answer.body instanceof Uint8Array) {
    if (!response.getHeader('Content-Type')) response.type(route.answers);
    response.end(answer.body);
  } else if (typeof answer.body === 'string') response.type(route.answers).send(answer.body);
  else response.json(answer.body);
}

/** Whoever asked has gone before the answer. */
function leaving(response: Response): AbortSignal {
  const control = new AbortController();
  response.on('close', () => {
    if (!response.writableEnded) control.abort();
  });
  return control.signal;
}

function operation(
  name: string,
  route: Route,
  handler: Handler,
  parts: Pick<AppParts, 'db' | 'wrote'>,
): RequestHandler {
  const answered = answering(route, handler, parts);
  return async (request: Request, response: Response) => {
    response.locals.operation = name;
    try {
      await answered(request, response);
    } finally {
      await dropFile(request);
    }
  };
}

function answering(route: Route, handler: Handler, { db, wrote }: Pick<AppParts, 'db' | 'wrote'>) {
  return async (request: Request, response: Response): Promise<void> => {
    const query = route.query ? validateQuery(route.query, { ...request.query }) : { ok: true as const, value: {} };
    if (!query.ok) throw invalid(query.errors);
    const { file, path, body: given } = bodyOf(route, request);
    const sent = withIds(route, given, request.get('Idempotency-Key')?.slice(0, 255) || null, Date.now());
    const body = route.body
      ? await validateInSlices<unknown>(route.body, sent, SLICE_MILLISECONDS, rest)
      : { ok: true as const, value: undefined };
    if (!body.ok) throw invalid(body.errors);
    const ifMatch = request.get('If-Match') ?? null;
    if (route.ifMatch && ifMatch === null) {
      throw new ProblemError(428, 'Version missing', 'Send the version you last saw as If-Match.');
    }
    const params = request.params as Record<string, string>;
    const left = leaving(response);
    const answer = await handler({
      params,
      query: query.value,
      body: body.value,
      file,
      path,
      left,
      ifMatch,
      db,
    } as Call<never>);
    if (route.method !== 'get') wrote();
    if (answer.stream) answer.stream(response, request.get('Last-Event-ID'));
    else if (!response.destroyed) send(response, route, answer);
  };
}

const problemResponse =
  (log: Logger): ErrorRequestHandler =>
  (error, request, response, next) => {
    if (response.headersSent) return next(error);
    const problem = toProblem(error);
    // Being busy is no failure, and writing it down a thousand times would make it one.
    if (problem.status >= 500 && !problem.again) log.error({ err: error, url: request.url }, 'request failed');
    if (problem.again) response.setHeader('Retry-After', String(problem.again));
    response.status(problem.status).type('application/problem+json').send(JSON.stringify(problem));
  };

function serveBrowserFiles(app: Express, web: string): void {
  if (!existsSync(join(web, 'index.html'))) return;
  app.use(
    '/assets',
    express.static(join(web, 'assets'), { immutable: true, maxAge: YEAR_SECONDS * 1000, fallthrough: false }),
  );
  app.use(express.static(web, { index: false }));
  app.get('/{*path}', (_request, response) => {
    response.setHeader('Cache-Control', 'no-cache');
    response.sendFile(join(web, 'index.html'));
  });
}

/** The id a proxy gave a request, where it is one; else one of its own. It stands in the log and in the answer. */
const requestIdOf = (given: string | string[] | undefined): string =>
  typeof given === 'string' && /^[\w.-]{8,64}$/.test(given) ? given : newId();

/** Whether anything is gained by making an answer small: not over the loopback, unless somebody passes it on. */
function isFarAway({ socket, path, headers }: Request): boolean {
  if (!isApi(path) || headers['x-forwarded-for'] !== undefined || headers.via !== undefined) return true;
  const { remoteAddress = '' } = socket;
  return !/^(::1|(::ffff:)?127\.)/.test(remoteAddress);
}

/** The operations of the contract on one database. */
export function operations({ db, handlers, wrote }: Pick<AppParts, 'db' | 'handlers' | 'wrote'>): Router {
  const router = express.Router();
  for (const [name, route] of Object.entries(ROUTES) as [keyof typeof ROUTES, Route][])
    router[route.method](
      expressPath(route.path),
      ...bodyParser(route),
      operation(name, route, handlers[name], { db, wrote }),
    );
  return router;
}

/** Build the application without listening. */
export function createApp({ db, handlers, log, web, door, wrote, practice, metrics }: AppParts): Express {
  const app = express();
  app.disable('x-powered-by');
  app.set('etag', false);
  app.use(admission());
  app.use(
    pinoHttp({
      logger: log,
      // Of headers none is written down: cookies and tokens are among them.
      serializers: {
        req: ({ id, method, url }: { id: string; method: string; url: string }) => ({ id, method, url }),
        res: ({ statusCode }: { statusCode: number }) => ({ statusCode }),
      },
      genReqId: (request, response) => {
        const id = requestIdOf(request.headers['x-request-id']);
        response.setHeader('X-Request-Id', id);
        return id;
      },
      autoLogging: { ignore: (request) => !isApi(request.url ?? '') },
      customLogLevel: (_q, s, e) => (s.statusCode !== 503 && (e || s.statusCode >= 500) ? 'error' : 'debug'),
    }),
  );
  app.use(
    helmet({
      contentSecurityPolicy: {
        useDefaults: false,
        directives: {
          defaultSrc: ["'self'"],
          // MUI writes its styles at run time.
          styleSrc: ["'self'", "'unsafe-inline'"],
          imgSrc: ["'self'", 'data:', 'blob:'],
          workerSrc: ["'self'", 'blob:'],
          objectSrc: ["'none'"],
          frameAncestors: ["'none'"],
          baseUri: ["'self'"],
          formAction: ["'self'"],
        },
      },
      strictTransportSecurity: false,
    }),
  );
  if (metrics) app.use(metrics.measure);
  app.use(guard(door));
  app.use(sameOrigin());
  app.use(compression({ filter: (request, response) => isFarAway(request) && compression.filter(request, response) }));
  app.use(operations({ db, handlers, wrote }));
  if (practice) app.use(PRACTICE, practice);
  app.use(['/api', `${PRACTICE}/api`], () => {
    throw new ProblemError(404, 'Not found', 'The API has no such address. See /api/openapi.json.');
  });
  serveBrowserFiles(app, web);
  app.use(problemResponse(log));
  return app;
}
