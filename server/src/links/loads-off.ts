// Every load off: on the wire first, from what is in memory; asked whether it is; written down afterwards.
import type { LoadsOffAnswer } from '@lastmark/contract';
import type { Logger } from 'pino';
import type { Database } from '../db/database.ts';
import { pressLatch } from '../leases/latch.ts';
import { pause, within } from '../wait/wait.ts';
import type { Links } from './links.ts';
import { isDriven, type Known, type Roster } from './roster.ts';

/** How long a load has to say that it is off before the answer goes out without its word, ms. */
const SAY_MILLISECONDS = 650;
/** How long the database has to tell loads this server has not heard of, and to write down, ms. */
const TELL_MILLISECONDS = 200;
const WRITE_MILLISECONDS = 650;
const AGAIN_MILLISECONDS = 1000;
/** The same for loads of this bench when another copy asks, and how long that one waits for the answer, ms. */
const SAY_FOR_OTHERS_MILLISECONDS = 500;
const OTHERS_MILLISECONDS = 850;

type Item = LoadsOffAnswer['items'][number];

export interface LoadsOffParts {
  readonly vital: Database;
  readonly links: Links;
  readonly roster: Roster;
  readonly log: Logger;
  /** Has other copies of the server switch their loads off too; null where there are none. */
  readonly elsewhere?: OffElsewhere | null;
}

/** Loads that others speak to. */
export interface OffElsewhere {
  /** Have every other copy switch off its own, now; one that does not answer is told again. */
  readonly press: (patience: number) => Promise<readonly Item[]>;
}

async function offOne(links: Links, known: Known, patience: number): Promise<Item> {
  const { id, name } = known.instrument;
  const told = { instrumentId: id, name };
  if (!isDriven(known))
    return {
      ...told,
      sent: false,
      sure: false,
      blind: true,
      detail: 'It has no profile, so nobody knows how to switch it off.',
    };
  return { ...told, ...(await links.off(known, patience)) };
}

export class LoadsOff {
  readonly #parts: LoadsOffParts;
  #writing = false;
  #due = 0;

  constructor(parts: LoadsOffParts) {
    this.#parts = parts;
  }

  /** Switch every load off. It never stops at the first that fails, and never waits for the database before the wire. */
  async press(): Promise<LoadsOffAnswer> {
    const told = this.#parts.elsewhere?.press(OTHERS_MILLISECONDS) ?? Promise.resolve([]);
    const own = await this.#pressHere(SAY_MILLISECONDS, () => this.#writeDown());
    const others = await told;
    const { roster } = this.#parts;
    const items = [
      ...own.items,
      ...others.filter(({ instrumentId }) => !own.items.some((one) => one.instrumentId === instrumentId)),
    ];
    // A load that nobody told of is where nobody answers.
    const silent = roster.elsewhere.filter(
      (one) => one.class === 'DC load' && !items.some(({ instrumentId }) => instrumentId === one.id),
    );
    return {
      ...own,
      items: [
        ...items,
        ...silent.map(({ id, name, bench }) => ({
          instrumentId: id,
          name,
          sent: false,
          sure: false,
          blind: false,
          detail: `the server beside bench "${bench}" does not answer`,
        })),
      ],
    };
  }

  /** Switch every load of this bench off, and no other, for another copy: that one writes it down. */
  pressHere(): Promise<LoadsOffAnswer> {
    return this.#pressHere(SAY_FOR_OTHERS_MILLISECONDS, async () => false);
  }

  async #pressHere(patience: number, write: () => Promise<boolean>): Promise<LoadsOffAnswer> {
    const { links, roster } = this.#parts;
    links.countOff();
    const begun = performance.now();
    const told = new Map<string, Promise<Item>>();
    const add = () => {
      const left = Math.max(250, patience - (performance.now() - begun));
      for (const known of roster.loads)
        if (!told.has(known.instrument.id)) told.set(known.instrument.id, offOne(links, known, left));
    };
    add();
    const written = write();
    // A load another server has just been given is not in memory yet.
    await within(
      TELL_MILLISECONDS,
      roster.look().catch(() => undefined),
    );
    add();
    const items = await Promise.all(told.values());
    return {
      items,
      written: (await within(Math.max(1, WRITE_MILLISECONDS - (performance.now() - begun)), written)) === true,
    };
  }

  /** Written down as soon as the database takes it, however long that is. @returns whether it was at the first try */
  async #writeDown(): Promise<boolean> {
    const { vital, log } = this.#parts;
    try {
      await pressLatch(vital);
      return true;
    } catch (error) {
      log.warn({ err: error }, 'loads off could not be written down yet');
      this.#due += 1;
      void this.#writeLater();
      return false;
    }
  }

  async #writeLater(): Promise<void> {
    if (this.#writing) return;
    this.#writing = true;
    while (this.#due > 0) {
      await pause(AGAIN_MILLISECONDS);
      try {
        await pressLatch(this.#parts.vital);
        this.#due = 0;
      } catch {
        // Still away.
      }
    }
    this.#writing = false;
  }

  /** Nothing more is written. */
  close(): void {
    this.#due = 0;
  }
}
