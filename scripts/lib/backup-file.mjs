// A backup file: SQL in gzip blocks that each say how long they are and carry their own check, and a last line with the
// check of the whole. Any gunzip reads it; a damaged byte is named by the block it lies in. RFC 1952
import { createHash } from 'node:crypto';
import { createReadStream, createWriteStream, statSync } from 'node:fs';
import { open } from 'node:fs/promises';
import { pipeline } from 'node:stream/promises';
import { crc32, createGunzip, deflateRawSync, gunzipSync } from 'node:zlib';
import { isSealed, passPhrase, SealProblem, seal, unseal } from './sealed.mjs';

const BLOCK_BYTES = 512 * 1024;
/** Longer than any block can become. */
const MOST_BLOCK_BYTES = 4 * 1024 * 1024;
/** Header with an extra field `LM`, four bytes long: the length of the whole block. RFC 1952, 2.3.1.1 */
const HEADER = Buffer.from([0x1f, 0x8b, 8, 4, 0, 0, 0, 0, 0, 255, 8, 0, 0x4c, 0x4d, 4, 0]);
const HEAD_BYTES = HEADER.length + 4;
const CLOSING = '-- Lastmark backup ';
/** How the dump of an earlier version ends. */
const EARLIER_CLOSING = '-- Dump completed';

export class BackupProblem extends Error {}

/** The pass phrase of backups: in the file LASTMARK_BACKUP_KEY names; null without one. @throws SealProblem */
export const backupPhrase = () =>
  process.env.LASTMARK_BACKUP_KEY ? passPhrase(process.env.LASTMARK_BACKUP_KEY) : null;

/** The bytes of a backup as they were written, unsealed where it is sealed. @throws SealProblem */
async function* rawOf(path) {
  if (!(await isSealed(path))) {
    yield* createReadStream(path);
    return;
  }
  const phrase = backupPhrase();
  if (phrase === null)
    throw new SealProblem(
      `${path} is sealed. Set LASTMARK_BACKUP_KEY to the file with its pass phrase. Nothing was changed.`,
    );
  yield* unseal(path, phrase);
}

function blockOf(sql) {
  const deflated = deflateRawSync(sql);
  const block = Buffer.alloc(HEAD_BYTES + deflated.length + 8);
  HEADER.copy(block);
  block.writeUInt32LE(block.length, HEADER.length);
  deflated.copy(block, HEAD_BYTES);
  block.writeUInt32LE(crc32(sql), block.length - 8);
  block.writeUInt32LE(sql.length, block.length - 4);
  return block;
}

/**
 * Write SQL as it comes.
 * @param facts told at the end, what the last line says besides the check: version, newest migration, place among the changes
 * @param phrase seals it; null leaves it readable for whoever has the file
 * @returns what the last line says
 */
export async function writeBackup(sql, path, facts, phrase = null) {
  const hash = createHash('sha256');
  let bytes = 0;
  let closing = null;
  await pipeline(
    sql,
    async function* (pieces) {
      let waiting = [];
      let length = 0;
      const take = () => {
        const part = Buffer.concat(waiting);
        waiting = [];
        length = 0;
        hash.update(part);
        bytes += part.length;
        return blockOf(part);
      };
      for await (const piece of pieces) {
        waiting.push(piece);
        length += piece.length;
        if (length >= BLOCK_BYTES) yield take();
      }
      if (length > 0) yield take();
      closing = { ...facts(), bytes, sha256: hash.digest('hex') };
      yield blockOf(Buffer.from(`${CLOSING}${JSON.stringify(closing)}\n`));
    },
    async function* (blocks) {
      yield* phrase === null ? blocks : seal(blocks, phrase);
    },
    createWriteStream(path, { mode: 0o600 }),
  );
  return closing;
}

const damaged = (path, from, to, why) =>
  new BackupProblem(`${path} is damaged between byte ${from} and byte ${to}: ${why}. Nothing was changed.`);

/** The blocks of a file, one after the other. @throws BackupProblem that names the bytes */
async function* blocksOf(path) {
  let waiting = Buffer.alloc(0);
  let at = 0;
  const ends = () => damaged(path, at, at + waiting.length, 'the file ends in the middle of a block');
  for await (const piece of rawOf(path)) {
    waiting = Buffer.concat([waiting, piece]);
    while (waiting.length >= HEAD_BYTES) {
      if (!waiting.subarray(0, HEADER.length).equals(HEADER))
        throw damaged(path, at, at + HEAD_BYTES, 'a block should begin here');
      const length = waiting.readUInt32LE(HEADER.length);
      if (length <= HEAD_BYTES + 8 || length > MOST_BLOCK_BYTES)
        throw damaged(path, at, at + HEAD_BYTES, 'a block has no possible length');
      if (waiting.length < length) break;
      let part;
      try {
        part = gunzipSync(waiting.subarray(0, length), { maxOutputLength: 64 * 1024 * 1024 });
      } catch {
        throw damaged(path, at, at + length, 'the check of this block does not fit its content');
      }
      yield part;
      waiting = waiting.subarray(length);
      at += length;
    }
  }
  if (waiting.length > 0) throw ends();
}

/** Whether a file is of the kind {@link writeBackup} makes, rather than the plain gzip of earlier versions. */
async function hasBlocks(path) {
  // Nothing was sealed before there were blocks.
  if (await isSealed(path)) return true;
  const file = await open(path);
  try {
    const head = Buffer.alloc(HEADER.length);
    const { bytesRead } = await file.read(head, 0, HEADER.length, 0);
    if (bytesRead < 10 || head[0] !== 0x1f || head[1] !== 0x8b)
      throw new BackupProblem(`${path} could not be read: it is no backup. Nothing was changed.`);
    return head[3] === 4;
  } finally {
    await file.close();
  }
}

/** The SQL of a backup, piece by piece, without the closing line. @throws BackupProblem */
export async function* sqlOf(path) {
  if (await hasBlocks(path)) {
    let held = null;
    // The last block is the closing line.
    for await (const part of blocksOf(path)) {
      if (held) yield held;
      held = part;
    }
    return;
  }
  const gunzip = createReadStream(path).pipe(createGunzip());
  try {
    for await (const part of gunzip) yield part;
  } catch {
    throw damaged(path, 0, gunzip.bytesWritten, 'it cannot be unpacked');
  }
}

/**
 * Read a whole backup and hold it against its own check, before anything is done with it.
 * @returns what its last line says; null for one of an earlier version, which has no check but its end
 * @throws BackupProblem with what is wrong and where
 */
export async function checkBackup(path) {
  const size = statSync(path).size;
  if (!(await hasBlocks(path))) {
    let end = '';
    for await (const part of sqlOf(path)) end = (end + part.subarray(-200).toString('latin1')).slice(-200);
    if (!end.includes(EARLIER_CLOSING)) throw damaged(path, 0, size, 'its end is missing');
    return null;
  }
  const hash = createHash('sha256');
  let bytes = 0;
  let last = null;
  for await (const part of blocksOf(path)) {
    if (last) {
      hash.update(last);
      bytes += last.length;
    }
    last = part;
  }
  const closing = last?.toString('utf8') ?? '';
  if (!closing.startsWith(CLOSING))
    throw damaged(path, size, size, 'its end is missing: the closing line is not there');
  const facts = JSON.parse(closing.slice(CLOSING.length));
  if (facts.bytes !== bytes || facts.sha256 !== hash.digest('hex'))
    throw damaged(path, 0, size, 'blocks are missing or in another order');
  return facts;
}
