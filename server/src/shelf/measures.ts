// Values of measures as they are kept beside the figures of their sample.
import { measuresOf } from '@lastmark/core/measure';
import type { Dossier, Verdict } from '@lastmark/core/verdict';
import { inArray } from 'drizzle-orm';
import type { Queries } from '../db/database.ts';
import { measures } from '../db/schema.ts';

const LONGEST_CONDITION = 160;
const LONGEST_METERS = 200;
const AT_ONCE = 500;

/** What somebody first paid on; null where no price has a day. */
export const sinceOf = ({ sample }: Dossier): string | null =>
  sample.prices
    .filter(({ kind }) => kind === 'paid')
    .map(({ date }) => date)
    .sort()[0] ?? null;

/** Values of a judged sample as rows: conditions that read the same are one. */
export function measureRows(
  sampleId: string,
  dossier: Dossier,
  verdict: Verdict,
): readonly (typeof measures.$inferInsert)[] {
  const rows = new Map<string, typeof measures.$inferInsert>();
  for (const one of measuresOf(dossier, verdict)) {
    const condition = one.condition.slice(0, LONGEST_CONDITION).trimEnd();
    const key = `${one.measure} ${condition}`;
    if (!rows.has(key)) rows.set(key, { ...one, sampleId, condition, meters: one.meters.slice(0, LONGEST_METERS) });
  }
  return [...rows.values()];
}

/** Put the values of some samples in the place of those there were. */
export async function keepMeasures(
  tx: Queries,
  ids: readonly string[],
  rows: readonly (typeof measures.$inferInsert)[],
): Promise<void> {
  await tx.delete(measures).where(inArray(measures.sampleId, [...ids]));
  for (let from = 0; from < rows.length; from += AT_ONCE)
    await tx.insert(measures).values([...rows.slice(from, from + AT_ONCE)]);
}
