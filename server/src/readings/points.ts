// Points with their readings, as they are stored.
import type { Point, Reading } from '@lastmark/core/reading';
import { eq } from 'drizzle-orm';
import type { Queries } from '../db/database.ts';
import { points, readings } from '../db/schema.ts';
import { type DossierPart, keptIn, samplesIn } from '../samples/part.ts';
import { toReading } from './reading-row.ts';

const toPoint = (row: typeof points.$inferSelect, own: readonly Reading[]): Point => ({
  id: row.id,
  setupId: row.setupId,
  mains: row.mains,
  load: row.load,
  attached: row.attached,
  evidence: row.evidence,
  override: row.override,
  taken: row.taken,
  rigId: row.rigId,
  takenAt: row.takenAt.toISOString(),
  readings: own,
});

/** All points of a sample with all their readings, superseded ones included, oldest first. */
export async function pointsOf(db: Queries, sampleId: string): Promise<Point[]> {
  const rows = await db.select().from(points).where(eq(points.sampleId, sampleId)).orderBy(points.takenAt, points.id);
  const all = await db
    .select({ reading: readings })
    .from(readings)
    .innerJoin(points, eq(readings.pointId, points.id))
    .where(eq(points.sampleId, sampleId))
    .orderBy(readings.enteredAt, readings.id);
  const byPoint = new Map<string, Reading[]>();
  for (const { reading } of all) {
    const own = byPoint.get(reading.pointId) ?? [];
    own.push(toReading(reading));
    byPoint.set(reading.pointId, own);
  }
  return rows.map((row) => toPoint(row, byPoint.get(row.id) ?? []));
}

export const pointsPart: DossierPart<'points'> = {
  key: 'points',
  load: (db, { sampleId }) => pointsOf(db, sampleId),
  have: samplesIn(points),
  keeps: keptIn(points, 'Readings were taken on'),
};
