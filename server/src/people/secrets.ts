// Secrets that are made here: long enough not to be guessed, so that their digest is all that is kept of them.
import { createHash, randomBytes, randomInt } from 'node:crypto';

/** 256 bits, as it stands in an address or a cookie. */
export const newSecret = (): string => randomBytes(32).toString('base64url');

/** What is kept of a secret. */
export const digestOf = (secret: string): string => createHash('sha256').update(secret).digest('hex');

/** Signs nobody mixes up when reading them aloud. */
const READABLE = 'ABCDEFGHJKMNPQRSTVWXYZ23456789';

/** A secret a person types: groups of four. @example readableSecret(4) // 'K7QX-2MPA-ZT4R-9VHC' */
export const readableSecret = (groups: number): string =>
  Array.from({ length: groups }, () =>
    Array.from({ length: 4 }, () => READABLE[randomInt(READABLE.length)]).join(''),
  ).join('-');

/** The same secret however it was typed: small letters, without its dashes. */
export const plainSecret = (typed: string): string => typed.toUpperCase().replace(/[^A-Z0-9]/g, '');
