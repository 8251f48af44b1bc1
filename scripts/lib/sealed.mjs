// A file nobody reads without its pass phrase: pieces in AES-256-GCM, each bound to its place, the last one marked, so that
// nothing can be changed, moved or cut off unseen. NIST SP 800-38D; the key by scrypt, RFC 7914.
import { createCipheriv, createDecipheriv, randomBytes, scryptSync } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { open } from 'node:fs/promises';

export const MAGIC = Buffer.from('LASTMARK SEALED 1\n');
const SALT_BYTES = 16;
const TAG_BYTES = 16;
const NONCE_BYTES = 12;
const PIECE_BYTES = 1024 * 1024;
/** 64 MiB and a good part of a second for each guess at a pass phrase. */
const COST = { N: 2 ** 16, r: 8, p: 1, maxmem: 128 * 1024 * 1024 };
const LEAST_PHRASE = 12;

export class SealProblem extends Error {}

/** The pass phrase in a file. @throws SealProblem where there is none worth the name */
export function passPhrase(path) {
  let phrase;
  try {
    phrase = readFileSync(path, 'utf8').trim();
  } catch (error) {
    throw new SealProblem(`The pass phrase of backups cannot be read from ${path}: ${error.message}`);
  }
  if (phrase.length < LEAST_PHRASE)
    throw new SealProblem(`The pass phrase in ${path} is shorter than ${LEAST_PHRASE} characters. Take a longer one.`);
  return phrase;
}

/** A nonce no other piece under this key has: its place, and whether it is the last. */
function nonceOf(place, last) {
  const nonce = Buffer.alloc(NONCE_BYTES);
  nonce.writeUInt32BE(last ? 1 : 0, 0);
  nonce.writeBigUInt64BE(BigInt(place), 4);
  return nonce;
}

/** Seal bytes as they come. */
export async function* seal(pieces, phrase) {
  const salt = randomBytes(SALT_BYTES);
  const key = scryptSync(phrase.normalize('NFKC'), salt, 32, COST);
  yield MAGIC;
  yield salt;
  let place = 0;
  const sealed = (part, last) => {
    const cipher = createCipheriv('aes-256-gcm', key, nonceOf(place, last));
    place += 1;
    const body = Buffer.concat([cipher.update(part), cipher.final()]);
    const head = Buffer.alloc(5);
    head.writeUInt32BE(body.length, 0);
    head[4] = last ? 1 : 0;
    return Buffer.concat([head, body, cipher.getAuthTag()]);
  };
  let waiting = Buffer.alloc(0);
  for await (const piece of pieces) {
    waiting = Buffer.concat([waiting, piece]);
    while (waiting.length > PIECE_BYTES) {
      yield sealed(waiting.subarray(0, PIECE_BYTES), false);
      waiting = waiting.subarray(PIECE_BYTES);
    }
  }
  yield sealed(waiting, true);
}

/** Whether a file is sealed. */
export async function isSealed(path) {
  const file = await open(path);
  try {
    const head = Buffer.alloc(MAGIC.length);
    await file.read(head, 0, head.length, 0);
    return head.equals(MAGIC);
  } finally {
    await file.close();
  }
}

/** The bytes of a sealed file. @throws SealProblem where it was changed, is not whole, or the phrase is another */
export async function* unseal(path, phrase) {
  const file = await open(path);
  try {
    const salt = Buffer.alloc(SALT_BYTES);
    await file.read(salt, 0, SALT_BYTES, MAGIC.length);
    const key = scryptSync(phrase.normalize('NFKC'), salt, 32, COST);
    let at = MAGIC.length + SALT_BYTES;
    for (let place = 0; ; place += 1) {
      const head = Buffer.alloc(5);
      const { bytesRead } = await file.read(head, 0, 5, at);
      if (bytesRead < 5) throw new SealProblem(`${path} is not whole: its end is missing. Nothing was changed.`);
      const length = head.readUInt32BE(0);
      const last = head[4] === 1;
      if (length > PIECE_BYTES)
        throw new SealProblem(`${path} is damaged at byte ${at}: a piece has no possible length. Nothing was changed.`);
      const body = Buffer.alloc(length + TAG_BYTES);
      const read = await file.read(body, 0, body.length, at + 5);
      if (read.bytesRead < body.length)
        throw new SealProblem(`${path} is not whole: its end is missing. Nothing was changed.`);
      const decipher = createDecipheriv('aes-256-gcm', key, nonceOf(place, last));
      decipher.setAuthTag(body.subarray(length));
      let plain;
      try {
        plain = Buffer.concat([decipher.update(body.subarray(0, length)), decipher.final()]);
      } catch {
        throw new SealProblem(
          place === 0
            ? `${path} cannot be opened: the pass phrase is another, or its beginning is damaged. Nothing was changed.`
            : `${path} is damaged between byte ${at} and byte ${at + 5 + body.length}: it was changed after it was sealed. Nothing was changed.`,
        );
      }
      at += 5 + body.length;
      if (plain.length > 0) yield plain;
      if (last) {
        const { size } = await file.stat();
        if (at !== size)
          throw new SealProblem(`${path} has ${size - at} bytes too many at its end. Nothing was changed.`);
        return;
      }
    }
  } finally {
    await file.close();
  }
}
