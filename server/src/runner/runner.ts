// All runs this server carries out, and those another left behind.

import type { Ask, SheetRun, StartInput } from '@lastmark/contract';
import { and, eq, inArray, or, type SQL, sql } from 'drizzle-orm';
import type { Logger } from 'pino';
import { benchOfRigId } from '../bench/benches.ts';
import { listInstruments, listRigs } from '../bench/store.ts';
import type { Copies } from '../copies/copies.ts';
import type { Database } from '../db/database.ts';
import { runAsks, sheetRuns } from '../db/schema.ts';
import { closeAsks, insertAsk, openAsks } from '../leases/asks.ts';
import { readLatch } from '../leases/latch.ts';
import { release } from '../leases/leases.ts';
import { DEAD_SECONDS, dbNow, Ownership } from '../leases/ownership.ts';
import type { Links } from '../links/links.ts';
import { AT_THE_BENCH } from '../links/off.ts';
import { listProfiles } from '../links/profiles.ts';
import type { LiveStream } from '../live/stream.ts';
import { withScope } from '../who/scope.ts';
import { authorNow, inNameOf } from '../who/who.ts';
import { RigDriver } from './driver.ts';
import { CONFIRM, type ConfirmRule } from './faults.ts';
import { FIRST_EPOCH, getRun, insertRun, instrumentsOf, type RunRow, takeUpAgain } from './rows.ts';
import { RunTask } from './task.ts';
import { tellOfRun } from './tell.ts';

const LOOK_MILLISECONDS = 1000;

export interface RunnerParts {
  readonly db: Database;
  /** Connections for what must not wait behind anything else. */
  readonly vital: Database;
  readonly links: Links;
  readonly live: LiveStream;
  readonly log: Logger;
  /** This server's own name among those on the database. */
  readonly owner: string;
  readonly confirm?: ConfirmRule;
  /** Which copies of the server stand beside which benches; null where there is one bench. */
  readonly copies?: Pick<Copies, 'bench' | 'at'> | null;
}

export class Runner {
  readonly #parts: RunnerParts;
  readonly #tasks = new Map<string, RunTask>();
  #timer: NodeJS.Timeout | null = null;
  #looking = false;

  constructor(parts: RunnerParts) {
    this.#parts = parts;
  }

  /** Begin to look after runs that nobody carries out any more. @param died a server known to be gone */
  async watch(died: string | null = null): Promise<void> {
    this.#timer = setInterval(() => void this.#look(null), LOOK_MILLISECONDS);
    await this.#look(died);
    await this.#makeSureOfInterrupted();
  }

  /** Start a run of a sheet. */
  async start(sheetId: string, input: StartInput): Promise<SheetRun> {
    const { db, owner } = this.#parts;
    // Read first: a Loads off pressed while the run is being made holds it.
    const latch = await readLatch(db);
    const { id, sampleId } = await insertRun(db, sheetId, input, owner);
    this.#take({ id, sampleId, author: authorNow() }, FIRST_EPOCH, latch);
    return getRun(db, id);
  }

  /** Take a stopped run up again where it stood. */
  async resume(runId: string, input: StartInput): Promise<SheetRun> {
    const { db, owner } = this.#parts;
    const latch = await readLatch(db);
    const { epoch, sampleId } = await takeUpAgain(db, runId, input, owner);
    this.#take({ id: runId, sampleId, author: authorNow() }, epoch, latch);
    return getRun(db, runId);
  }

  /** How many runs this server carries out. */
  get carried(): number {
    return this.#tasks.size;
  }

  /** Ask something of a run, wherever it is carried out. */
  async ask(runId: string, ask: Ask): Promise<SheetRun> {
    await insertAsk(this.#parts.db, runId, ask);
    this.#tasks.get(runId)?.nudge();
    return getRun(this.#parts.db, runId);
  }

  /** Loads were switched off: runs of this server learn it at once. */
  nudgeAll(): void {
    for (const task of this.#tasks.values()) task.nudge();
  }

  /** Interrupt every run, loads off, before the connections go. */
  async close(): Promise<void> {
    if (this.#timer) clearInterval(this.#timer);
    await Promise.all([...this.#tasks.values()].map((task) => task.close()));
  }

  /** @param author whoever began it: what it measures is theirs */
  #take({ id, sampleId, author }: Pick<RunRow, 'id' | 'sampleId' | 'author'>, epoch: number, latch: number): void {
    const { vital, confirm = CONFIRM } = this.#parts;
    const task = new RunTask({ ...this.#parts, confirm }, id, new Ownership(vital, id, epoch, latch));
    this.#tasks.set(id, task);
    // It goes on for whoever looks at it, not only for whoever began it.
    withScope(null, () => inNameOf(author, () => task.start(), { subject: id, sampleId }));
    void task.ended
      .catch((error: unknown) => this.#parts.log.error({ err: error, run: id }, 'a run ended badly'))
      .finally(() => this.#tasks.delete(id));
  }

  async #look(died: string | null): Promise<void> {
    if (this.#looking) return;
    this.#looking = true;
    const { db } = this.#parts;
    try {
      const silent = sql`${sheetRuns.aliveAt} < UTC_TIMESTAMP(3) - INTERVAL ${DEAD_SECONDS} SECOND`;
      const gone = died === null ? silent : or(silent, eq(sheetRuns.owner, died));
      const left = await db
        .select()
        .from(sheetRuns)
        .where(and(inArray(sheetRuns.state, ['running', 'waiting', 'held']), gone));
      for (const row of left) if (!this.#tasks.has(row.id)) await this.#seeTo(row, gone as SQL);
      const waiting = await db.select().from(sheetRuns).where(eq(sheetRuns.state, 'interrupted'));
      for (const row of waiting) if (!this.#tasks.has(row.id) && (await this.#isHere(row))) await this.#answer(row);
    } catch (error) {
      // The database is away; the next look may find it.
      this.#parts.log.debug({ err: error }, 'could not look after runs');
    } finally {
      this.#looking = false;
    }
  }

  /** The bench a run is at where that is not this one; null where it is. */
  async #awayAt(row: RunRow): Promise<string | null> {
    const { db, copies } = this.#parts;
    const bench = await benchOfRigId(db, row.rigId).catch(() => null);
    return bench === null || bench === (copies?.bench ?? '') ? null : bench;
  }

  async #isHere(row: RunRow): Promise<boolean> {
    return (await this.#awayAt(row)) === null;
  }

  /** Whoever stands beside its bench sees to a run; where nobody does any more, it says so at least. */
  async #seeTo(row: RunRow, gone: SQL): Promise<void> {
    const away = await this.#awayAt(row);
    const { author, id: subject, sampleId } = row;
    const inItsName = (safe: () => Promise<string | null>) =>
      inNameOf(author, () => this.#interrupt(row, gone, safe), { subject, sampleId });
    if (away === null) return inItsName(() => this.#makeSafe(row));
    if (this.#parts.copies?.at(away)) return;
    const unknown = `Nobody knows whether loads of bench "${away}" are off: no server stands beside it. ${AT_THE_BENCH}`;
    return inItsName(async () => unknown);
  }

  /** Runs that were interrupted while nobody stood beside this bench: their loads go off now. */
  async #makeSureOfInterrupted(): Promise<void> {
    const { db, log } = this.#parts;
    try {
      const rows = await db.select().from(sheetRuns).where(eq(sheetRuns.state, 'interrupted'));
      // A rig is the same, however many runs stand at it.
      const rigs = [...new Map(rows.map((row) => [row.rigId, row])).values()];
      await Promise.all(rigs.map(async (row) => (await this.#isHere(row)) && this.#makeSafe(row)));
    } catch (error) {
      log.warn({ err: error }, 'could not make sure of interrupted runs');
    }
  }

  /** Nobody carries it out any more: loads off, and it says so. Only one server gets to. @param safe has loads off, or says what nobody knows */
  async #interrupt(row: RunRow, gone: SQL, safe: () => Promise<string | null>): Promise<void> {
    const { db, owner } = this.#parts;
    const epoch = row.epoch + 1;
    const [taken] = await db
      .update(sheetRuns)
      .set({ epoch, owner, aliveAt: dbNow as never })
      .where(and(eq(sheetRuns.id, row.id), eq(sheetRuns.epoch, row.epoch), eq(sheetRuns.state, row.state), gone));
    if (taken.affectedRows === 0) return;
    // Whoever asked it to go on knew nothing of this: only to stop it still means the same.
    await closeAsks(db, row.id, ['stop']);
    const unknown = await safe();
    const says = `The server went away in the middle of it. ${unknown ?? 'Loads are off; everything recorded is kept.'}`;
    await db.transaction(async (tx) => {
      const [told] = await tx
        .update(sheetRuns)
        .set({ state: 'interrupted', says, progress: null })
        .where(and(eq(sheetRuns.id, row.id), eq(sheetRuns.epoch, epoch)));
      if (told.affectedRows > 0) await tellOfRun(tx, 'interruptRun', row.id, { note: says });
    });
  }

  async #makeSafe(row: RunRow): Promise<string | null> {
    const { db, links } = this.#parts;
    const rig = (await listRigs(db)).find(({ id }) => id === row.rigId);
    if (!rig) return null;
    const own = instrumentsOf(rig, await listInstruments(db));
    const permission = { gate: () => null, mayGoOn: async () => undefined, person: async () => undefined };
    return new RigDriver(links, rig, own, await listProfiles(db), [], permission).makeSafe();
  }

  /** An interrupted run does what it is asked: go on at the step it was in, or stop. */
  async #answer(row: RunRow): Promise<void> {
    const { db, owner } = this.#parts;
    for (const { id, body } of await openAsks(db, row.id)) {
      const acts = body.kind === 'go on' || body.kind === 'stop' || body.kind === 'repeat';
      const stops = body.kind === 'stop';
      const now = new Date();
      const latch = await readLatch(db);
      const done = await db.transaction(async (tx) => {
        if (acts) {
          const [result] = await tx
            .update(sheetRuns)
            .set(
              stops
                ? { state: 'stopped', says: 'Stopped after it was interrupted.', endedAt: now }
                : {
                    state: 'running',
                    says: '',
                    epoch: row.epoch + 1,
                    owner,
                    aliveAt: dbNow as never,
                    hereAt: dbNow as never,
                  },
            )
            .where(and(eq(sheetRuns.id, row.id), eq(sheetRuns.state, 'interrupted'), eq(sheetRuns.epoch, row.epoch)));
          if (result.affectedRows === 0) return false;
        }
        await tx.update(runAsks).set({ doneAt: now }).where(eq(runAsks.id, id));
        if (stops) await release(tx, row.id);
        return true;
      });
      if (!acts) continue;
      if (done && !stops) this.#take(row, row.epoch + 1, latch);
      return;
    }
  }
}
