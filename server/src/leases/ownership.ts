// Who carries a run out: an epoch in the database, counted up by whoever takes the run over, and a lease by the clock of
// this machine. A write under an old epoch changes nothing; no command goes out on a lease that has run out.
import { and, eq, sql } from 'drizzle-orm';
import type { Database, Queries } from '../db/database.ts';
import { runAsks, sheetRuns } from '../db/schema.ts';
import { readLatch } from './latch.ts';

/** How long a lease lasts from the moment it was asked for, ms. Shorter than {@link DEAD_SECONDS}: nobody takes over before. */
export const LEASE_MILLISECONDS = 3000;
/** A run whose server has not said so long that it is alive is taken over, s by the database's clock. */
export const DEAD_SECONDS = 4;

/** Another server carries the run out: nothing may be written, nothing may be commanded. */
export class LostOwnership extends Error {
  constructor() {
    super('Another server carries this run out.');
  }
}

type RunPart = Partial<typeof sheetRuns.$inferInsert>;

export const dbNow = sql`UTC_TIMESTAMP(3)`;

/** Times of this machine that agree on how long ago something was, even when it slept. */
const stamp = () => ({ monotonic: performance.now(), wall: Date.now() });
const since = ({ monotonic, wall }: ReturnType<typeof stamp>): number =>
  Math.max(performance.now() - monotonic, Date.now() - wall);

export class Ownership {
  readonly #db: Database;
  readonly #runId: string;
  readonly #epoch: number;
  #leased: ReturnType<typeof stamp>;
  #lost = false;
  #takenWhileValid = false;
  #renewing: Promise<void> | null = null;
  #latch: number;
  #here = Date.now();

  /** @param latch how often every load had been switched off when the run was taken */
  constructor(db: Database, runId: string, epoch: number, latch: number) {
    this.#db = db;
    this.#runId = runId;
    this.#epoch = epoch;
    this.#latch = latch;
    this.#leased = stamp();
  }

  /** Another server has taken the run over. */
  get lost(): boolean {
    return this.#lost;
  }

  /** It was taken away although this server had just said that it is alive: its loads may be on, and are its to switch off. */
  get takenWhileValid(): boolean {
    return this.#takenWhileValid;
  }

  /** Whether this server may command the rig now. */
  get valid(): boolean {
    return !this.#lost && since(this.#leased) < LEASE_MILLISECONDS;
  }

  /** How often every load was switched off, as last read. */
  get latch(): number {
    return this.#latch;
  }

  /** When someone was at the console last, ms of this machine's clock. */
  get here(): number {
    return this.#here;
  }

  get #mine() {
    return and(eq(sheetRuns.id, this.#runId), eq(sheetRuns.epoch, this.#epoch));
  }

  #miss(rows: number): void {
    if (rows > 0) return;
    this.#takenWhileValid ||= this.valid;
    this.#lost = true;
    throw new LostOwnership();
  }

  /** Renew the lease; whoever asks while it is being renewed waits for the same. @throws LostOwnership */
  renew(part: RunPart = {}): Promise<void> {
    this.#renewing ??= this.#ask(part).finally(() => {
      this.#renewing = null;
    });
    return this.#renewing;
  }

  async #ask(part: RunPart): Promise<void> {
    const asked = stamp();
    const [result] = await this.#db
      .update(sheetRuns)
      .set({ ...part, aliveAt: dbNow as never })
      .where(this.#mine);
    this.#miss(result.affectedRows);
    const [row] = await this.#db
      .select({ absent: sql<number>`TIMESTAMPDIFF(MICROSECOND, ${sheetRuns.hereAt}, UTC_TIMESTAMP(6)) / 1000` })
      .from(sheetRuns)
      .where(eq(sheetRuns.id, this.#runId));
    this.#here = Math.max(this.#here, Date.now() - Number(row?.absent ?? 0));
    this.#latch = await readLatch(this.#db);
    this.#leased = asked;
  }

  /** Someone is known to be at the console: they just asked for something. */
  arrived(): void {
    this.#here = Date.now();
  }

  /** Change the run's row. @param db inside a transaction, everything else in it stands and falls with this. @throws LostOwnership */
  async write(db: Queries, part: RunPart): Promise<void> {
    const [result] = await db.update(sheetRuns).set(part).where(this.#mine);
    this.#miss(result.affectedRows);
  }

  /** Make sure, inside a transaction, that the run is still this server's until it ends. @throws LostOwnership */
  async assert(tx: Queries): Promise<void> {
    // Written, not only locked: another host of a cluster knows nothing of locks, and of a row that was written all.
    const [result] = await tx
      .update(sheetRuns)
      .set({ aliveAt: dbNow as never })
      .where(this.#mine);
    this.#miss(result.affectedRows);
  }

  /** An ask was acted on. Under an old epoch it stays open for whoever carries the run out now. */
  async closeAsk(id: string): Promise<void> {
    await this.#db
      .update(runAsks)
      .set({ doneAt: new Date() })
      .where(
        and(
          eq(runAsks.id, id),
          sql`EXISTS (SELECT 1 FROM ${sheetRuns} WHERE ${sheetRuns.id} = ${this.#runId} AND ${sheetRuns.epoch} = ${this.#epoch})`,
        ),
      );
  }
}
