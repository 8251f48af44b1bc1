// Installs what is missing: Debian packages when root, npm packages from the lock file.
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { delimiter, join } from 'node:path';
import { ROOT } from './paths.mjs';
import { giveUp, say } from './say.mjs';

const SEARCHED = [...(process.env.PATH ?? '').split(delimiter), '/usr/sbin', '/usr/local/sbin', '/sbin'];

/** Full path of a program, or undefined. Debian keeps servers in folders a user's PATH may lack. */
export const findProgram = (name) => SEARCHED.map((folder) => join(folder, name)).find((path) => existsSync(path));

function run(command, args, what) {
  const { status, stdout, stderr, error } = spawnSync(command, args, {
    cwd: ROOT,
    encoding: 'utf8',
    env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
    maxBuffer: 1 << 28,
  });
  if (error || status !== 0) giveUp(`${what} failed:\n${error?.message ?? `${stdout}${stderr}`.slice(-3000)}`);
}

/**
 * Make sure programs from a Debian package are there.
 * @param wanted package name → a program it brings
 */
export function needPrograms(wanted) {
  const missing = Object.entries(wanted).flatMap(([name, program]) => (findProgram(program) ? [] : [name]));
  if (missing.length === 0) return;
  const install = `apt-get install -y --no-install-recommends ${missing.join(' ')}`;
  if (process.getuid?.() !== 0) {
    giveUp(
      `${missing.join(' and ')} is missing and only root can install it. Run this, then start again:\n\n  sudo apt-get update && sudo ${install}`,
    );
  }
  if (!findProgram('apt-get'))
    giveUp(`${missing.join(' and ')} is missing and this is not Debian: install it with your system's tools.`);
  say(`installing ${missing.join(', ')} from Debian (about half a minute)`);
  run('apt-get', ['update', '-qq'], 'apt-get update');
  run('apt-get', [...install.split(' ').slice(1), '-qq'], install);
}

const hashOf = (path) => createHash('sha256').update(readFileSync(path)).digest('hex');

/** Install npm packages when the lock file changed since the last install. */
export function needPackages() {
  const stamp = join(ROOT, 'node_modules', '.installed-lock');
  const lock = hashOf(join(ROOT, 'package-lock.json'));
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === lock) return;
  say('installing npm packages from the lock file (one to three minutes)');
  run('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'], 'npm ci');
  writeFileSync(stamp, lock);
}

/** Refuse a Node.js the project does not run on. */
export function needNode() {
  const [major = 0, minor = 0] = process.versions.node.split('.').map(Number);
  if (major < 20 || (major === 20 && minor < 19))
    giveUp(`Node ${process.versions.node} is too old: 20.19 or newer is needed.`);
}
