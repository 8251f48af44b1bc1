// What a request carries: JSON, a file, or a form of both; never more than a few files at once.
import type { Route } from '@lastmark/contract';
import express, { type Request, type RequestHandler } from 'express';
import multer from 'multer';
import { incoming } from './incoming.ts';
import { ProblemError, refused } from './problem.ts';

const DEFAULT_LIMIT = 1024 * 1024;
/** Largest JSON beside a file, bytes. */
const INPUT_LIMIT = 256 * 1024;
/** Files on their way at once. */
const MOST_FILES = 4;
const AGAIN_SECONDS = 2;

let files = 0;

/** Lets a few files in at a time. */
const fewAtOnce: RequestHandler = (_request, response, next) => {
  if (files >= MOST_FILES)
    throw new ProblemError(503, 'Busy', `${MOST_FILES} files are being taken in already. Try again in a moment.`, {
      again: AGAIN_SECONDS,
    });
  files += 1;
  response.once('close', () => {
    files -= 1;
  });
  next();
};

/** What reads the body of a route. */
export function bodyParser(route: Route): RequestHandler[] {
  const limit = route.limit ?? DEFAULT_LIMIT;
  if (route.file === true) return [fewAtOnce, express.raw({ type: () => true, limit })];
  if (route.file) {
    const limits = { fileSize: limit, files: 1, fields: 1, fieldSize: INPUT_LIMIT, parts: 2 };
    const storage = multer.diskStorage({ destination: (_request, _file, told) => told(null, incoming()) });
    return [fewAtOnce, multer({ storage, limits }).single('file')];
  }
  return route.body ? [express.json({ limit })] : [];
}

interface Body {
  readonly body: unknown;
  /** The file that is the whole body. */
  readonly file: Buffer | null;
  /** Where the file of a form stands. */
  readonly path: string | null;
}

/** Body and file of a request, as far as its route has them. @throws 400 or 422 for an input that is not JSON */
export function bodyOf(route: Route, request: Request): Body {
  if (route.file === true)
    return { body: undefined, file: Buffer.isBuffer(request.body) ? request.body : null, path: null };
  if (!route.file) return { body: request.body, file: null, path: null };
  const { input } = (request.body ?? {}) as { input?: unknown };
  if (typeof input !== 'string')
    throw refused('input', 'Send a form: the field "input" as JSON, and the file as "file".');
  try {
    return { body: JSON.parse(input), file: null, path: request.file?.path ?? null };
  } catch {
    throw new ProblemError(400, 'Not JSON', 'The field "input" is not valid JSON.');
  }
}
