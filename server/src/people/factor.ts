// The second factor: codes by time (RFC 6238), each taken once, and recovery codes.
import { and, count, eq, lt } from 'drizzle-orm';
import { Secret, TOTP } from 'otpauth';
import type { Queries } from '../db/database.ts';
import { people, recoveryCodes } from '../db/schema.ts';
import { digestOf, plainSecret, readableSecret } from './secrets.ts';

const STEP_SECONDS = 30;
/** Steps a clock may be off to either side. */
const WINDOW = 1;
const CODES = 10;
/** Groups of four signs of a recovery code: 59 bits. */
const GROUPS = 3;

const totpOf = (secret: string, label: string): TOTP =>
  new TOTP({ issuer: 'Lastmark', label, period: STEP_SECONDS, secret: Secret.fromBase32(secret) });

export const newFactorSecret = (): string => new Secret({ size: 20 }).base32;

/** What an authenticator is given, as a picture holds it. */
export const factorUri = (secret: string, label: string): string => totpOf(secret, label).toString();

/**
 * The time step a code belongs to; null for a wrong one.
 * @param now ms
 */
export function stepOf(secret: string, code: string, now: number): number | null {
  const token = code.replace(/\s/g, '');
  if (!/^[0-9]{6}$/.test(token)) return null;
  const delta = totpOf(secret, '').validate({ token, timestamp: now, window: WINDOW });
  return delta === null ? null : Math.floor(now / 1000 / STEP_SECONDS) + delta;
}

/** Take a code of somebody's second factor, or a recovery code. Neither is taken twice, whoever asks at once. */
export async function takeCode(
  db: Queries,
  person: { readonly id: string; readonly factor: string },
  code: string,
  now: number,
): Promise<boolean> {
  const step = stepOf(person.factor, code, now);
  if (step !== null) {
    const [{ affectedRows }] = await db
      .update(people)
      .set({ factorStep: step })
      .where(and(eq(people.id, person.id), lt(people.factorStep, step)));
    return affectedRows === 1;
  }
  const [{ affectedRows }] = await db
    .delete(recoveryCodes)
    .where(and(eq(recoveryCodes.digest, digestOf(plainSecret(code))), eq(recoveryCodes.personId, person.id)));
  return affectedRows === 1;
}

/** New recovery codes in place of the old ones. @returns them, for this once */
export async function newRecoveryCodes(db: Queries, personId: string): Promise<string[]> {
  const codes = Array.from({ length: CODES }, () => readableSecret(GROUPS));
  await db.delete(recoveryCodes).where(eq(recoveryCodes.personId, personId));
  await db.insert(recoveryCodes).values(codes.map((code) => ({ digest: digestOf(plainSecret(code)), personId })));
  return codes;
}

export async function recoveryLeft(db: Queries, personId: string): Promise<number> {
  const [row] = await db.select({ left: count() }).from(recoveryCodes).where(eq(recoveryCodes.personId, personId));
  return row?.left ?? 0;
}
