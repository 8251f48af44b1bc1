// What every charger on the shelf showed of the devices: the newest settled runs and whole charges, for tables across samples.

import {
  type BoardCharge,
  type BoardRun,
  type BoardSample,
  type DeviceEvidence,
  standingCharges,
} from '@lastmark/core/charge';
import { currentRuns } from '@lastmark/core/proof';
import type { DeviceRun } from '@lastmark/core/run';
import { and, desc, eq, inArray, isNotNull, ne } from 'drizzle-orm';
import type { Queries } from '../db/database.ts';
import { captures, models, runs, samples } from '../db/schema.ts';
import { tagOf } from '../samples/store.ts';
import { seen } from '../seen/seen.ts';

/** The newest of each that are looked at: older ones say little of what is on the shelf now. */
const MOST_RUNS = 1000;
const MOST_CHARGES = 300;

export async function deviceEvidence(db: Queries): Promise<DeviceEvidence> {
  const runRows = await db
    .select({ sampleId: runs.sampleId, body: runs.body })
    .from(runs)
    .innerJoin(samples, eq(runs.sampleId, samples.id))
    .where(and(isNotNull(runs.deviceId), ne(samples.demo, 'away'), seen()))
    .orderBy(desc(runs.takenAt), desc(runs.id))
    .limit(MOST_RUNS);
  const chargeRows = await db
    .select({ sampleId: captures.sampleId, body: captures.body })
    .from(captures)
    .innerJoin(samples, eq(captures.sampleId, samples.id))
    .where(and(isNotNull(captures.deviceId), ne(samples.demo, 'away'), seen()))
    .orderBy(desc(captures.takenAt), desc(captures.id))
    .limit(MOST_CHARGES);
  const sampleOf = new Map(runRows.map(({ sampleId, body }) => [body.id, sampleId]));
  const found = currentRuns(runRows.map(({ body }) => body)).flatMap((run): BoardRun[] =>
    run.kind === 'device' ? [{ sampleId: sampleOf.get(run.id) ?? '', run: run as DeviceRun }] : [],
  );
  const chargedOn = new Map(chargeRows.map(({ sampleId, body }) => [body.id, sampleId]));
  const bodies = new Map(chargeRows.map(({ body }) => [body.id, body]));
  const charges = standingCharges(chargeRows.map(({ body }) => body)).flatMap(({ id }): BoardCharge[] => {
    const body = bodies.get(id);
    if (!body?.charge || body.figures.kind !== 'charge') return [];
    const { deviceId, lead, workload = null } = body.charge;
    return [
      {
        sampleId: chargedOn.get(id) ?? '',
        captureId: id,
        deviceId,
        port: body.port ?? '',
        lead,
        takenAt: body.takenAt,
        workload,
        course: body.figures.course ?? null,
      },
    ];
  });
  const ids = [...new Set([...found, ...charges].map(({ sampleId }) => sampleId))];
  const named =
    ids.length === 0
      ? []
      : await db
          .select({ id: samples.id, maker: models.maker, model: models.model })
          .from(samples)
          .innerJoin(models, eq(samples.modelId, models.id))
          .where(inArray(samples.id, ids));
  return {
    samples: named.map(({ id, maker, model }): BoardSample => ({ id, tag: tagOf(id), name: `${maker} ${model}` })),
    runs: found,
    charges,
  };
}
