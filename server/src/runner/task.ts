// Carries out one run: step after step, with everything that can end a step early. Its state is the row in the database.

import type { LiveEvent, StepOutcome } from '@lastmark/contract';
import type { SheetStep, StepFound } from '@lastmark/core/plan';
import type { Logger } from 'pino';
import type { Database, Queries } from '../db/database.ts';
import { LostOwnership, type Ownership } from '../leases/ownership.ts';
import type { Links } from '../links/links.ts';
import type { LiveStream } from '../live/stream.ts';
import { AskQueue } from './asks.ts';
import { Attention } from './attention.ts';
import type { Permission } from './driver.ts';
import { SwitchedOff } from './driver-problems.ts';
import { endRun, interruptRun } from './endings.ts';
import { type ConfirmRule, whyNothing } from './faults.ts';
import { followedBy } from './follow.ts';
import type { Hands } from './hands.ts';
import { Keeper } from './keeper.ts';
import { LeaseWatch } from './lease-watch.ts';
import { OutputWatch } from './outputs.ts';
import { prepare } from './prepare.ts';
import { cycleSupply, proveOutputs, recordSilence } from './silences.ts';
import { doStep } from './steps/do-step.ts';
import { tellOfRun, tellOfStep } from './tell.ts';
import { Closing, DrawsNothing, Fault, heldWords, runSummary, Silent, StepFailed, Turn, whyHeld } from './turns.ts';
import { coldOnPurpose } from './warm.ts';

/** How often the row says the run is alive, ms. */
const ALIVE_MILLISECONDS = 500;
/** The load's own watchdog, s. */
const WATCHDOG_SECONDS = 5;
/** How long instruments have to tell their first numbers, ms. */
const LISTEN_MILLISECONDS = 5000;
/** Its lease ran out before it was renewed: another server may have the rig by now. */
const TOO_SLOW = 'The server was too slow to keep its hold on the rig: nothing is switched on until you go on.';

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
  #telling: readonly string[] = [];
  #outcomes: Record<string, StepOutcome> = {};
  /** What the step that is on saw so far. */
  #saw: Partial<StepFound> = {};
  /** Warm-ups that people agreed to go without; ids. */
  readonly #cold = new Set<string>();
  readonly #own: Ownership;
  readonly #asks: AskQueue;
  readonly #attention: Attention;
  /** The stored count of loads-off at which loads may still go on. */
  #armed: number;
  /** How it was stopped; null for a run that goes to its end. */
  #stopped: string | null = null;
  #lease!: LeaseWatch;
  #aliveGoing = false;
  #stops: (() => void)[] = [];
  #ended: Promise<void> = Promise.resolve();

  constructor(parts: Parts, runId: string, own: Ownership) {
    this.#parts = parts;
    this.#runId = runId;
    this.#own = own;
    this.#armed = own.latch;
    this.#asks = new AskQueue(parts.vital, runId, own, (error) => this.#note(error, 'an ask could not be closed'));
    const save = (part: Parameters<Ownership['write']>[1]) => this.#save(part);
    this.#attention = new Attention({ own, asks: this.#asks, confirm: parts.confirm, save });
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
    this.#attention.closing = true;
    this.#attention.wake();
    await this.#ended;
  }

  async #prepare(): Promise<void> {
    const { db, live, log } = this.#parts;
    const ready = await prepare(this.#parts, this.#runId, this.#permission());
    const { run, driver, rig, looks } = ready;
    this.#outcomes = { ...run.outcomes };
    this.#telling = ready.telling;
    this.#keeper = new Keeper(db, this.#runId, this.#own, (error) => {
      if (!(error instanceof LostOwnership)) this.#attention.databaseGone ??= error;
      this.#attention.wake();
    });
    const attention = this.#attention;
    const outputs = new OutputWatch(looks, rig.outputPlace, driver.loadName, ready.telling);
    this.#hands = {
      ...ready,
      outputs,
      db,
      log,
      until: (holds, progress) => attention.until(holds, progress),
      attend: () => attention.attend(),
      person: (says) => attention.person(says),
      typed: (says) => attention.askOf('record', says),
      recordNow: () => this.#asks.take('record') !== null,
      outcomes: () => this.#outcomes,
      saw: (found) => {
        this.#saw = { ...this.#saw, ...found };
      },
      mine: (tx) => this.#own.assert(tx),
      finish: (tx, outcome) => this.#finish(tx, outcome),
    };
    const stopLive = live.listen(
      (event) => this.#take(event),
      null,
      () => undefined,
    );
    const alive = setInterval(() => void this.#sayAlive(), ALIVE_MILLISECONDS);
    this.#lease = new LeaseWatch({ own: this.#own, driver, wake: () => attention.wake(), note: this.#note.bind(this) });
    attention.mind({ ...ready, lease: this.#lease, outputs, limits: run.limits, watched: run.watched });
    this.#stops = [stopLive, () => clearInterval(alive), () => this.#lease.close(), driver.guard()];
  }

  #permission(): Permission {
    return {
      gate: () => (this.#own.valid ? null : TOO_SLOW),
      person: (says) => this.#attention.person(says),
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
    const { step } = this.#attention;
    if (step) this.#keeper.take(step.id, event);
    this.#attention.wake();
  }

  /** Renew the lease and look for asks. One at a time. */
  async #sayAlive(): Promise<void> {
    if (this.#aliveGoing) return;
    this.#aliveGoing = true;
    try {
      await this.#own.renew({ progress: this.#attention.progress });
      if (this.#own.latch !== this.#armed && this.#hands.driver.isOn) this.#lease.raise('Loads were switched off.');
      if (await this.#asks.look()) this.#attention.wake();
    } catch (error) {
      // Whether it is the database or another server: the lease is not renewed, and that is minded.
      this.#note(error, 'the run could not say that it is alive');
      if (error instanceof LostOwnership) this.#attention.wake();
    } finally {
      this.#aliveGoing = false;
    }
  }

  #save(part: Parameters<Ownership['write']>[1]): Promise<void> {
    return this.#own.write(this.#parts.db, part);
  }

  async #finish(tx: Queries, outcome: Omit<StepOutcome, 'at'>): Promise<void> {
    const { step } = this.#attention;
    if (!step) return;
    const outcomes = { ...this.#outcomes, [step.id]: { ...outcome, at: new Date().toISOString() } };
    const then = outcome.state === 'skipped' ? null : await followedBy(tx, this.#hands, step, outcomes, this.#saw);
    if (then?.says) outcomes[step.id] = { ...outcomes[step.id], says: `${outcome.says} · ${then.says}` } as StepOutcome;
    await this.#own.write(tx, { outcomes, ...(then?.steps ? { steps: [...then.steps] } : {}) });
    await tellOfStep(tx, this.#runId, step, outcomes[step.id] as StepOutcome);
    this.#outcomes = outcomes;
    if (then?.steps) this.#follow(then.steps);
  }

  /** The same where it made nothing that stands and falls with it. */
  #finishAlone(outcome: Omit<StepOutcome, 'at'>): Promise<void> {
    return this.#parts.db.transaction((tx) => this.#finish(tx, outcome));
  }

  /** What is still to be done is what follows now. */
  #follow(steps: readonly SheetStep[]): void {
    const { steps: known } = this.#hands.run;
    known.splice(0, known.length, ...steps);
  }

  /** Loads off and nothing goes on until a person says so. @returns what to do with the step then */
  async #hold(why: string): Promise<'again' | Turn> {
    const { driver, looks } = this.#hands;
    let unknown = await this.#lease.makeSafe();
    this.#attention.progress = null;
    const words = heldWords(why, unknown, driver.loadName);
    const says = words.now;
    await this.#parts.db.transaction(async (tx) => {
      await this.#own.write(tx, { state: 'held', says, progress: null });
      await tellOfRun(tx, 'holdRun', this.#runId, { note: says });
    });
    this.#asks.drop('go on');
    for (;;) {
      this.#attention.raiseEnd();
      this.#lease.found();
      this.#asks.take('hold');
      if (this.#asks.take('go on') || this.#asks.take('repeat')) break;
      if (driver.setsMains && this.#asks.take('cycle')) {
        await cycleSupply(this.#hands, this.#attention);
        break;
      }
      const other = this.#asks.take('stop') ?? this.#asks.take('skip');
      if (other) return new Turn(other);
      if (unknown && driver.doubt === null) {
        // It has said so since.
        await this.#save({ says: words.offSince });
        unknown = null;
      }
      await this.#attention.tick();
    }
    looks.trust();
    looks.goOnWithout();
    await this.#arm();
    this.#attention.confirm();
    this.#own.arrived();
    await this.#save({ state: 'running', says: '' });
    return 'again';
  }

  /** Wait until every instrument that should tell numbers has told some. */
  async #listen(): Promise<void> {
    const begun = Date.now();
    await this.#attention.until(
      () => {
        const missing = this.#hands.looks.unheard(this.#telling);
        if (missing && Date.now() - begun > LISTEN_MILLISECONDS)
          throw new Fault(`"${missing.name}" tells nothing. Is it on, and is its address right?`);
        return missing === null;
      },
      () => ({ doing: 'Listening to the instruments', share: 0, left: null }),
    );
  }

  async #begin(step: SheetStep): Promise<void> {
    this.#attention.step = step;
    this.#saw = {};
    await this.#save({ stepId: step.id, state: 'running', says: '' });
  }

  /** One step until it is finished, skipped or the run ends. @returns false when the run is to end */
  async #carryOutStep(step: SheetStep): Promise<boolean> {
    await this.#begin(step);
    const { looks, outputs } = this.#hands;
    for (;;) {
      let turn: unknown;
      try {
        await this.#listen();
        looks.trust();
        await proveOutputs(this.#hands, step);
        const warmUp = await coldOnPurpose(this.#hands, step, this.#cold);
        if (warmUp) {
          if (!(await this.#carryOutStep(warmUp))) return false;
          await this.#begin(step);
          continue;
        }
        await doStep(this.#hands, step);
        return true;
      } catch (error) {
        turn = this.#cause(error);
      } finally {
        outputs.rest();
      }
      if (turn instanceof Silent) turn = await this.#silence(turn, step);
      if (turn instanceof DrawsNothing) turn = await whyNothing(this.#hands.driver, turn);
      if (turn instanceof StepFailed) {
        await this.#finishAlone({ state: 'failed', says: turn.message, madeIds: [...turn.madeIds] });
        return true;
      }
      if (turn instanceof Turn && turn.ask.kind !== 'hold') turn = await this.#offFor(turn);
      if (turn instanceof Turn && turn.ask.kind === 'repeat') continue;
      const why = whyHeld(turn);
      if (why !== null) {
        const then = await this.#hold(why);
        if (then === 'again' && turn instanceof Silent && turn.finished) return true;
        if (then === 'again') continue;
        turn = then;
      }
      if (!(turn instanceof Turn)) throw turn;
      if (turn.ask.kind === 'stop') {
        this.#stopped = turn.ask.reason ? `Stopped: ${turn.ask.reason}` : 'Stopped.';
        return false;
      }
      const reason = turn.ask.kind === 'skip' ? turn.ask.reason : '';
      await this.#finishAlone({ state: 'skipped', says: reason, madeIds: [] });
      return true;
    }
  }

  /** An output is gone: loads off, kept as found. @returns why the run holds; for one that only dropped a level why the step ends */
  async #silence(silent: Silent, step: SheetStep): Promise<Silent | StepFailed> {
    await this.#lease.makeSafe();
    const madeIds = await recordSilence(this.#hands, silent);
    if (silent.how === 'dropped a level') {
      this.#saw = { ...this.#saw, given: silent.ports.map((port) => ({ port, share: null })) };
      return new StepFailed(silent.message, madeIds);
    }
    this.#hands.outputs.doubt(silent.ports, step.id);
    // Written down at once: a run that holds may be taken over.
    const { steps } = await followedBy(this.#parts.db, this.#hands, step, this.#outcomes, { gone: silent.ports });
    if (steps) {
      await this.#save({ steps: [...steps] });
      this.#follow(steps);
    }
    return silent;
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
      // What a step adds stands behind it, so that the walk comes to it.
      for (let at = 0; at < steps.length; at += 1) {
        const step = steps[at] as SheetStep;
        if (this.#outcomes[step.id]) continue;
        if (step.skip !== null) {
          this.#attention.step = step;
          await this.#finishAlone({ state: 'skipped', says: step.skip, madeIds: [] });
          continue;
        }
        if (!(await this.#carryOutStep(step))) break;
      }
      const { driver, run } = this.#hands;
      await endRun(this.#ending(), driver, this.#stopped, () => runSummary(this.#outcomes, run.steps));
    } catch (error) {
      if (!(error instanceof Closing)) log.error({ err: error, run: this.#runId }, 'a run was interrupted');
      const note = (again: unknown, what: string) => this.#note(again, what);
      await interruptRun(this.#ending(), error, () => this.#attention.closing, note);
    } finally {
      for (const stop of this.#stops) stop();
      await (this.#keeper as Keeper | undefined)?.close().catch(() => undefined);
    }
  }
}
