// Minds the lease of a run whatever its step waits for: no lease, no load; and after a standstill nothing goes on as if
// nothing had been.

import { LEASE_MILLISECONDS, LostOwnership, type Ownership } from '../leases/ownership.ts';
import { pause, within } from '../wait/wait.ts';
import type { RigDriver } from './driver.ts';
import { DatabaseGone } from './turns.ts';

const TICK_MILLISECONDS = 100;
/** A tick later than this means that the whole process was stopped: then it is not the database that is silent, ms. */
const STOPPED_MILLISECONDS = 1500;
/**
 * How long the database has to say whose the run is after the lease ran out, ms. Loads are off by then, or were left to their own
 * watchdog for longer than this; a server that wakes beside a busy one must not switch off what another draws by now.
 */
export const ANSWER_MILLISECONDS = 2500;
const AGAIN_MILLISECONDS = 50;

interface Parts {
  readonly own: Ownership;
  readonly driver: RigDriver;
  /** Something was found: whoever waits looks again. */
  readonly wake: () => void;
  readonly note: (error: unknown, what: string) => void;
}

export class LeaseWatch {
  readonly #parts: Parts;
  readonly #timer: NodeJS.Timeout;
  #found: string | null = null;
  #databaseGone: DatabaseGone | null = null;
  #minded = performance.now();
  #minding = false;

  constructor(parts: Parts) {
    this.#parts = parts;
    this.#timer = setInterval(() => this.#mind(), TICK_MILLISECONDS);
  }

  /** The database did not answer in time and loads are off: nothing more can be kept. */
  get databaseGone(): DatabaseGone | null {
    return this.#databaseGone;
  }

  /** What was found since the last time: why the step has to hold. Asks once. */
  found(): string | null {
    // Right after a standstill the ticks come in any order.
    if (performance.now() - this.#minded > LEASE_MILLISECONDS) this.#mind();
    const found = this.#found;
    this.#found = null;
    return found;
  }

  /** Something else was found beside the step. */
  raise(what: string): void {
    this.#found ??= what;
    this.#parts.wake();
  }

  /** Loads off, unless another server has them by now. @returns what nobody knows, null when all is well. @throws LostOwnership */
  async makeSafe(): Promise<string | null> {
    const { own, driver } = this.#parts;
    // Without a lease the database is asked first whose they are; while it is silent they are switched off.
    if (!own.valid) await this.#whose();
    if (own.lost && !own.takenWhileValid) throw new LostOwnership();
    return driver.makeSafe();
  }

  close(): void {
    clearInterval(this.#timer);
  }

  #mind(): void {
    const { own, wake, note } = this.#parts;
    const now = performance.now();
    const stood = now - this.#minded;
    this.#minded = now;
    if (stood > LEASE_MILLISECONDS)
      this.#found = `The server stood still for ${Math.round(stood / 1000)} s; loads were switched off.`;
    if (own.valid || own.lost || this.#minding || this.#databaseGone) return;
    this.#minding = true;
    void this.#ranOut(stood > STOPPED_MILLISECONDS)
      .catch((error: unknown) => note(error, 'a lease that ran out'))
      .finally(() => {
        this.#minding = false;
        wake();
      });
  }

  /** @param stopped this process was stopped; else it ran all the time and the database was silent */
  async #ranOut(stopped: boolean): Promise<void> {
    const { driver } = this.#parts;
    // Nobody could take the run over without the database; after a standstill someone else may have.
    if (!stopped && driver.isOn) await driver.offSays();
    const answer = await this.#whose();
    if (answer === 'lost') return;
    if (driver.isOn) await driver.offSays();
    if (answer === null) this.#databaseGone ??= new DatabaseGone();
    else this.#found ??= 'The database did not answer for some seconds; loads were switched off.';
  }
  /**
   * Whose the run is now; null where the database does not say. What was asked before a standstill and answered after it tells
   * how it was before: only a lease that holds is an answer. An error is none either, and is asked over.
   */
  async #whose(): Promise<'mine' | 'lost' | null> {
    const { own } = this.#parts;
    const until = performance.now() + ANSWER_MILLISECONDS;
    for (let left = ANSWER_MILLISECONDS; left > 0; left = until - performance.now()) {
      const answer = await within(
        left,
        own.renew().then(
          () => (own.valid ? ('mine' as const) : ('again' as const)),
          (error: unknown) => (error instanceof LostOwnership ? ('lost' as const) : ('again' as const)),
        ),
      );
      if (answer !== 'again') return answer;
      await pause(AGAIN_MILLISECONDS);
    }
    return null;
  }
}
