// Carries out one run: step after step, with everything that can end a step early. Its state is the row in the database.

import type { Ask, LiveEvent, Progress, StepOutcome } from '@lastmark/contract';
import { LIVE_ACTION } from '@lastmark/core/instrument';
import type { Limits, SheetStep } from '@lastmark/core/plan';
import { eq } from 'drizzle-orm';
import type { Logger } from 'pino';
import { listInstruments, listRigs } from '../bench/store.ts';
import type { Database, Queries } from '../db/database.ts';
import { sheetRuns } from '../db/schema.ts';
import type { Links } from '../links/links.ts';
import { listProfiles } from '../links/profiles.ts';
import type { LiveStream } from '../live/stream.ts';
import { getSample } from '../samples/store.ts';
import { AskQueue } from './asks.ts';
import { RigDriver } from './driver.ts';
import { type ConfirmRule, faultNow } from './faults.ts';
import type { Bench } from './hands.ts';
import { Keeper } from './keeper.ts';
import { Looks } from './looks.ts';
import { closeAsk, getRun, instrumentsOf, openAsks, release, rowOf } from './rows.ts';
import { doStep } from './steps/do-step.ts';
import { Closing, Fault, runSummary, StepFailed, Turn, whyHeld } from './turns.ts';

/** How often the row says the run is alive, ms. A run silent for {@link DEAD_MILLISECONDS} is interrupted. */
const ALIVE_MILLISECONDS = 1000;
export const DEAD_MILLISECONDS = 4000;
/** The load's own watchdog, s. */
const WATCHDOG_SECONDS = 5;
const TICK_MILLISECONDS = 100;
/** A look later than this after the one before means that the server itself stood still, ms. */
const STANDSTILL_MILLISECONDS = 600;
/** How long instruments have to tell their first numbers, ms. */
const LISTEN_MILLISECONDS = 5000;

interface Parts {
  readonly db: Database;
  readonly links: Links;
  readonly live: LiveStream;
  readonly log: Logger;
  readonly confirm: ConfirmRule;
}

export class RunTask {
  readonly #parts: Parts;
  readonly #runId: string;
  #bench!: Bench;
  #keeper!: Keeper;
  #limits!: Limits;
  #telling: readonly string[] = [];
  #step: SheetStep | null = null;
  #outcomes: Record<string, StepOutcome> = {};
  #progress: Progress | null = null;
  readonly #asks: AskQueue;
  #here = Date.now();
  #watched = true;
  #confirmed = 0;
  #looked = Date.now();
  #closing = false;
  /** How it was stopped; null for a run that goes to its end. */
  #stopped: string | null = null;
  #databaseGone: unknown = null;
  #wake: () => void = () => undefined;
  #stops: (() => void)[] = [];
  #ended: Promise<void> = Promise.resolve();

  constructor(parts: Parts, runId: string) {
    this.#parts = parts;
    this.#runId = runId;
    this.#asks = new AskQueue(parts.db, runId);
  }

  /** Resolves when the task no longer touches anything. */
  get ended(): Promise<void> {
    return this.#ended;
  }

  start(): void {
    this.#ended = this.#carryOut();
  }

  /** A person asked something through this very server: no need to wait for the next look. */
  nudge(): void {
    void this.#lookAtAsks();
  }

  /** Stop at once, loads off; the run can be taken up later. */
  async close(): Promise<void> {
    this.#closing = true;
    this.#wake();
    await this.#ended;
  }

  async #prepare(): Promise<void> {
    const { db, links, live, log } = this.#parts;
    const run = await getRun(db, this.#runId);
    const rig = (await listRigs(db)).find(({ id }) => id === run.rigId);
    if (!rig) throw new Fault('The rig of this run is not on the bench any more.');
    const own = instrumentsOf(rig, await listInstruments(db));
    const ports = (await getSample(db, run.sample.id)).model.ports.map(({ label }) => label);
    const looks = new Looks(rig, own, ports, Date.now);
    const driver = new RigDriver(links, rig, own, await listProfiles(db), ports);
    this.#watched = run.watched;
    this.#limits = run.limits;
    this.#outcomes = { ...run.outcomes };
    const needed = new Set([...Object.values(rig.meters), rig.drives?.load]);
    this.#telling = own
      .filter(({ id, address, class: kind }) => address !== null && needed.has(id) && kind in LIVE_ACTION)
      .map(({ id }) => id);
    for (const { id } of await openAsks(db, this.#runId)) await closeAsk(db, id);
    this.#keeper = new Keeper(db, this.#runId, (error) => {
      this.#databaseGone ??= error;
      this.#wake();
    });
    this.#bench = {
      db,
      run,
      rig,
      own,
      ports,
      driver,
      looks,
      log,
      until: (holds, progress) => this.#until(holds, progress),
      attend: () => this.#attend(),
      person: (says) => this.#person(says),
      typed: (says) => this.#askOf('record', says),
      recordNow: () => this.#asks.take('record') !== null,
      outcomes: () => this.#outcomes,
      finish: (tx, outcome) => this.#finish(tx, outcome),
    };
    const stopLive = live.listen(
      (event) => this.#take(event),
      null,
      () => undefined,
    );
    const alive = setInterval(() => void this.#sayAlive(), ALIVE_MILLISECONDS);
    this.#stops = [stopLive, () => clearInterval(alive), driver.guard()];
  }

  #take(event: LiveEvent): void {
    if (!this.#bench.looks.take(event)) return;
    if (this.#step) this.#keeper.take(this.#step.id, event);
    this.#wake();
  }

  async #sayAlive(): Promise<void> {
    const { db } = this.#parts;
    try {
      await db
        .update(sheetRuns)
        .set({ aliveAt: new Date(), progress: this.#progress })
        .where(eq(sheetRuns.id, this.#runId));
      this.#here = Math.max(this.#here, (await rowOf(db, this.#runId)).hereAt.getTime());
      await this.#lookAtAsks();
    } catch (error) {
      this.#databaseGone ??= error;
      this.#wake();
    }
  }

  async #lookAtAsks(): Promise<void> {
    if (await this.#asks.look()) this.#wake();
  }

  async #save(part: Partial<typeof sheetRuns.$inferInsert>): Promise<void> {
    await this.#parts.db.update(sheetRuns).set(part).where(eq(sheetRuns.id, this.#runId));
  }

  async #finish(tx: Queries, outcome: Omit<StepOutcome, 'at'>): Promise<void> {
    if (!this.#step) return;
    const outcomes = { ...this.#outcomes, [this.#step.id]: { ...outcome, at: new Date().toISOString() } };
    await tx.update(sheetRuns).set({ outcomes }).where(eq(sheetRuns.id, this.#runId));
    this.#outcomes = outcomes;
  }

  /** Everything that ends a step early. */
  #raise(): void {
    if (this.#closing) throw new Closing();
    if (this.#databaseGone) throw this.#databaseGone;
    for (const kind of ['hold', 'stop', 'repeat', 'skip'] as const) {
      const ask = this.#asks.take(kind);
      if (ask) throw new Turn(ask);
    }
    const { driver, looks } = this.#bench;
    const now = Date.now();
    if (now - this.#looked > STANDSTILL_MILLISECONDS) looks.excuse(now - this.#looked);
    this.#looked = now;
    const watch = { driver, looks, limits: this.#limits, step: this.#step, telling: this.#telling };
    const fault = faultNow({ ...watch, unwatchedSince: this.#watched ? now - this.#here : 0 });
    if (fault) throw new Fault(fault);
    if (!driver.isOn) return;
    if (this.#asks.take('go on')) this.#confirmed = now;
    if (this.#step?.attended && now - this.#confirmed > this.#parts.confirm.every + this.#parts.confirm.grace)
      throw new Fault('A watched step was not confirmed.');
  }

  #tick(): Promise<void> {
    return new Promise((resolve) => {
      const timer = setTimeout(resolve, TICK_MILLISECONDS);
      this.#wake = () => {
        clearTimeout(timer);
        resolve();
      };
    });
  }

  async #until(holds: () => boolean, progress: () => Progress): Promise<void> {
    for (;;) {
      this.#raise();
      const asked =
        this.#step?.attended && Date.now() - this.#confirmed > this.#parts.confirm.every && this.#bench.driver.isOn;
      const now = progress();
      this.#progress = asked ? { ...now, doing: `Still there? Press Enter within a minute. ${now.doing}` } : now;
      if (holds()) return;
      await this.#tick();
    }
  }

  async #attend(): Promise<void> {
    if (Date.now() - this.#confirmed > this.#parts.confirm.every)
      await this.#person('A watched step: stay with it while it runs. Go on when you are there.');
  }

  /** Wait for a person to ask for something. */
  async #askOf<K extends 'go on' | 'record'>(kind: K, says: string): Promise<Ask & { kind: K }> {
    await this.#save({ state: 'waiting', says });
    this.#progress = null;
    for (;;) {
      this.#raise();
      const ask = this.#asks.take(kind);
      if (ask) {
        await this.#save({ state: 'running', says: '' });
        return ask;
      }
      await this.#tick();
    }
  }

  async #person(says: string): Promise<void> {
    this.#asks.take('go on');
    await this.#askOf('go on', says);
    this.#confirmed = Date.now();
  }

  /** Loads off and nothing goes on until a person says so. @returns what to do with the step then */
  async #hold(why: string): Promise<'again' | Turn> {
    const unsent = await this.#bench.driver.off();
    this.#progress = null;
    await this.#save({ state: 'held', says: unsent ? `${why} ${unsent}` : why, progress: null });
    this.#asks.drop('go on');
    for (;;) {
      if (this.#closing) throw new Closing();
      if (this.#databaseGone) throw this.#databaseGone;
      this.#asks.take('hold');
      if (this.#asks.take('go on') || this.#asks.take('repeat')) break;
      const other = this.#asks.take('stop') ?? this.#asks.take('skip');
      if (other) return new Turn(other);
      await this.#tick();
    }
    this.#bench.looks.trust();
    this.#bench.driver.arm();
    this.#confirmed = Date.now();
    this.#here = Date.now();
    await this.#save({ state: 'running', says: '' });
    return 'again';
  }

  /** Wait until every instrument that should tell numbers has told some. */
  async #listen(): Promise<void> {
    const begun = Date.now();
    await this.#until(
      () => {
        const missing = this.#bench.looks.unheard(this.#telling);
        if (missing && Date.now() - begun > LISTEN_MILLISECONDS)
          throw new Fault(`"${missing.name}" tells nothing. Is it on, and is its address right?`);
        return missing === null;
      },
      () => ({ doing: 'Listening to the instruments', share: 0, left: null }),
    );
  }

  /** One step until it is finished, skipped or the run ends. @returns false when the run is to end */
  async #carryOutStep(step: SheetStep): Promise<boolean> {
    this.#step = step;
    await this.#save({ stepId: step.id, state: 'running', says: '' });
    for (;;) {
      let turn: unknown;
      try {
        await this.#listen();
        this.#bench.looks.trust();
        await doStep(this.#bench, step);
        return true;
      } catch (error) {
        turn = error;
      }
      if (turn instanceof StepFailed) {
        await this.#finish(this.#parts.db, { state: 'failed', says: turn.message, madeIds: [] });
        return true;
      }
      if (turn instanceof Turn && turn.ask.kind === 'repeat') {
        await this.#bench.driver.off();
        continue;
      }
      const why = whyHeld(turn);
      if (why !== null) {
        const then = await this.#hold(why);
        if (then === 'again') continue;
        turn = then;
      }
      if (!(turn instanceof Turn)) throw turn;
      await this.#bench.driver.off();
      if (turn.ask.kind === 'stop') {
        this.#stopped = turn.ask.reason ? `Stopped: ${turn.ask.reason}` : 'Stopped.';
        return false;
      }
      const reason = turn.ask.kind === 'skip' ? turn.ask.reason : '';
      await this.#finish(this.#parts.db, { state: 'skipped', says: reason, madeIds: [] });
      return true;
    }
  }

  async #carryOut(): Promise<void> {
    const { log } = this.#parts;
    try {
      await this.#prepare();
      await this.#bench.driver.watchdog(WATCHDOG_SECONDS).catch(() => undefined);
      const { steps } = this.#bench.run;
      for (const step of steps) {
        if (this.#outcomes[step.id]) continue;
        if (step.skip !== null) {
          this.#step = step;
          await this.#finish(this.#parts.db, { state: 'skipped', says: step.skip, madeIds: [] });
          continue;
        }
        if (!(await this.#carryOutStep(step))) break;
      }
      await this.#end();
    } catch (error) {
      if (!(error instanceof Closing)) log.error({ err: error, run: this.#runId }, 'a run was interrupted');
      await this.#interrupt(error);
    } finally {
      for (const stop of this.#stops) stop();
    }
  }

  /** Over: everything off, everything committed, instruments free. */
  async #end(): Promise<void> {
    const { driver } = this.#bench;
    await driver.off();
    await driver.unplugAll().catch(() => undefined);
    await driver.watchdog(0).catch(() => undefined);
    await driver.mainsOff().catch(() => undefined);
    await this.#keeper.close();
    const end =
      this.#stopped === null
        ? ({ state: 'done', says: runSummary(this.#outcomes, this.#bench.run.steps.length), stepId: null } as const)
        : ({ state: 'stopped', says: this.#stopped } as const);
    await this.#parts.db.transaction(async (tx) => {
      await tx
        .update(sheetRuns)
        .set({ ...end, endedAt: new Date(), progress: null })
        .where(eq(sheetRuns.id, this.#runId));
      await release(tx, this.#runId);
    });
  }

  /** The server stops, or the database went away: loads off first, then whatever can still be written. */
  async #interrupt(error: unknown): Promise<void> {
    const bench = this.#bench as Bench | undefined;
    await bench?.driver.off();
    const why =
      error instanceof Closing
        ? 'The server was stopped.'
        : error instanceof Fault
          ? error.message
          : 'The database or the server failed.';
    for (;;) {
      try {
        await (this.#keeper as Keeper | undefined)?.close();
        await this.#save({
          state: 'interrupted',
          says: `${why} Loads are off; everything recorded is kept.`,
          progress: null,
        });
        return;
      } catch (again) {
        if (this.#closing) return;
        this.#parts.log.warn(
          { err: again, run: this.#runId },
          'the database is away; what was told is kept until it is back',
        );
        await new Promise((resolve) => setTimeout(resolve, 1000));
      }
    }
  }
}
