// Gathers everything known about a sample into the one shape the core judges.
import type { SampleDossier } from '@lastmark/contract';
import type { Dossier } from '@lastmark/core/verdict';
import { listInstruments, listRigs } from '../bench/store.ts';
import type { Queries } from '../db/database.ts';
import { listDevices } from '../devices/store.ts';
import { listLimitSets } from '../limit-sets/store.ts';
import { getProfile } from '../profile/store.ts';
import type { SampleRef } from '../samples/part.ts';
import { getSample } from '../samples/store.ts';
import { OWN_PARTS, type OwnParts } from './parts.ts';

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

async function loadParts(db: Queries, of: SampleRef): Promise<OwnParts> {
  const loaded: Partial<Record<keyof OwnParts, unknown>> = {};
  for (const part of OWN_PARTS) loaded[part.key] = await part.load(db, of);
  // Every part loads what its key stands for.
  return loaded as OwnParts;
}

/**
 * Everything needed to judge a sample.
 * @param shared given when several samples are judged one after the other
 * @throws 404
 */
export async function getDossier(db: Queries, sampleId: string, shared?: Shared): Promise<SampleDossier> {
  const sample = await getSample(db, sampleId);
  const own = await loadParts(db, { sampleId, modelId: sample.modelId });
  return { sample, ...own, ...(shared ?? (await loadShared(db))) };
}

/** The part of a dossier the calculations use. */
export const toJudge = ({ sample, ...rest }: SampleDossier): Dossier => ({ ...rest, sample: sample.model });
