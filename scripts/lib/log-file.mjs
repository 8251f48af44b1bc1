// The older part of the log as a file: JSON lines, each with its place in the chain and its seal, so that it can be checked alone.
import { createHash } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { createInterface } from 'node:readline';

/** Seal before the first entry there ever was. */
export const NOTHING = '0'.repeat(64);
const FORMAT = 'log';

/** What an archive cannot be trusted for, or why there is none. */
export class ArchiveProblem extends Error {}

/** The seal of an entry: SHA-256 over the seal before and everything it says, as a JSON list. */
export function sealOf(before, entry) {
  const { id, at, personId, who, through, keyId, operation, subject, sampleId, body, whole, request, undoes } = entry;
  const said = [
    before,
    id,
    at,
    personId,
    who,
    through,
    keyId,
    operation,
    subject,
    sampleId,
    body,
    whole,
    request,
    undoes,
  ];
  return createHash('sha256').update(JSON.stringify(said)).digest('hex');
}

export const headOf = (first, before) => ({
  format: FORMAT,
  version: 1,
  first,
  before,
  made: new Date().toISOString(),
});

function parsed(line, at) {
  try {
    return JSON.parse(line);
  } catch {
    throw new ArchiveProblem(`Line ${at} is no JSON: the file was cut or changed.`);
  }
}

/**
 * Go through an archive from its first line to its last.
 * @returns first and last place, the seal before and the last, how many entries, and the SHA-256 of the file
 * @throws ArchiveProblem with the line at which it is not what was written
 */
export async function checkArchive(path) {
  const hash = createHash('sha256');
  const file = createReadStream(path);
  file.on('data', (part) => hash.update(part));
  const lines = createInterface({ input: file, crlfDelay: Number.POSITIVE_INFINITY });
  let head = null;
  let end = null;
  let place = 0;
  let seal = '';
  let at = 0;
  for await (const line of lines) {
    at += 1;
    const one = parsed(line, at);
    if (end) throw new ArchiveProblem(`Line ${at} comes after the end.`);
    if (!head) {
      if (one.format !== FORMAT || one.version !== 1) throw new ArchiveProblem('This is no archive of a log.');
      head = one;
      place = one.first - 1;
      seal = one.before;
    } else if ('last' in one) end = one;
    else {
      place += 1;
      if (one.place !== place) throw new ArchiveProblem(`Line ${at} has place ${one.place}; ${place} comes there.`);
      seal = sealOf(seal, one.entry);
      if (one.seal !== seal) throw new ArchiveProblem(`Line ${at}: entry ${one.entry?.id} is not what was sealed.`);
    }
  }
  if (!end) throw new ArchiveProblem('The file has no end: it was cut.');
  const entries = place - head.first + 1;
  if (end.last !== place || end.seal !== seal || end.entries !== entries)
    throw new ArchiveProblem('The end does not fit what is before it.');
  return { first: head.first, before: head.before, last: place, seal, entries, sha256: hash.digest('hex') };
}
