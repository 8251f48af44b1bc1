// What a server works with besides its database: connections, live numbers, runs; put together and taken apart in order.
import type { Logger } from 'pino';
import type { Copies } from './copies/copies.ts';
import { OffAtOthers } from './copies/off.ts';
import type { Peers } from './copies/peers.ts';
import { Relay } from './copies/relay.ts';
import type { Database } from './db/database.ts';
import { newId } from './db/ids.ts';
import type { Hand } from './demo/hand.ts';
import { FigureKeeper } from './jobs/figure-keeper.ts';
import { Jobs, type Threads } from './jobs/jobs.ts';
import { Sealer } from './jobs/sealer.ts';
import { ConsoleLoads } from './links/console-loads.ts';
import { Links } from './links/links.ts';
import { LoadsOff } from './links/loads-off.ts';
import type { Places } from './links/places.ts';
import { Roster } from './links/roster.ts';
import { LiveStream } from './live/stream.ts';
import { CommandLog } from './log/commands.ts';
import { Journal } from './log/journal.ts';
import type { ConfirmRule } from './runner/faults.ts';
import { Runner } from './runner/runner.ts';
import { Sweeper } from './traces/sweeper.ts';

export interface WorkingParts {
  readonly db: Database;
  /** Few connections of its own for what must never wait behind other requests: leases and Loads off. */
  readonly vital: Database;
  readonly log: Logger;
  /** Takes what is done beside any request; one of its own where it is left out. */
  readonly journal?: Pick<Journal, 'keep'>;
  /** Where the worker threads find the database. */
  readonly databaseUrl: string;
  /** Worker threads that are somebody else's to close; its own where left out. */
  readonly threads?: Threads;
  readonly version: string;
  readonly hand?: Hand | null;
  readonly places?: Places;
  readonly confirm?: ConfirmRule;
  /** This server's name among those on the database. */
  readonly owner?: string;
  /** The other copies of the server and how they are asked; left out where there can be none. */
  readonly others?: { readonly copies: Copies; readonly peers: Peers } | null;
  /** How often instruments are asked while someone looks, ms. */
  readonly liveEvery?: number;
}

export interface Working {
  readonly version: string;
  /** The bench it stands beside; empty where there is one bench. */
  readonly bench: string;
  /** Benches other copies of the server stand beside. */
  readonly otherBenches: () => readonly string[];
  readonly links: Links;
  readonly roster: Roster;
  readonly live: LiveStream;
  readonly runner: Runner;
  readonly consoleLoads: ConsoleLoads;
  readonly loadsOff: LoadsOff;
  readonly jobs: Jobs;
  readonly figures: FigureKeeper;
  /** Hands on the demo's simulated bench; null without one. */
  readonly hand: Hand | null;
  /** Look after loads and runs, also those of a server known to be gone. */
  readonly watch: (died?: string | null) => Promise<void>;
  /** Whether it is on its way to its end. */
  readonly isStopping: () => boolean;
  /** Loads off, runs interrupted, connections closed. */
  readonly close: () => Promise<void>;
}

export function createWorking({
  db,
  vital,
  log,
  journal = new Journal(db, log),
  databaseUrl,
  threads,
  version,
  hand = null,
  places,
  confirm,
  owner,
  others = null,
  liveEvery,
}: WorkingParts): Working {
  const self = owner ?? newId();
  const bench = others?.copies.bench ?? '';
  const roster = new Roster(vital, bench);
  const commands = new CommandLog(journal);
  const links = new Links(places, roster.wireOf, bench, (instrument, line) => commands.take(instrument, line));
  const relay = others && new Relay(others.copies, others.peers);
  const live = new LiveStream(roster, links, liveEvery, relay);
  const copies = others?.copies ?? null;
  const runner = new Runner({ db, vital, links, live, log, owner: self, copies, ...(confirm ? { confirm } : {}) });
  const consoleLoads = new ConsoleLoads({ db: vital, links, roster, log, owner: self });
  const elsewhere = others && new OffAtOthers(others.copies, others.peers);
  const loadsOff = new LoadsOff({ vital, links, roster, log, elsewhere });
  const jobs = new Jobs(databaseUrl, threads);
  const figures = new FigureKeeper({ db, jobs, log, owner: self });
  const sweeper = new Sweeper(db, log);
  const sealer = new Sealer({ db, log, owner: self });
  let stopping = false;
  return {
    version,
    bench,
    otherBenches: () => copies?.others.map((one) => one.bench) ?? [],
    isStopping: () => stopping,
    jobs,
    figures,
    links,
    roster,
    live,
    runner,
    consoleLoads,
    loadsOff,
    hand,
    watch: async (died = null) => {
      await roster.watch();
      // Whoever looks after a run of another bench must know whether somebody stands beside that.
      await copies?.watch();
      await consoleLoads.watch(died);
      await runner.watch(died);
      figures.watch();
      sweeper.watch();
      sealer.watch();
    },
    close: async () => {
      stopping = true;
      await Promise.all([runner.close(), consoleLoads.close(), figures.close(), sweeper.close(), sealer.close()]);
      await jobs.close();
      await copies?.close();
      elsewhere?.close();
      loadsOff.close();
      live.close();
      roster.close();
      hand?.close();
      links.close();
      await commands.close();
    },
  };
}
