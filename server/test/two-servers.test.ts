// Two living servers on one database and one bench: a run has one owner, whatever happens to the first.
import { rmSync } from 'node:fs';
import type { SheetRun } from '@lastmark/contract';
import { eq, sql } from 'drizzle-orm';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
// @ts-expect-error plain script without types
import { scratch } from '../../scripts/lib/scratch.mjs';
// @ts-expect-error plain script without types
import { forkServer } from '../../scripts/lib/stage.mjs';
import { leases, points, readings, runParts, sheetRuns } from '../src/db/schema.ts';
import { readLatch } from '../src/leases/latch.ts';
import { ANSWER_MILLISECONDS } from '../src/runner/lease-watch.ts';
import { type Harness, startHarness } from '../testing/harness.ts';
import { AGAIN_WHERE_VOID, fullPoint, startRig, type TestRig } from '../testing/rig.ts';
import { commands, layWire } from '../testing/wire.ts';

interface Forked {
  readonly server: { readonly pid: number; readonly kill: (signal: NodeJS.Signals) => void };
  readonly exited: Promise<void>;
  readonly port: number;
}

const folder = scratch('two');
let harness: Harness;
let bench: TestRig;
let wire: Awaited<ReturnType<typeof layWire>>;
let running: Forked[] = [];
beforeAll(async () => {
  harness = await startHarness('two_servers');
  bench = await startRig({ db: harness.db, app: harness.app }, 1, 3, async (kind, port) => {
    if (kind !== 'dc-load') return port;
    wire = await layWire(port);
    return wire.port;
  });
  await bench.make.claim(bench.sample.id, { kind: 'port-line', port: 'C1', volts: 20, amps: 2.25 });
});
afterEach(async () => {
  for (const { server, exited } of running) {
    server.kill('SIGCONT');
    server.kill('SIGKILL');
    await exited;
  }
  running = [];
  // Whatever one of them left is nobody's, so that a test that failed costs no other.
  await harness.db.update(sheetRuns).set({ state: 'stopped' });
  await harness.db.delete(leases);
  await harness.db.delete(readings);
  await harness.db.delete(points);
  bench.rack.bench.setLoad('C1', { on: false });
});
afterAll(async () => {
  await harness.stop();
  await wire.close();
  await bench.close();
  rmSync(folder, { recursive: true, force: true });
});

async function aServer(): Promise<Forked> {
  const forked = (await forkServer(harness.url, folder)) as Forked;
  expect(forked.port, 'the server started').not.toBeNull();
  running.push(forked);
  return forked;
}

async function call<T>({ port }: Forked, path: string, body?: object): Promise<T> {
  const answer = await fetch(`http://127.0.0.1:${port}/api${path}`, {
    method: body ? 'POST' : 'GET',
    headers: { 'Content-Type': 'application/json' },
    ...(body ? { body: JSON.stringify(body) } : {}),
  });
  if (!answer.ok) throw new Error(`${path}: ${answer.status} ${await answer.text()}`);
  return (await answer.json()) as T;
}

const draws = () => bench.rack.bench.isOn('C1');
const untilDraws = (wanted: boolean) => expect.poll(draws, { interval: 20 }).toBe(wanted);
const untilRun = (at: Forked, id: string, wanted: (run: SheetRun) => boolean) =>
  expect
    .poll(
      async () => {
        const run = await call<SheetRun>(at, `/sheet-runs/${id}`);
        return wanted(run) ? 'as wanted' : `${run.state}: ${run.says}`;
      },
      { interval: 150 },
    )
    .toBe('as wanted');
/** Drawing again, or else what the run says instead. */
const untilRunDraws = (at: Forked, id: string) =>
  expect
    .poll(
      async () => {
        if (draws()) return 'draws';
        const { state, says } = await call<SheetRun>(at, `/sheet-runs/${id}`);
        return `${state}: ${says}`;
      },
      { interval: 100 },
    )
    .toBe('draws');

/** A point at full load that takes some seconds, and nothing else. */
const aPoint = (dwell: number) => bench.sheet((steps) => [fullPoint(steps, { id: 'point', dwell })]);
const start = (at: Forked, sheetId: string) =>
  call<SheetRun>(at, `/run-sheets/${sheetId}/runs`, { person: 'Warden', tag: bench.sample.tag, watched: false });

describe('a server that was stopped for ten seconds in the middle of a step', AGAIN_WHERE_VOID, () => {
  it('finds its run taken over: it commands nothing, stores nothing, and eats nothing', async () => {
    const first = await aServer();
    const second = await aServer();
    const sheet = await aPoint(9);
    const { id } = await start(first, sheet.id);
    await untilDraws(true);
    // Only the first has spoken to the load so far.
    const firsts = wire.connections();
    first.server.kill('SIGSTOP');
    const stopped = performance.now();
    await untilRun(second, id, ({ state }) => state === 'interrupted');
    expect((await call<SheetRun>(second, `/sheet-runs/${id}`)).says).toContain('Loads are off');
    expect(draws()).toBe(false);
    await call(second, `/sheet-runs/${id}/asks`, { ask: { kind: 'go on', person: 'Warden' } });
    await untilRunDraws(second, id);
    const seconds = wire.connections();
    expect(seconds).toBeGreaterThan(firsts);
    await new Promise((resolve) => setTimeout(resolve, Math.max(0, 10_000 - (performance.now() - stopped))));
    expect(draws(), 'the second is in the middle of its step').toBe(true);
    const woken = performance.now();
    first.server.kill('SIGCONT');
    // Until the second has ended the run, whatever the first does happens beside it: looked at first, it says why a run is held.
    await expect.poll(async () => (await call<SheetRun>(second, `/sheet-runs/${id}`)).state).not.toBe('running');
    const byTheFirst = wire.lines.filter(
      (line) => line.at > woken && (line.connection <= firsts || line.connection > seconds) && commands(line),
    );
    // It asks whose the loads are, and switches off what may be its own only where the database says nothing for so long.
    const [spoken] = byTheFirst;
    if (spoken && spoken.at - woken >= ANSWER_MILLISECONDS && byTheFirst.every(({ text }) => text === 'INP:ALL OFF'))
      throw new Error('void: the machine had no time to tell the woken server whose the loads are');
    expect(byTheFirst).toEqual([]);
    await untilRun(second, id, ({ state }) => state === 'done');
    const run = await call<SheetRun>(second, `/sheet-runs/${id}`);
    expect(run.outcomes.point).toMatchObject({
      state: 'done',
      says: expect.stringMatching(/^C1 (19|20)\.\d+ V 2\.2\d+ A/),
    });
    expect(await harness.db.select().from(points)).toHaveLength(1);
    expect(run.outcomes.point?.madeIds).toHaveLength(1);
    expect(draws()).toBe(false);
    // Both are well, and the first says the same of the run.
    expect(await call<SheetRun>(first, `/sheet-runs/${id}`)).toEqual(run);
  });

  it('and that nobody took over goes on as its own, with loads off first and a word about it', async () => {
    const only = await aServer();
    const sheet = await aPoint(60);
    const { id } = await start(only, sheet.id);
    await untilDraws(true);
    only.server.kill('SIGSTOP');
    await new Promise((resolve) => setTimeout(resolve, 6500));
    // The load's own watchdog has it meanwhile.
    expect(draws()).toBe(false);
    only.server.kill('SIGCONT');
    await untilRun(only, id, ({ state }) => state === 'held');
    expect((await call<SheetRun>(only, `/sheet-runs/${id}`)).says).toMatch(/^The server stood still for \d+ s/);
    expect(draws()).toBe(false);
    await call(only, `/sheet-runs/${id}/asks`, { ask: { kind: 'stop', reason: '' } });
    await untilRun(only, id, ({ state }) => state === 'stopped');
  });
});

it(
  'a run whose epoch is taken away while its server is well has its loads off at once, and writes nothing more',
  AGAIN_WHERE_VOID,
  async () => {
    const only = await aServer();
    const sheet = await aPoint(60);
    const { id } = await start(only, sheet.id);
    await untilDraws(true);
    const before = await harness.db.select({ id: runParts.id }).from(runParts).where(eq(runParts.runId, id));
    expect(before.length).toBeGreaterThan(0);
    await harness.db
      .update(sheetRuns)
      .set({ epoch: sql`${sheetRuns.epoch} + 1`, owner: 'another', aliveAt: new Date(Date.now() + 60_000) })
      .where(eq(sheetRuns.id, id));
    await untilDraws(false);
    const after = async () =>
      (await harness.db.select({ id: runParts.id }).from(runParts).where(eq(runParts.runId, id))).length;
    const count = await after();
    await new Promise((resolve) => setTimeout(resolve, 1500));
    expect(await after()).toBe(count);
    const run = await call<SheetRun>(only, `/sheet-runs/${id}`);
    expect(run).toMatchObject({ state: 'running', outcomes: {} });
    // Whoever it now belongs to goes silent: it is taken over as any other.
    await harness.db
      .update(sheetRuns)
      .set({ aliveAt: new Date(Date.now() - 60_000) })
      .where(eq(sheetRuns.id, id));
    await untilRun(only, id, ({ state }) => state === 'interrupted');
    await call(only, `/sheet-runs/${id}/asks`, { ask: { kind: 'stop', reason: '' } });
    await untilRun(only, id, ({ state }) => state === 'stopped');
  },
);

it('Loads off at one server holds the run of the other, which stays off', AGAIN_WHERE_VOID, async () => {
  const first = await aServer();
  const second = await aServer();
  const sheet = await aPoint(60);
  const { id } = await start(first, sheet.id);
  await untilDraws(true);
  const before = await readLatch(harness.db);
  const { items } = await call<{ items: { sure: boolean }[] }>(second, '/loads-off', {});
  expect(items.map(({ sure }) => sure)).toEqual([true]);
  expect(draws()).toBe(false);
  // Whether it is written down by then is for how busy the database is; it is.
  await expect.poll(() => readLatch(harness.db)).toBe(before + 1);
  await untilRun(first, id, ({ state }) => state === 'held');
  expect(draws()).toBe(false);
  await call(first, `/sheet-runs/${id}/asks`, { ask: { kind: 'go on', person: 'Warden' } });
  await untilDraws(true);
  await call(first, `/sheet-runs/${id}/asks`, { ask: { kind: 'stop', reason: '' } });
  await untilRun(first, id, ({ state }) => state === 'stopped');
});

describe('a load switched on at the console', () => {
  const loadId = async (at: Forked) =>
    (await call<{ items: { id: string; class: string }[] }>(at, '/instruments')).items.find(
      (one) => one.class === 'DC load',
    )?.id ?? '';
  async function drawFromConsole(at: Forked): Promise<void> {
    bench.rack.bench.setSupply({ on: true });
    const id = await loadId(at);
    for (const command of ['INST:NSEL 1', 'SINK:CONN ON', 'CURR 2', 'INP ON'])
      await call(at, `/instruments/${id}/commands`, { command });
    expect(draws()).toBe(true);
  }

  it('stays on while its server lives, with or without a page open', async () => {
    const only = await aServer();
    await drawFromConsole(only);
    // Longer than the load's own watchdog.
    await new Promise((resolve) => setTimeout(resolve, 6500));
    expect(draws()).toBe(true);
    only.server.kill('SIGTERM');
    await only.exited;
    expect(draws()).toBe(false);
  });

  it('goes off when its server dies without a word: by its own watchdog, or by another server', async () => {
    const first = await aServer();
    const second = await aServer();
    await drawFromConsole(first);
    first.server.kill('SIGKILL');
    await untilDraws(false);
    // And one without a watchdog of its own.
    await drawFromConsole(second);
    await call(second, `/instruments/${await loadId(second)}/commands`, { command: 'INP:WATC 0' });
    const third = await aServer();
    second.server.kill('SIGKILL');
    await untilDraws(false);
    expect((await call<{ items: unknown[] }>(third, '/leases')).items).toEqual([]);
  });
});
