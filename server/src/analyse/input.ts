// A trace from a file on disk or a pipe: as a stream, whatever its length.
import { createReadStream, existsSync } from 'node:fs';
import { readFile, stat } from 'node:fs/promises';
import { readDescribed, TraceReader, type TraceReading } from '@lastmark/core/trace';
import type { Options } from './options.ts';

const PIECE = 1 << 20;

/** The description of a binary file as text; null for a text. */
async function descriptionOf({ file, describe }: Options): Promise<string | null> {
  const path = describe ?? (file !== '-' && existsSync(`${file}.json`) ? `${file}.json` : null);
  return path === null ? null : readFile(path, 'utf8');
}

/** @throws Error when the file cannot be read */
export async function readInput(options: Options): Promise<TraceReading> {
  const { file, rate } = options;
  const description = await descriptionOf(options);
  if (description !== null) return readDescribed(await readFile(file), description);
  const reader = new TraceReader({
    ...(rate === null ? {} : { rate }),
    ...(file === '-' ? {} : { bytes: (await stat(file)).size }),
  });
  const stream = file === '-' ? process.stdin : createReadStream(file, { highWaterMark: PIECE });
  for await (const piece of stream) {
    reader.push(piece as Uint8Array);
    if (reader.failed) break;
  }
  return reader.result();
}
