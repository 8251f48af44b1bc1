// Why a reading was corrected, said afterwards: added once, never changed.
import type { Reading } from '@lastmark/core/reading';
import { and, eq } from 'drizzle-orm';
import { changed } from '../changes/changes.ts';
import type { Database } from '../db/database.ts';
import { points, readings } from '../db/schema.ts';
import { conflict, notFound } from '../http/problem.ts';
import { toReading } from './reading-row.ts';

/**
 * Say why. The same again changes nothing.
 * @throws 404 for a reading that is not of this sample; 409 for one that corrects none, or of which it was said otherwise
 */
export const explainReading = (db: Database, sampleId: string, readingId: string, because: string): Promise<Reading> =>
  db.transaction(async (tx) => {
    const [row] = await tx
      .select({ reading: readings })
      .from(readings)
      .innerJoin(points, eq(points.id, readings.pointId))
      .where(and(eq(readings.id, readingId), eq(points.sampleId, sampleId)))
      .for('update');
    if (!row) throw notFound('reading');
    const { reading } = row;
    if (reading.supersedes === null) throw conflict('This reading corrects none: there is nothing to say why.');
    const said = because.trim();
    if (reading.because !== null && reading.because !== said)
      throw conflict(`It was said before: “${reading.because}”. What was said stays.`);
    await tx.update(readings).set({ because: said }).where(eq(readings.id, readingId));
    await changed(tx, sampleId, 'points');
    return toReading({ ...reading, because: said });
  });
