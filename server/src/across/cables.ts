// What spans several samples: how far the units of a model came, and which chargers a cable holds back.

import type { HeldBackCharger, UnitFate } from '@lastmark/contract';
import { type BendRun, FAILED } from '@lastmark/core/cable';
import { heldBack } from '@lastmark/core/marker';
import type { CableRating } from '@lastmark/core/pd';
import { currentRuns } from '@lastmark/core/run';
import { judgeSample } from '@lastmark/core/verdict';
import { and, desc, eq, inArray, isNull, ne } from 'drizzle-orm';
import type { Queries } from '../db/database.ts';
import { cableRuns, claims, models, samples } from '../db/schema.ts';
import { getDossier } from '../dossier/dossier.ts';
import { toJudge } from '../dossier/judged.ts';
import { modelIdOf, tagOf } from '../samples/store.ts';
import { seen } from '../seen/seen.ts';

/** Every unit of the model that was bent: how far it came, and whether it failed there. */
export async function fatesOf(db: Queries, sampleId: string): Promise<UnitFate[]> {
  const modelId = await modelIdOf(db, sampleId);
  const rows = await db
    .select({ id: samples.id, serial: samples.serial, body: cableRuns.body })
    .from(cableRuns)
    .innerJoin(samples, eq(cableRuns.sampleId, samples.id))
    .where(and(eq(samples.modelId, modelId), eq(cableRuns.kind, 'bend'), seen()))
    .orderBy(samples.id, cableRuns.takenAt);
  const units = new Map<string, { serial: string; runs: BendRun[] }>();
  for (const { id, serial, body } of rows) {
    const unit = units.get(id) ?? { serial, runs: [] };
    if (body.kind === 'bend') unit.runs.push(body);
    units.set(id, unit);
  }
  return [...units].flatMap(([id, { serial, runs }]) => {
    const standing = [...currentRuns(runs)].sort((a, b) => a.count - b.count);
    const failed = standing.find(({ fault }) => FAILED.includes(fault));
    const last = failed ?? standing.at(-1);
    return last
      ? [
          {
            sampleId: id,
            tag: tagOf(id),
            serial,
            at: last.count,
            failed: failed !== undefined,
            fault: failed?.fault ?? '',
          },
        ]
      : [];
  });
}

/** How many chargers are looked at, the last changed first, and how many are told. */
const MOST_LOOKED_AT = 2000;
const MOST_TOLD = 50;

/** What the marker of a cable lets through; null while nobody asked it. */
async function ratingOf(db: Queries, sampleId: string): Promise<CableRating | null> {
  const verdict = judgeSample(toJudge(await getDossier(db, sampleId)));
  return verdict.results.marker?.rating ?? null;
}

/** Chargers of the shelf a cable would hold back, the most first; none while its marker is not known. */
export async function heldBackBy(db: Queries, sampleId: string): Promise<HeldBackCharger[]> {
  const rating = await ratingOf(db, sampleId);
  if (!rating) return [];
  const chargers = await db
    .select({ id: samples.id, modelId: samples.modelId, maker: models.maker, model: models.model, facts: models.facts })
    .from(samples)
    .innerJoin(models, eq(samples.modelId, models.id))
    .where(and(ne(samples.kind, 'cable'), ne(samples.demo, 'away'), seen()))
    .orderBy(desc(samples.updatedAt))
    .limit(MOST_LOOKED_AT);
  // One unit stands for its model: what it promises is the same for all.
  const byModel = new Map(chargers.map((one) => [one.modelId, one]));
  if (byModel.size === 0) return [];
  const promised = await db
    .select({ modelId: claims.modelId, promise: claims.promise })
    .from(claims)
    .where(and(inArray(claims.modelId, [...byModel.keys()]), isNull(claims.removedAt)));
  const most = ({ ports }: HeldBackCharger) => (ports[0] ? ports[0].promised - ports[0].through : 0);
  return [...byModel.values()]
    .flatMap(({ id, modelId, maker, model, facts }): HeldBackCharger[] => {
      const own = promised.filter((one) => one.modelId === modelId).map(({ promise }) => promise);
      const ports = heldBack(own, rating, facts.ports);
      return ports.length > 0 ? [{ sampleId: id, tag: tagOf(id), name: `${maker} ${model}`, ports }] : [];
    })
    .sort((a, b) => most(b) - most(a))
    .slice(0, MOST_TOLD);
}
