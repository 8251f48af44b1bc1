// What is asked of runs. It stays written down, for whichever server carries them out.
import type { Ask, RunState } from '@lastmark/contract';
import { and, asc, eq, inArray, isNull } from 'drizzle-orm';
import type { Queries } from '../db/database.ts';
import { newId } from '../db/ids.ts';
import { runAsks, sheetRuns } from '../db/schema.ts';
import { conflict, notFound } from '../http/problem.ts';

const ACTIVE: readonly RunState[] = ['running', 'waiting', 'held', 'interrupted'];

/** Whether a run is not over yet. */
export const isActive = (state: RunState): boolean => ACTIVE.includes(state);

/** Ask something of a run. It stays written down. */
export async function insertAsk(db: Queries, runId: string, body: Ask): Promise<void> {
  const [row] = await db.select({ state: sheetRuns.state }).from(sheetRuns).where(eq(sheetRuns.id, runId));
  if (!row) throw notFound('run');
  if (!isActive(row.state)) throw conflict('This run is over.');
  const now = new Date();
  await db
    .insert(runAsks)
    .values({ id: newId(), runId, body, askedAt: now, doneAt: body.kind === 'note' ? now : null });
}

export const openAsks = (db: Queries, runId: string) =>
  db
    .select()
    .from(runAsks)
    .where(and(eq(runAsks.runId, runId), isNull(runAsks.doneAt)))
    .orderBy(asc(runAsks.id));

/** What was asked of a run before something changed was about something else. @param but what is still done all the same */
export async function closeAsks(db: Queries, runId: string, but: readonly Ask['kind'][] = []): Promise<void> {
  const over = (await openAsks(db, runId)).filter(({ body }) => !but.includes(body.kind)).map(({ id }) => id);
  if (over.length > 0) await db.update(runAsks).set({ doneAt: new Date() }).where(inArray(runAsks.id, over));
}

/** Loads were switched off by hand: every run that is on holds, whichever server carries it out. */
export async function holdAll(db: Queries): Promise<void> {
  const on = await db
    .select({ id: sheetRuns.id })
    .from(sheetRuns)
    .where(inArray(sheetRuns.state, ['running', 'waiting']));
  for (const { id } of on) await insertAsk(db, id, { kind: 'hold' });
}
