// All runs this server carries out, and those another left behind.
import type { Ask, SheetRun, StartInput } from '@lastmark/contract';
import { and, eq, inArray, lt } from 'drizzle-orm';
import type { Logger } from 'pino';
import { listInstruments, listRigs } from '../bench/store.ts';
import type { Database } from '../db/database.ts';
import { sheetRuns } from '../db/schema.ts';
import type { Links } from '../links/links.ts';
import { listProfiles } from '../links/profiles.ts';
import type { LiveStream } from '../live/stream.ts';
import { RigDriver } from './driver.ts';
import { CONFIRM, type ConfirmRule } from './faults.ts';
import { closeAsk, getRun, insertAsk, insertRun, instrumentsOf, openAsks, type RunRow, release } from './rows.ts';
import { DEAD_MILLISECONDS, RunTask } from './task.ts';

const LOOK_MILLISECONDS = 1000;

export class Runner {
  readonly #db: Database;
  readonly #links: Links;
  readonly #live: LiveStream;
  readonly #log: Logger;
  readonly #confirm: ConfirmRule;
  readonly #tasks = new Map<string, RunTask>();
  #timer: NodeJS.Timeout | null = null;
  #looking = false;

  constructor(db: Database, links: Links, live: LiveStream, log: Logger, confirm: ConfirmRule = CONFIRM) {
    this.#confirm = confirm;
    this.#db = db;
    this.#links = links;
    this.#live = live;
    this.#log = log;
  }

  /** Begin to look after runs that nobody carries out any more. */
  watch(): void {
    this.#timer = setInterval(() => void this.#look(), LOOK_MILLISECONDS);
    void this.#look();
  }

  /** Start a run of a sheet. */
  async start(sheetId: string, input: StartInput): Promise<SheetRun> {
    const id = await insertRun(this.#db, sheetId, input);
    this.#take(id);
    return getRun(this.#db, id);
  }

  /** Ask something of a run, wherever it is carried out. */
  async ask(runId: string, ask: Ask): Promise<SheetRun> {
    await insertAsk(this.#db, runId, ask);
    this.#tasks.get(runId)?.nudge();
    return getRun(this.#db, runId);
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

  #take(id: string): void {
    const parts = { db: this.#db, links: this.#links, live: this.#live, log: this.#log, confirm: this.#confirm };
    const task = new RunTask(parts, id);
    this.#tasks.set(id, task);
    task.start();
    void task.ended.finally(() => this.#tasks.delete(id));
  }

  async #look(): Promise<void> {
    if (this.#looking) return;
    this.#looking = true;
    try {
      const dead = new Date(Date.now() - DEAD_MILLISECONDS);
      const left = await this.#db
        .select()
        .from(sheetRuns)
        .where(and(inArray(sheetRuns.state, ['running', 'waiting', 'held']), lt(sheetRuns.aliveAt, dead)));
      for (const row of left) if (!this.#tasks.has(row.id)) await this.#interrupt(row);
      const waiting = await this.#db.select().from(sheetRuns).where(eq(sheetRuns.state, 'interrupted'));
      for (const row of waiting) if (!this.#tasks.has(row.id)) await this.#answer(row);
    } catch (error) {
      // The database is away; the next look may find it.
      this.#log.debug({ err: error }, 'could not look after runs');
    } finally {
      this.#looking = false;
    }
  }

  /** Nobody carries it out any more: loads off, and it says so. Only one server gets to. */
  async #interrupt(row: RunRow): Promise<void> {
    const [result] = await this.#db
      .update(sheetRuns)
      .set({
        state: 'interrupted',
        says: 'The server went away in the middle of it. Loads are off; everything recorded is kept.',
        progress: null,
        aliveAt: new Date(),
      })
      .where(and(eq(sheetRuns.id, row.id), eq(sheetRuns.state, row.state), eq(sheetRuns.aliveAt, row.aliveAt)));
    if (result.affectedRows === 0) return;
    const unsent = await this.#loadsOff(row);
    if (unsent)
      await this.#db
        .update(sheetRuns)
        .set({ says: `The server went away in the middle of it. ${unsent}` })
        .where(eq(sheetRuns.id, row.id));
  }

  async #loadsOff(row: RunRow): Promise<string | null> {
    const rig = (await listRigs(this.#db)).find(({ id }) => id === row.rigId);
    if (!rig) return null;
    const own = instrumentsOf(rig, await listInstruments(this.#db));
    const load = own.find(({ id, address }) => id === rig.drives?.load && address !== null);
    if (!load) return null;
    const driver = new RigDriver(this.#links, rig, own, await listProfiles(this.#db), []);
    await this.#links.ready(load).catch(() => undefined);
    return driver.off();
  }

  /** An interrupted run does what it is asked: go on at the step it was in, or stop. */
  async #answer(row: RunRow): Promise<void> {
    for (const { id, body } of await openAsks(this.#db, row.id)) {
      if (body.kind !== 'go on' && body.kind !== 'stop' && body.kind !== 'repeat') {
        await closeAsk(this.#db, id);
        continue;
      }
      const stops = body.kind === 'stop';
      const now = new Date();
      const [result] = await this.#db
        .update(sheetRuns)
        .set(
          stops
            ? { state: 'stopped', says: 'Stopped after it was interrupted.', endedAt: now }
            : { state: 'running', says: '', aliveAt: now, hereAt: now },
        )
        .where(and(eq(sheetRuns.id, row.id), eq(sheetRuns.state, 'interrupted')));
      if (result.affectedRows === 0) return;
      await closeAsk(this.#db, id);
      if (stops) await release(this.#db, row.id);
      else this.#take(row.id);
      return;
    }
  }
}
