// Settings from the environment.
import { readFileSync } from 'node:fs';
import { delimiter, join } from 'node:path';
import { BENCH_NAME, ROLES } from '@lastmark/contract';
import { readAddress } from './db/address.ts';
import { newId } from './db/ids.ts';
import { isLoopback } from './http/door.ts';
import { LOOPBACK_NETWORKS } from './links/networks.ts';
import { DATA, PACKAGE } from './paths.ts';
import type { ProviderSettings } from './people/provider.ts';

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
  /** Whether people are told apart: always beyond loopback, elsewhere when it is asked for. */
  readonly people: boolean;
  /** The lab's own OpenID Connect sign-in; null without one. */
  readonly provider: ProviderSettings | null;
  /** Certificate and key it speaks TLS with; null for none. */
  readonly tls: { readonly cert: string; readonly key: string } | null;
  /** Proxies before it whose word on where a request comes from is taken. */
  readonly proxies: number;
  /** Networks instruments may be on: `192.168.1.0/24,…`. */
  readonly instrumentNetworks: string;
  /** Folders other programs write their logs to. */
  readonly logFolders: readonly string[];
  /** The bench this server stands beside; empty where there is one bench. */
  readonly bench: string;
  /** Where other copies of the server reach this one. */
  readonly url: string | null;
  /** This server's name among those on the database. */
  readonly owner: string;
  /** Name of the server this one stands in for, where it is known to be gone. */
  readonly died: string | null;
  /** How often a backup is made, hours, and where it is kept; null for never. */
  readonly backups: { readonly hours: number; readonly folder: string } | null;
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

/** @throws Error where a server that others can reach would let in anybody */
function tellsApart({ LASTMARK_PEOPLE: people = '' }: NodeJS.ProcessEnv, host: string): boolean {
  if (isLoopback(host)) return people === '1';
  if (people === '0')
    throw new Error(
      `HOST is ${host}, which others can reach, and LASTMARK_PEOPLE=0 would let anybody switch loads and mains.\nLeave LASTMARK_PEOPLE out, so that people sign in, or leave HOST out, so that only this machine gets in.`,
    );
  return true;
}

/** @throws Error where only one of the two is set, or a file cannot be read */
function tlsOf({ LASTMARK_TLS_CERT: cert, LASTMARK_TLS_KEY: key }: NodeJS.ProcessEnv): Config['tls'] {
  if (!cert && !key) return null;
  if (!cert || !key) throw new Error('LASTMARK_TLS_CERT and LASTMARK_TLS_KEY go together: set both, or neither.');
  const read = (name: string, path: string): string => {
    try {
      return readFileSync(path, 'utf8');
    } catch (error) {
      throw new Error(`${name}: "${path}" cannot be read (${(error as Error).message}).`);
    }
  };
  return { cert: read('LASTMARK_TLS_CERT', cert), key: read('LASTMARK_TLS_KEY', key) };
}

/** @throws Error for settings that go together, an address without TLS, a role there is not */
function providerOf(env: NodeJS.ProcessEnv): ProviderSettings | null {
  const { LASTMARK_OIDC_ISSUER: issuer, LASTMARK_OIDC_CLIENT: clientId, LASTMARK_OIDC_SECRET_FILE: file } = env;
  if (!issuer && !clientId && !file) return null;
  if (!issuer || !clientId || !file)
    throw new Error(
      'LASTMARK_OIDC_ISSUER, LASTMARK_OIDC_CLIENT and LASTMARK_OIDC_SECRET_FILE go together: set all of them.',
    );
  const url = URL.canParse(issuer) ? new URL(issuer) : null;
  if (!url || (url.protocol !== 'https:' && !isLoopback(url.hostname)))
    throw new Error(`LASTMARK_OIDC_ISSUER is "${issuer}"; give an address that begins with https://.`);
  const role = ROLES.find((one) => one === (env.LASTMARK_OIDC_ROLE ?? 'reader'));
  if (!role) throw new Error(`LASTMARK_OIDC_ROLE is "${env.LASTMARK_OIDC_ROLE}"; give one of ${ROLES.join(', ')}.`);
  let clientSecret: string;
  try {
    clientSecret = readFileSync(file, 'utf8').trim();
  } catch (error) {
    throw new Error(`LASTMARK_OIDC_SECRET_FILE: "${file}" cannot be read (${(error as Error).message}).`);
  }
  return { issuer, clientId, clientSecret, role, name: env.LASTMARK_OIDC_NAME || 'The lab’s own sign-in' };
}

const MOST_HOURS = 24 * 31;

/** @throws Error for a number of hours nobody means */
function backupsOf({
  LASTMARK_BACKUPS: hours = '0',
  LASTMARK_BACKUP_FOLDER: folder,
}: NodeJS.ProcessEnv): Config['backups'] {
  const every = Number(hours);
  if (!(every >= 0 && every <= MOST_HOURS))
    throw new Error(`LASTMARK_BACKUPS is "${hours}"; give the hours between two backups, 0 for none.`);
  return every === 0 ? null : { hours: every, folder: folder || join(DATA, 'backups') };
}

/** A small whole number. @throws Error where it is none */
function countOf(env: NodeJS.ProcessEnv, name: string): number {
  const count = Number(env[name] ?? 0);
  if (!Number.isInteger(count) || count < 0 || count > 10)
    throw new Error(`${name} is "${env[name]}"; give a number from 0 to 10.`);
  return count;
}

/** @throws Error for a name that is none */
function benchOf({ LASTMARK_BENCH: bench = '' }: NodeJS.ProcessEnv): string {
  if (bench.length > 40 || !BENCH_NAME.test(bench))
    throw new Error(`LASTMARK_BENCH is "${bench}"; give up to 40 letters, digits, spaces, points and dashes.`);
  return bench;
}

/** @throws Error for what is no address */
function urlOf({ LASTMARK_URL: url }: NodeJS.ProcessEnv): string | null {
  if (!url) return null;
  if (!URL.canParse(url) || !/^https?:$/.test(new URL(url).protocol))
    throw new Error(
      `LASTMARK_URL is "${url}"; give the address other copies reach this one at, such as https://bench-1:4310.`,
    );
  return url;
}

/** Read the settings. @throws Error with what to set when one is missing or wrong */
export function readConfig(env: NodeJS.ProcessEnv): Config {
  const databaseUrl = env.DATABASE_URL;
  if (!databaseUrl) throw new Error('DATABASE_URL is not set. "npm start" starts a database of its own and sets it.');
  readAddress(databaseUrl);
  const port = Number(env.PORT ?? 4310);
  if (!Number.isInteger(port) || port < 0 || port > 65_535)
    throw new Error(`PORT is "${env.PORT}"; give a number from 0 to 65535.`);
  const host = env.HOST ?? '127.0.0.1';
  return {
    databaseUrl,
    host,
    port,
    demo: env.LASTMARK_DEMO !== '0',
    benchPort: env.BENCH_PORT ? Number(env.BENCH_PORT) : null,
    hosts: listed(env.LASTMARK_HOSTS, ','),
    people: tellsApart(env, host),
    provider: providerOf(env),
    tls: tlsOf(env),
    proxies: countOf(env, 'LASTMARK_PROXIES'),
    logFolders: listed(env.LASTMARK_LOGS, delimiter),
    instrumentNetworks: env.LASTMARK_INSTRUMENTS || LOOPBACK_NETWORKS,
    bench: benchOf(env),
    url: urlOf(env),
    owner: env.LASTMARK_SERVER || newId(),
    died: env.LASTMARK_DIED || null,
    backups: backupsOf(env),
    upgradeBackup: env.LASTMARK_UPGRADE_BACKUP !== '0',
    version,
    logLevel: env.LOG_LEVEL ?? 'info',
  };
}
