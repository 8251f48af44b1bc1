// What is out of date after what others did.
import type { NewsEntry } from '@lastmark/contract/together';

const ID = /^[0-9A-HJKMNP-TV-Z]{26}$/;

/** Lists of what belongs to no sample: only what is done to no sample changes them. */
const OF_THE_BENCH: ReadonlySet<unknown> = new Set([
  'instruments',
  'instrument-profiles',
  'rigs',
  'devices',
  'profile',
  'limit-sets',
  'methods',
]);
/** What looks after itself: by its revisions, by asking again, or because others have no part in it. The shelf stands still while it is read. */
const BY_ITSELF: ReadonlySet<unknown> = new Set([
  ...['dossier', 'samples', 'news', 'who', 'people', 'drills', 'demo', 'leases', 'today', 'sheet-runs', 'log'],
  ...['traffic', 'simulated-bench', 'phrases', 'list', 'split-list', 'meter-file', 'day', 'conflict', 'report-code'],
  ...['several chargers', 'own measures'],
]);

/**
 * Whether what a query asked for may be different now.
 * @param key of the query
 */
export function isOutdated(key: readonly unknown[], entries: readonly NewsEntry[]): boolean {
  const [name] = key;
  if (BY_ITSELF.has(name)) return false;
  if (OF_THE_BENCH.has(name)) return entries.some(({ sampleId }) => sampleId === null);
  const ids = key.filter((part): part is string => typeof part === 'string' && ID.test(part));
  if (ids.length === 0) return entries.length > 0;
  return entries.some(({ sampleId, subject }) => ids.some((id) => id === sampleId || id === subject));
}

/**
 * How many of these are about a sample, or may be: what is done to no sample may be done to a claim of its model.
 * @param entries null for what is not told in full
 * @param sampleId empty for all of them
 */
export const countAbout = (entries: readonly (NewsEntry | null)[], sampleId: string): number =>
  sampleId === ''
    ? entries.length
    : entries.filter((one) => one === null || one.sampleId === null || one.sampleId === sampleId).length;

/** Whether a part of a sample was changed since it was fetched. @param known revisions of what is shown */
export const isBehind = (
  known: Readonly<Record<string, number>>,
  now: Readonly<Record<string, number>> | null,
): boolean => now !== null && Object.entries(now).some(([part, revision]) => (known[part] ?? 0) < revision);
