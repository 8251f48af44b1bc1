// How samples are filed: labels, and whether they are put by. What was before is told, so that it can be undone.
import type { Filing } from '@lastmark/contract';
import { eq, inArray } from 'drizzle-orm';
import { OUT_OF_DATE } from '../changes/changes.ts';
import type { Database } from '../db/database.ts';
import { samples } from '../db/schema.ts';
import { refused } from '../http/problem.ts';

/** File some samples, all or none. @returns how they were filed before @throws 422 for one there is none of */
export const fileSamples = (db: Database, filings: readonly Filing[]): Promise<Filing[]> =>
  db.transaction(async (tx) => {
    if (filings.length === 0) return [];
    const ids = filings.map(({ id }) => id);
    const rows = await tx
      .select({ id: samples.id, labels: samples.labels, archived: samples.archived })
      .from(samples)
      .where(inArray(samples.id, ids))
      .orderBy(samples.id)
      .for('update');
    const known = new Map(rows.map((row) => [row.id, row]));
    filings.forEach(({ id }, at) => {
      if (!known.has(id)) throw refused(`filings[${at}].id`, 'There is no such sample.');
      if (ids.indexOf(id) !== at) throw refused(`filings[${at}].id`, 'It stands in the list twice.');
    });
    for (const { id, labels, archived } of filings)
      await tx
        .update(samples)
        // Labels are searched for: the words of the sample are made anew.
        .set({ labels: [...new Set(labels)], archived, ...OUT_OF_DATE })
        .where(eq(samples.id, id));
    return ids.map((id) => {
      const before = known.get(id);
      return { id, labels: before?.labels ?? [], archived: before?.archived ?? false };
    });
  });
