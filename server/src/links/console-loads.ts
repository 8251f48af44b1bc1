// Loads a person switched on at the console: looked after by the server that sent the command, for as long as it lives.
import { commandFor } from '@lastmark/core/instrument';
import { and, eq, lt, or, sql } from 'drizzle-orm';
import type { Logger } from 'pino';
import type { Database } from '../db/database.ts';
import { consoleLoads } from '../db/schema.ts';
import { listLeases } from '../runner/leases.ts';
import { DEAD_SECONDS, dbNow } from '../runner/ownership.ts';
import type { Links } from './links.ts';
import { isOff } from './off.ts';
import { isDriven, type KnownLoad, type Roster } from './roster.ts';

/** How often a load is spoken to, so that its own watchdog stays quiet, ms. */
const EVERY_MILLISECONDS = 1000;
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

export class ConsoleLoads {
  readonly #parts: Parts;
  readonly #held = new Map<string, KnownLoad>();
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
    await db
      .insert(consoleLoads)
      .values({ instrumentId: load.instrument.id, owner, aliveAt: dbNow as never })
      .onDuplicateKeyUpdate({ set: { owner, aliveAt: dbNow as never } });
    this.#held.set(load.instrument.id, load);
    const client = await links.ready(load.instrument);
    if ('watchdog' in load.profile.commands)
      await client.confirm(commandFor(load.profile, 'watchdog', { seconds: WATCHDOG_SECONDS }));
  }

  /** The server stops: what was switched on from it goes off. */
  async close(): Promise<void> {
    if (this.#timer) clearInterval(this.#timer);
    this.#timer = null;
    const held = [...this.#held.values()];
    await Promise.all(
      held.map(async (load) => {
        const { sure } = await this.#parts.links.off(load, OFF_MILLISECONDS);
        if (sure) await this.#forget(load.instrument.id).catch(() => undefined);
      }),
    );
  }

  async #forget(instrumentId: string): Promise<void> {
    const { db, owner } = this.#parts;
    this.#held.delete(instrumentId);
    await db
      .delete(consoleLoads)
      .where(and(eq(consoleLoads.instrumentId, instrumentId), eq(consoleLoads.owner, owner)));
  }

  async #tend(died: string | null): Promise<void> {
    if (this.#going) return;
    this.#going = true;
    try {
      await Promise.all([...this.#held.values()].map((load) => this.#speak(load)));
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
  async #speak(load: KnownLoad): Promise<void> {
    try {
      const client = await this.#parts.links.ready(load.instrument);
      if ((await isOff(client, load.profile)) !== true) return;
      if ('watchdog' in load.profile.commands)
        await client.confirm(commandFor(load.profile, 'watchdog', { seconds: 0 }));
      await this.#forget(load.instrument.id);
    } catch {
      // It does not answer; its own watchdog has it.
    }
  }

  async #own(): Promise<void> {
    const { db, owner } = this.#parts;
    if (this.#held.size === 0) return;
    // A run that took the load looks after it from then on.
    const leased = new Set((await listLeases(db)).map(({ instrumentId }) => instrumentId));
    for (const id of [...this.#held.keys()]) if (leased.has(id)) await this.#forget(id);
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
