// The operations of the contract: who asks and whether they may, what was sent, what is done, and that it is written down.
import {
  isEnough,
  neededFor,
  type Operation,
  ROLE_WORDS,
  ROUTES,
  type Route,
  validateInSlices,
  validateQuery,
} from '@lastmark/contract';
import express, { type Request, type RequestHandler, type Response, type Router } from 'express';
import type { Database } from '../db/database.ts';
import { sampleOf } from '../log/about.ts';
import type { Journal } from '../log/journal.ts';
import { deedOf, writeEntry } from '../log/write.ts';
import { within } from '../wait/wait.ts';
import { type Scope, withScope } from '../who/scope.ts';
import { inDeed, type Who } from '../who/who.ts';
import { bodyOf, bodyParser } from './body.ts';
import { type Entrance, fromOf } from './entrance.ts';
import type { Answer, Call, Handler, Handlers } from './handlers.ts';
import { dropFile } from './incoming.ts';
import { withIds } from './own-ids.ts';
import { isApi } from './paths.ts';
import { invalid, ProblemError } from './problem.ts';
import { momentOf } from './request-keys.ts';

/** How long a body is gone through before others have their turn, ms. */
const SLICE_MILLISECONDS = 8;
const rest = (): Promise<void> => new Promise((resolve) => setImmediate(resolve));
/** How often it is looked whether somebody who listens may still, ms. */
const LISTENING_MILLISECONDS = 30_000;

export interface OperationParts {
  readonly db: Database;
  readonly handlers: Handlers;
  /** Told after every write: what follows from it is worked out anew. */
  readonly wrote: () => void;
  readonly entrance: Entrance;
  /** Keeps what is done where no transaction does. */
  readonly journal: Journal;
  /** Has done elsewhere what only another copy of the server can do; null for what is done here. */
  readonly elsewhere?: { readonly ask: (name: Operation, call: Call, id: string | null) => Promise<Answer | null> };
  /** Who sees which samples; left out where everybody sees all. */
  readonly scopes?: {
    readonly of: (who: Who) => Promise<Scope | null>;
    /** @throws 404 for what whoever asks does not see */
    readonly require: (
      name: Operation,
      route: Route,
      params: Readonly<Record<string, string>>,
      things: readonly string[],
    ) => Promise<void>;
  };
  /** Everybody who is in may do what engineers may: nothing of it is real. */
  readonly practising?: boolean;
}

/** Path of a contract route as Express writes it. */
export const expressPath = (path: string): string => `/api${path.replace(/\{(\w+)\}/g, ':$1')}`;

function send(response: Response, route: Route, answer: Answer): void {
  response.status(route.status);
  // What was answered to somebody is kept by nobody on the way.
  if (!response.getHeader('Cache-Control')) response.setHeader('Cache-Control', 'no-store');
  if (answer.etag) response.setHeader('ETag', answer.etag);
  for (const [name, value] of Object.entries(answer.headers ?? {}))
    response.setHeader(name, value as string | string[]);
  if (route.status === 204 || route.status === 302) response.end();
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

const NOBODY: Who = { id: null, name: 'Somebody', role: 'reader', through: 'server', keyId: null };

/** Who asks. Loads off waits for nothing, the database least of all. @throws 401 for somebody nobody knows */
async function whoIsIt(entrance: Entrance, request: Request, presses: boolean): Promise<Who> {
  const who = (presses ? entrance.whoPresses(request) : null) ?? (await entrance.whoAsks(request));
  if (!who) throw new ProblemError(401, 'Not signed in', 'Sign in first. What you typed is kept.');
  return who;
}

/** Lets in whom somebody knows, and tells the others nothing, not even what is there. */
export const known =
  (entrance: Entrance): RequestHandler =>
  async (request, _response, next) => {
    if (isApi(request.path)) await whoIsIt(entrance, request, request.path === '/api/loads-off');
    next();
  };

/** Lets in who may, before anything of what they send is read. @throws 401 for somebody nobody knows, 403 for too little */
function admit(name: Operation, route: Route, { entrance, practising = false }: OperationParts): RequestHandler {
  const needed = neededFor(route);
  const asked = practising && needed === 'engineer' ? 'reader' : needed;
  return async (request, response, next) => {
    response.locals.operation = name;
    if (asked === 'nobody') {
      response.locals.who = NOBODY;
      return next();
    }
    const who = await whoIsIt(entrance, request, name === 'loadsOff');
    if (!isEnough(who.role, asked))
      throw new ProblemError(
        403,
        'Not yours to do',
        `This is for ${ROLE_WORDS[asked].title.toLowerCase()}s, and you are ${ROLE_WORDS[who.role].title.toLowerCase()} here. Ask an admin.`,
      );
    response.locals.who = who;
    next();
  };
}

/** What was sent, checked by the schemas of its route. */
async function callOf(route: Route, request: Request, response: Response, db: Database): Promise<Call<never>> {
  const query = route.query ? validateQuery(route.query, { ...request.query }) : { ok: true as const, value: {} };
  if (!query.ok) throw invalid(query.errors);
  const { file, path, body: given } = bodyOf(route, request);
  const key = request.get('Idempotency-Key')?.slice(0, 255) || null;
  const sent = withIds(route, given, key, key && route.ids ? await momentOf(db, key) : Date.now());
  const body = route.body
    ? await validateInSlices<unknown>(route.body, sent, SLICE_MILLISECONDS, rest)
    : { ok: true as const, value: undefined };
  if (!body.ok) throw invalid(body.errors);
  const ifMatch = request.get('If-Match') ?? null;
  if (route.ifMatch && ifMatch === null)
    throw new ProblemError(428, 'Version missing', 'Send the version you last saw as If-Match.');
  return {
    params: request.params as Record<string, string>,
    query: query.value,
    body: body.value,
    file,
    path,
    left: leaving(response),
    ifMatch,
    db,
    who: response.locals.who as Who,
    from: {
      ...fromOf(request),
      cookies: request.get('Cookie'),
      url: `${request.protocol}://${request.get('Host')}${request.originalUrl}`,
    },
  } as Call<never>;
}

/** Where a request is of: its own id, and who it is of as the database knows. */
interface Origin {
  readonly id: string | null;
  readonly pressed: () => Promise<Who | null>;
}

/** How long the database has to say who pressed Loads off; what it does not say by then is written down without. */
const KNOWN_MILLISECONDS = 2000;

/** Do it, and write down that it was done. */
async function carryOut(
  name: Operation,
  call: Call,
  { journal, handlers }: Pick<OperationParts, 'journal' | 'handlers'>,
  { id, pressed }: Origin,
): Promise<Answer> {
  const route: Route = ROUTES[name];
  const handler = handlers[name] as Handler;
  if (route.method === 'get' || route.keepsNothing) return handler(call as never);
  const { who, params, query, body, db } = call;
  const asked = { who, operation: name, params: params as Record<string, string>, query, body, request: id };
  if (name === 'loadsOff') {
    const deed = deedOf({ ...asked, sampleId: null });
    const answer = await handler(call as never);
    // Nobody waits for who it was: that needs the database, and loads are off without it.
    void within(
      KNOWN_MILLISECONDS,
      pressed().catch(() => null),
    ).then((known) => journal.keep({ ...deed, who: known ?? who }));
    return answer;
  }
  // Asked before: afterwards it may be gone.
  const deed = deedOf({ ...asked, sampleId: await sampleOf(db, asked.params) });
  const { result, written, made } = await inDeed(deed, writeEntry, () => handler(call as never));
  if (!written.has(db)) await journal.keep(deed, made);
  return result;
}

/** Do what another copy of the server asks for, in the name it says, and write it down. */
export const carryOutFor =
  (parts: Pick<OperationParts, 'journal' | 'handlers'>) =>
  (name: Operation, call: Call, id: string | null): Promise<Answer> =>
    carryOut(name, call, parts, { id, pressed: async () => call.who });

/** Every id anywhere in what is sent, however it is listed. */
const everyId = (sent: unknown): string[] => [...new Set(JSON.stringify(sent).match(/[0-9A-HJKMNP-TV-Z]{26}/g) ?? [])];

/** Do it with what whoever asks sees of the shelf. Loads off waits for no database to say what that is. */
async function inScope<T>(name: Operation, call: Call, { scopes }: OperationParts, work: () => Promise<T>): Promise<T> {
  const scope = !scopes || name === 'loadsOff' || call.who.id === null ? null : await scopes.of(call.who);
  if (!scopes || scope === null) return work();
  return withScope(scope, async () => {
    const { params, body, query } = call;
    await scopes.require(name, ROUTES[name], params as Record<string, string>, everyId([body, query]));
    return work();
  });
}

/** Listening ends with what let somebody in. */
function endWithEntrance(entrance: Entrance, request: Request, response: Response): void {
  const look = setInterval(() => {
    entrance.whoAsks(request).then(
      (who) => who ?? response.end(),
      // The database is away: whoever listens goes on listening.
      () => undefined,
    );
  }, LISTENING_MILLISECONDS);
  response.on('close', () => clearInterval(look));
}

function operation(name: Operation, route: Route, parts: OperationParts): RequestHandler {
  return async (request: Request, response: Response) => {
    try {
      const call = (await callOf(route, request, response, parts.db)) as unknown as Call;
      const id = typeof request.id === 'string' ? request.id : null;
      const answer = await inScope(
        name,
        call,
        parts,
        async () =>
          (await parts.elsewhere?.ask(name, call, id)) ??
          carryOut(name, call, parts, { id, pressed: () => parts.entrance.whoAsks(request) }),
      );
      if (route.method !== 'get') parts.wrote();
      if (answer.stream) {
        endWithEntrance(parts.entrance, request, response);
        answer.stream(response, request.get('Last-Event-ID'));
      } else if (!response.destroyed) send(response, route, answer);
    } finally {
      await dropFile(request);
    }
  };
}

/** The operations of the contract on one database. */
export function operations(parts: OperationParts): Router {
  const router = express.Router();
  for (const [name, route] of Object.entries(ROUTES) as [Operation, Route][])
    router[route.method](
      expressPath(route.path),
      admit(name, route, parts),
      ...bodyParser(route),
      operation(name, route, parts),
    );
  return router;
}
