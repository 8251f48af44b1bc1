// The Express application: guards first, then exactly the operations of the contract, then the browser's files.
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { type Problem, ROUTES, type Route, validate } from '@lastmark/contract';
import compression from 'compression';
import express, {
  type ErrorRequestHandler,
  type Express,
  type Request,
  type RequestHandler,
  type Response,
} from 'express';
import helmet from 'helmet';
import type { Logger } from 'pino';
import { pinoHttp } from 'pino-http';
import type { Database } from '../db/database.ts';
import { isDatabaseError } from '../db/database.ts';
import type { Answer, Handler, Handlers } from './handlers.ts';
import { conflict, invalid, ProblemError } from './problem.ts';
import { sameOrigin } from './same-origin.ts';

const DEFAULT_LIMIT = 1024 * 1024;
const YEAR_SECONDS = 31_536_000;

export interface AppParts {
  readonly db: Database;
  readonly handlers: Handlers;
  readonly log: Logger;
  /** Folder of the built browser files. */
  readonly web: string;
  readonly loopbackOnly: boolean;
}

/** Path of a contract route as Express writes it. */
export const expressPath = (path: string): string => `/api${path.replace(/\{(\w+)\}/g, ':$1')}`;

function send(response: Response, route: Route, answer: Answer): void {
  response.status(route.status);
  if (answer.etag) response.setHeader('ETag', answer.etag);
  for (const [name, value] of Object.entries(answer.headers ?? {})) response.setHeader(name, value);
  if (route.status === 204) response.end();
  else if (Buffer.isBuffer(answer.body)) {
    if (!response.getHeader('Content-Type')) response.type(route.answers);
    response.end(answer.body);
  } else if (typeof answer.body === 'string') response.type(route.answers).send(answer.body);
  else response.json(answer.body);
}

function operation(route: Route, handler: Handler, db: Database): RequestHandler {
  return async (request: Request, response: Response) => {
    const query = route.query
      ? validate<Record<string, unknown>>(route.query, { ...request.query })
      : { ok: true as const, value: {} };
    if (!query.ok) throw invalid(query.errors);
    const body = route.body ? validate<unknown>(route.body, request.body) : { ok: true as const, value: undefined };
    if (!body.ok) throw invalid(body.errors);
    const ifMatch = request.get('If-Match') ?? null;
    if (route.ifMatch && ifMatch === null) {
      throw new ProblemError(428, 'Version missing', 'Send the version you last saw as If-Match.');
    }
    const file = route.file
      ? {
          bytes: Buffer.isBuffer(request.body) ? request.body : Buffer.alloc(0),
          type: request.get('Content-Type') ?? '',
        }
      : null;
    const params = request.params as Record<string, string>;
    const answer = await handler({ params, query: query.value, body: body.value, file, ifMatch, db });
    if (answer.stream) answer.stream(response, request.get('Last-Event-ID'));
    else send(response, route, answer);
  };
}

function bodyParser(route: Route): RequestHandler[] {
  const limit = route.limit ?? DEFAULT_LIMIT;
  if (route.file) return [express.raw({ type: () => true, limit })];
  return route.body ? [express.json({ limit })] : [];
}

/** Turn any error into problem details; only a {@link ProblemError} says what happened. */
function toProblem(error: unknown): Problem {
  if (error instanceof ProblemError) return error.problem;
  const { type, status } = (typeof error === 'object' && error !== null ? error : {}) as {
    type?: string;
    status?: number;
  };
  if (type === 'entity.too.large') {
    return {
      type: 'about:blank',
      title: 'Too large',
      status: 413,
      detail: 'This is larger than can be taken. Split it or make it smaller.',
    };
  }
  if (type === 'entity.parse.failed') {
    return { type: 'about:blank', title: 'Not JSON', status: 400, detail: 'The body is not valid JSON.' };
  }
  if (isDatabaseError(error, 'ER_DUP_ENTRY'))
    return conflict('This was saved already, or corrected by someone else just now. Reload to see it.').problem;
  if (isDatabaseError(error, 'ER_ROW_IS_REFERENCED_2'))
    return conflict('Something still refers to this, so it stays.').problem;
  if (isDatabaseError(error, 'ER_NO_REFERENCED_ROW_2'))
    return conflict('This refers to something that is not there. Reload and choose again.').problem;
  if (status !== undefined && status >= 400 && status < 500) {
    return { type: 'about:blank', title: 'Bad request', status, detail: 'The request could not be read.' };
  }
  return {
    type: 'about:blank',
    title: 'Server error',
    status: 500,
    detail: 'The server failed at this. Nothing was half-saved. Try again; the log has the details.',
  };
}

const problemResponse =
  (log: Logger): ErrorRequestHandler =>
  (error, request, response, next) => {
    if (response.headersSent) return next(error);
    const problem = toProblem(error);
    if (problem.status >= 500) log.error({ err: error, url: request.url }, 'request failed');
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

/** Build the application without listening. */
export function createApp({ db, handlers, log, web, loopbackOnly }: AppParts): Express {
  const app = express();
  app.disable('x-powered-by');
  app.set('etag', false);
  app.use(
    pinoHttp({
      logger: log,
      autoLogging: { ignore: (request) => !request.url?.startsWith('/api') },
      customLogLevel: (_q, s, e) => (e || s.statusCode >= 500 ? 'error' : 'debug'),
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
  app.use(sameOrigin(loopbackOnly));
  app.use(compression());
  for (const [name, route] of Object.entries(ROUTES) as [keyof typeof ROUTES, Route][]) {
    app[route.method](expressPath(route.path), ...bodyParser(route), operation(route, handlers[name], db));
  }
  app.use('/api', () => {
    throw new ProblemError(404, 'Not found', 'The API has no such address. See /api/openapi.json.');
  });
  serveBrowserFiles(app, web);
  app.use(problemResponse(log));
  return app;
}
