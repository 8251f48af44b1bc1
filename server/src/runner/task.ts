// Carries out one run: step after step, with everything that can end a step early. Its state is the row in the database.

import type { Ask, LiveEvent, Progress, StepOutcome } from '@lastmark/contract';
import type { Limits, SheetStep } from '@lastmark/core/plan';
import type { Logger } from 'pino';
import type { Database, Queries } from '../db/database.ts';
import { LostOwnership, type Ownership } from '../leases/ownership.ts';
import type { Links } from '../links/links.ts';
import type { LiveStream } from '../live/stream.ts';
import { AskQueue } from './asks.ts';
import { type Permission, SwitchedOff } from './driver.ts';
import { endRun, interruptRun } from './endings.ts';
import { type ConfirmRule, faultNow } from './faults.ts';
import type { Hands } from './hands.ts';
import { Keeper } from './keeper.ts';
import { LeaseWatch } from './lease-watch.ts';
import { prepare } from './prepare.ts';
import { doStep } from './steps/do-step.ts';
import { Closing, Fault, runSummary, StepFailed, Turn, whyHeld } from './turns.ts';

/** How often the row says the run is alive, ms. */
const ALIVE_MILLISECONDS = 500;
/** The load's own watchdog, s. */
const WATCHDOG_SECONDS = 5;
const TICK_MILLISECONDS = 100;
/** A look later than this after the one before means that the server itself stood still, ms. */
const STANDSTILL_MILLISECONDS = 600;
/** How long instruments have to tell their first numbers, ms. */
const LISTEN_MILLISECONDS = 5000;

interface Parts {
  readonly db: Database;
  /** Connections of its own, so that nothing else can keep a run from renewing its lease. */
  readonly vital: Database;
  readonly links: Links;
  readonly live: LiveStream;
  readonly log: Logger;
  readonly confirm: ConfirmRule;
}

export class RunTask {
  readonly #parts: Parts;
  readonly #runId: string;
  #hands!: Hands;
  #keeper!: Keeper;
  #limits!: Limits;
  #telling: readonly string[] = [];
  #step: SheetStep | null = null;
  #outcomes: Record<string, StepOutcome> = {};
  #progress: Progress | null = null;
  readonly #own: Ownership;
  readonly #asks: AskQueue;
  /** The stored count of loads-off at which loads may still go on. */
  #armed: number;
  #watched = true;
  #confirmed = 0;
  #looked = Date.now();
  #closing = false;
  /** How it was stopped; null for a run that goes to its end. */
  #stopped: string | null = null;
  #databaseGone: unknown = null;
  #lease!: LeaseWatch;
  #aliveGoing = false;
  #wake: () => void = () => undefined;
  #stops: (() => void)[] = [];
  #ended: Promise<void> = Promise.resolve();

  constructor(parts: Parts, runId: string, own: Ownership) {
    this.#parts = parts;
    this.#runId = runId;
    this.#own = own;
    this.#armed = own.latch;
    this.#asks = new AskQueue(parts.vital, runId, own, (error) => this.#note(error, 'an ask could not be closed'));
  }

  /** Something went wrong beside the step; the run goes on and its lease tells. */
  #note(error: unknown, what: string): void {
    this.#parts.log.warn({ err: error, run: this.#runId }, what);
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
    void this.#sayAlive();
  }

  /** Stop at once, loads off; the run can be taken up later. */
  async close(): Promise<void> {
    this.#closing = true;
    this.#wake();
    await this.#ended;
  }

  async #prepare(): Promise<void> {
    const { db, live, log } = this.#parts;
    const ready = await prepare(this.#parts, this.#runId, this.#permission());
    const { run, driver } = ready;
    this.#watched = run.watched;
    this.#limits = run.limits;
    this.#outcomes = { ...run.outcomes };
    this.#telling = ready.telling;
    await this.#asks.clear();
    this.#keeper = new Keeper(db, this.#runId, this.#own, (error) => {
      if (!(error instanceof LostOwnership)) this.#databaseGone ??= error;
      this.#wake();
    });
    this.#hands = {
      ...ready,
      db,
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
    this.#lease = new LeaseWatch({ own: this.#own, driver, wake: () => this.#wake(), note: this.#note.bind(this) });
    this.#stops = [stopLive, () => clearInterval(alive), () => this.#lease.close(), driver.guard()];
  }

  #permission(): Permission {
    return {
      gate: () => (this.#own.valid ? null : 'This server may not command the rig now.'),
      mayGoOn: async () => {
        await this.#own.renew();
        if (this.#own.latch !== this.#armed) throw new SwitchedOff();
      },
    };
  }

  /** Loads may go on again: a person asked for it, and knows of every Loads off until now. */
  async #arm(): Promise<void> {
    await this.#own.renew();
    this.#armed = this.#own.latch;
    this.#hands.driver.arm();
  }

  #take(event: LiveEvent): void {
    if (!this.#hands.looks.take(event)) return;
    if (this.#step) this.#keeper.take(this.#step.id, event);
    this.#wake();
  }

  /** Renew the lease and look for asks. One at a time. */
  async #sayAlive(): Promise<void> {
    if (this.#aliveGoing) return;
    this.#aliveGoing = true;
    try {
      await this.#own.renew({ progress: this.#progress });
      if (this.#own.latch !== this.#armed && this.#hands.driver.isOn) this.#lease.raise('Loads were switched off.');
      if (await this.#asks.look()) this.#wake();
    } catch (error) {
      // Whether it is the database or another server: the lease is not renewed, and that is minded.
      this.#note(error, 'the run could not say that it is alive');
      if (error instanceof LostOwnership) this.#wake();
    } finally {
      this.#aliveGoing = false;
    }
  }

  #save(part: Parameters<Ownership['write']>[1]): Promise<void> {
    return this.#own.write(this.#parts.db, part);
  }

  async #finish(tx: Queries, outcome: Omit<StepOutcome, 'at'>): Promise<void> {
    if (!this.#step) return;
    const outcomes = { ...this.#outcomes, [this.#step.id]: { ...outcome, at: new Date().toISOString() } };
    await this.#own.write(tx, { outcomes });
    this.#outcomes = outcomes;
  }

  /** What ends the run here, whatever it does. */
  #raiseEnd(): void {
    if (this.#closing) throw new Closing();
    if (this.#own.lost) throw new LostOwnership();
    const gone = this.#databaseGone ?? this.#lease.databaseGone;
    if (gone) throw gone;
  }

  /** Everything that ends a step early. */
  #raise(): void {
    const found = this.#lease.found();
    this.#raiseEnd();
    if (found !== null) throw new Fault(found);
    for (const kind of ['hold', 'stop', 'repeat', 'skip'] as const) {
      const ask = this.#asks.take(kind);
      if (ask) throw new Turn(ask);
    }
    const { driver, looks } = this.#hands;
    const now = Date.now();
    if (now - this.#looked > STANDSTILL_MILLISECONDS) looks.excuse(now - this.#looked);
    this.#looked = now;
    const watch = { driver, looks, limits: this.#limits, step: this.#step, telling: this.#telling };
    const fault = faultNow({ ...watch, unwatchedSince: this.#watched ? now - this.#own.here : 0 });
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
        this.#step?.attended && Date.now() - this.#confirmed > this.#parts.confirm.every && this.#hands.driver.isOn;
      const now = progress();
      this.#progress = asked ? { ...now, doing: `Still there? Press Enter within a minute. ${now.doing}` } : now;
      // Without a lease nothing is concluded: what was told meanwhile may be of a load that is off.
      if (this.#own.valid && holds()) return;
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
    const { driver, looks } = this.#hands;
    let unknown = await this.#lease.makeSafe();
    this.#progress = null;
    await this.#save({ state: 'held', says: unknown ? `${why} ${unknown}` : why, progress: null });
    this.#asks.drop('go on');
    for (;;) {
      this.#raiseEnd();
      this.#lease.found();
      this.#asks.take('hold');
      if (this.#asks.take('go on') || this.#asks.take('repeat')) break;
      const other = this.#asks.take('stop') ?? this.#asks.take('skip');
      if (other) return new Turn(other);
      if (unknown && driver.doubt === null) {
        // It has said so since.
        unknown = null;
        await this.#save({ says: `${why} Loads are off now.` });
      }
      await this.#tick();
    }
    looks.trust();
    await this.#arm();
    this.#confirmed = Date.now();
    this.#own.arrived();
    await this.#save({ state: 'running', says: '' });
    return 'again';
  }

  /** Wait until every instrument that should tell numbers has told some. */
  async #listen(): Promise<void> {
    const begun = Date.now();
    await this.#until(
      () => {
        const missing = this.#hands.looks.unheard(this.#telling);
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
        this.#hands.looks.trust();
        await doStep(this.#hands, step);
        return true;
      } catch (error) {
        turn = this.#cause(error);
      }
      if (turn instanceof StepFailed) {
        await this.#finish(this.#parts.db, { state: 'failed', says: turn.message, madeIds: [] });
        return true;
      }
      if (turn instanceof Turn && turn.ask.kind !== 'hold') turn = await this.#offFor(turn);
      if (turn instanceof Turn && turn.ask.kind === 'repeat') continue;
      const why = whyHeld(turn);
      if (why !== null) {
        const then = await this.#hold(why);
        if (then === 'again') continue;
        turn = then;
      }
      if (!(turn instanceof Turn)) throw turn;
      if (turn.ask.kind === 'stop') {
        this.#stopped = turn.ask.reason ? `Stopped: ${turn.ask.reason}` : 'Stopped.';
        return false;
      }
      const reason = turn.ask.kind === 'skip' ? turn.ask.reason : '';
      await this.#finish(this.#parts.db, { state: 'skipped', says: reason, madeIds: [] });
      return true;
    }
  }

  /** What a step really ended with: after a standstill every instrument seems late. */
  #cause(error: unknown): unknown {
    if (error instanceof Turn || error instanceof Closing || error instanceof LostOwnership) return error;
    const found = this.#lease.found();
    return found === null ? error : new Fault(found);
  }

  /** Loads off before a person's wish is done. @returns the wish, or why the run has to hold instead */
  async #offFor(turn: Turn): Promise<unknown> {
    try {
      await this.#hands.driver.off();
      return turn;
    } catch (error) {
      // Who stops a run gets it stopped; its end says what nobody knows.
      return turn.ask.kind === 'stop' ? turn : error;
    }
  }

  /** What an ending works with; a run that was never ready has neither watch nor keeper. */
  #ending() {
    const { db } = this.#parts;
    return { db, runId: this.#runId, own: this.#own, lease: this.#lease, keeper: this.#keeper };
  }

  async #carryOut(): Promise<void> {
    const { log } = this.#parts;
    try {
      await this.#prepare();
      await this.#hands.driver.watchdog(WATCHDOG_SECONDS).catch(() => undefined);
      const { steps } = this.#hands.run;
      for (const step of steps) {
        if (this.#outcomes[step.id]) continue;
        if (step.skip !== null) {
          this.#step = step;
          await this.#finish(this.#parts.db, { state: 'skipped', says: step.skip, madeIds: [] });
          continue;
        }
        if (!(await this.#carryOutStep(step))) break;
      }
      const { driver, run } = this.#hands;
      await endRun(this.#ending(), driver, this.#stopped, () => runSummary(this.#outcomes, run.steps.length));
    } catch (error) {
      if (!(error instanceof Closing)) log.error({ err: error, run: this.#runId }, 'a run was interrupted');
      const note = (again: unknown, what: string) => this.#note(again, what);
      await interruptRun(this.#ending(), error, () => this.#closing, note);
    } finally {
      for (const stop of this.#stops) stop();
      await (this.#keeper as Keeper | undefined)?.close().catch(() => undefined);
    }
  }
}
