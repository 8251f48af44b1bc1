// Several hosts of one MariaDB cluster on this machine, for trying out and for the tests of faults: each with its own data
// folder, address and ports; all of them hold the same.
import { spawnSync } from 'node:child_process';
import { chmodSync, existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { userInfo } from 'node:os';
import { join } from 'node:path';
import { findProgram } from './install.mjs';
import { freePort, secretOf, startMariadb, writeWhole } from './mariadb.mjs';

/** Debian's MariaDB brings it along. */
const LIBRARIES = ['/usr/lib/galera/libgalera_smm.so', '/usr/lib/libgalera_smm.so'];
const NAME = 'lastmark';
/**
 * A host that is silent for three seconds is left out, since nothing is written while the others wait for it. One that only
 * some find silent has longer: on a busy machine hosts would go on suspecting each other.
 */
const SUSPECT =
  'evs.keepalive_period=PT0.5S;evs.suspect_timeout=PT3S;evs.inactive_timeout=PT12S;evs.inactive_check_period=PT0.5S';

/** The library hosts speak to each other by. @throws Error where it is missing */
function library() {
  const found = LIBRARIES.find((path) => existsSync(path));
  if (!found) throw new Error('The cluster needs the package galera-4 of Debian, which comes with mariadb-server.');
  return found;
}

/**
 * Where a new host takes its data from. Its copying program gives up the rights of root, and then cannot write to a folder
 * of root's: where this runs as root, it is told to keep them.
 */
function copying(folder) {
  if (process.getuid?.() !== 0) return { method: 'rsync', env: process.env };
  const programs = join(folder, 'programs');
  mkdirSync(programs, { recursive: true, mode: 0o700 });
  const program = (name, text) => {
    writeFileSync(join(programs, name), `#!/bin/sh\n${text}\n`);
    chmodSync(join(programs, name), 0o700);
  };
  const copy = findProgram('rsync');
  program(
    'rsync',
    `case " $* " in *" --daemon "*) exec ${copy} "$@" --dparam=uid=0 --dparam=gid=0;; esac\nexec ${copy} "$@"`,
  );
  program('wsrep_sst_kept', `PATH="${programs}:$PATH"\nexport PATH\nexec ${findProgram('wsrep_sst_rsync')} "$@"`);
  return { method: 'kept', env: { ...process.env, PATH: `${programs}:${process.env.PATH}` } };
}

const NOWHERE = '00000000-0000-0000-0000-000000000000:-1';

/** How far a host that was ended had come: read from its tables, since one that was killed could not write it down. */
function positionOf(folder, within = []) {
  const dataDir = join(folder, 'mariadb');
  if (!existsSync(join(dataDir, 'mysql'))) return NOWHERE;
  const log = join(folder, 'recover.log');
  rmSync(log, { force: true });
  const [program, ...words] = [...within, findProgram('mariadbd')];
  spawnSync(
    program,
    [
      ...words,
      '--no-defaults',
      `--datadir=${dataDir}`,
      `--tmpdir=${join(folder, 'mariadb.tmp')}`,
      `--socket=${join(folder, 'recover.sock')}`,
      '--skip-networking',
      `--user=${userInfo().username}`,
      '--wsrep-recover',
      `--log-error=${log}`,
    ],
    { stdio: 'ignore' },
  );
  const [, position = NOWHERE] =
    /Recovered position: (\S+)/.exec(existsSync(log) ? readFileSync(log, 'utf8') : '') ?? [];
  return position;
}

/**
 * Three hosts (or as many as there are addresses), started one after the other.
 * @param folder holds a folder a host
 * @param addresses where they listen
 * @param within what each is started within: of its own network, say
 * @returns hosts with kill, freeze, thaw and start; their common address; and stop
 */
export async function startCluster(
  folder,
  { addresses = ['127.0.0.1', '127.0.0.2', '127.0.0.3'], within = () => [] } = {},
) {
  const provider = library();
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  const secret = secretOf(folder);
  const { method, env } = copying(folder);
  const hosts = [];
  for (const [at, host] of addresses.entries()) {
    const own = join(folder, `host-${at + 1}`);
    mkdirSync(own, { recursive: true, mode: 0o700 });
    writeWhole(join(own, 'database.secret'), secret);
    const [port, group, steps, whole] = await ports(host, within(at).length > 0);
    hosts.push({ at, host, folder: own, port, group, steps, whole, database: null });
  }
  const peers = hosts.map(({ host, group }) => `${host}:${group}`).join(',');

  /** @param first whether it begins a cluster rather than joining one */
  async function start(one, first = false, position = positionOf(one.folder, within(one.at))) {
    const { host, port, group, steps, whole } = one;
    const options = [
      `gmcast.listen_addr=tcp://${host}:${group}`,
      `base_port=${group}`,
      `ist.recv_addr=${host}:${steps}`,
      'gcache.size=128M',
      SUSPECT,
    ];
    one.database = await startMariadb(one.folder, {
      host,
      port,
      cluster: {
        within: within(one.at),
        env,
        filled: !first,
        more: [
          '--binlog-format=ROW',
          '--innodb-autoinc-lock-mode=2',
          '--innodb-buffer-pool-size=128M',
          '--wsrep-on=ON',
          `--wsrep-provider=${provider}`,
          `--wsrep-provider-options=${options.join(';')}`,
          `--wsrep-cluster-name=${NAME}`,
          `--wsrep-cluster-address=gcomm://${peers}`,
          `--wsrep-node-name=host-${one.at + 1}`,
          `--wsrep-node-address=${host}:${group}`,
          `--wsrep-sst-method=${method}`,
          `--wsrep-sst-receive-address=${host}:${whole}`,
          '--wsrep-slave-threads=2',
          ...(position === NOWHERE ? [] : [`--wsrep-start-position=${position}`]),
          ...(first ? ['--wsrep-new-cluster'] : []),
        ],
      },
    });
  }

  // Whoever came farthest begins; the others take from it what they miss.
  const positions = hosts.map((one) => positionOf(one.folder, within(one.at)));
  const far = (position) => Number(position.split(':')[1]);
  const first = hosts.reduce((best, one) => (far(positions[one.at]) > far(positions[best.at]) ? one : best));
  mayBegin(first.folder);
  await start(first, true, positions[first.at]);
  for (const one of hosts) if (one !== first) await start(one, false, positions[one.at]);

  return {
    url: `mysql://lastmark:${secret}@${hosts.map(({ host, port }) => `${host}:${port}`).join(',')}/lastmark`,
    hosts: hosts.map((one) => ({
      name: `host-${one.at + 1}`,
      at: one.at,
      get url() {
        return one.database.url;
      },
      get pid() {
        return one.database.pid;
      },
      kill: () => one.database.kill(),
      freeze: () => process.kill(one.database.pid, 'SIGSTOP'),
      thaw: () => process.kill(one.database.pid, 'SIGCONT'),
      start: () => start(one),
    })),
    stop: async () => {
      // The last to go may begin the next time.
      for (const one of [...hosts].reverse()) await one.database?.stop();
    },
  };
}

/** Four ports of one host: for clients, for the others, for what it missed, for all data. In a network of its own any are free. */
async function ports(host, own) {
  if (own) return [3306, 4567, 4568, 4444];
  const free = [];
  while (free.length < 4) {
    const port = await freePort(host);
    if (!free.includes(port)) free.push(port);
  }
  return free;
}

/** Let a host begin a cluster that was ended all at once. */
function mayBegin(folder) {
  const path = join(folder, 'mariadb', 'grastate.dat');
  if (!existsSync(path)) return;
  writeFileSync(path, readFileSync(path, 'utf8').replace(/safe_to_bootstrap: 0/, 'safe_to_bootstrap: 1'));
}
