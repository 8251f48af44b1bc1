// What people ask for: coming in and going out, their own account, and letting others in.

import { eq, sql } from 'drizzle-orm';
import type { Database } from './db/database.ts';
import { people } from './db/schema.ts';
import { done, versioned } from './http/answers.ts';
import type { Answer, Call, Handlers } from './http/handlers.ts';
import { conflict, ProblemError, refused } from './http/problem.ts';
import type { Journal } from './log/journal.ts';
import { plainDeed } from './log/write.ts';
import { factorUri, newFactorSecret, newRecoveryCodes, stepOf } from './people/factor.ts';
import { firstComes, invite, inviteBack, listInvitations, withdrawInvitation } from './people/invitations.ts';
import {
  changePassword,
  checkGuest,
  comesIn,
  forgetPerson,
  join,
  listNames,
  listPeople,
  meOf,
  type PersonRow,
  personRow,
  requirePassword,
  updatePerson,
} from './people/people.ts';
import { NotLetIn, type Provider } from './people/provider.ts';
import {
  cookieOf,
  endSession,
  endSessions,
  listSessions,
  openSession,
  secretIn,
  whoseSession,
} from './people/sessions.ts';
import { createToken, listTokens, revokeToken } from './people/tokens.ts';
import type { Who } from './who/who.ts';

type PeopleOperation =
  | 'getMe'
  | 'signIn'
  | 'beginProvider'
  | 'backFromProvider'
  | 'signOut'
  | 'join'
  | 'changeMe'
  | 'changePassword'
  | 'beginFactor'
  | 'confirmFactor'
  | 'endFactor'
  | 'listSessions'
  | 'endSession'
  | 'endOtherSessions'
  | 'listTokens'
  | 'createToken'
  | 'revokeToken'
  | 'listNames'
  | 'listPeople'
  | 'updatePerson'
  | 'resetPerson'
  | 'forgetPerson'
  | 'listInvitations'
  | 'invite'
  | 'withdrawInvitation';

export interface PeopleParts {
  /** What sessions are signed with. */
  readonly key: string;
  readonly journal: Journal;
  /** The lab's own sign-in; null without one. */
  readonly provider: Provider | null;
}

/** The first page, with why somebody was not let in: behind the #, so that it is in no log. */
const refusedAt = (why: string): string => `/#not-let-in=${encodeURIComponent(why)}`;

const asWho = ({ id, name, role }: Pick<PersonRow, 'id' | 'name' | 'role'>): Who => ({
  id,
  name,
  role,
  through: 'session',
  keyId: null,
});

/** @param parts null where people are not told apart */
export function peopleHandlers(parts: PeopleParts | null): Pick<Handlers, PeopleOperation> {
  const there = (): PeopleParts => {
    if (!parts)
      throw conflict(
        'People are not told apart on this server: it serves this machine alone. Start it with LASTMARK_PEOPLE=1 to tell them apart.',
      );
    return parts;
  };
  /** Let a browser in, by a session that is new: none is ever carried over. */
  async function letIn(db: Database, personId: string, from: Call['from']): Promise<Record<string, string>> {
    const { key } = there();
    return { 'Set-Cookie': cookieOf(await openSession(db, personId, from), key, from.secure) };
  }
  /** The row of whoever asks; they are in by their own browser, not by a script. */
  async function own({ db, who }: Pick<Call, 'db' | 'who'>): Promise<PersonRow> {
    there();
    if (who.through !== 'session') throw new ProblemError(403, 'Not by a token', 'Sign in to change your account.');
    return personRow(db, who.id);
  }
  /** The same, who gave their password besides. */
  async function sure(call: Pick<Call, 'db' | 'who' | 'from'>, typed: string): Promise<PersonRow> {
    const row = await own(call);
    await requirePassword(call.db, row, typed, call.from.address);
    return row;
  }
  /** Signs out everywhere, and in again here: after what changes how somebody comes in. */
  async function anew({ db, who, from }: Pick<Call, 'db' | 'who' | 'from'>): Promise<Record<string, string>> {
    await endSessions(db, who.id ?? '', null);
    return letIn(db, who.id ?? '', from);
  }
  return {
    getMe: async ({ db, from }) => {
      if (!parts) return { body: { people: false, first: false, provider: null, me: null } };
      const secret = secretIn(from.cookies, parts.key);
      const who = secret === null ? null : await whoseSession(db, secret);
      return {
        body: {
          people: true,
          first: who === null && (await firstComes(db)),
          provider: parts.provider?.name ?? null,
          me: who ? await meOf(db, who.id) : null,
        },
      };
    },
    signIn: async ({ db, body, from }) => {
      const { journal } = there();
      try {
        const row = await comesIn(db, body, from.address);
        if (!row) return { body: { me: null, codeWanted: true } };
        const headers = await letIn(db, row.id, from);
        await journal.keep(plainDeed(asWho(row), 'signIn', { subject: row.id, things: [row.id] }));
        return { body: { me: await meOf(db, row.id), codeWanted: false }, headers };
      } catch (error) {
        if (error instanceof ProblemError && [403, 429].includes(error.problem.status)) {
          const [row] = await db.select().from(people).where(eq(people.signIn, body.signIn.toLowerCase()));
          // A name nobody has may be a password somebody typed into the wrong field.
          await journal.keep(
            plainDeed(
              { ...asWho(row ?? { id: '', name: 'An unknown name', role: 'reader' }), id: row?.id ?? null },
              'signInRefused',
              {
                subject: row?.id ?? null,
                body: JSON.stringify({ address: from.address }),
              },
            ),
          );
        }
        throw error;
      }
    },
    beginProvider: async ({ from }): Promise<Answer<never>> => {
      const { provider } = there();
      if (!provider) throw conflict('This server has no sign-in of the lab’s own.');
      try {
        const { location, cookie } = await provider.begin(new URL(from.url).origin);
        return { headers: { Location: location, 'Set-Cookie': cookie, 'Cache-Control': 'no-store' } };
      } catch {
        return {
          headers: {
            Location: refusedAt(`${provider.name} cannot be reached. Try again later, or sign in by a password.`),
          },
        };
      }
    },
    backFromProvider: async ({ db, from }): Promise<Answer<never>> => {
      const { provider, key, journal } = there();
      if (!provider) throw conflict('This server has no sign-in of the lab’s own.');
      const url = new URL(from.url);
      const forget = provider.forget(url.origin);
      try {
        const row = await provider.back(db, url, from.cookies);
        const session = cookieOf(await openSession(db, row.id, from), key, from.secure);
        await journal.keep(plainDeed(asWho(row), 'signIn', { subject: row.id, things: [row.id] }));
        return { headers: { Location: '/', 'Set-Cookie': [forget, session] } };
      } catch (error) {
        if (!(error instanceof NotLetIn)) throw error;
        return { headers: { Location: refusedAt(error.message), 'Set-Cookie': [forget] } };
      }
    },
    signOut: async ({ db, from }) => {
      const { key, journal } = there();
      const secret = secretIn(from.cookies, key);
      const who = secret === null ? null : await whoseSession(db, secret);
      if (who?.id && who.keyId) {
        await endSession(db, who.id, who.keyId);
        await journal.keep(plainDeed(who, 'signOut', { subject: who.id, things: [who.id] }));
      }
      return { headers: { 'Set-Cookie': cookieOf(null, key, from.secure) } };
    },
    join: async ({ db, body, from }) => {
      const { journal } = there();
      const id = await join(db, body);
      const headers = await letIn(db, id, from);
      const row = await personRow(db, id);
      await journal.keep(plainDeed(asWho(row), 'join', { subject: id, things: [id] }));
      return { body: await meOf(db, id), headers };
    },
    changeMe: async (call) => {
      const { id } = await own(call);
      await call.db
        .update(people)
        .set({ name: call.body.name, version: sql`${people.version} + 1` })
        .where(eq(people.id, id));
      return { body: await meOf(call.db, id) };
    },
    changePassword: async (call) => {
      const row = await sure(call, call.body.ownPassword);
      await changePassword(call.db, row, call.body.password, null);
      const headers = await letIn(call.db, row.id, call.from);
      return { body: await meOf(call.db, row.id), headers };
    },
    beginFactor: async (call) => {
      const { id, signIn } = await sure(call, call.body.ownPassword);
      const secret = newFactorSecret();
      await call.db.update(people).set({ nextFactor: secret }).where(eq(people.id, id));
      return { body: { secret, uri: factorUri(secret, signIn) } };
    },
    confirmFactor: async (call) => {
      const { id, nextFactor } = await own(call);
      if (nextFactor === null) throw conflict('No second factor was begun. Begin it again.');
      const step = stepOf(nextFactor, call.body.code, Date.now());
      if (step === null) throw refused('code', 'This code is wrong. Is the clock of the phone right?');
      const items = await call.db.transaction(async (tx) => {
        await tx
          .update(people)
          .set({ factor: nextFactor, nextFactor: null, factorStep: step, version: sql`${people.version} + 1` })
          .where(eq(people.id, id));
        return newRecoveryCodes(tx, id);
      });
      return { body: { items }, headers: await anew(call) };
    },
    endFactor: async (call) => {
      const { id } = await sure(call, call.body.ownPassword);
      await call.db
        .update(people)
        .set({ factor: null, nextFactor: null, version: sql`${people.version} + 1` })
        .where(eq(people.id, id));
      return { body: await meOf(call.db, id), headers: await anew(call) };
    },
    listSessions: async ({ db, who }) => ({ body: { items: there() && (await listSessions(db, who)) } }),
    endSession: async (call) => done(await endSession(call.db, (await own(call)).id, call.params.sessionId)),
    endOtherSessions: async (call) => done(await endSessions(call.db, (await own(call)).id, call.who.keyId)),
    listTokens: async ({ db, who }) => ({ body: { items: there() && (await listTokens(db, who.id ?? '')) } }),
    createToken: async (call) => {
      await own(call);
      return { body: await createToken(call.db, call.who, call.body) };
    },
    revokeToken: async (call) => done(await revokeToken(call.db, (await own(call)).id, call.params.tokenId)),
    listNames: async ({ db }) => ({ body: { items: await listNames(db) } }),
    listPeople: async ({ db }) => ({ body: { items: there() && (await listPeople(db)) } }),
    updatePerson: async ({ db, params, body, ifMatch }) =>
      versioned(await updatePerson(db, params.personId, body, there() && ifMatch)),
    forgetPerson: async ({ db, params, ifMatch }) => done(await forgetPerson(db, params.personId, there() && ifMatch)),
    resetPerson: async (call) => {
      const { name } = await own(call);
      const row = await personRow(call.db, call.params.personId);
      await endSessions(call.db, row.id, null);
      return { body: await inviteBack(call.db, row, name) };
    },
    listInvitations: async ({ db }) => ({ body: { items: there() && (await listInvitations(db)) } }),
    invite: async (call) => {
      checkGuest(call.body.role, call.body.guest ?? false);
      return { body: await invite(call.db, call.body, (await own(call)).name) };
    },
    withdrawInvitation: async ({ db, params }): Promise<Answer<never>> =>
      done(await withdrawInvitation(db, there() && params.invitationId)),
  };
}
