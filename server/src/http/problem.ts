// Errors the API answers with: RFC 9457 problem details.
import type { FieldError, Problem } from '@lastmark/contract';
import type { BadLine } from '@lastmark/core/meter-file';

/** An error meant for the caller; anything else becomes a 500 without details. */
export class ProblemError extends Error {
  readonly problem: Problem;

  constructor(
    status: number,
    title: string,
    detail: string,
    more: { errors?: FieldError[]; badLines?: BadLine[] } = {},
  ) {
    super(detail);
    this.problem = { type: 'about:blank', title, status, detail, ...more };
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

export const conflict = (detail: string): ProblemError => new ProblemError(409, 'Conflict', detail);

export const changedMeanwhile = (what: string): ProblemError =>
  new ProblemError(
    412,
    'Changed meanwhile',
    `Someone else saved this ${what} since you opened it. Nothing was overwritten; compare and save again.`,
  );
