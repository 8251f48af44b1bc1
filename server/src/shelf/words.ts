// What a sample is found by beside its name: notes, promises, own words, reports, labels.
import { describePromise } from '@lastmark/core/claim';
import { LANGUAGES } from '@lastmark/core/conclusion';
import type { Dossier } from '@lastmark/core/verdict';
import { inArray } from 'drizzle-orm';
import type { Queries } from '../db/database.ts';
import { conclusions, reports, samples } from '../db/schema.ts';

const LONGEST = 60_000;

/** What stands of a sample outside its dossier. */
export interface BesideIt {
  readonly words: string;
  /** Revision and date code. */
  readonly group: string;
}

/** Words and groups of some samples that stand outside their dossiers, by sample. */
export async function wordsBeside(db: Queries, ids: readonly string[]): Promise<ReadonlyMap<string, BesideIt>> {
  if (ids.length === 0) return new Map();
  const all = new Map<string, string[]>();
  const add = (id: string, ...words: readonly string[]) => all.set(id, [...(all.get(id) ?? []), ...words]);
  const own = await db
    .select({ id: samples.id, facts: samples.facts, labels: samples.labels })
    .from(samples)
    .where(inArray(samples.id, [...ids]));
  for (const { id, facts, labels } of own)
    add(id, facts.notes, facts.disclosure, facts.revision, facts.dateCode, facts.obtained, ...(labels ?? []));
  const kept = await db
    .select({ id: conclusions.sampleId, lines: conclusions.lines })
    .from(conclusions)
    .where(inArray(conclusions.sampleId, [...ids]));
  for (const { id, lines } of kept)
    for (const line of lines) add(id, ...LANGUAGES.map((language) => line.text[language] ?? ''));
  const issued = await db
    .select({
      id: reports.sampleId,
      code: reports.code,
      person: reports.person,
      reason: reports.reason,
      fate: reports.fate,
    })
    .from(reports)
    .where(inArray(reports.sampleId, [...ids]));
  for (const { id, code, person, reason, fate } of issued) add(id, code, person, reason, fate ?? '');
  const groups = new Map(
    own.map(({ id, facts }) => [id, [facts.revision, facts.dateCode].filter(Boolean).join(', ').slice(0, 160)]),
  );
  return new Map(
    [...all].map(([id, words]) => [id, { words: words.filter(Boolean).join(' '), group: groups.get(id) ?? '' }]),
  );
}

/** All of it, with what its dossier says. */
export const foundBy = ({ claims }: Dossier, beside: string): string =>
  [beside, ...claims.flatMap(({ promise, printed }) => [describePromise(promise), printed])]
    .join(' ')
    .slice(0, LONGEST);

/** Words of a search as the index has them: letters and digits, at least three of them. */
export const searchedWords = (query: string): readonly string[] =>
  (query.toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? []).filter((word) => word.length >= 3);
