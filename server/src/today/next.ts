// The best next work of some samples, by what it decides for its time: worked out once for as long as nothing it follows from changes.
import type { SampleName, Today } from '@lastmark/contract';
import { nextSteps, usualWay, wholeSheet } from '@lastmark/core/next';
import { judgeSample } from '@lastmark/core/verdict';
import { inArray } from 'drizzle-orm';
import { EVERYONE, revisionsOf, sharedRevision } from '../changes/changes.ts';
import type { Database } from '../db/database.ts';
import { samples } from '../db/schema.ts';
import { getDossier } from '../dossier/dossier.ts';
import { toJudge } from '../dossier/judged.ts';

type Next = Omit<Today['next'][number], 'sample'>;

interface Kept {
  /** What it was worked out of. */
  readonly of: string;
  readonly next: Next | null;
}
const kept = new Map<string, Kept>();
/** Samples it is kept of. */
const MOST_KEPT = 200;

function keep(id: string, one: Kept): Next | null {
  kept.delete(id);
  kept.set(id, one);
  if (kept.size > MOST_KEPT) for (const [oldest] of [...kept].slice(0, kept.size - MOST_KEPT)) kept.delete(oldest);
  return one.next;
}

/** What each sample is in now: how often it and what all are judged with were changed. */
async function statesOf(db: Database, ids: readonly string[]): Promise<ReadonlyMap<string, string>> {
  // Counted before it is read: what changes in between is worked out once more, never missed.
  const shared = sharedRevision(await revisionsOf(db, [EVERYONE]));
  const rows = await db
    .select({ id: samples.id, changes: samples.changes, updatedAt: samples.updatedAt })
    .from(samples)
    .where(inArray(samples.id, [...ids]));
  return new Map(rows.map(({ id, changes, updatedAt }) => [id, `${shared} ${changes} ${updatedAt.getTime()}`]));
}

async function workOut(db: Database, id: string): Promise<Next | null> {
  const dossier = toJudge(await getDossier(db, id));
  const { rigs, instruments } = dossier;
  const way = usualWay(dossier.sample.kind, rigs);
  if (!way) return null;
  const verdict = judgeSample(dossier);
  const { rule, allowance, tolerance, continuous } = dossier.profile;
  const { works, open } = nextSteps({
    steps: wholeSheet(way.method, dossier, verdict),
    claims: dossier.claims,
    results: verdict.claims,
    devices: dossier.devices,
    rig: way.rig,
    rigs,
    instruments,
    rules: { rule, allowance, tolerance, continuous },
  });
  const [best] = works;
  return best ? { title: best.title, seconds: best.seconds, expected: best.expected, open } : null;
}

/**
 * The best next work of each of some samples, those that decide most for their time first. A sample in which something cannot be
 * worked out is left out: it says so itself.
 */
export async function nextOf(db: Database, of: readonly SampleName[]): Promise<Today['next']> {
  if (of.length === 0) return [];
  const states = await statesOf(
    db,
    of.map(({ id }) => id),
  );
  const found: Today['next'] = [];
  for (const sample of of) {
    const state = states.get(sample.id);
    if (state === undefined) continue;
    const before = kept.get(sample.id);
    const next =
      before?.of === state
        ? before.next
        : keep(sample.id, { of: state, next: await workOut(db, sample.id).catch(ofNothing) });
    if (next) found.push({ sample, ...next });
  }
  return found.sort((a, b) => b.expected / b.seconds - a.expected / a.seconds);
}

/** The arithmetic refuses what cannot be, such as a reading stored before there were bounds. */
function ofNothing(error: unknown): null {
  if (error instanceof RangeError) return null;
  throw error;
}
