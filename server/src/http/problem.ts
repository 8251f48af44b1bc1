// Errors the API answers with: RFC 9457 problem details.
import type { FieldError, Problem } from '@lastmark/contract';
import { isGone } from '../db/again.ts';
import { isDatabaseError } from '../db/database.ts';

/** An error meant for the caller; anything else becomes a 500 without details. */
export class ProblemError extends Error {
  readonly problem: Problem;

  constructor(
    status: number,
    title: string,
    detail: string,
    more: Pick<Problem, 'errors' | 'badLines' | 'again'> = {},
  ) {
    super(detail);
    this.problem = { type: 'about:blank', title, status, detail, ...more };
  }

  /** A problem that came as plain data. */
  static of({ status, title, detail, ...more }: Problem): ProblemError {
    return new ProblemError(status, title, detail, more);
  }
}

export const notFound = (what: string): ProblemError =>
  new ProblemError(404, 'Not found', `There is no such ${what}. It may have been removed.`);

export const invalid = (errors: FieldError[]): ProblemError =>
  new ProblemError(
    422,
    'Not valid',
    errors
      .map(({ message }) => message)
      .slice(0, 5)
      .join(' · '),
    { errors },
  );

/** A contradiction or refusal tied to one field. */
export const refused = (path: string, message: string): ProblemError => invalid([{ path, message }]);

/** A value that is hardly ever meant: sent again with `really`, it is taken. */
export const askReally = (path: string, message: string): ProblemError => invalid([{ path, message, really: true }]);

export const conflict = (detail: string): ProblemError => new ProblemError(409, 'Conflict', detail);

export const changedMeanwhile = (what: string): ProblemError =>
  new ProblemError(
    412,
    'Changed meanwhile',
    `Someone else saved this ${what} since you opened it. Nothing was overwritten; compare and save again.`,
  );

/** When to ask a database again that does not answer, s. */
const AGAIN_SECONDS = 2;

/** Turn any error into problem details; only a {@link ProblemError} says what happened. */
export function toProblem(error: unknown): Problem {
  if (error instanceof ProblemError) return error.problem;
  const { type, status } = (typeof error === 'object' && error !== null ? error : {}) as {
    type?: string;
    status?: number;
  };
  const { code } = (error ?? {}) as { code?: unknown };
  if (typeof code === 'string' && code.startsWith('LIMIT_') && code !== 'LIMIT_FILE_SIZE')
    return {
      type: 'about:blank',
      title: 'Not a form',
      status: 400,
      detail: 'Send a form of two parts: the field "input" as JSON, and the file as "file".',
    };
  if (type === 'entity.too.large' || code === 'LIMIT_FILE_SIZE') {
    return {
      type: 'about:blank',
      title: 'Too large',
      status: 413,
      detail: 'This is larger than can be taken. Split it or make it smaller.',
    };
  }
  if (type === 'entity.parse.failed') {
    return { type: 'about:blank', title: 'Not JSON', status: 400, detail: 'The body is not valid JSON.' };
  }
  if (isDatabaseError(error, 'ER_DUP_ENTRY'))
    return conflict('This was saved already, or corrected by someone else just now. Reload to see it.').problem;
  if (isDatabaseError(error, 'ER_ROW_IS_REFERENCED_2'))
    return conflict('Something still refers to this, so it stays.').problem;
  if (isDatabaseError(error, 'ER_NO_REFERENCED_ROW_2'))
    return conflict('This refers to something that is not there. Reload and choose again.').problem;
  if (isGone(error))
    return {
      type: 'about:blank',
      title: 'Database away',
      status: 503,
      detail: `The database does not answer. Nothing was half-saved. Try again in ${AGAIN_SECONDS} seconds.`,
      again: AGAIN_SECONDS,
    };
  if (status !== undefined && status >= 400 && status < 500) {
    return { type: 'about:blank', title: 'Bad request', status, detail: 'The request could not be read.' };
  }
  return {
    type: 'about:blank',
    title: 'Server error',
    status: 500,
    detail: 'The server failed at this. Nothing was half-saved. Try again; the log has the details.',
  };
}
