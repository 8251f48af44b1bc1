// Passwords: kept as Argon2id (RFC 9106), refused where they are guessed first. OWASP ASVS 5, 6.2 and 11.4.
import { hash, verify } from '@node-rs/argon2';
import { dictionary } from '@zxcvbn-ts/language-common';
import { ProblemError } from '../http/problem.ts';

/** What one guess costs: 19 MiB and two passes, the least that OWASP's password storage guide gives for Argon2id. */
const COST = { algorithm: 2, memoryCost: 19_456, timeCost: 2, parallelism: 1 } as const;
/** Passwords looked at together; each takes a thread and its memory for some tens of milliseconds. */
const AT_ONCE = 2;
/** How many may wait for it. */
const MOST_WAITING = 40;
const AGAIN_SECONDS = 2;
/** Different characters a password has at least. */
const LEAST_SIGNS = 5;
/** Characters that are left at least, without what everybody knows of its owner. */
const LEAST_OWN = 8;

const common = new Set(dictionary['passwords-common'].map((one) => String(one).toLowerCase()));

let busy = 0;
const waiting: (() => void)[] = [];

/** Do it once there is room for it: guessing must not take the processor from the loads. */
async function inTurn<T>(work: () => Promise<T>): Promise<T> {
  if (busy < AT_ONCE) busy += 1;
  else {
    if (waiting.length >= MOST_WAITING)
      throw new ProblemError(503, 'Busy', `Too many sign in at once. Try again in ${AGAIN_SECONDS} seconds.`, {
        again: AGAIN_SECONDS,
      });
    await new Promise<void>((resolve) => waiting.push(resolve));
  }
  try {
    return await work();
  } finally {
    // Whoever waits longest has the room of whoever is done.
    const next = waiting.shift();
    if (next) next();
    else busy -= 1;
  }
}

/** What is kept of a password. */
export const hashOf = (password: string): Promise<string> => inTurn(() => hash(password.normalize('NFKC'), COST));

/** Hash of a password nobody has: whoever does not exist takes as long to refuse as whoever does. */
const nobody = hash('nobody has this password', COST);

/** Whether a password is the one kept. @param kept null for somebody who has none, or is not there */
export async function isPassword(password: string, kept: string | null): Promise<boolean> {
  const against = kept ?? (await nobody);
  const right = await inTurn(() => verify(against, password.normalize('NFKC')));
  return right && kept !== null;
}

/** Why a password would be guessed early; null for one that is good. @param known what everybody knows of its owner */
export function weakness(password: string, known: readonly string[]): string | null {
  const plain = password.normalize('NFKC').toLowerCase();
  if (common.has(plain)) return 'is one of those that are tried first. Take another';
  if (new Set(plain).size < LEAST_SIGNS) return 'repeats a few characters only. Take another';
  const words = [...known, 'lastmark']
    .flatMap((one) => one.toLowerCase().split(/[\s@.]+/))
    .filter((one) => one.length > 2);
  const own = words.reduce((left, word) => left.replaceAll(word, ''), plain);
  if (own.length < LEAST_OWN) return 'is mostly your name. Take another';
  return null;
}
