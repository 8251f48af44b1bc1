// The world of a drill: a database of its own, a simulated bench, and everything a server works with, on these.
import type { BenchFile, InstrumentClass } from '@lastmark/bench/sim';
import { type DrillPartRow, ROUTES } from '@lastmark/contract';
import { sql } from 'drizzle-orm';
import type { Router } from 'express';
import type { Logger } from 'pino';
import { listInstruments } from '../bench/store.ts';
import { readAddress, withName } from '../db/address.ts';
import { codesOf } from '../db/again.ts';
import { connect, type Database, VITAL_CONNECTIONS } from '../db/database.ts';
import { migrate } from '../db/migrate.ts';
import { Hand } from '../demo/hand.ts';
import type { Entrance } from '../http/entrance.ts';
import type { Call, Handler, Handlers } from '../http/handlers.ts';
import { operations } from '../http/operations.ts';
import { conflict, ProblemError, refused } from '../http/problem.ts';
import { Journal } from '../log/journal.ts';
import { MIGRATIONS } from '../paths.ts';
import { getSheet } from '../sheets/store.ts';
import { createWorking, type Working } from '../working.ts';
import { PRACTICE_SPEED, type StartBench } from './bench-process.ts';
import { fillWorld, readdress } from './fill.ts';

/** What feeds a cable under test. */
const FEEDER = 'Six 210';

export interface WorldParts {
  /** The real database; the world's stands beside it. */
  readonly db: Database;
  readonly databaseUrl: string;
  readonly log: Logger;
  /** Who is in the real world is in this one. */
  readonly entrance: Entrance;
  readonly version: string;
  readonly startBench: StartBench;
  readonly handlers: (working: Working) => Handlers;
  /** Switch off every load of the real bench too: whoever presses it in practice may have meant that one. */
  readonly realOff: () => Promise<unknown>;
}

const nameOf = (databaseUrl: string): string => readAddress(databaseUrl).database;
/** Databases of drills begin with this. */
export const worldPrefix = (databaseUrl: string): string => `${nameOf(databaseUrl)}_drill_`;
export const worldName = (databaseUrl: string, drillId: string): string =>
  `${worldPrefix(databaseUrl)}${drillId.toLowerCase()}`;

const quoted = (name: string) => sql.raw(`\`${name.replaceAll('`', '')}\``);

/** Databases of drills there are. */
export async function worldsIn(db: Database, databaseUrl: string): Promise<readonly string[]> {
  const prefix = worldPrefix(databaseUrl).replace(/[\\%_]/g, (sign) => `\\${sign}`);
  const [rows] = (await db.execute(
    sql`SELECT SCHEMA_NAME AS name FROM information_schema.SCHEMATA WHERE SCHEMA_NAME LIKE ${`${prefix}%`}`,
  )) as unknown as [{ name: string }[]];
  return rows.map(({ name }) => name);
}

export const dropWorld = (db: Database, name: string) => db.execute(sql`DROP DATABASE IF EXISTS ${quoted(name)}`);

/** What leaves the house, or could be taken for real outside: nothing of it is made of practice. */
const LEAVES = new Set<string>(['issueReport', 'takePackage', 'showDemo']);
const leaves = (name: keyof typeof ROUTES): boolean => {
  const { answers, path } = ROUTES[name];
  if (path.startsWith('/attachments')) return false;
  const isFile = /\.\w+$/.test(path) && name !== 'openapi';
  return LEAVES.has(name) || isFile || !/^(application\/json|text\/event-stream)$/.test(answers);
};
const nothingLeaves: Handler = async () => {
  throw conflict('This is practice: nothing of it is exported, reported or taken in.');
};

export class World {
  readonly drillId: string;
  readonly name: string;
  readonly db: Database;
  readonly router: Router;
  readonly hand: Hand;
  readonly #close: () => Promise<void>;
  #onBench: string | null = null;

  private constructor(
    { drillId, name, db, router, hand }: Pick<World, 'drillId' | 'name' | 'db' | 'router' | 'hand'>,
    close: () => Promise<void>,
  ) {
    this.drillId = drillId;
    this.name = name;
    this.db = db;
    this.router = router;
    this.hand = hand;
    this.#close = close;
  }

  get onBench(): string | null {
    return this.#onBench;
  }

  /**
   * Open the world of a drill, made anew where there is none.
   * @returns it, and its parts where it was made
   * @throws 503 where the database does not let another one be made
   */
  static async open(
    parts: WorldParts,
    drillId: string,
    file: BenchFile,
  ): Promise<{ readonly world: World; readonly made: DrillPartRow[] | null }> {
    const name = worldName(parts.databaseUrl, drillId);
    const there = (await worldsIn(parts.db, parts.databaseUrl)).includes(name);
    if (!there) await makeDatabase(parts.db, name);
    const bench = await parts.startBench(file);
    const url = withName(parts.databaseUrl, name);
    const { pool, db } = connect(url);
    const vital = connect(url, VITAL_CONNECTIONS);
    const hand = new Hand(bench.ports.control);
    const journal = new Journal(db, parts.log);
    const working = createWorking({ ...parts, journal, db, vital: vital.db, databaseUrl: url, hand });
    const close = async () => {
      await working.close();
      await journal.close();
      await Promise.all([pool.end(), vital.pool.end(), bench.close()]);
    };
    try {
      await migrate(pool, MIGRATIONS);
      const portOf = (kind: InstrumentClass) => bench.ports[kind];
      const made = there ? null : await fillWorld(db, file, portOf);
      if (there) await readdress(db, portOf);
      await working.watch();
      const holder: { world?: World } = {};
      const router = operations({
        db,
        handlers: handlersOf(working, parts, async (sampleId) => holder.world?.place(sampleId)),
        wrote: () => working.figures.nudge(),
        entrance: parts.entrance,
        journal,
        practising: true,
      });
      const world = new World({ drillId, name, db, router, hand }, close);
      holder.world = world;
      return { world, made };
    } catch (error) {
      await close().catch(() => undefined);
      if (!there) await dropWorld(parts.db, name).catch(() => undefined);
      throw error;
    }
  }

  /** Put a sample on the bench: a charger by itself, a cable between a strong charger and the load. */
  async place(sampleId: string): Promise<void> {
    if (this.#onBench === sampleId) return;
    const [rows] = (await this.db.execute(
      sql`SELECT m.model, m.kind FROM samples s JOIN models m ON m.id = s.model_id WHERE s.id = ${sampleId}`,
    )) as unknown as [{ model: string; kind: string }[]];
    const [row] = rows;
    if (!row) throw conflict('This sample is not of the drill.');
    if (row.kind === 'cable') await this.hand.put(FEEDER, PRACTICE_SPEED, row.model);
    else await this.hand.put(row.model, PRACTICE_SPEED);
    this.#onBench = sampleId;
  }

  close(): Promise<void> {
    return this.#close();
  }
}

async function makeDatabase(db: Database, name: string): Promise<void> {
  try {
    await db.execute(sql`CREATE DATABASE ${quoted(name)} CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci`);
  } catch (error) {
    if (!codesOf(error).some((code) => code.endsWith('ACCESS_DENIED_ERROR'))) throw error;
    throw new ProblemError(
      503,
      'No world for practice',
      'The database does not let Lastmark make another one, and practice never goes into yours. Give its user the right to create databases, or start with "npm start" and no DATABASE_URL.',
    );
  }
}

/** Nothing of practice speaks to an instrument of the real bench. @throws 422 for another address than there is */
function stays(asked: string | null, there: string | null): void {
  if (asked !== there)
    throw refused('address', 'In practice an instrument answers where it does: its address cannot be another.');
}

/** The operations as everywhere, but for what leaves the house, what starts a run, and Loads off. */
function handlersOf(
  working: Working,
  { realOff, handlers }: Pick<WorldParts, 'realOff' | 'handlers'>,
  place: (sampleId: string) => Promise<void>,
): Handlers {
  const own = handlers(working);
  const held = Object.fromEntries(
    (Object.keys(ROUTES) as (keyof typeof ROUTES)[]).filter(leaves).map((name) => [name, nothingLeaves]),
  );
  return {
    ...own,
    ...held,
    startRun: async (call: Call<'startRun'>) => {
      await place((await getSheet(call.db, call.params.sheetId)).sampleId);
      return own.startRun(call);
    },
    runSimulated: async (call: Call<'runSimulated'>) => {
      await place(call.params.sampleId);
      return own.runSimulated(call);
    },
    createInstrument: async (call: Call<'createInstrument'>) => {
      stays(call.body.address, null);
      return own.createInstrument(call);
    },
    updateInstrument: async (call: Call<'updateInstrument'>) => {
      const there = (await listInstruments(call.db)).find(({ id }) => id === call.params.instrumentId);
      stays(call.body.address, there?.address ?? null);
      return own.updateInstrument(call);
    },
    loadsOff: async (call: Call<'loadsOff'>) => {
      const real = realOff();
      const answer = await own.loadsOff(call);
      await real;
      return answer;
    },
  } as Handlers;
}
