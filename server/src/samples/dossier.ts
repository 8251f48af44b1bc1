// Gathers everything known about a sample into the one shape the core judges.
import type { SampleDossier } from '@lastmark/contract';
import type { Point, Reading } from '@lastmark/core/reading';
import type { Dossier } from '@lastmark/core/verdict';
import { eq } from 'drizzle-orm';
import { listInstruments, listRigs } from '../bench/store.ts';
import { listCaptures } from '../captures/store.ts';
import { listClaims } from '../claims/store.ts';
import type { Queries } from '../db/database.ts';
import { points, readings } from '../db/schema.ts';
import { listDevices } from '../devices/store.ts';
import { listLimitSets } from '../limit-sets/store.ts';
import { getProfile } from '../profile/store.ts';
import { listReadOuts } from '../read-outs/store.ts';
import { listRuns } from '../runs/store.ts';
import { listSetups } from '../setups/store.ts';
import { toReading } from './reading-row.ts';
import { listStated } from './stated.ts';
import { getSample } from './store.ts';

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

/** What all samples are judged with. */
export type Shared = Pick<SampleDossier, 'rigs' | 'instruments' | 'devices' | 'profile' | 'limitSets'>;

export async function loadShared(db: Queries): Promise<Shared> {
  return {
    rigs: await listRigs(db),
    instruments: await listInstruments(db),
    devices: await listDevices(db),
    profile: await getProfile(db),
    limitSets: await listLimitSets(db),
  };
}

/**
 * Everything needed to judge a sample.
 * @param shared given when several samples are judged one after the other
 * @throws 404
 */
export async function getDossier(db: Queries, sampleId: string, shared?: Shared): Promise<SampleDossier> {
  const sample = await getSample(db, sampleId);
  return {
    sample,
    claims: await listClaims(db, sample.modelId),
    setups: await listSetups(db, sampleId),
    points: await pointsOf(db, sampleId),
    stated: await listStated(db, sampleId),
    readOuts: await listReadOuts(db, sampleId),
    captures: await listCaptures(db, sampleId),
    runs: await listRuns(db, sampleId),
    ...(shared ?? (await loadShared(db))),
  };
}

/** The part of a dossier the calculations use. */
export const toJudge = ({ sample, ...rest }: SampleDossier): Dossier => ({ ...rest, sample: sample.model });
