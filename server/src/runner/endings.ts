// How a run ends: over, with everything off and free; or interrupted, with everything kept for whoever takes it up.
import type { Database } from '../db/database.ts';
import { release } from '../leases/leases.ts';
import { LostOwnership, type Ownership } from '../leases/ownership.ts';
import type { RigDriver } from './driver.ts';
import type { Keeper } from './keeper.ts';
import type { LeaseWatch } from './lease-watch.ts';
import { tellOfRun } from './tell.ts';
import { Closing, DatabaseGone, Fault } from './turns.ts';

/** Between two attempts to write down that a run was interrupted, ms. */
const AGAIN_MILLISECONDS = 1000;

interface Ending {
  readonly db: Database;
  readonly runId: string;
  readonly own: Ownership;
  readonly lease: LeaseWatch;
  readonly keeper: Keeper;
}

/**
 * Over: everything off, everything committed, instruments free.
 * @param stopped how it was stopped; null for a run that went to its end
 * @param summary what is said of one that did
 */
export async function endRun(
  { db, runId, own, lease, keeper }: Ending,
  driver: RigDriver,
  stopped: string | null,
  summary: () => string,
): Promise<void> {
  const unknown = await lease.makeSafe();
  await driver.unplugAll(false).catch(() => undefined);
  // A load nobody is sure of keeps its own watchdog.
  if (unknown === null) await driver.watchdog(0).catch(() => undefined);
  await driver.mainsOff().catch(() => undefined);
  await keeper.close();
  const said = stopped ?? summary();
  const says = unknown ? `${said} ${unknown}` : said;
  await db.transaction(async (tx) => {
    await own.write(tx, {
      ...(stopped === null ? { state: 'done', stepId: null } : { state: 'stopped' }),
      says,
      endedAt: new Date(),
      progress: null,
    });
    await tellOfRun(tx, 'endRun', runId, { note: says });
    await release(tx, runId);
  });
}

/** Loads off, unless another server has them. @returns what nobody knows, null when all is well @throws LostOwnership */
async function safe(error: unknown, own: Ownership, lease: LeaseWatch | undefined): Promise<string | null> {
  if (error instanceof LostOwnership) {
    // Whoever took over after this server fell silent has switched the loads off and may draw again: hands off.
    if (own.takenWhileValid) await lease?.makeSafe();
    throw error;
  }
  return (await lease?.makeSafe()) ?? null;
}

function whyInterrupted(error: unknown): string {
  if (error instanceof Closing) return 'The server was stopped.';
  return error instanceof Fault || error instanceof DatabaseGone ? error.message : 'The database or the server failed.';
}

/**
 * The server stops, the database went away, or another server carries the run out: loads off first, then whatever can
 * still be written.
 * @param ending what there is of it: a run may be interrupted before it is ready
 * @param closing whether the server is being stopped
 */
export async function interruptRun(
  { db, runId, own, lease, keeper }: Pick<Ending, 'db' | 'runId' | 'own'> & Partial<Ending>,
  error: unknown,
  closing: () => boolean,
  note: (error: unknown, what: string) => void,
): Promise<void> {
  try {
    const unknown = await safe(error, own, lease);
    for (;;) {
      try {
        await keeper?.close();
        const says = `${whyInterrupted(error)} ${unknown ?? 'Loads are off;'} ${unknown ? 'Everything' : 'everything'} recorded is kept.`;
        await db.transaction(async (tx) => {
          await own.write(tx, { state: 'interrupted', says, progress: null });
          await tellOfRun(tx, 'interruptRun', runId, { note: says });
        });
        return;
      } catch (again) {
        if (closing() || again instanceof LostOwnership) return;
        note(again, 'the database is away; what was told is kept until it is back');
        await new Promise((resolve) => setTimeout(resolve, AGAIN_MILLISECONDS));
      }
    }
  } catch (lost) {
    if (!(lost instanceof LostOwnership)) throw lost;
  }
}
