// Which sample a thing belongs to, asked before anything is done to it: afterwards it may be gone.
import { eq } from 'drizzle-orm';
import type { MySqlColumn, MySqlTable } from 'drizzle-orm/mysql-core';
import type { Queries } from '../db/database.ts';
import { attachments, captures, runSheets, setups, sheetRuns } from '../db/schema.ts';

export type Owned = MySqlTable & { readonly id: MySqlColumn; readonly sampleId: MySqlColumn };

/** Things of one sample, by the parameter that names them in an address. */
export const OWNED: Readonly<Record<string, Owned>> = {
  setupId: setups,
  sheetId: runSheets,
  runId: sheetRuns,
  attachmentId: attachments,
  captureId: captures,
};

/** @param params of an address @returns the sample it is about; null where it is about none, or about several */
export async function sampleOf(db: Queries, params: Readonly<Record<string, string>>): Promise<string | null> {
  const { sampleId } = params;
  if (sampleId !== undefined) return sampleId;
  for (const [name, id] of Object.entries(params)) {
    const table = OWNED[name];
    if (!table) continue;
    const [row] = await db.select({ sampleId: table.sampleId }).from(table).where(eq(table.id, id)).limit(1);
    return (row?.sampleId as string | null | undefined) ?? null;
  }
  return null;
}
