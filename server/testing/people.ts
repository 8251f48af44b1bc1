// Several people at one server: browsers of their own, and the first of them, who lets the others in.
import type { LetIn, Me, Who } from '@lastmark/contract';
import request from 'supertest';
import { firstCode } from '../src/people/invitations.ts';
import type { Harness } from './harness.ts';

export const PASSWORD = 'hut on the ridge';

export type Method = 'get' | 'post' | 'put' | 'delete';

export const call = (agent: request.Agent, method: Method, path: string, body?: object) =>
  agent[method](`/api${path}`).send(body);

export const signIn = (agent: request.Agent, name: string, password = PASSWORD, code = '') =>
  call(agent, 'post', '/sign-in', { signIn: name, password, code });

export const whoIs = async (agent: request.Agent) => (await call(agent, 'get', '/me')).body as Who;

/** A browser nobody is signed in at. */
export const browserAt = ({ app }: Pick<Harness, 'app'>) => request.agent(app).set('User-Agent', 'a browser');

/** The first person of a harness, an admin, signed in. */
export async function firstPerson(harness: Harness): Promise<request.Agent> {
  const agent = browserAt(harness);
  const secret = await firstCode(harness.db);
  const input = { secret, signIn: 'ada@fernwall', name: 'Ada Marrow', password: PASSWORD };
  await call(agent, 'post', '/join', input).expect(201);
  return agent;
}

/** Somebody new, invited by an admin, signed in at a browser of their own. */
export async function somebodyNew(
  harness: Harness,
  admin: request.Agent,
  name: string,
  role: string,
  guest = false,
): Promise<{ readonly agent: request.Agent; readonly me: Me; readonly path: string }> {
  const { path } = (
    await call(admin, 'post', '/invitations', { role, note: name, ...(guest ? { guest } : {}) }).expect(201)
  ).body as LetIn;
  const agent = browserAt(harness);
  const input = { secret: path.split('#')[1], signIn: `${name}@fernwall`, name, password: PASSWORD };
  const joined = await call(agent, 'post', '/join', input).expect(201);
  return { agent, me: joined.body as Me, path };
}
