// What the log answers with, and undoing what it can.
import { isEnough, neededFor, type Operation, ROUTES, type Role, type Route } from '@lastmark/contract';
import { and, eq, gt, inArray, ne } from 'drizzle-orm';
import { logEntries } from './db/schema.ts';
import type { Call, Handler, Handlers } from './http/handlers.ts';
import { conflict, notFound, ProblemError } from './http/problem.ts';
import { ANY_VERSION } from './http/versions.ts';
import type { Jobs } from './jobs/jobs.ts';
import { canBeUndone, entryBefore, familyOf, isLatest, listLog, OF_ADMINS, toRow } from './log/search.ts';
import { plainDeed, thingsIn, writeEntry } from './log/write.ts';
import { inDeed, type WriteDown } from './who/who.ts';

const NOT_THIS = 'This cannot be undone here: it is not known what was there before, or it is of a kind that stays.';
const CHANGED = 'It was changed again since. Look at what is there now, and change that.';

/** Names of the parameters of a path, in their order. */
const parametersOf = (path: string): string[] => [...path.matchAll(/\{(\w+)\}/g)].map(([, name = '']) => name);

/** @param handlers all of them: what is undone is done by its own */
export function logHandlers(
  jobs: Jobs,
  handlers: () => Handlers,
): Pick<Handlers, 'listLog' | 'checkLog' | 'undoEntry'> {
  return {
    listLog: async ({ db, query, who }) => ({ body: await listLog(db, query, who.role === 'admin') }),
    checkLog: async ({ left }) => ({ body: await jobs.run('checkLog', {}, left) }),
    undoEntry: async (call) => {
      const { db, params, who } = call;
      const [entry] = await db.select().from(logEntries).where(eq(logEntries.id, params.entryId));
      if (!entry || (OF_ADMINS.includes(entry.operation) && who.role !== 'admin')) throw notFound('entry');
      const route = ROUTES[entry.operation as Operation] as Route | undefined;
      const before = canBeUndone(entry.operation) ? await entryBefore(db, entry) : undefined;
      if (!route || !before?.body || !before.whole) throw conflict(NOT_THIS);
      if (!isEnough(who.role, neededFor(route) as Role))
        throw new ProblemError(403, 'Not yours to do', 'Whoever may not change this may not undo it either.');
      if (!(await isLatest(db, entry))) throw conflict(CHANGED);
      const body: unknown = JSON.parse(before.body);
      const names = parametersOf(route.path);
      const own = names.length === 0 ? {} : { [names.at(-1) ?? '']: entry.subject ?? '' };
      const deed = plainDeed(who, entry.operation, {
        subject: entry.subject,
        sampleId: entry.sampleId,
        body: before.body,
        things: thingsIn([entry.subject, body]),
        undoes: entry.id,
      });
      const write: WriteDown = async (tx, what, made) => {
        await writeEntry(tx, what, made);
        // In the transaction that puts it back: whoever changed it meanwhile is seen here, or waits for this one.
        const later = await (tx as Call['db'])
          .select({ id: logEntries.id })
          .from(logEntries)
          .where(
            and(
              eq(logEntries.subject, entry.subject ?? ''),
              inArray(logEntries.operation, familyOf(entry.operation)),
              gt(logEntries.id, entry.id),
              ne(logEntries.id, what.id),
            ),
          )
          .for('update');
        if (later.length > 0) throw conflict(CHANGED);
      };
      const handler = handlers()[entry.operation as Operation] as Handler;
      const { written, made } = await inDeed(deed, write, () =>
        handler({ ...call, params: own, body, ifMatch: ANY_VERSION } as never),
      );
      if (!written.has(db)) await writeEntry(db, deed, made);
      const [row] = await db.select().from(logEntries).where(eq(logEntries.id, deed.id));
      if (!row) throw notFound('entry');
      return { body: await toRow(db, row, who.name, null) };
    },
  };
}
