// What stands of points: their conditions, and all their readings.
import type { Point, Reading } from '@lastmark/core/reading';
import { eq, inArray } from 'drizzle-orm';
import type { Queries } from '../db/database.ts';
import { points, readings } from '../db/schema.ts';
import { toReading } from './reading-row.ts';

export type Conditions = Omit<typeof points.$inferSelect, 'id' | 'fileId'>;

type StoredPoint = Point & Omit<typeof points.$inferSelect, 'takenAt'>;

/** What stands of a point, its readings oldest first. */
export interface Stored {
  readonly conditions: Omit<Conditions, 'takenAt'>;
  readonly readings: readonly Reading[];
}

/** Row of a reading for a point. */
export const readingRow = (pointId: string, reading: Reading, enteredAt: Date): typeof readings.$inferInsert => ({
  ...reading,
  pointId,
  takenAt: new Date(reading.takenAt),
  enteredAt,
});

/** All readings of a point, corrected ones included, oldest first. */
export async function readingsOf(db: Queries, pointId: string): Promise<Reading[]> {
  const own = await db
    .select()
    .from(readings)
    .where(eq(readings.pointId, pointId))
    .orderBy(readings.enteredAt, readings.id);
  return own.map(toReading);
}

/** Points as they are stored, in the order of their ids; for a few of them. They stay as they are until the transaction ends. */
export async function storedPoints(db: Queries, ids: readonly string[]): Promise<StoredPoint[]> {
  if (ids.length === 0) return [];
  const rows = await db
    .select()
    .from(points)
    .where(inArray(points.id, [...ids]))
    .orderBy(points.id)
    .for('update');
  if (rows.length === 0) return [];
  const pointIds = rows.map(({ id }) => id);
  const found = await db
    .select()
    .from(readings)
    .where(inArray(readings.pointId, pointIds))
    .orderBy(readings.enteredAt, readings.id);
  const own = new Map<string, Reading[]>(pointIds.map((id) => [id, []]));
  for (const one of found) own.get(one.pointId)?.push(toReading(one));
  return rows.map((row) => ({ ...row, takenAt: row.takenAt.toISOString(), readings: own.get(row.id) ?? [] }));
}
