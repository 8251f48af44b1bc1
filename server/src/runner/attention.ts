// What a run does while it waits: it minds everything that ends a step early, and what people say.
import type { Ask, Progress } from '@lastmark/contract';
import type { Limits, SheetStep } from '@lastmark/core/plan';
import { LostOwnership, type Ownership } from '../leases/ownership.ts';
import type { AskQueue } from './asks.ts';
import { type ConfirmRule, faultNow } from './faults.ts';
import type { LeaseWatch } from './lease-watch.ts';
import type { OutputWatch } from './outputs.ts';
import type { Ready } from './prepare.ts';
import { Closing, Fault, Turn } from './turns.ts';

const TICK_MILLISECONDS = 100;
/** A look later than this after the one before means that the server itself stood still, ms. */
const STANDSTILL_MILLISECONDS = 600;

/** What is minded, once the run is ready. */
export interface Minded extends Pick<Ready, 'driver' | 'looks' | 'telling'> {
  readonly lease: LeaseWatch;
  readonly outputs: OutputWatch;
  readonly limits: Limits;
  /** Whether it may be left alone. */
  readonly watched: boolean;
}

interface Parts {
  readonly own: Ownership;
  readonly asks: AskQueue;
  readonly confirm: ConfirmRule;
  readonly save: (part: Parameters<Ownership['write']>[1]) => Promise<void>;
}

export class Attention {
  step: SheetStep | null = null;
  progress: Progress | null = null;
  /** Why the database is taken to be gone; null while it is there. */
  databaseGone: unknown = null;
  closing = false;
  readonly #parts: Parts;
  #minded: Minded | null = null;
  #confirmed = 0;
  #looked = Date.now();
  #wake: () => void = () => undefined;

  constructor(parts: Parts) {
    this.#parts = parts;
  }

  /** From here on there is a rig to be minded. */
  mind(minded: Minded): void {
    this.#minded = minded;
  }

  get #ready(): Minded {
    if (!this.#minded) throw new Error('The run is not ready yet.');
    return this.#minded;
  }

  /** Look again at once. */
  wake(): void {
    this.#wake();
  }

  /** A person is there. */
  confirm(): void {
    this.#confirmed = Date.now();
  }

  /** What ends the run here, whatever it does. */
  readonly raiseEnd = (): void => {
    if (this.closing) throw new Closing();
    if (this.#parts.own.lost) throw new LostOwnership();
    const gone = this.databaseGone ?? this.#ready.lease.databaseGone;
    if (gone) throw gone;
  };

  /** Everything that ends a step early. */
  #raise(): void {
    const { own, asks, confirm } = this.#parts;
    const { lease, driver, looks, limits, telling, watched, outputs } = this.#ready;
    const found = lease.found();
    this.raiseEnd();
    if (found !== null) throw new Fault(found);
    for (const kind of ['hold', 'stop', 'repeat', 'skip'] as const) {
      const ask = asks.take(kind);
      if (ask) throw new Turn(ask);
    }
    const now = Date.now();
    if (now - this.#looked > STANDSTILL_MILLISECONDS) looks.excuse(now - this.#looked);
    this.#looked = now;
    const watch = { driver, looks, limits, step: this.step, telling };
    const fault = faultNow({ ...watch, unwatchedSince: watched ? now - own.here : 0 });
    if (fault) throw new Fault(fault);
    // Only what a valid lease lets draw is expected to be there.
    if (own.valid) outputs.mind();
    if (!driver.isOn) return;
    if (asks.take('go on')) this.#confirmed = now;
    if (this.step?.attended && now - this.#confirmed > confirm.every + confirm.grace)
      throw new Fault('A watched step was not confirmed.');
  }

  readonly tick = (): Promise<void> => {
    return new Promise((resolve) => {
      const timer = setTimeout(resolve, TICK_MILLISECONDS);
      this.#wake = () => {
        clearTimeout(timer);
        resolve();
      };
    });
  };

  /** Wait until something holds. @throws whatever ends the step early */
  async until(holds: () => boolean, progress: () => Progress): Promise<void> {
    const { own, confirm } = this.#parts;
    for (;;) {
      this.#raise();
      const asked = this.step?.attended && Date.now() - this.#confirmed > confirm.every && this.#ready.driver.isOn;
      const now = progress();
      this.progress = asked ? { ...now, doing: `Still there? Press Enter within a minute. ${now.doing}` } : now;
      // Without a lease nothing is concluded: what was told meanwhile may be of a load that is off.
      // Nor while an output seems gone and no second look has said so.
      if (own.valid && holds() && !this.#ready.outputs.inDoubt) return;
      await this.tick();
    }
  }

  async attend(): Promise<void> {
    if (Date.now() - this.#confirmed > this.#parts.confirm.every)
      await this.person('A watched step: stay with it while it runs. Go on when you are there.');
  }

  /** Wait for a person to ask for something. */
  async askOf<K extends 'go on' | 'record'>(kind: K, says: string): Promise<Ask & { kind: K }> {
    const { asks, save } = this.#parts;
    await save({ state: 'waiting', says });
    this.progress = null;
    for (;;) {
      this.#raise();
      const ask = asks.take(kind);
      if (ask) {
        await save({ state: 'running', says: '' });
        return ask;
      }
      await this.tick();
    }
  }

  /** Wait for a person to go on. */
  async person(says: string): Promise<void> {
    this.#parts.asks.take('go on');
    await this.askOf('go on', says);
    this.confirm();
  }
}
