// Settings from the environment.
import { readFileSync } from 'node:fs';
import { delimiter } from 'node:path';
import { newId } from './db/ids.ts';
import { LOOPBACK_NETWORKS } from './links/networks.ts';
import { PACKAGE } from './paths.ts';

export interface Config {
  readonly databaseUrl: string;
  readonly host: string;
  readonly port: number;
  /** Fill an empty database with the demo. */
  readonly demo: boolean;
  /** First port of the simulated bench, where there is one. */
  readonly benchPort: number | null;
  /** Further host names the server answers to. */
  readonly hosts: readonly string[];
  /** The token asked for beyond loopback; null makes one. */
  readonly token: string | null;
  /** Networks instruments may be on: `192.168.1.0/24,…`. */
  readonly instrumentNetworks: string;
  /** Folders other programs write their logs to. */
  readonly logFolders: readonly string[];
  /** This server's name among those on the database. */
  readonly owner: string;
  /** Name of the server this one stands in for, where it is known to be gone. */
  readonly died: string | null;
  /** Keep a copy before the tables are changed by a newer version. */
  readonly upgradeBackup: boolean;
  readonly version: string;
  readonly logLevel: string;
}

/** Version of the running program. */
export const version = (JSON.parse(readFileSync(PACKAGE, 'utf8')) as { version: string }).version;

const listed = (text: string | undefined, between: string): string[] =>
  (text ?? '')
    .split(between)
    .map((one) => one.trim())
    .filter(Boolean);

/** Read the settings. @throws Error with what to set when one is missing or wrong */
export function readConfig(env: NodeJS.ProcessEnv): Config {
  const databaseUrl = env.DATABASE_URL;
  if (!databaseUrl) throw new Error('DATABASE_URL is not set. "npm start" starts a database of its own and sets it.');
  const port = Number(env.PORT ?? 4310);
  if (!Number.isInteger(port) || port < 0 || port > 65_535)
    throw new Error(`PORT is "${env.PORT}"; give a number from 0 to 65535.`);
  return {
    databaseUrl,
    host: env.HOST ?? '127.0.0.1',
    port,
    demo: env.LASTMARK_DEMO !== '0',
    benchPort: env.BENCH_PORT ? Number(env.BENCH_PORT) : null,
    hosts: listed(env.LASTMARK_HOSTS, ','),
    token: env.LASTMARK_TOKEN || null,
    logFolders: listed(env.LASTMARK_LOGS, delimiter),
    instrumentNetworks: env.LASTMARK_INSTRUMENTS || LOOPBACK_NETWORKS,
    owner: env.LASTMARK_SERVER || newId(),
    died: env.LASTMARK_DIED || null,
    upgradeBackup: env.LASTMARK_UPGRADE_BACKUP !== '0',
    version,
    logLevel: env.LOG_LEVEL ?? 'info',
  };
}
