// The Express application: guards first, then exactly the operations of the contract, then the browser's files.
import compression from 'compression';
import express, { type ErrorRequestHandler, type Express, type Request, type RequestHandler } from 'express';
import type { Logger } from 'pino';
import { pinoHttp } from 'pino-http';
import { newId } from '../db/ids.ts';
import type { Metrics } from '../watch/metrics.ts';
import { admission } from './admission.ts';
import { type Door, guard } from './door.ts';
import { known, type OperationParts, operations } from './operations.ts';
import { pace } from './pace.ts';
import { headers, servePages } from './pages.ts';
import { isApi, PRACTICE } from './paths.ts';
import { ProblemError, toProblem } from './problem.ts';
import { sameOrigin } from './same-origin.ts';

export interface AppParts extends Omit<OperationParts, 'practising'> {
  readonly log: Logger;
  /** Folder of the built browser files. */
  readonly web: string;
  readonly door: Door;
  /** Proxies before the server whose word on where a request comes from is taken. */
  readonly proxies?: number;
  /** Whether browsers are told to come by TLS only. */
  readonly secure?: boolean;
  /** Whether nobody may ask more than people do: where others can reach it. */
  readonly paced?: boolean;
  readonly metrics?: Pick<Metrics, 'measure'> | undefined;
  /** Where other copies of the server come in; left out where there can be none. */
  readonly peers?: RequestHandler | undefined;
  /** Answers for the world of practice; left out where there is none. */
  readonly practice?: RequestHandler | undefined;
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

/** The id a proxy gave a request, where it is one; else one of its own. It stands in the log and in the answer. */
const requestIdOf = (given: string | string[] | undefined): string =>
  typeof given === 'string' && /^[\w.-]{8,64}$/.test(given) ? given : newId();

/** Whether anything is gained by making an answer small: not over the loopback, unless somebody passes it on. */
function isFarAway({ socket, path, headers }: Request): boolean {
  if (!isApi(path) || headers['x-forwarded-for'] !== undefined || headers.via !== undefined) return true;
  const { remoteAddress = '' } = socket;
  return !/^(::1|(::ffff:)?127\.)/.test(remoteAddress);
}

/** Build the application without listening. */
export function createApp({
  log,
  web,
  door,
  proxies = 0,
  secure = false,
  paced = false,
  practice,
  peers,
  metrics,
  ...parts
}: AppParts): Express {
  const app = express();
  app.set('trust proxy', proxies);
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
  app.use(headers(secure));
  if (metrics) app.use(metrics.measure);
  // Signed by a key only copies know: whatever name they reach this one by, they are no browser.
  if (peers) app.use(peers);
  app.use(guard(door));
  app.use(sameOrigin());
  if (paced) app.use(pace(parts.entrance.paceOf));
  app.use(compression({ filter: (request, response) => isFarAway(request) && compression.filter(request, response) }));
  app.use(operations(parts));
  if (practice) app.use(PRACTICE, known(parts.entrance), practice);
  app.use(['/api', `${PRACTICE}/api`], () => {
    throw new ProblemError(404, 'Not found', 'The API has no such address. See /api/openapi.json.');
  });
  servePages(app, web);
  app.use(problemResponse(log));
  return app;
}
