// What a request carries: JSON, a file, or a form of both; never more than a few files at once.
import type { Route } from '@lastmark/contract';
import express, { type Request, type RequestHandler } from 'express';
import multer from 'multer';
import { ProblemError, refused } from './problem.ts';

const DEFAULT_LIMIT = 1024 * 1024;
/** Largest JSON beside a file, bytes. */
const INPUT_LIMIT = 256 * 1024;
/** Files on their way at once: each is held in memory until its job takes it. */
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
    const form = multer({ storage: multer.memoryStorage(), limits }).single('file');
    return [fewAtOnce, form];
  }
  return route.body ? [express.json({ limit })] : [];
}

/** Body and file of a request, as far as its route has them. @throws 400 or 422 for an input that is not JSON */
export function bodyOf(route: Route, request: Request): { readonly body: unknown; readonly file: Buffer | null } {
  if (route.file === true) return { body: undefined, file: Buffer.isBuffer(request.body) ? request.body : null };
  if (!route.file) return { body: request.body, file: null };
  const { input } = (request.body ?? {}) as { input?: unknown };
  const file = request.file?.buffer ?? null;
  if (typeof input !== 'string')
    throw refused('input', 'Send a form: the field "input" as JSON, and the file as "file".');
  try {
    return { body: JSON.parse(input), file };
  } catch {
    throw new ProblemError(400, 'Not JSON', 'The field "input" is not valid JSON.');
  }
}
