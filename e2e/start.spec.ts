// The start command itself: up, one at a time, and gone without a trace.
import { type ChildProcess, execFileSync, spawn, spawnSync } from 'node:child_process';
import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
// @ts-expect-error plain script without types
import { scratch } from '../scripts/lib/scratch.mjs';

const ROOT = join(import.meta.dirname, '..');
const START = join(ROOT, 'scripts', 'start.mjs');

/** Collects what a started process says, and waits for a sentence. */
function listen(child: ChildProcess) {
  let said = '';
  for (const stream of [child.stdout, child.stderr]) stream?.on('data', (chunk) => (said += chunk));
  return {
    said: () => said,
    until: async (sentence: RegExp) => {
      await expect.poll(() => said, { timeout: 250_000 }).toMatch(sentence);
      return sentence.exec(said);
    },
  };
}

const processesOn = (folder: string): string[] =>
  spawnSync('pgrep', ['-f', `datadir=${folder}`], { encoding: 'utf8' })
    .stdout.trim()
    .split('\n')
    .filter(Boolean);

test('start, serve, refuse a second start, stop by Ctrl-C, start again with everything kept', async () => {
  const folder = scratch('start');
  const env = { ...process.env, LASTMARK_DATA: folder, PORT: '0', DATABASE_URL: '', LASTMARK_DEMO: '0' };
  const start = () => {
    const child = spawn('node', [START], { env, stdio: ['ignore', 'pipe', 'pipe'], detached: true });
    return { child, ...listen(child), ended: new Promise<number | null>((resolve) => child.once('exit', resolve)) };
  };
  try {
    const first = start();
    const [, url] = (await first.until(/Lastmark is at {2}(http:\S+)/)) ?? [];
    expect(await (await fetch(`${url}/api/health`)).json()).toMatchObject({ status: 'ok', database: 'ok' });
    expect(await (await fetch(`${url}/api/samples`)).json()).toMatchObject({ total: 0 });
    const made = await fetch(`${url}/api/instruments`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({
        name: 'Kept',
        class: 'bench multimeter',
        firmware: '',
        calibrationDue: null,
        address: null,
        profileId: null,
        sees: null,
        specs: {},
      }),
    });
    expect(made.status).toBe(201);

    const second = spawnSync('node', [START], { env, encoding: 'utf8' });
    expect(second.status).toBe(1);
    expect(second.stderr).toContain('Lastmark is running on');

    // Ctrl-C reaches the whole group of the terminal.
    process.kill(-(first.child.pid ?? 0), 'SIGINT');
    expect(await first.ended).toBe(0);
    expect(first.said()).toContain('stopped');
    // Nothing went wrong behind the scenes either: warnings and errors are told as lines of JSON.
    expect(first.said()).not.toMatch(/"level":[456]0/);
    expect(processesOn(folder)).toEqual([]);

    const again = start();
    const [, later] = (await again.until(/Lastmark is at {2}(http:\S+)/)) ?? [];
    const { items } = (await (await fetch(`${later}/api/instruments`)).json()) as { items: { name: string }[] };
    expect(items.map(({ name }) => name)).toEqual(['Kept']);

    // Killed outright, its database is found and ended by the next start.
    again.child.kill('SIGKILL');
    await again.ended;
    expect(processesOn(folder)).toHaveLength(1);
    const third = start();
    await third.until(/Lastmark is at {2}(http:\S+)/);
    process.kill(-(third.child.pid ?? 0), 'SIGINT');
    expect(await third.ended).toBe(0);
    expect(processesOn(folder)).toEqual([]);
  } finally {
    for (const pid of processesOn(folder)) process.kill(Number(pid), 'SIGKILL');
    rmSync(folder, { recursive: true, force: true });
  }
});

test('a server that dies by a signal is started again, says so, and Ctrl-C still ends everything', async () => {
  const folder = scratch('dies');
  const env = { ...process.env, LASTMARK_DATA: folder, PORT: '0', DATABASE_URL: '', LASTMARK_DEMO: '0' };
  const child = spawn('node', [START], { env, stdio: ['ignore', 'pipe', 'pipe'], detached: true });
  const ended = new Promise<number | null>((resolve) => child.once('exit', resolve));
  const { until, said } = listen(child);
  const serverOf = () =>
    Number(spawnSync('pgrep', ['-P', String(child.pid), '-f', 'server/dist/main.js'], { encoding: 'utf8' }).stdout);
  try {
    await until(/Lastmark is at/);
    for (const turn of [1, 2]) {
      process.kill(serverOf(), 'SIGKILL');
      await until(new RegExp(`(The server ended by itself \\(SIGKILL\\)[\\s\\S]*Lastmark is at[\\s\\S]*){${turn}}`));
    }
    expect(said()).toContain('loads are switched off first');
    const url = [...said().matchAll(/Lastmark is at {2}(http:\S+)/g)].at(-1)?.[1];
    expect((await fetch(`${url}/api/health`)).status).toBe(200);
    // While it waits to start again, and as it does: Ctrl-C ends it.
    process.kill(serverOf(), 'SIGKILL');
    process.kill(-(child.pid ?? 0), 'SIGINT');
    expect(await ended).toBe(0);
    expect(processesOn(folder)).toEqual([]);
  } finally {
    for (const pid of processesOn(folder)) process.kill(Number(pid), 'SIGKILL');
    rmSync(folder, { recursive: true, force: true });
  }
});

test('without root and without MariaDB it says exactly what to run', () => {
  const code = `process.getuid = () => 1000;
    const { needPrograms } = await import(${JSON.stringify(join(ROOT, 'scripts/lib/install.mjs'))});
    needPrograms({ 'mariadb-server': 'no-such-program' });`;
  const answer = spawnSync('node', ['--input-type=module', '-e', code], { encoding: 'utf8' });
  expect(answer.status).toBe(1);
  expect(answer.stderr).toContain(
    'sudo apt-get update && sudo apt-get install -y --no-install-recommends mariadb-server',
  );
});

test('a wrong setting is refused with a sentence', () => {
  const run = (env: object) =>
    spawnSync('node', [join(ROOT, 'server/dist/main.js')], { env: { ...process.env, ...env }, encoding: 'utf8' });
  expect(run({ DATABASE_URL: '' }).stderr).toContain('DATABASE_URL is not set');
  expect(run({ DATABASE_URL: 'mysql://x' }).stderr).toContain('DATABASE_URL is no address of a database');
  const place = { DATABASE_URL: 'mysql://a:b@n1,n2/lab' };
  expect(run({ ...place, PORT: 'eighty' }).stderr).toContain('PORT is "eighty"');
  expect(run({ ...place, LASTMARK_BENCH: 'a/b' }).stderr).toContain('LASTMARK_BENCH is "a/b"');
  expect(run({ ...place, LASTMARK_URL: 'bench-1' }).stderr).toContain('LASTMARK_URL is "bench-1"');
  expect(() => execFileSync('node', ['--check', START])).not.toThrow();
});
