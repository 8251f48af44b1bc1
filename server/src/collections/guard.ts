// What is asked about samples that whoever asks may not see is not there; and guests write on samples only.
import { neededFor, type Operation, type Route } from '@lastmark/contract';
import { and, eq, inArray } from 'drizzle-orm';
import type { MySqlTable } from 'drizzle-orm/mysql-core';
import type { Queries } from '../db/database.ts';
import {
  attachments,
  claims,
  logEntries,
  points,
  readings,
  remarks,
  reports,
  samples,
  trialSamples,
} from '../db/schema.ts';
import { notFound, ProblemError } from '../http/problem.ts';
import { OWNED } from '../log/about.ts';
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

/** What is of samples although its address names none: its body or query does. */
const NAMES_SAMPLES: readonly Operation[] = ['addAttachment', 'createTrial', 'fileSamples'];

/** What an entry of the log is about: whoever puts it back touches that. */
async function aboutOf(db: Queries, entryId: string | undefined): Promise<(string | null)[]> {
  if (entryId === undefined) return [];
  const rows = await db
    .select({ subject: logEntries.subject, sampleId: logEntries.sampleId })
    .from(logEntries)
    .where(eq(logEntries.id, entryId));
  return rows.flatMap(({ subject, sampleId }) => [subject, sampleId]);
}

/** @throws 403 for a guest who would write what is no sample's */
function requireOfSamples(operation: Operation, route: Route, isOfSamples: boolean): void {
  const writes = route.method !== 'get' && !route.keepsNothing && neededFor(route) === 'engineer';
  // Where it is put is looked at when it is taken in.
  if (scopeNow()?.rest === false && writes && !isOfSamples && operation !== 'createSample')
    throw new ProblemError(403, 'Not yours to do', 'Guests work on samples of the collections they are named for.');
}

/**
 * Whoever sees only some samples asks about those only.
 * @param sent every id in body and query
 * @throws 404 for what they do not see, 403 for a guest who would write what is no sample's
 */
async function requireScope(
  db: Queries,
  operation: Operation,
  route: Route,
  params: Readonly<Record<string, string>>,
  sent: readonly string[],
): Promise<void> {
  if (scopeNow() === null) return;
  const things = [...sent, ...(await aboutOf(db, params.entryId))].flatMap((id) => id ?? []);
  const own = (await Promise.all(Object.entries(params).map(([name, id]) => samplesOf(db, name, id)))).flat();
  const meant = [...new Set([...own.flatMap((id) => id ?? []), ...things, ...(await samplesBehind(db, things))])];
  if ((await unseenAmong(db, meant)).length > 0) throw notFound('sample');
  const promised = [
    ...(await claimsAmong(db, things)).map(({ id }) => id),
    ...(params.claimId ? [params.claimId] : []),
  ];
  for (const id of promised) await requireClaimSeen(db, id);
  // An attachment of a claim or a reading has no sample of its own.
  if (params.attachmentId) await requireAttachmentSeen(db, params.attachmentId);
  const named = NAMES_SAMPLES.includes(operation) && (promised.length > 0 || (await samplesAmong(db, meant)));
  requireOfSamples(operation, route, own.length > 0 || params.claimId !== undefined || named);
}

const samplesAmong = async (db: Queries, ids: readonly string[]): Promise<boolean> =>
  ids.length > 0 &&
  (
    await db
      .select({ id: samples.id })
      .from(samples)
      .where(inArray(samples.id, [...ids]))
      .limit(1)
  ).length > 0;

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
