// Reading the log: by person, sample, thing and words, the newest first, with what each entry changed.

import { changesBetween, type LogPage, type LogQuery, type LogRow } from '@lastmark/contract';
import {
  and,
  desc,
  eq,
  exists,
  inArray,
  isNull,
  like,
  lt,
  not,
  notExists,
  notInArray,
  or,
  type SQL,
  sql,
} from 'drizzle-orm';
import { alias } from 'drizzle-orm/mysql-core';
import type { Database, Queries } from '../db/database.ts';
import { claims, logEntries, logThings, models, people, readings, samples } from '../db/schema.ts';
import { ofSeen } from '../seen/seen.ts';
import { scopeNow } from '../who/scope.ts';
import { sentIn } from './commands.ts';
import { operationsSaying, routeOf, whatOf } from './words.ts';

/** Samples an entry names, beside the one it is of. */
const named = alias(samples, 'named');

export type Entry = typeof logEntries.$inferSelect;

const PAGE = 50;
const MOST_CHANGES = 12;
/** Earlier readings of a correction that are looked up, at most. */
const MOST_EARLIER = 50;

/** What only admins see: how people come in, and who lets them. */
export const OF_ADMINS: readonly string[] = [
  ...['signIn', 'signOut', 'signInRefused', 'join'],
  ...['changeMe', 'changePassword', 'beginFactor', 'confirmFactor', 'endFactor', 'endSession', 'endOtherSessions'],
  ...['createToken', 'revokeToken', 'updatePerson', 'resetPerson', 'forgetPerson', 'invite', 'withdrawInvitation'],
];

/** Operations whose bodies say what a thing is, so that one can be held against the other. */
export const familyOf = (operation: string): string[] => [operation, operation.replace(/^update/, 'create')];

const aboutThing = (db: Queries, thing: string | readonly string[]): SQL =>
  exists(
    db
      .select({ id: logThings.entryId })
      .from(logThings)
      .where(
        and(
          eq(logThings.entryId, logEntries.id),
          typeof thing === 'string' ? eq(logThings.thingId, thing) : inArray(logThings.thingId, [...thing]),
        ),
      ),
  );

/** The entry before that says what the same thing was; undefined where none does. */
export async function entryBefore(db: Queries, { id, subject, operation }: Entry): Promise<Entry | undefined> {
  if (subject === null) return undefined;
  const [row] = await db
    .select()
    .from(logEntries)
    .where(
      and(
        lt(logEntries.id, id),
        inArray(logEntries.operation, familyOf(operation)),
        // Of what it made or changed, whatever it was about besides.
        or(eq(logEntries.subject, subject), aboutThing(db, subject)),
      ),
    )
    .orderBy(desc(logEntries.id))
    .limit(1);
  return row;
}

/** Whether nothing of its kind was done to the same thing after an entry. */
export async function isLatest(db: Queries, { id, subject, operation }: Entry): Promise<boolean> {
  const [row] = await db
    .select({ id: logEntries.id })
    .from(logEntries)
    .where(
      and(
        eq(logEntries.subject, subject ?? ''),
        inArray(logEntries.operation, [...familyOf(operation), operation.replace(/^update/, 'delete')]),
      ),
    )
    .orderBy(desc(logEntries.id))
    .limit(1);
  return row?.id === id;
}

export const canBeUndone = (operation: string): boolean => {
  const route = routeOf(operation);
  return route?.method === 'put' && route.ifMatch === true;
};

/** What somebody is called whose name is not known any more. */
export const FORGOTTEN = 'Somebody who left';

export async function toRow(db: Queries, entry: Entry, name: string | null, sample: string | null): Promise<LogRow> {
  const changesThing = routeOf(entry.operation)?.method === 'put';
  const before = changesThing ? await entryBefore(db, entry) : undefined;
  const known = !changesThing || before?.body != null;
  const parsed = (body: string | null): unknown => (body === null ? null : JSON.parse(body));
  const changes =
    entry.operation === 'command'
      ? sentIn(parsed(entry.body)).map(({ to, says }) => ({ field: to, was: null, is: says }))
      : known
        ? changesBetween(before ? parsed(before.body) : null, parsed(entry.body))
        : [];
  // What was sent is told whole: the last line may be the one that switched off.
  const most = entry.operation === 'command' ? changes.length : MOST_CHANGES;
  return {
    id: entry.id,
    at: entry.at.toISOString(),
    who: entry.who || name || FORGOTTEN,
    personId: entry.personId,
    through: entry.through,
    operation: entry.operation,
    what: whatOf(entry.operation),
    sampleId: entry.sampleId,
    sample,
    changes: changes.slice(0, most),
    unknownBefore: !known,
    moreChanges: Math.max(0, changes.length - most),
    canUndo: before?.body != null && before.whole && canBeUndone(entry.operation) && (await isLatest(db, entry)),
    undoes: entry.undoes,
    sealed: entry.sealed,
  };
}

/** A thing and what it took the place of: a reading and those it corrects, with the file they came from. */
async function historyOf(db: Queries, thing: string): Promise<string[]> {
  const things = [thing];
  for (let at: string | null = thing; at !== null && things.length < MOST_EARLIER; ) {
    const [row]: { supersedes: string | null; pointId: string }[] = await db
      .select({ supersedes: readings.supersedes, pointId: readings.pointId })
      .from(readings)
      .where(eq(readings.id, at));
    if (row && things.length === 1) things.push(row.pointId);
    at = row?.supersedes ?? null;
    if (at !== null) things.push(at);
  }
  return things;
}

/**
 * Entries of samples that are seen; of no sample only for those who see the lab's own, and without what names one they do
 * not see: lists of samples, and what labels of their models promise.
 */
function ofSeenEntries(db: Queries): SQL | undefined {
  const scope = scopeNow();
  const own = ofSeen(db, logEntries.sampleId);
  if (scope === null || own === undefined || !scope.rest) return own;
  const unseenThing = db
    .select({ id: logThings.entryId })
    .from(logThings)
    .innerJoin(named, eq(named.id, logThings.thingId))
    .where(and(eq(logThings.entryId, logEntries.id), not(ofSeen(db, named.id) as SQL)));
  const seenModels = db.select({ id: named.modelId }).from(named).where(ofSeen(db, named.id));
  const unseenClaim = db
    .select({ id: claims.id })
    .from(claims)
    .where(and(eq(claims.id, logEntries.subject), sql`${claims.modelId} NOT IN (${seenModels})`));
  return or(own, and(isNull(logEntries.sampleId), notExists(unseenThing), notExists(unseenClaim)));
}

/** @param admin whether how people come in is told too */
export async function listLog(db: Database, query: LogQuery, admin: boolean): Promise<LogPage> {
  const { person, sample, thing, q = '', before, size = PAGE } = query;
  const words = q.trim();
  const meant = words ? operationsSaying(words) : [];
  const anywhere = `%${words.replace(/[\\%_]/g, (sign) => `\\${sign}`)}%`;
  const rows = await db
    .select({ entry: logEntries, name: people.name, maker: models.maker, model: models.model, serial: samples.serial })
    .from(logEntries)
    .leftJoin(samples, eq(logEntries.sampleId, samples.id))
    .leftJoin(models, eq(samples.modelId, models.id))
    .leftJoin(people, eq(logEntries.personId, people.id))
    .where(
      and(
        before === undefined ? undefined : lt(logEntries.id, before),
        person === undefined
          ? undefined
          : person === 'machine'
            ? isNull(logEntries.personId)
            : eq(logEntries.personId, person),
        // What its label promises belongs to all units of its model.
        sample === undefined
          ? undefined
          : or(
              eq(logEntries.sampleId, sample),
              inArray(
                logEntries.subject,
                db
                  .select({ id: claims.id })
                  .from(claims)
                  .innerJoin(samples, eq(samples.modelId, claims.modelId))
                  .where(eq(samples.id, sample)),
              ),
            ),
        thing === undefined ? undefined : aboutThing(db, await historyOf(db, thing)),
        ofSeenEntries(db),
        admin ? undefined : notInArray(logEntries.operation, [...OF_ADMINS]),
        words === ''
          ? undefined
          : or(
              ...(meant.length > 0 ? [inArray(logEntries.operation, meant)] : []),
              like(logEntries.who, anywhere),
              like(people.name, anywhere),
              like(logEntries.body, anywhere),
            ),
      ),
    )
    .orderBy(desc(logEntries.id))
    .limit(size + 1);
  const shown = rows.slice(0, size);
  const items = await Promise.all(
    shown.map(({ entry, name, maker, model, serial }) =>
      toRow(db, entry, name, model === null ? null : [maker, model, serial].filter(Boolean).join(' ')),
    ),
  );
  return { items, next: rows.length > size ? (shown.at(-1)?.entry.id ?? null) : null };
}
