// Takes a whole import back: every reading of it that still stands is struck out, in one transaction. The file stays.
import type { ImportTakenBack } from '@lastmark/contract';
import { currentReadings } from '@lastmark/core/reading';
import { and, eq } from 'drizzle-orm';
import type { Database } from '../db/database.ts';
import { newId } from '../db/ids.ts';
import { points } from '../db/schema.ts';
import { notFound } from '../http/problem.ts';
import { storePoints, type TakenPoint } from '../readings/store.ts';
import { readingsOf } from '../readings/stored.ts';

/**
 * Take back what came with a file. Readings corrected since are struck out too; what is struck out already stays so.
 * @returns how many points and readings that were; none the second time
 * @throws 404 for a file that brought no points to this sample
 */
export const takeBackImport = (db: Database, sampleId: string, fileId: string): Promise<ImportTakenBack> =>
  db.transaction(async (tx) => {
    const rows = await tx
      .select()
      .from(points)
      .where(and(eq(points.sampleId, sampleId), eq(points.fileId, fileId)));
    if (rows.length === 0) throw notFound('import');
    const struck: TakenPoint[] = [];
    for (const { id, setupId, mains, load, attached, rigId, takenAt } of rows) {
      const standing = currentReadings(await readingsOf(tx, id)).filter(({ value }) => value !== null);
      if (standing.length === 0) continue;
      struck.push({
        id,
        setupId,
        mains,
        load,
        attached,
        rigId,
        takenAt: takenAt.toISOString(),
        readings: standing.map(({ id: supersedes, quantity, place, port }) => ({
          id: newId(),
          quantity,
          place,
          port,
          typed: '',
          supersedes,
        })),
      });
    }
    await storePoints(tx, sampleId, struck, 'taken back with its file');
    return { points: struck.length, readings: struck.reduce((sum, one) => sum + one.readings.length, 0) };
  });
