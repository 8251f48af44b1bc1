// Gathers everything known about a sample into the one shape the core judges.
import type { DossierAnswer, SampleDossier } from '@lastmark/contract';
import type { Dossier } from '@lastmark/core/verdict';
import { eq, inArray } from 'drizzle-orm';
import { listInstruments, listRigs } from '../bench/store.ts';
import {
  EVERYONE,
  type PartName,
  type Revisions,
  revisionsOf,
  SHARED_PARTS,
  type SharedPartName,
} from '../changes/changes.ts';
import type { Queries } from '../db/database.ts';
import { models, samples } from '../db/schema.ts';
import { listDevices } from '../devices/store.ts';
import { listLimitSets } from '../limit-sets/store.ts';
import { getProfile } from '../profile/store.ts';
import type { SampleRef } from '../samples/part.ts';
import { getSample, modelIdOf } from '../samples/store.ts';
import { OWN_PARTS, type OwnParts } from './parts.ts';

/** What all samples are judged with. */
export type Shared = Pick<SampleDossier, SharedPartName>;

const SHARED: { readonly [K in SharedPartName]: (db: Queries) => Promise<SampleDossier[K]> } = {
  devices: listDevices,
  rigs: listRigs,
  instruments: listInstruments,
  profile: getProfile,
  limitSets: listLimitSets,
};

/** Load the parts that are wanted, each by its own way. */
async function loadEach<T extends Partial<SampleDossier>>(
  ways: Readonly<Record<keyof T, () => Promise<unknown>>>,
  wanted: (key: keyof T & PartName) => boolean,
): Promise<Partial<T>> {
  const loaded: Partial<Record<keyof T, unknown>> = {};
  for (const [key, load] of Object.entries(ways) as [keyof T & PartName, () => Promise<unknown>][])
    if (wanted(key)) loaded[key] = await load();
  // Every way loads what its key stands for.
  return loaded as Partial<T>;
}

const sharedWays = (db: Queries) =>
  Object.fromEntries(Object.entries(SHARED).map(([key, load]) => [key, () => load(db)])) as Record<
    SharedPartName,
    () => Promise<unknown>
  >;
const ownWays = (db: Queries, of: SampleRef) =>
  Object.fromEntries(OWN_PARTS.map((part) => [part.key, () => part.load(db, of)])) as Record<
    keyof OwnParts,
    () => Promise<unknown>
  >;

export const loadShared = async (db: Queries): Promise<Shared> =>
  (await loadEach<Shared>(sharedWays(db), () => true)) as Shared;

/**
 * Everything needed to judge a sample.
 * @param shared given when several samples are judged one after the other
 * @throws 404
 */
export async function getDossier(db: Queries, sampleId: string, shared?: Shared): Promise<SampleDossier> {
  const sample = await getSample(db, sampleId);
  const own = (await loadEach<OwnParts>(ownWays(db, { sampleId, modelId: sample.modelId }), () => true)) as OwnParts;
  return { sample, ...own, ...(shared ?? (await loadShared(db))) };
}

/**
 * What some samples are judged by, one after the other. What a sample has nothing of is not asked for.
 * @param shared what all of them are judged with
 */
export async function* dossiersOf(
  db: Queries,
  of: readonly SampleRef[],
  shared: Shared,
): AsyncGenerator<{ readonly of: SampleRef; readonly dossier: Dossier }> {
  const rows = await db
    .select({ id: samples.id, model: models })
    .from(samples)
    .innerJoin(models, eq(samples.modelId, models.id))
    .where(
      inArray(
        samples.id,
        of.map(({ sampleId }) => sampleId),
      ),
    );
  const byId = new Map(rows.map(({ id, model }) => [id, model]));
  const have = new Map<PartName, ReadonlySet<string> | ReadonlyMap<string, unknown>>();
  for (const part of OWN_PARTS) have.set(part.key, await part.have(db, of));
  for (const one of of) {
    const model = byId.get(one.sampleId);
    if (!model) continue;
    const here = [...have].flatMap(([key, known]) => (known instanceof Map ? [[key, known.get(one.sampleId)]] : []));
    const has = (key: PartName) => {
      const known = have.get(key);
      return known instanceof Set && known.has(one.sampleId);
    };
    const found = await loadEach<OwnParts>(ownWays(db, one), has);
    yield {
      of: one,
      dossier: {
        ...NOTHING,
        ...Object.fromEntries(here),
        ...found,
        ...shared,
        sample: { kind: model.kind, ...model.facts },
      },
    };
  }
}

/** A sample on which nothing was done. */
const NOTHING: OwnParts = {
  claims: [],
  setups: [],
  points: [],
  stated: [],
  readOuts: [],
  captures: [],
  runs: [],
  cableRuns: [],
  checks: [],
};

/** What a browser has already: `points.12,runs.3`. */
export function revisionsIn(have: string): Revisions {
  const pairs = have.split(',').flatMap((one) => {
    const [part = '', revision = ''] = one.split('.');
    return /^\d+$/.test(revision) ? [[part, Number(revision)] as const] : [];
  });
  return Object.fromEntries(pairs) as Revisions;
}

/**
 * The same for a browser that has some of it: only what changed since.
 * @throws 404
 */
export async function dossierSince(db: Queries, sampleId: string, have: Revisions): Promise<DossierAnswer> {
  // Counted before it is read: what changes in between is sent once more, never missed.
  const modelId = await modelIdOf(db, sampleId);
  const revisions = await revisionsOf(db, [sampleId, modelId, EVERYONE]);
  const isNew = (part: PartName) => have[part] === undefined || have[part] !== (revisions[part] ?? 0);
  const sample = await getSample(db, sampleId);
  return {
    sample,
    ...(await loadEach<OwnParts>(ownWays(db, { sampleId, modelId }), isNew)),
    ...(await loadEach<Shared>(sharedWays(db), isNew)),
    revisions: Object.fromEntries(PARTS.map((part) => [part, revisions[part] ?? 0])),
  };
}

/** Everything that has a revision of its own. */
const PARTS: readonly PartName[] = [...OWN_PARTS.map(({ key }) => key), ...SHARED_PARTS];
