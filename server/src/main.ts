// Starts the server: settings, database, migrations, demo, listening; and stops it without losing anything.
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { pino } from 'pino';
import { readConfig } from './config.ts';
import { connect } from './db/database.ts';
import { migrate } from './db/migrate.ts';
import { Hand } from './demo/hand.ts';
import { seedDemo } from './demo/seed.ts';
import { createHandlers } from './handlers.ts';
import { createApp } from './http/app.ts';
import { Links } from './links/links.ts';
import { LiveStream } from './live/stream.ts';
import { MIGRATIONS, WEB } from './paths.ts';
import { Runner } from './runner/runner.ts';

const STOP_MILLISECONDS = 10_000;

async function main(): Promise<void> {
  const config = readConfig(process.env);
  const log = pino({ level: config.logLevel });
  const { pool, db } = connect(config.databaseUrl);
  await migrate(pool, MIGRATIONS);
  if (config.demo && (await seedDemo(db, config.benchPort))) log.info('empty database: the demo was filled in');
  const links = new Links();
  const live = new LiveStream(db, links);
  const runner = new Runner(db, links, live, log);
  const hand = config.benchPort ? new Hand(config.benchPort) : null;
  const loopbackOnly = /^(127\.|::1$|localhost$)/.test(config.host);
  const handlers = createHandlers({ version: config.version, links, live, runner, hand });
  const app = createApp({ db, handlers, log, web: WEB, loopbackOnly });
  const server = createServer(app);
  await new Promise<void>((resolve, reject) => {
    server.once('error', reject);
    server.listen(config.port, config.host, resolve);
  });
  runner.watch();
  const { port } = server.address() as AddressInfo;
  const stop = () => {
    log.info('stopping: finishing what was accepted');
    void runner.close().then(() => {
      live.close();
      hand?.close();
      links.close();
      server.close(() => pool.end().then(() => process.exit(0)));
    });
    server.closeIdleConnections();
    setTimeout(() => process.exit(1), STOP_MILLISECONDS).unref();
  };
  process.once('SIGINT', stop);
  process.once('SIGTERM', stop);
  // The start command is gone, and with it whoever would stop this server.
  process.once('disconnect', stop);
  log.info({ port }, 'listening');
  // The start command waits for this line.
  process.send?.({ ready: true, port });
}

main().catch((error: unknown) => {
  console.error(error instanceof Error ? error.message : error);
  process.exit(1);
});
