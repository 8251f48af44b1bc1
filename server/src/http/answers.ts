// Answers as they leave: with a version to hold against, as JSON made elsewhere, as a file.
import type { Answer } from './handlers.ts';
import { etagOf } from './versions.ts';

export const versioned = <T extends { version: number }>(body: T): Answer<T> => ({ body, etag: etagOf(body.version) });
export const tagged = <T extends { etag: string }>(body: T): Answer<T> => ({ body, etag: body.etag });

/** Nothing is left to say. */
export const done = (_nothing: unknown): Answer<never> => ({});

/** A file name that is safe in a header, with the real one beside it (RFC 6266). */
export function disposition(kind: 'inline' | 'attachment', name: string): string {
  const plain = name.replace(/[^\w.-]+/g, '_');
  return `${kind}; filename="${plain}"; filename*=UTF-8''${encodeURIComponent(name)}`;
}

/** Bytes of JSON as they were written where it was worked out. */
export const asJson = (body: Uint8Array): Answer<never> => ({
  body,
  headers: { 'Content-Type': 'application/json; charset=utf-8' },
});
export const saved = (
  kind: 'inline' | 'attachment',
  { name, bytes }: { readonly name: string; readonly bytes: Uint8Array },
): Answer<never> => ({
  body: bytes,
  headers: { 'Content-Disposition': disposition(kind, name) },
});
