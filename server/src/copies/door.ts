// Where other copies of the server come in: signed, and for what only the copy beside a bench can do.
import { type LoadsOffAnswer, ROUTES, type Route, validateInSlices } from '@lastmark/contract';
import express, { type RequestHandler, type Router } from 'express';
import { scopeOf } from '../collections/store.ts';
import type { Database } from '../db/database.ts';
import type { Answer, Call } from '../http/handlers.ts';
import { carryOutFor } from '../http/operations.ts';
import { invalid, ProblemError } from '../http/problem.ts';
import type { LoadsOff } from '../links/loads-off.ts';
import { streamEvents } from '../live/answer.ts';
import type { LiveStream } from '../live/stream.ts';
import { withScope } from '../who/scope.ts';
import type { Question } from './elsewhere.ts';
import { PEER, SIGNED_BY } from './peers.ts';
import type { Signature, Signed } from './signature.ts';

const LONGEST = '4mb';
const SLICE_MILLISECONDS = 8;
const rest = (): Promise<void> => new Promise((resolve) => setImmediate(resolve));

interface PeerDoorParts {
  readonly db: Database;
  readonly signature: Signature;
  readonly live: LiveStream;
  /** Switch off every load of this bench, and no other. */
  readonly loadsOff: () => Promise<LoadsOffAnswer>;
  /** Do what an operation does, in somebody's name, and write it down. */
  readonly carryOut: (operation: Question['operation'], call: Call, request: string | null) => Promise<Answer>;
  readonly wrote: () => void;
}

const noCopy = () =>
  new ProblemError(403, 'Not a copy', 'Only copies of this server on the same database come in here.');

/** Lets in other copies of this server, before anything of what they send is read. @throws 403 for whoever is none */
const signed =
  (signature: Signature): RequestHandler =>
  async (request, response, next) => {
    const token = await signature.opened(request.get(SIGNED_BY) ?? '', request.path);
    if (!token) throw noCopy();
    response.locals.signed = token;
    next();
  };

/** @throws 403 for another body than was signed, or one that came before */
const fitting =
  (signature: Signature): RequestHandler =>
  (request, response, next) => {
    const body = typeof request.body === 'string' ? request.body : '';
    if (!signature.fits(response.locals.signed as Signed, body)) throw noCopy();
    next();
  };

async function questionOf(text: string): Promise<Question> {
  const question = JSON.parse(text) as Question;
  const route = ROUTES[question.operation] as Route | undefined;
  if (!route) throw new ProblemError(400, 'Unknown', 'The other copy asks for what this version does not know.');
  if (!route.body) return question;
  // A copy of another version may say it otherwise.
  const body = await validateInSlices<unknown>(route.body, question.body, SLICE_MILLISECONDS, rest);
  if (!body.ok) throw invalid(body.errors);
  return { ...question, body: body.value };
}

/** What comes in from other copies; everything else passes by. */
function peerDoor({ db, signature, live, loadsOff, carryOut, wrote }: PeerDoorParts): Router {
  const router = express.Router();
  const before = [signed(signature), express.text({ type: 'application/json', limit: LONGEST }), fitting(signature)];
  router.post(PEER.loadsOff, ...before, async (_request, response) => {
    response.json(await loadsOff());
  });
  router.post(PEER.live, ...before, (request, response) => {
    const { fast } = JSON.parse(request.body as string) as { fast?: unknown };
    const ids = Array.isArray(fast) ? fast.filter((one): one is string => typeof one === 'string') : [];
    streamEvents(live, response, { onlyOwn: true, fast: ids });
  });
  router.post(PEER.ask, ...before, async (request, response) => {
    const { operation, params, query, body, ifMatch, who, request: id } = await questionOf(request.body as string);
    const control = new AbortController();
    response.on('close', () => control.abort());
    const call = {
      params,
      query,
      body,
      ifMatch,
      who,
      db,
      file: null,
      path: null,
      left: control.signal,
      from: { address: '', browser: '', secure: true, cookies: undefined, url: '' },
    } as unknown as Call;
    const answer = await withScope(await scopeOf(db, who), () => carryOut(operation, call, id));
    if ((ROUTES[operation] as Route).method !== 'get') wrote();
    const told =
      answer.body instanceof Uint8Array ? JSON.parse(Buffer.from(answer.body).toString('utf8')) : (answer.body ?? null);
    response.json({ body: told, etag: answer.etag ?? null });
  });
  return router;
}

/** What a server works with, as far as others ask for it. */
interface Working {
  readonly live: LiveStream;
  readonly loadsOff: Pick<LoadsOff, 'pressHere'>;
  readonly runner: { readonly nudgeAll: () => void };
  readonly figures: { readonly nudge: () => void };
}

/** The door of a server, from what it works with. */
export const peerDoorOf = (
  { live, loadsOff, runner, figures }: Working,
  { db, signature, ...keeping }: Pick<PeerDoorParts, 'db' | 'signature'> & Parameters<typeof carryOutFor>[0],
): Router =>
  peerDoor({
    db,
    signature,
    live,
    loadsOff: () => {
      const pressed = loadsOff.pressHere();
      runner.nudgeAll();
      return pressed;
    },
    carryOut: carryOutFor(keeping),
    wrote: () => figures.nudge(),
  });
