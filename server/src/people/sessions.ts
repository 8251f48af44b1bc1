// Sessions: in the database, so that every copy of the server knows them and any of them can be ended from anywhere.
import { createHmac, timingSafeEqual } from 'node:crypto';
import type { Session } from '@lastmark/contract';
import { and, desc, eq, gt, lt, ne } from 'drizzle-orm';
import type { Queries } from '../db/database.ts';
import { newId } from '../db/ids.ts';
import { people, sessions } from '../db/schema.ts';
import type { From } from '../http/entrance.ts';
import { notFound } from '../http/problem.ts';
import type { Who } from '../who/who.ts';
import { digestOf, newSecret } from './secrets.ts';

const HOUR = 3_600_000;
/** A session nobody uses so long is over, ms. */
export const IDLE_MILLISECONDS = 12 * HOUR;
/** A session is over after that, however much it is used, ms. */
export const LONGEST_MILLISECONDS = 7 * 24 * HOUR;
/** How exactly it is known when one was used, ms. */
const SEEN_MILLISECONDS = 60_000;
const MOST_LISTED = 100;

const cookieName = (secure: boolean): string => (secure ? '__Host-lastmark_session' : 'lastmark_session');

const macOf = (key: string, secret: string): string => createHmac('sha256', key).update(secret).digest('base64url');

/** The secret a browser gives, where this lab gave it that; it needs no database to know. */
export function secretIn(cookies: string | undefined, key: string): string | null {
  for (const one of (cookies ?? '').split(';')) {
    const [name = '', value = ''] = one.trim().split('=', 2);
    if (name !== cookieName(true) && name !== cookieName(false)) continue;
    const [secret = '', mac = ''] = value.split('.', 2);
    const [given, own] = [Buffer.from(mac), Buffer.from(macOf(key, secret))];
    if (given.length === own.length && timingSafeEqual(given, own)) return secret;
  }
  return null;
}

/** What makes a browser give a secret; null makes it forget. */
export function cookieOf(secret: string | null, key: string, secure: boolean): string {
  const value = secret === null ? '' : `${secret}.${macOf(key, secret)}`;
  const age = secret === null ? 0 : LONGEST_MILLISECONDS / 1000;
  return `${cookieName(secure)}=${value}; Path=/; HttpOnly; SameSite=Strict; Max-Age=${age}${secure ? '; Secure' : ''}`;
}

/** Begin a session. @returns its secret, which nobody keeps but the browser */
export async function openSession(db: Queries, personId: string, from: From): Promise<string> {
  const secret = newSecret();
  const now = new Date();
  // Those that are over are swept out by whoever comes in.
  await db.delete(sessions).where(lt(sessions.endsAt, now));
  await db.insert(sessions).values({
    digest: digestOf(secret),
    id: newId(),
    personId,
    madeAt: now,
    seenAt: now,
    endsAt: new Date(now.getTime() + LONGEST_MILLISECONDS),
    address: from.address.slice(0, 64),
    browser: from.browser.slice(0, 200),
  });
  await db.update(people).set({ seenAt: now }).where(eq(people.id, personId));
  return secret;
}

/** Whose session it is; null for one that is over, or of somebody who is kept out. */
export async function whoseSession(db: Queries, secret: string): Promise<Who | null> {
  const now = new Date();
  const [row] = await db
    .select({
      keyId: sessions.id,
      seenAt: sessions.seenAt,
      id: people.id,
      name: people.name,
      role: people.role,
      disabled: people.disabled,
      guest: people.guest,
    })
    .from(sessions)
    .innerJoin(people, eq(sessions.personId, people.id))
    .where(and(eq(sessions.digest, digestOf(secret)), gt(sessions.endsAt, now)));
  if (!row || row.disabled) return null;
  const idle = now.getTime() - row.seenAt.getTime();
  if (idle > IDLE_MILLISECONDS) return null;
  if (idle > SEEN_MILLISECONDS) {
    await db.update(sessions).set({ seenAt: now }).where(eq(sessions.id, row.keyId));
    await db.update(people).set({ seenAt: now }).where(eq(people.id, row.id));
  }
  return { id: row.id, name: row.name, role: row.role, guest: row.guest, through: 'session', keyId: row.keyId };
}

export async function listSessions(db: Queries, who: Who): Promise<Session[]> {
  const idleSince = new Date(Date.now() - IDLE_MILLISECONDS);
  const rows = await db
    .select()
    .from(sessions)
    .where(and(eq(sessions.personId, who.id ?? ''), gt(sessions.endsAt, new Date()), gt(sessions.seenAt, idleSince)))
    .orderBy(desc(sessions.seenAt))
    .limit(MOST_LISTED);
  return rows.map(({ id, madeAt, seenAt, endsAt, address, browser }) => ({
    id,
    madeAt: madeAt.toISOString(),
    seenAt: seenAt.toISOString(),
    endsAt: endsAt.toISOString(),
    address,
    browser,
    own: id === who.keyId,
  }));
}

/** End one of somebody's sessions. @throws 404 for one that is not theirs */
export async function endSession(db: Queries, personId: string, id: string): Promise<void> {
  const [{ affectedRows }] = await db.delete(sessions).where(and(eq(sessions.id, id), eq(sessions.personId, personId)));
  if (affectedRows === 0) throw notFound('session');
}

/** End all of somebody's sessions. @param but one that stays; null for none */
export async function endSessions(db: Queries, personId: string, but: string | null): Promise<void> {
  await db
    .delete(sessions)
    .where(and(eq(sessions.personId, personId), ...(but === null ? [] : [ne(sessions.id, but)])));
}
