// Starts the server: settings, database, migrations, demo, listening; and stops it without losing anything.
import { createServer } from 'node:http';
import { createServer as createTlsServer } from 'node:https';
import type { AddressInfo } from 'node:net';
import { hostname } from 'node:os';
import { join } from 'node:path';
import { pino } from 'pino';
import { scopesOf } from './collections/guard.ts';
import { type Config, readConfig } from './config.ts';
import { Copies } from './copies/copies.ts';
import { peerDoorOf } from './copies/door.ts';
import { Elsewhere } from './copies/elsewhere.ts';
import { Peers } from './copies/peers.ts';
import { Signature } from './copies/signature.ts';
import { readAddress } from './db/address.ts';
import { again } from './db/again.ts';
import { alone } from './db/alone.ts';
import { backUpBeforeUpgrade } from './db/backup.ts';
import { connect, connectionsOf, VITAL_CONNECTIONS } from './db/database.ts';
import { migrate } from './db/migrate.ts';
import { instruments } from './db/schema.ts';
import { Hand } from './demo/hand.ts';
import { seedDemo } from './demo/seed.ts';
import { createHandlers } from './handlers.ts';
import { createApp } from './http/app.ts';
import { Door } from './http/door.ts';
import { OPEN } from './http/entrance.ts';
import { dropIncoming } from './http/incoming.ts';
import { BackupKeeper } from './jobs/backup-keeper.ts';
import { Networks } from './links/networks.ts';
import { Places } from './links/places.ts';
import { Journal } from './log/journal.ts';
import { Spool } from './log/spool.ts';
import { DATA, MIGRATIONS, WEB } from './paths.ts';
import { PeopleEntrance } from './people/entrance.ts';
import { firstCode } from './people/invitations.ts';
import { labKey, labName } from './people/keys.ts';
import { Provider } from './people/provider.ts';
import { startBenchProcess } from './practice/bench-process.ts';
import { Practice } from './practice/practice.ts';
import { Metrics } from './watch/metrics.ts';
import { createWorking } from './working.ts';

const STOP_MILLISECONDS = 10_000;
/** A connection is kept longer than whoever asks keeps it, so that none is closed under a question on its way. */
const KEEP_ALIVE_MILLISECONDS = 75_000;
const SWEEP_MILLISECONDS = 100;
const CUT_SHORT = 130;

/** What a signal does: while the server starts it ends at once, since a start can be cut short anywhere. */
let stop = (): void => process.exit(CUT_SHORT);

function listenToSignals(): void {
  // The start command is gone, and with it whoever would stop this server: that counts as a signal too.
  for (const signal of ['SIGINT', 'SIGTERM', 'disconnect'] as const) process.once(signal, () => stop());
}

/** Where others reach this one, unless it is told otherwise. */
function ownUrl({ host, tls }: Pick<Config, 'host' | 'tls'>, port: number): string {
  const name = host === '0.0.0.0' || host === '::' ? hostname() : host.includes(':') ? `[${host}]` : host;
  return `${tls ? 'https' : 'http'}://${name}:${port}`;
}

async function main(): Promise<void> {
  listenToSignals();
  const config = readConfig(process.env);
  const log = pino({ level: config.logLevel });
  // Whatever is forgotten somewhere in the background is written down and ends nothing: loads may be on.
  process.on('unhandledRejection', (error) => log.error({ err: error }, 'something failed in the background'));
  const { pool, db } = connect(config.databaseUrl);
  const vital = connect(config.databaseUrl, VITAL_CONNECTIONS);
  const { cluster } = readAddress(config.databaseUrl);
  await again(cluster, () => migrate(pool, MIGRATIONS, { before: () => backUpBeforeUpgrade(config) }));
  // Servers that start together fill an empty database once.
  const filled = config.demo && (await alone(pool, () => seedDemo(db, config.benchPort)));
  if (filled) {
    // The demo's instruments stand where the server does that filled it in.
    if (config.bench !== '') await db.update(instruments).set({ bench: config.bench });
    log.info('empty database: the demo was filled in');
  }
  const hand = config.benchPort ? new Hand(config.benchPort) : null;
  const { version, owner } = config;
  const places = new Places(new Networks(config.instrumentNetworks), config.logFolders);
  const door = new Door(config);
  const signature = new Signature(await labKey(db, 'copies'));
  const copies = new Copies({ db: vital.db, log, owner, bench: config.bench });
  const peers = new Peers(signature);
  const journal = new Journal(db, log, new Spool(join(DATA, 'journal', await labName(db))));
  await journal.takeUp().catch((error: unknown) => {
    log.warn({ err: error }, 'entries of the log that a server before this one left could not be written yet');
  });
  const working = createWorking({
    others: { copies, peers },
    journal,
    db,
    vital: vital.db,
    log,
    databaseUrl: config.databaseUrl,
    version,
    hand,
    places,
    owner,
  });
  // Before anyone is let in: loads and runs of a server that died are seen to.
  await working.watch(config.died);
  const keeper = config.backups && new BackupKeeper({ ...config, ...config.backups, db, log });
  keeper?.watch();
  const metrics = new Metrics({
    ...working,
    connections: () => connectionsOf(pool),
    backupAge: () => keeper?.age() ?? null,
  });
  const people = config.people ? await PeopleEntrance.open(db) : null;
  const code = people ? await firstCode(db) : null;
  const entrance = people ?? OPEN;
  const practice = new Practice({
    db,
    databaseUrl: config.databaseUrl,
    log,
    entrance,
    version,
    startBench: startBenchProcess,
    handlers: createHandlers,
    realOff: () => working.loadsOff.press(),
  });
  const handlers = createHandlers(working, {
    practice,
    metrics,
    people: people && {
      key: people.key,
      journal,
      provider: config.provider && new Provider(config.provider, people.key),
    },
  });
  const app = createApp({
    db,
    handlers,
    elsewhere: new Elsewhere(copies, peers),
    scopes: scopesOf(db),
    peers: peerDoorOf(working, { db, signature, handlers, journal }),
    log,
    web: WEB,
    door,
    entrance,
    journal,
    proxies: config.proxies,
    secure: config.tls !== null,
    paced: config.people,
    wrote: () => working.figures.nudge(),
    practice: practice.handle,
    metrics,
  });
  const keeping = { keepAliveTimeout: KEEP_ALIVE_MILLISECONDS };
  const server = config.tls ? createTlsServer({ ...keeping, ...config.tls }, app) : createServer(keeping, app);
  await new Promise<void>((resolve, reject) => {
    server.once('error', reject);
    server.listen(config.port, config.host, resolve);
  });
  const { port } = server.address() as AddressInfo;
  await copies.reachAt(config.url ?? ownUrl(config, port)).catch((error: unknown) => {
    log.warn({ err: error }, 'other copies do not know of this one yet');
  });
  let stopping = false;
  stop = () => {
    if (stopping) return;
    stopping = true;
    log.info('stopping: finishing what was accepted');
    setTimeout(() => process.exit(1), STOP_MILLISECONDS).unref();
    // Also those that are idle only once what they asked is answered.
    setInterval(() => server.closeIdleConnections(), SWEEP_MILLISECONDS);
    void Promise.all([practice.close(), working.close(), keeper?.close()])
      .then(() => new Promise((resolve) => server.close(resolve)))
      .then(() => journal.close())
      .then(() => Promise.all([pool.end(), vital.pool.end(), dropIncoming()]))
      .then(() => process.exit(0))
      .catch((error: unknown) => {
        log.error({ err: error }, 'could not stop in order');
        process.exit(1);
      });
  };
  log.info({ port }, 'listening');
  // The start command waits for this line, and prints the code. Without one it is told here.
  const told = { ready: true, port, people: config.people, code, secure: config.tls !== null };
  if (process.send) process.send(told);
  else if (code) console.warn(`Nobody is here yet. Come in with the code ${code} within a day.`);
}

main().catch((error: unknown) => {
  console.error(error instanceof Error ? error.message : error);
  process.exit(1);
});
