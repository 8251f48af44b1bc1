// Links that let in once: for the first person, for whoever is invited, and for whoever is locked out.
import type { Invitation, InvitationInput, LetIn } from '@lastmark/contract';
import { and, desc, eq, gt, lt } from 'drizzle-orm';
import type { Queries } from '../db/database.ts';
import { newId } from '../db/ids.ts';
import { invitations, people } from '../db/schema.ts';
import { notFound, ProblemError } from '../http/problem.ts';
import { digestOf, newSecret, plainSecret, readableSecret } from './secrets.ts';

const HOUR = 3_600_000;
const FIRST_MILLISECONDS = 24 * HOUR;
const INVITED_MILLISECONDS = 7 * 24 * HOUR;
const RESET_MILLISECONDS = 24 * HOUR;
/** Groups of four signs of the code of the first person: 78 bits. */
const FIRST_GROUPS = 4;
const MOST_LISTED = 200;

type Row = typeof invitations.$inferSelect;

async function keep(db: Queries, digest: string, row: Omit<Row, 'id' | 'digest'>): Promise<void> {
  await db.delete(invitations).where(lt(invitations.endsAt, new Date()));
  await db.insert(invitations).values({ ...row, id: newId(), digest });
}

async function linkOf(db: Queries, row: Omit<Row, 'id' | 'digest' | 'endsAt'>, lives: number): Promise<LetIn> {
  const secret = newSecret();
  const endsAt = new Date(Date.now() + lives);
  await keep(db, digestOf(secret), { ...row, endsAt });
  // Behind the #, it is sent to no server and written into no log on the way.
  return { path: `/join#${secret}`, endsAt: endsAt.toISOString() };
}

/** Whether nobody is there yet. */
export const firstComes = async (db: Queries): Promise<boolean> =>
  (await db.select({ id: people.id }).from(people).limit(1)).length === 0;

/** A code for whoever starts the server to come in by; null once somebody is there. */
export async function firstCode(db: Queries): Promise<string | null> {
  if (!(await firstComes(db))) return null;
  const code = readableSecret(FIRST_GROUPS);
  await keep(db, digestOf(plainSecret(code)), {
    kind: 'first',
    role: 'admin',
    guest: false,
    note: '',
    personId: null,
    madeBy: null,
    endsAt: new Date(Date.now() + FIRST_MILLISECONDS),
  });
  return code;
}

export const invite = (db: Queries, { role, note, guest = false }: InvitationInput, madeBy: string): Promise<LetIn> =>
  linkOf(db, { kind: 'invited', role, guest, note, personId: null, madeBy }, INVITED_MILLISECONDS);

/** A link for somebody who is there to choose a password anew; an earlier one is void. */
export async function inviteBack(
  db: Queries,
  person: Pick<typeof people.$inferSelect, 'id' | 'role' | 'guest' | 'name'>,
  madeBy: string,
): Promise<LetIn> {
  await db.delete(invitations).where(eq(invitations.personId, person.id));
  return linkOf(
    db,
    { kind: 'reset', role: person.role, guest: person.guest, note: person.name, personId: person.id, madeBy },
    RESET_MILLISECONDS,
  );
}

export async function listInvitations(db: Queries): Promise<Invitation[]> {
  const rows = await db
    .select()
    .from(invitations)
    .where(and(eq(invitations.kind, 'invited'), gt(invitations.endsAt, new Date())))
    .orderBy(desc(invitations.id))
    .limit(MOST_LISTED);
  return rows.map(({ id, role, guest, note, madeBy, endsAt }) => ({
    id,
    role,
    guest,
    note,
    by: madeBy,
    endsAt: endsAt.toISOString(),
  }));
}

export async function withdrawInvitation(db: Queries, id: string): Promise<void> {
  const [{ affectedRows }] = await db
    .delete(invitations)
    .where(and(eq(invitations.id, id), eq(invitations.kind, 'invited')));
  if (affectedRows === 0) throw notFound('invitation');
}

/** Use a link up. Belongs in the transaction of what it is used for. @throws 403 for one that is none, or was used */
export async function useInvitation(db: Queries, secret: string): Promise<Row> {
  // The code of the first person is typed by hand.
  const digests = [digestOf(secret), digestOf(plainSecret(secret))];
  for (const digest of digests) {
    const [row] = await db
      .select()
      .from(invitations)
      .where(and(eq(invitations.digest, digest), gt(invitations.endsAt, new Date())));
    if (!row) continue;
    const [{ affectedRows }] = await db.delete(invitations).where(eq(invitations.digest, digest));
    if (affectedRows === 1) return row;
  }
  throw new ProblemError(
    403,
    'Not let in',
    'This invitation does not let in: it was used, taken back, is too old, or was not copied whole. Ask for another.',
  );
}
