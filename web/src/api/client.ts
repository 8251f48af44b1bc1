// Talks to the server: JSON both ways, problems as errors.
import type { Problem } from '@lastmark/contract/types';
import { apiUrl, realUrl } from './world.ts';

/** What the server refused, or that it could not be reached. */
export class ApiProblem extends Error {
  readonly problem: Problem;

  constructor(problem: Problem) {
    super(problem.detail);
    this.problem = problem;
  }

  get status(): number {
    return this.problem.status;
  }
}

const NOT_FOUND = 404;

/** Whether what was asked for is not there, or not for whoever asks. */
export const isMissing = (error: unknown): error is ApiProblem =>
  error instanceof ApiProblem && error.status === NOT_FOUND;

const REFUSED = 422;

/** Whether what was asked for cannot be: no trying again helps. */
export const isRefused = (error: unknown): error is ApiProblem =>
  error instanceof ApiProblem && error.status === REFUSED;

const unreachable = (): ApiProblem =>
  new ApiProblem({
    type: 'about:blank',
    title: 'No answer',
    status: 0,
    detail: 'The server does not answer. Is it still running? What you typed is kept.',
  });

async function problemOf(response: Response): Promise<ApiProblem> {
  const fallback: Problem = {
    type: 'about:blank',
    title: 'Server error',
    status: response.status,
    detail: `The server answered ${response.status}.`,
  };
  try {
    const body = (await response.json()) as Partial<Problem>;
    return new ApiProblem(typeof body.detail === 'string' ? { ...fallback, ...body } : fallback);
  } catch {
    return new ApiProblem(fallback);
  }
}

/** Name of this page, for as long as it is open: what it does itself is no news to it. */
export const TAB: string = crypto.getRandomValues(new Uint32Array(3)).join('-').slice(0, 32);
let asked = 0;

const doorkeepers = new Set<() => void>();

/** Be told when the server does not know who asks. @returns how to stop */
export function onSignInAsked(asked: () => void): () => void {
  doorkeepers.add(asked);
  return () => doorkeepers.delete(asked);
}

export interface Options {
  readonly method?: 'GET' | 'POST' | 'PUT' | 'DELETE';
  readonly body?: unknown;
  /** What goes with the body as a file, in a form; null for a form without one. */
  readonly file?: string | Blob | null;
  /** Version last seen, for writes that must not overwrite a newer one. */
  readonly ifMatch?: string;
  readonly signal?: AbortSignal;
  /** Of the real world, also from within practice. */
  readonly real?: boolean;
}

interface Content {
  /** Null where the browser says it itself. */
  readonly type: string | null;
  readonly content: BodyInit | null;
}

function contentOf(body: unknown): Content {
  if (body === undefined) return { type: null, content: null };
  if (body instanceof Blob) return { type: 'application/octet-stream', content: body };
  return { type: 'application/json', content: JSON.stringify(body) };
}

/** JSON and a file together: however long the file, it is no part of the JSON. */
function formOf(body: unknown, file: string | Blob | null): Content {
  const form = new FormData();
  form.set('input', JSON.stringify(body));
  if (file !== null) form.set('file', file instanceof Blob ? file : new Blob([file]), 'file');
  return { type: null, content: form };
}

/** Call the API. @throws ApiProblem */
export async function api<T>(
  path: string,
  { method = 'GET', body, file, ifMatch, signal, real = false }: Options = {},
): Promise<T> {
  const { type, content } = file === undefined ? contentOf(body) : formOf(body, file);
  asked += 1;
  const headers: Record<string, string> = {
    'X-Request-Id': `${TAB}.${asked}`,
    ...(type ? { 'Content-Type': type } : {}),
    ...(ifMatch ? { 'If-Match': ifMatch } : {}),
  };
  let response: Response;
  try {
    response = await fetch(real ? realUrl(path) : apiUrl(path), {
      method,
      headers,
      body: content,
      signal: signal ?? null,
    });
  } catch (error) {
    if (signal?.aborted) throw error;
    throw unreachable();
  }
  if (response.status === 401) for (const asked of doorkeepers) asked();
  if (!response.ok) throw await problemOf(response);
  return (response.status === 204 ? undefined : await response.json()) as T;
}

/** ETag of something with a version number. */
export const versionTag = ({ version }: { version: number }): string => `"v${version}"`;
