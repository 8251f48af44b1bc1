// People: who there is, how they come in, and how admins keep them.

import type { JoinInput, Me, Person, PersonInput, SignInInput, StoredPerson } from '@lastmark/contract';
import { isEnough } from '@lastmark/contract';
import { and, asc, eq, sql } from 'drizzle-orm';
import { inLine } from '../changes/changes.ts';
import type { Database, Queries } from '../db/database.ts';
import { isDatabaseError } from '../db/database.ts';
import { newId } from '../db/ids.ts';
import {
  accessTokens,
  collectionPeople,
  invitations,
  labSecrets,
  people,
  presence,
  recoveryCodes,
  sessions,
  signInTries,
} from '../db/schema.ts';
import { conflict, notFound, ProblemError, refused } from '../http/problem.ts';
import { etagOf, requireMatch } from '../http/versions.ts';
import { knownPeople } from '../seen/seen.ts';
import { recoveryLeft, takeCode } from './factor.ts';
import { useInvitation } from './invitations.ts';
import { hashOf, isPassword, weakness } from './passwords.ts';
import { endSessions } from './sessions.ts';
import { countTry, forgetTries } from './tries.ts';

export type PersonRow = typeof people.$inferSelect;
const MOST_PEOPLE = 2000;

export async function personRow(db: Queries, id: string | null): Promise<PersonRow> {
  const [row] = await db
    .select()
    .from(people)
    .where(eq(people.id, id ?? ''));
  if (!row) throw notFound('person');
  return row;
}

export async function meOf(db: Queries, id: string | null): Promise<Me> {
  const { name, role, guest, signIn, factor, password, id: own } = await personRow(db, id);
  return {
    id: own,
    name,
    role,
    guest,
    signIn,
    factor: factor !== null,
    recovery: await recoveryLeft(db, own),
    password: password !== null,
  };
}

const WRONG = 'Name or password is wrong.';
const wrong = (detail: string): ProblemError => new ProblemError(403, 'Not let in', detail);

/**
 * Whether somebody may come in.
 * @returns the person; null where a code is wanted besides
 * @throws 403 for a wrong name, password or code, without saying which of the first two; 429 after too many
 */
export async function comesIn(
  db: Database,
  { signIn, password, code }: SignInInput,
  address: string,
): Promise<PersonRow | null> {
  await countTry(db, signIn, address);
  const [row] = await db.select().from(people).where(eq(people.signIn, signIn.toLowerCase()));
  const right = await isPassword(password, row?.password ?? null);
  if (!row || !right) throw wrong(WRONG);
  // Only whoever has the password is told.
  if (row.disabled) throw wrong('You are kept out. Ask an admin.');
  if (row.factor !== null) {
    if (code === '') return null;
    if (!(await takeCode(db, { id: row.id, factor: row.factor }, code, Date.now())))
      throw wrong('This code is wrong, or was used. Wait for the next, or take a recovery code.');
  }
  await forgetTries(db, signIn, address);
  return row;
}

/** @throws 403 where it is not the password of who asks; 429 after too many */
export async function requirePassword(db: Database, row: PersonRow, typed: string, address: string): Promise<void> {
  await countTry(db, row.signIn, address);
  if (!(await isPassword(typed, row.password))) throw refused('ownPassword', 'This is not your password.');
  await forgetTries(db, row.signIn, address);
}

/** What is kept of a password somebody chooses. @throws 422 where it would be guessed early */
export async function chosen(password: string, known: readonly string[]): Promise<string> {
  const weak = weakness(password, known);
  if (weak !== null) throw refused('password', `Password ${weak}.`);
  return hashOf(password);
}

/** Somebody comes in for the first time, or chooses a password anew. @returns their id */
export async function join(db: Database, { secret, signIn, name, password }: JoinInput): Promise<string> {
  const hash = await chosen(password, [signIn, name]);
  try {
    return await db.transaction(async (tx) => {
      const invitation = await useInvitation(tx, secret);
      if (invitation.personId !== null) {
        const { id, version } = await personRow(tx, invitation.personId);
        await tx
          .update(people)
          .set({ password: hash, factor: null, nextFactor: null, version: version + 1 })
          .where(eq(people.id, id));
        await tx.delete(recoveryCodes).where(eq(recoveryCodes.personId, id));
        await endSessions(tx, id, null);
        return id;
      }
      // Two that come first at the same time: the second finds this row.
      if (invitation.kind === 'first') {
        await tx.insert(labSecrets).values({ name: 'first person', value: signIn });
        await tx.delete(invitations).where(eq(invitations.kind, 'first'));
      }
      const id = newId();
      await tx.insert(people).values({
        id,
        signIn: signIn.toLowerCase(),
        name,
        role: invitation.role,
        guest: invitation.guest,
        password: hash,
        createdAt: new Date(),
      });
      return id;
    });
  } catch (error) {
    if (isDatabaseError(error, 'ER_DUP_ENTRY')) throw conflict('Somebody has this name already. Take another.');
    throw error;
  }
}

const toStored = (row: PersonRow): StoredPerson => ({
  id: row.id,
  name: row.name,
  role: row.role,
  signIn: row.signIn,
  factor: row.factor !== null,
  disabled: row.disabled,
  guest: row.guest,
  seenAt: row.seenAt?.toISOString() ?? null,
  createdAt: row.createdAt.toISOString(),
  version: row.version,
});

export async function listPeople(db: Queries): Promise<StoredPerson[]> {
  return (await db.select().from(people).orderBy(asc(people.name), asc(people.id)).limit(MOST_PEOPLE)).map(toStored);
}

/** Those whoever asks may know of. */
export async function listNames(db: Queries): Promise<Person[]> {
  return db
    .select({ id: people.id, name: people.name, role: people.role })
    .from(people)
    .where(knownPeople(db))
    .orderBy(asc(people.name), asc(people.id))
    .limit(MOST_PEOPLE);
}

/** Somebody as they were when a change began. @throws 412 where somebody else changed them since, 404 for nobody */
async function requireSeen(tx: Queries, id: string, seen: string | null): Promise<PersonRow> {
  // Whoever changes them at the same moment waits here, and finds the other version.
  const [row] = await tx.select().from(people).where(eq(people.id, id)).for('update');
  if (!row) throw notFound('person');
  requireMatch(seen, etagOf(row.version), 'person');
  return row;
}

/** @throws 409 where somebody is the only admin who is let in */
async function requireOtherAdmin(tx: Queries, id: string): Promise<void> {
  // Two admins who end each other at once, be it by way of two hosts: the second waits, and finds no other.
  await inLine(tx, 'admins');
  const admins = await tx
    .select({ id: people.id })
    .from(people)
    .where(and(eq(people.role, 'admin'), eq(people.disabled, false)))
    .for('update');
  if (admins.length > 0 && admins.every((one) => one.id === id))
    throw conflict('This is the last admin. Make somebody else one first.');
}

/** @throws 422 for a guest who would keep the bench, or let others in */
export function checkGuest(role: PersonInput['role'], guest: boolean): void {
  if (guest && !isEnough('engineer', role))
    throw refused(
      'guest',
      'A guest is a reader or an engineer: whoever keeps the bench or lets people in is of the lab.',
    );
}

/** Change somebody. @throws 409 where nobody could let people in any more */
export async function updatePerson(
  db: Database,
  id: string,
  { name, role, disabled, guest: told }: PersonInput,
  seen: string | null,
): Promise<StoredPerson> {
  return db.transaction(async (tx) => {
    const row = await requireSeen(tx, id, seen);
    const guest = told ?? row.guest;
    checkGuest(role, guest);
    if (role !== 'admin' || disabled) await requireOtherAdmin(tx, id);
    await tx
      .update(people)
      .set({ name, role, disabled, guest, version: row.version + 1 })
      .where(eq(people.id, id));
    if (disabled) {
      await endSessions(tx, id, null);
      await tx.delete(accessTokens).where(eq(accessTokens.personId, id));
    }
    return toStored(await personRow(tx, id));
  });
}

/**
 * Forget somebody. What they did stays in the log, by nobody: entries name them by an id that leads nowhere any more.
 * @throws 409 for the last admin
 */
export async function forgetPerson(db: Database, id: string, seen: string | null): Promise<void> {
  await db.transaction(async (tx) => {
    const row = await requireSeen(tx, id, seen);
    await requireOtherAdmin(tx, id);
    await tx.delete(collectionPeople).where(eq(collectionPeople.personId, id));
    for (const what of [sessions, accessTokens, recoveryCodes, invitations, presence])
      await tx.delete(what).where(eq(what.personId, id));
    await tx.delete(signInTries).where(eq(signInTries.account, row.signIn));
    await tx.delete(people).where(eq(people.id, id));
  });
}

/** Choose another password; whoever else is signed in by the old one is not any more. */
export async function changePassword(db: Database, row: PersonRow, password: string, keyId: string | null) {
  const hash = await chosen(password, [row.signIn, row.name]);
  await db.transaction(async (tx) => {
    await tx
      .update(people)
      .set({ password: hash, version: sql`${people.version} + 1` })
      .where(eq(people.id, row.id));
    await endSessions(tx, row.id, keyId);
  });
}
