// Tokens for scripts: sent as `Authorization: Bearer …`, with a scope and an end.
import { type AccessToken, type AccessTokenInput, lesser, type NewAccessToken } from '@lastmark/contract';
import { and, desc, eq, gt } from 'drizzle-orm';
import type { Queries } from '../db/database.ts';
import { newId } from '../db/ids.ts';
import { accessTokens, people } from '../db/schema.ts';
import { conflict, notFound } from '../http/problem.ts';
import type { Who } from '../who/who.ts';
import { digestOf, newSecret } from './secrets.ts';

/** So that one that lies about somewhere is known for what it is. */
const PREFIX = 'lastmark_';
const DAY = 86_400_000;
const MOST_TOKENS = 50;
const SEEN_MILLISECONDS = 60_000;

type Row = Pick<typeof accessTokens.$inferSelect, 'id' | 'name' | 'role' | 'madeAt' | 'endsAt' | 'seenAt'>;
const toToken = ({ id, name, role, madeAt, endsAt, seenAt }: Row): AccessToken => ({
  id,
  name,
  role,
  madeAt: madeAt.toISOString(),
  endsAt: endsAt.toISOString(),
  seenAt: seenAt?.toISOString() ?? null,
});

export async function listTokens(db: Queries, personId: string): Promise<AccessToken[]> {
  const rows = await db
    .select()
    .from(accessTokens)
    .where(and(eq(accessTokens.personId, personId), gt(accessTokens.endsAt, new Date())))
    .orderBy(desc(accessTokens.id));
  return rows.map(toToken);
}

export async function createToken(db: Queries, who: Who, input: AccessTokenInput): Promise<NewAccessToken> {
  const personId = who.id ?? '';
  if ((await listTokens(db, personId)).length >= MOST_TOKENS)
    throw conflict(`You have ${MOST_TOKENS} tokens. End one of them first.`);
  const secret = newSecret();
  const now = new Date();
  const row = {
    id: newId(),
    name: input.name,
    role: lesser(input.role, who.role),
    madeAt: now,
    endsAt: new Date(now.getTime() + input.days * DAY),
    seenAt: null,
  };
  await db.insert(accessTokens).values({ ...row, digest: digestOf(secret), personId });
  return { ...toToken(row), token: PREFIX + secret };
}

export async function revokeToken(db: Queries, personId: string, id: string): Promise<void> {
  const [{ affectedRows }] = await db
    .delete(accessTokens)
    .where(and(eq(accessTokens.id, id), eq(accessTokens.personId, personId)));
  if (affectedRows === 0) throw notFound('token');
}

/** Whose token a header gives; null for none, a wrong one, or one that is over. */
export async function whoseToken(db: Queries, header: string | undefined): Promise<Who | null> {
  const [, secret] = /^Bearer lastmark_([\w-]{43})$/.exec(header ?? '') ?? [];
  if (secret === undefined) return null;
  const now = new Date();
  const [row] = await db
    .select({
      keyId: accessTokens.id,
      seenAt: accessTokens.seenAt,
      most: accessTokens.role,
      token: accessTokens.name,
      id: people.id,
      name: people.name,
      role: people.role,
      disabled: people.disabled,
      guest: people.guest,
    })
    .from(accessTokens)
    .innerJoin(people, eq(accessTokens.personId, people.id))
    .where(and(eq(accessTokens.digest, digestOf(secret)), gt(accessTokens.endsAt, now)));
  if (!row || row.disabled) return null;
  if (!row.seenAt || now.getTime() - row.seenAt.getTime() > SEEN_MILLISECONDS)
    await db.update(accessTokens).set({ seenAt: now }).where(eq(accessTokens.id, row.keyId));
  // Whoever may less today than when it was made does not keep more through it.
  const { id, name, guest } = row;
  return { id, name, role: lesser(row.most, row.role), guest, through: 'token', keyId: row.keyId };
}
