// Loads a person switched on at the console: looked after by the server that sent the command, for as long as it lives.
import { commandFor } from '@lastmark/core/instrument';
import { and, eq, lt, or, sql } from 'drizzle-orm';
import type { Logger } from 'pino';
import type { Database } from '../db/database.ts';
import { consoleLoads } from '../db/schema.ts';
import { listLeases } from '../leases/leases.ts';
import { DEAD_SECONDS, dbNow } from '../leases/ownership.ts';
import { within } from '../wait/wait.ts';
import type { Links } from './links.ts';
import { isOff } from './off.ts';
import { isDriven, type KnownLoad, type Roster } from './roster.ts';

/** How often a load is spoken to, so that its own watchdog stays quiet, ms. */
const EVERY_MILLISECONDS = 1000;
/** A load just taken may not be on yet: it is not let go so soon, ms. */
const GRACE_MILLISECONDS = 5000;
/** The load's own watchdog, s: it goes off by itself when this server no longer speaks to it. */
const WATCHDOG_SECONDS = 5;
const OFF_MILLISECONDS = 1500;

interface Parts {
  readonly db: Database;
  readonly links: Links;
  readonly roster: Roster;
  readonly log: Logger;
  readonly owner: string;
}

interface Held {
  readonly load: KnownLoad;
  /** When the last command that may switch it on was about to go out. */
  readonly taken: number;
}

export class ConsoleLoads {
  readonly #parts: Parts;
  readonly #held = new Map<string, Held>();
  /** One after the other: taking a load and letting it go must not overtake each other in the database. */
  #turn: Promise<unknown> = Promise.resolve();
  #timer: NodeJS.Timeout | null = null;
  #going = false;

  constructor(parts: Parts) {
    this.#parts = parts;
  }

  /** Begin to look after them. @param died a server known to be gone: its loads go off first */
  async watch(died: string | null): Promise<void> {
    this.#timer = setInterval(() => void this.#tend(null), EVERY_MILLISECONDS);
    await this.#tend(died);
  }

  /** A command that may switch a load on is about to go out: from now on this server looks after it. */
  async take(load: KnownLoad): Promise<void> {
    const { db, links, owner } = this.#parts;
    const { id } = load.instrument;
    this.#held.set(id, { load, taken: performance.now() });
    await this.#inTurn(() =>
      db
        .insert(consoleLoads)
        .values({ instrumentId: id, owner, aliveAt: dbNow as never })
        .onDuplicateKeyUpdate({ set: { owner, aliveAt: dbNow as never } }),
    );
    const client = await links.ready(load.instrument);
    if ('watchdog' in load.profile.commands)
      await client.confirm(commandFor(load.profile, 'watchdog', { seconds: WATCHDOG_SECONDS }));
  }

  #inTurn<T>(work: () => Promise<T>): Promise<T> {
    const done = this.#turn.then(work);
    this.#turn = done.catch(() => undefined);
    return done;
  }

  /** The server stops: what was switched on from it goes off. */
  async close(): Promise<void> {
    if (this.#timer) clearInterval(this.#timer);
    this.#timer = null;
    const held = [...this.#held.values()];
    await Promise.all(
      held.map(async (one) => {
        const { sure } = await this.#parts.links.off(one.load, OFF_MILLISECONDS);
        if (sure)
          await within(
            OFF_MILLISECONDS,
            this.#forget(one).catch(() => undefined),
          );
      }),
    );
  }

  /** Let a load go, unless it was taken anew meanwhile. */
  async #forget(held: Held): Promise<void> {
    const { db, owner } = this.#parts;
    const { id } = held.load.instrument;
    await this.#inTurn(async () => {
      if (this.#held.get(id) !== held) return;
      this.#held.delete(id);
      await db.delete(consoleLoads).where(and(eq(consoleLoads.instrumentId, id), eq(consoleLoads.owner, owner)));
    });
  }

  async #tend(died: string | null): Promise<void> {
    if (this.#going) return;
    this.#going = true;
    try {
      await Promise.all([...this.#held.values()].map((held) => this.#speak(held)));
      await this.#own();
      await this.#others(died);
    } catch (error) {
      // The database or a load is away; the next turn may find it.
      this.#parts.log.debug({ err: error }, 'could not look after loads of the console');
    } finally {
      this.#going = false;
    }
  }

  /** Keep the load's watchdog quiet; one that is off by now is let go. */
  async #speak(held: Held): Promise<void> {
    const { load, taken } = held;
    try {
      const client = await this.#parts.links.ready(load.instrument);
      if ((await isOff(client, load.profile)) !== true || performance.now() - taken < GRACE_MILLISECONDS) return;
      if (this.#held.get(load.instrument.id) !== held) return;
      if ('watchdog' in load.profile.commands)
        await client.confirm(commandFor(load.profile, 'watchdog', { seconds: 0 }));
      await this.#forget(held);
    } catch {
      // It does not answer; its own watchdog has it.
    }
  }

  async #own(): Promise<void> {
    const { db, owner } = this.#parts;
    if (this.#held.size === 0) return;
    // A run that took the load looks after it from then on.
    const leased = new Set((await listLeases(db)).map(({ instrumentId }) => instrumentId));
    for (const held of [...this.#held.values()]) if (leased.has(held.load.instrument.id)) await this.#forget(held);
    await db
      .update(consoleLoads)
      .set({ aliveAt: dbNow as never })
      .where(eq(consoleLoads.owner, owner));
  }

  /** Loads another server switched on and no longer looks after go off. */
  async #others(died: string | null): Promise<void> {
    const { db, links, roster, owner } = this.#parts;
    const silent = lt(consoleLoads.aliveAt, sql`UTC_TIMESTAMP(3) - INTERVAL ${DEAD_SECONDS} SECOND`);
    const rows = await db
      .select()
      .from(consoleLoads)
      .where(died === null ? silent : or(silent, eq(consoleLoads.owner, died)));
    for (const row of rows) {
      if (row.owner === owner && this.#held.has(row.instrumentId)) continue;
      // Whoever stands beside its bench switches it off.
      if (roster.elsewhere.some(({ id }) => id === row.instrumentId)) continue;
      const load = roster.loads.find(({ instrument }) => instrument.id === row.instrumentId);
      const isFree = !(await listLeases(db)).some(({ instrumentId }) => instrumentId === row.instrumentId);
      if (load && isDriven(load) && isFree) {
        const { sure } = await links.off(load, OFF_MILLISECONDS);
        if (!sure) continue;
      }
      await db
        .delete(consoleLoads)
        .where(and(eq(consoleLoads.instrumentId, row.instrumentId), eq(consoleLoads.owner, row.owner)));
    }
  }
}
