// Versions as ETags, so that nobody overwrites an edit they have not seen.
import { changedMeanwhile } from './problem.ts';

/** ETag of something with one version number. */
export const etagOf = (version: number): string => `"v${version}"`;

/** Throws 412 unless the version the caller saw is still the current one. */
export function requireMatch(seen: string | null, current: string, what: string): void {
  if (seen !== current) throw changedMeanwhile(what);
}
