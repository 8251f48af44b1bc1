// All readings of a sample, page by page.
import type { Page, ReadingRow } from '@lastmark/contract';
import { count, eq } from 'drizzle-orm';
import type { Database } from '../db/database.ts';
import { points, readings } from '../db/schema.ts';
import { getSample } from '../samples/store.ts';
import { toReading } from './reading-row.ts';

const DEFAULT_SIZE = 200;

/** Oldest first, superseded ones included. @throws 404 for an unknown sample */
export async function listReadings(
  db: Database,
  sampleId: string,
  page = 1,
  size = DEFAULT_SIZE,
): Promise<Page<ReadingRow>> {
  await getSample(db, sampleId);
  const of = eq(points.sampleId, sampleId);
  const [counted] = await db
    .select({ total: count() })
    .from(readings)
    .innerJoin(points, eq(readings.pointId, points.id))
    .where(of);
  const rows = await db
    .select({ reading: readings })
    .from(readings)
    .innerJoin(points, eq(readings.pointId, points.id))
    .where(of)
    .orderBy(readings.enteredAt, readings.id)
    .limit(size)
    .offset((page - 1) * size);
  const items = rows.map(({ reading }) => ({ ...toReading(reading), pointId: reading.pointId }));
  return { items, page, size, total: counted?.total ?? 0 };
}
