// Versions as ETags, so that nobody overwrites an edit they have not seen.
import { changedMeanwhile } from './problem.ts';

/** ETag of something with one version number. */
export const etagOf = (version: number): string => `"v${version}"`;

/** Stands for whatever version there is; no header can hold it. */
export const ANY_VERSION = '\0any';

/** Throws 412 unless the version the caller saw is still the current one. */
export function requireMatch(seen: string | null, current: string, what: string): void {
  if (seen !== ANY_VERSION && seen !== current) throw changedMeanwhile(what);
}
