// The conclusion of a sample as somebody keeps it.
import type { ConclusionInput, StoredConclusion } from '@lastmark/contract';
import { type ConclusionLine, LANGUAGES, wordingRefusal } from '@lastmark/core/conclusion';
import { eq } from 'drizzle-orm';
import { OUT_OF_DATE } from '../changes/changes.ts';
import type { Database, Queries } from '../db/database.ts';
import { conclusions, samples } from '../db/schema.ts';
import { refused } from '../http/problem.ts';
import { etagOf, requireMatch } from '../http/versions.ts';
import type { SamplePart } from '../samples/part.ts';
import { getSample } from '../samples/store.ts';

/** @throws 404 for a sample there is none of */
export async function getConclusion(db: Queries, sampleId: string): Promise<StoredConclusion> {
  await getSample(db, sampleId);
  const [row] = await db.select().from(conclusions).where(eq(conclusions.sampleId, sampleId));
  return row ? { lines: row.lines, version: row.version } : { lines: [], version: 0 };
}

/** Every wording stands on figures there are; ids stand once. */
function refuse(lines: readonly ConclusionLine[]): void {
  const ids = new Set<string>();
  lines.forEach((line, at) => {
    if (ids.has(line.id)) throw refused(`lines[${at}].id`, 'Two lines have the same id.');
    ids.add(line.id);
    if (line.kind === 'own') {
      if (LANGUAGES.every((language) => !line.text[language]?.trim()))
        throw refused(`lines[${at}].text`, 'Own words are empty: write them, or remove the line.');
      return;
    }
    const figures = Object.fromEntries(line.seen.map(({ name, words }) => [name, words]));
    for (const language of LANGUAGES) {
      const wording = line.text[language];
      const refusal = wording === undefined ? null : wordingRefusal(wording, figures);
      if (refusal) throw refused(`lines[${at}].text.${language}`, refusal);
    }
  });
}

/** Keep it whole. @throws 412 when somebody else kept another meanwhile */
export async function updateConclusion(
  db: Database,
  sampleId: string,
  { lines }: ConclusionInput,
  seen: string | null,
): Promise<StoredConclusion> {
  refuse(lines);
  return db.transaction(async (tx) => {
    await tx.select({ id: samples.id }).from(samples).where(eq(samples.id, sampleId)).for('update');
    const current = await getConclusion(tx, sampleId);
    requireMatch(seen, etagOf(current.version), 'conclusion');
    const version = current.version + 1;
    const updatedAt = new Date();
    await tx
      .insert(conclusions)
      .values({ sampleId, lines, version, updatedAt })
      .onDuplicateKeyUpdate({ set: { lines, version, updatedAt } });
    // Own words are searched for.
    await tx.update(samples).set(OUT_OF_DATE).where(eq(samples.id, sampleId));
    return { lines, version };
  });
}

export const conclusionsPart: SamplePart = {
  remove: (tx, sampleId) => tx.delete(conclusions).where(eq(conclusions.sampleId, sampleId)),
};
