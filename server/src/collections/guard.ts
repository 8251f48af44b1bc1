// What is asked about samples that whoever asks may not see is not there; and guests write on samples only.
import { neededFor, type Operation, type Route } from '@lastmark/contract';
import { and, eq, inArray } from 'drizzle-orm';
import type { MySqlColumn, MySqlTable } from 'drizzle-orm/mysql-core';
import type { Queries } from '../db/database.ts';
import {
  attachments,
  captures,
  claims,
  logEntries,
  points,
  readings,
  remarks,
  reports,
  runSheets,
  samples,
  setups,
  sheetRuns,
  trialSamples,
} from '../db/schema.ts';
import { notFound, ProblemError } from '../http/problem.ts';
import { inside, unseenAmong } from '../seen/seen.ts';
import { scopeNow } from '../who/scope.ts';
import type { Who } from '../who/who.ts';
import { scopeOf } from './store.ts';

/** @throws 404 for a claim of a model none of whose units is seen: what is not to be seen is not there */
async function requireClaimSeen(db: Queries, claimId: string): Promise<void> {
  const scope = scopeNow();
  if (scope === null) return;
  const [row] = await db
    .select({ id: samples.id })
    .from(claims)
    .innerJoin(samples, eq(samples.modelId, claims.modelId))
    .where(and(eq(claims.id, claimId), inside(scope)))
    .limit(1);
  if (!row) throw notFound('claim');
}

type Owned = MySqlTable & { readonly id: MySqlColumn; readonly sampleId: MySqlColumn };

/** Things of one sample, by the parameter that names them. */
const OWNED: Readonly<Record<string, Owned>> = {
  setupId: setups,
  sheetId: runSheets,
  runId: sheetRuns,
  attachmentId: attachments,
  captureId: captures,
  entryId: logEntries,
};

async function samplesOf(db: Queries, name: string, id: string): Promise<(string | null)[]> {
  const table = OWNED[name];
  if (table) {
    const rows = await db.select({ sampleId: table.sampleId }).from(table).where(eq(table.id, id));
    return rows.map(({ sampleId }) => sampleId as string | null);
  }
  if (name === 'sampleId') return [id];
  if (name === 'trialId')
    return (
      await db.select({ sampleId: trialSamples.sampleId }).from(trialSamples).where(eq(trialSamples.trialId, id))
    ).map(({ sampleId }) => sampleId);
  if (name === 'reportId' || name === 'code') {
    const rows = await db
      .select({ sampleId: reports.sampleId, others: reports.otherSamples })
      .from(reports)
      .where(eq(name === 'code' ? reports.code : reports.id, id));
    return rows.flatMap(({ sampleId, others }) => [sampleId, ...(others ?? [])]);
  }
  return [];
}

/** Samples behind ids of things somewhere in what is sent: of readings, points, attachments of claims and readings. */
async function samplesBehind(db: Queries, ids: readonly string[]): Promise<string[]> {
  if (ids.length === 0) return [];
  const all = [...ids];
  const behind = await Promise.all([
    db.select({ id: points.sampleId }).from(points).where(inArray(points.id, all)),
    db
      .select({ id: points.sampleId })
      .from(readings)
      .innerJoin(points, eq(points.id, readings.pointId))
      .where(inArray(readings.id, all)),
    db.select({ id: remarks.sampleId }).from(remarks).where(inArray(remarks.id, all)),
    ...Object.values(OWNED).map((table) =>
      db
        .select({ id: table.sampleId })
        .from(table as MySqlTable)
        .where(inArray(table.id, all)),
    ),
  ]);
  return behind.flat().flatMap(({ id }) => (typeof id === 'string' ? [id] : []));
}

const WRITES_ANYWHERE: readonly Operation[] = ['createSample', 'loadsOff'];

/**
 * Whoever sees only some samples asks about those only.
 * @param things every id in body and query
 * @throws 404 for what they do not see, 403 for a guest who would write what is no sample's
 */
async function requireScope(
  db: Queries,
  operation: Operation,
  route: Route,
  params: Readonly<Record<string, string>>,
  things: readonly string[],
): Promise<void> {
  const scope = scopeNow();
  if (scope === null) return;
  const named = Object.entries(params);
  const own = (await Promise.all(named.map(([name, id]) => samplesOf(db, name, id)))).flat();
  const meant = new Set([...own.filter((id) => id !== null), ...things, ...(await samplesBehind(db, things))]);
  const unseen = await unseenAmong(db, [...meant]);
  if (unseen.length > 0) throw notFound('sample');
  for (const [name, id] of named) if (name === 'claimId') await requireClaimSeen(db, id);
  for (const { id } of await claimsAmong(db, things)) await requireClaimSeen(db, id);
  // An attachment of a claim or a reading has no sample of its own.
  if (params.attachmentId) await requireAttachmentSeen(db, params.attachmentId);
  const writes = route.method !== 'get' && !route.keepsNothing && neededFor(route) === 'engineer';
  if (!scope.rest && writes && own.length === 0 && !params.claimId && !WRITES_ANYWHERE.includes(operation))
    throw new ProblemError(403, 'Not yours to do', 'Guests work on samples of the collections they are named for.');
}

const claimsAmong = (db: Queries, ids: readonly string[]) =>
  ids.length === 0
    ? Promise.resolve([])
    : db
        .select({ id: claims.id })
        .from(claims)
        .where(inArray(claims.id, [...ids]));

async function requireAttachmentSeen(db: Queries, id: string): Promise<void> {
  const [row] = await db
    .select({ claimId: attachments.claimId, readingId: attachments.readingId })
    .from(attachments)
    .where(eq(attachments.id, id));
  if (row?.claimId) await requireClaimSeen(db, row.claimId);
  if (!row?.readingId) return;
  const behind = await db
    .select({ id: points.sampleId })
    .from(readings)
    .innerJoin(points, eq(points.id, readings.pointId))
    .where(eq(readings.id, row.readingId));
  const unseen = await unseenAmong(
    db,
    behind.map((one) => one.id),
  );
  if (unseen.length > 0) throw notFound('attachment');
}

/** What the door of a server asks about everyone's scope. */
export const scopesOf = (db: Queries) => ({
  of: (who: Pick<Who, 'id' | 'role' | 'guest'>) => scopeOf(db, who),
  require: (
    operation: Operation,
    route: Route,
    params: Readonly<Record<string, string>>,
    things: readonly string[],
  ): Promise<void> => requireScope(db, operation, route, params, things),
});
