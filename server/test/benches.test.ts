// Two benches, a copy of the server beside each: each speaks to its own instruments only, and asks the other for the rest.
import { rmSync } from 'node:fs';
import type { CommandAnswer, LoadsOffAnswer, Problem, SheetRun, StoredInstrument, StoredRig } from '@lastmark/contract';
import { eq, inArray } from 'drizzle-orm';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
// @ts-expect-error plain script without types
import { startMariadb } from '../../scripts/lib/mariadb.mjs';
// @ts-expect-error plain script without types
import { scratch } from '../../scripts/lib/scratch.mjs';
// @ts-expect-error plain script without types
import { forkServer } from '../../scripts/lib/stage.mjs';
import { namedBy } from '../src/bench/rig-bench.ts';
import { listInstruments } from '../src/bench/store.ts';
import { PEER, SIGNED_BY } from '../src/copies/peers.ts';
import { Signature } from '../src/copies/signature.ts';
import { copies, instruments, logEntries } from '../src/db/schema.ts';
import { labKey } from '../src/people/keys.ts';
import { type Harness, startHarness } from '../testing/harness.ts';
import { fullPoint, startRig, type TestRig } from '../testing/rig.ts';
import { layWire } from '../testing/wire.ts';

interface Forked {
  readonly server: { readonly pid: number; readonly kill: (signal: NodeJS.Signals) => void };
  readonly exited: Promise<void>;
  readonly port: number;
}
interface Bench {
  readonly name: string;
  readonly rig: TestRig;
  readonly load: StoredInstrument;
  readonly wire: Awaited<ReturnType<typeof layWire>>;
}

const folder = scratch('benches');
let database: { url: string; pid: number; stop: () => Promise<void> };
let harness: Harness;
let north: Bench;
let south: Bench;
let atNorth: Forked;
let atSouth: Forked;

/** A rack with its rig on a bench of a name; its load is reached by way of a wire that tells who connects. */
async function aBench(name: string, seed: number): Promise<Bench> {
  let wire: Bench['wire'] | undefined;
  const rig = await startRig({ db: harness.db, app: harness.app }, 1, seed, async (kind, port) => {
    if (kind !== 'dc-load') return port;
    wire = await layWire(port);
    return wire.port;
  });
  const named = namedBy(rig.rig);
  await harness.db.update(instruments).set({ bench: name }).where(inArray(instruments.id, named));
  const load = (await listInstruments(harness.db)).find((one) => named.includes(one.id) && one.class === 'DC load');
  await rig.make.claim(rig.sample.id, { kind: 'port-line', port: 'C1', volts: 20, amps: 2.25 });
  if (!load || !wire) throw new Error('The rig has no load.');
  return { name, rig, load, wire };
}

async function aServer(bench: string, env: object = {}): Promise<Forked> {
  const forked = (await forkServer(harness.url, folder, {
    env: { LASTMARK_BENCH: bench, LASTMARK_SERVER: `${bench}-${process.pid}`, ...env },
  })) as Forked;
  expect(forked.port, 'the server started').not.toBeNull();
  return forked;
}
const end = async ({ server, exited }: Forked) => {
  server.kill('SIGCONT');
  server.kill('SIGKILL');
  await exited;
};

async function ask<T>({ port }: Forked, method: string, path: string, body?: object) {
  const answer = await fetch(`http://127.0.0.1:${port}/api${path}`, {
    method,
    headers: { 'Content-Type': 'application/json' },
    ...(body ? { body: JSON.stringify(body) } : {}),
  });
  return { status: answer.status, body: (await answer.json()) as T };
}
const command = (at: Forked, { load }: Bench, line: string) =>
  ask<CommandAnswer & Problem>(at, 'POST', `/instruments/${load.id}/commands`, { command: line });
const draws = ({ rig }: Bench) => rig.rack.bench.isOn('C1');
const untilDraws = (bench: Bench, wanted: boolean) => expect.poll(() => draws(bench), { interval: 20 }).toBe(wanted);
const switchOn = async (at: Forked, bench: Bench) => {
  for (const line of ['INST:NSEL 1', 'SINK:CONN ON', 'CURR 1', 'INP ON'])
    expect(await command(at, bench, line)).toMatchObject({ status: 201 });
  await untilDraws(bench, true);
};

beforeAll(async () => {
  database = await startMariadb(folder);
  harness = await startHarness('benches', { server: database.url });
  north = await aBench('north', 3);
  south = await aBench('south', 4);
  atNorth = await aServer('north');
  atSouth = await aServer('south', { LASTMARK_INSTRUMENTS: '127.0.0.1/32' });
});
afterEach(() => process.kill(database.pid, 'SIGCONT'));
afterAll(async () => {
  await end(atNorth);
  await end(atSouth);
  await harness.stop();
  for (const { rig, wire } of [north, south]) {
    await wire.close();
    await rig.close();
  }
  await database.stop();
  rmSync(folder, { recursive: true, force: true });
});

describe('an instrument of another bench', () => {
  it('is found once each copy knows of the other', async () => {
    for (const [at, bench] of [
      [atNorth, south],
      [atSouth, north],
    ] as const)
      await expect.poll(async () => (await command(at, bench, '*IDN?')).status, { interval: 100 }).toBe(201);
  });

  it('is spoken to by the copy beside it, on one connection, and it stands in the log once', async () => {
    expect((await command(atNorth, south, '*IDN?')).body.reply).toMatch(/load/i);
    expect((await command(atSouth, south, '*IDN?')).body.reply).toMatch(/load/i);
    expect([north.wire.connections(), south.wire.connections()]).toEqual([1, 1]);
    const entries = async () =>
      (await harness.db.select().from(logEntries).where(eq(logEntries.subject, south.load.id))).length;
    const before = await entries();
    await command(atNorth, south, '*IDN?');
    await expect.poll(entries).toBe(before + 1);
  });

  it('is told of in the words of the copy beside it', async () => {
    const wrong = await command(atNorth, south, 'INP MAYBE');
    expect(wrong).toMatchObject({ status: 422, body: { detail: expect.stringContaining('INP MAYBE') } });
    const nobody = await ask<Problem>(atNorth, 'POST', '/instruments/01ARZ3NDEKTSV4RRFFQ69G5FAV/commands', {
      command: '*IDN?',
    });
    expect(nobody.status).toBe(404);
  });

  it('may be where its own bench allows, and nowhere else', async () => {
    const meter = (bench: string, address: string) =>
      ask<Problem>(atNorth, 'POST', '/instruments', {
        name: `Meter of ${bench}`,
        bench,
        class: 'bench multimeter',
        firmware: '',
        calibrationDue: null,
        address,
        profileId: null,
        sees: null,
        specs: {},
      });
    expect((await meter('north', '127.0.0.7:5025')).status).toBe(201);
    const refused = await meter('south', '127.0.0.7:5025');
    expect(refused).toMatchObject({ status: 422, body: { detail: expect.stringContaining('127.0.0.7') } });
    expect((await meter('attic', '127.0.0.1:5025')).body.detail).toContain('No server stands beside bench "attic"');
    expect((await meter('no/such', '127.0.0.1:5025')).status).toBe(422);
  });

  /** Events somebody hears, by when an instrument was asked and its id. */
  function hear({ port }: Forked, query = '') {
    const control = new AbortController();
    const heard = {
      told: new Set<string>(),
      twice: 0,
      of: (id: string) => [...heard.told].filter((one) => one.endsWith(id)),
    };
    const reading = (async () => {
      const answer = await fetch(`http://127.0.0.1:${port}/api/live${query}`, { signal: control.signal });
      const decoder = new TextDecoder();
      let rest = '';
      for await (const part of answer.body as unknown as AsyncIterable<Uint8Array>) {
        const lines = (rest + decoder.decode(part, { stream: true })).split('\n');
        rest = lines.pop() ?? '';
        for (const [, at = '', id = ''] of lines.flatMap((line) => [
          ...line.matchAll(/"at":"([^"]+)","instrumentId":"(\w+)"/g),
        ])) {
          if (heard.told.has(`${at} ${id}`)) heard.twice += 1;
          heard.told.add(`${at} ${id}`);
        }
      }
    })().catch(() => undefined);
    const stop = async () => {
      control.abort();
      await reading;
    };
    return { heard, stop };
  }

  it('tells its live numbers there too, once each: all of them to who looks closely, some to others', async () => {
    const [usual, close] = [hear(atNorth), hear(atNorth, `?fast=${south.load.id}`)];
    const of = (id: string) => [usual, close].map(({ heard }) => heard.of(id).length > 0);
    await expect
      .poll(() => [of(north.load.id), of(south.load.id)])
      .toEqual([
        [true, true],
        [true, true],
      ]);
    // What the one who looks closely heard between two that the other heard.
    const between = () => {
      const [first = '', last = ''] = [usual.heard.of(south.load.id)[0], usual.heard.of(south.load.id).at(-1)];
      return close.heard.of(south.load.id).filter((one) => one > first && one < last && !usual.heard.told.has(one))
        .length;
    };
    await expect.poll(between).toBeGreaterThan(4);
    await Promise.all([usual.stop(), close.stop()]);
    expect([usual.heard.twice, close.heard.twice]).toEqual([0, 0]);
    expect(south.wire.connections()).toBe(1);
    const wrong = await ask<Problem>(atNorth, 'GET', '/live?fast=everything');
    expect(wrong).toMatchObject({ status: 422, body: { errors: [{ path: 'fast' }] } });
  });

  it('is part of no rig with instruments of this one', async () => {
    const { id: _id, version: _version, ...rig } = north.rig.rig as StoredRig;
    const mixed = await ask<Problem>(atNorth, 'POST', '/rigs', {
      ...rig,
      name: 'Both',
      drives: { ...rig.drives, load: south.load.id },
    });
    expect(mixed).toMatchObject({ status: 422, body: { detail: expect.stringContaining('instruments of one bench') } });
  });
});

describe('loads off', () => {
  const press = (at: Forked) => ask<LoadsOffAnswer>(at, 'POST', '/loads-off');
  const wordOf = (answer: LoadsOffAnswer, { load }: Bench) =>
    answer.items.filter(({ instrumentId }) => instrumentId === load.id);

  it('reaches every bench from either, and says of each load what it said', async () => {
    for (const at of [atNorth, atSouth]) {
      await switchOn(at, north);
      await switchOn(at, south);
      const { body } = await press(at);
      for (const bench of [north, south]) {
        expect(wordOf(body, bench)).toMatchObject([{ sent: true, sure: true, detail: 'off' }]);
        expect(draws(bench)).toBe(false);
      }
    }
  });

  it('reaches every bench while the database hangs', async () => {
    await switchOn(atNorth, north);
    await switchOn(atNorth, south);
    process.kill(database.pid, 'SIGSTOP');
    const { body } = await press(atNorth);
    process.kill(database.pid, 'SIGCONT');
    expect(draws(north)).toBe(false);
    expect(wordOf(body, south)).toMatchObject([{ sent: true, sure: true }]);
    expect(draws(south)).toBe(false);
  });

  it('says of a bench whose copy is silent that nobody knows, and tells it again once it is there', async () => {
    await switchOn(atSouth, south);
    atSouth.server.kill('SIGSTOP');
    const { body } = await press(atNorth);
    expect(wordOf(body, south)).toMatchObject([
      { sent: false, sure: false, detail: 'the server beside bench "south" does not answer' },
    ]);
    atSouth.server.kill('SIGCONT');
    await untilDraws(south, false);
  });
});

describe('a run of another bench', () => {
  const start = async (at: Forked, { rig }: Bench) => {
    const sheet = await rig.sheet((steps) => [fullPoint(steps, { id: 'soak' })]);
    return ask<SheetRun>(at, 'POST', `/run-sheets/${sheet.id}/runs`, {
      person: 'Warden',
      tag: rig.sample.tag,
      watched: false,
    });
  };
  const state = async (at: Forked, id: string) => (await ask<SheetRun>(at, 'GET', `/sheet-runs/${id}`)).body;

  it('is carried out by the copy beside it; without one it says that nobody knows, and is safe once one is back', async () => {
    const begun = await start(atNorth, south);
    expect(begun.status).toBe(201);
    const { id } = begun.body;
    // A Loads off of before, told again to a copy that was silent, may have reached it only now.
    await expect
      .poll(
        async () => {
          if (draws(south)) return 'draws';
          const { state: now } = await state(atNorth, id);
          if (now === 'held')
            await ask(atNorth, 'POST', `/sheet-runs/${id}/asks`, { ask: { kind: 'go on', person: 'Warden' } });
          return now;
        },
        { interval: 100 },
      )
      .toBe('draws');
    expect(await state(atNorth, id)).toMatchObject({ state: 'running' });
    expect([north.wire.connections(), south.wire.connections()]).toEqual([1, 1]);
    atSouth.server.kill('SIGKILL');
    await atSouth.exited;
    await harness.db.delete(copies).where(eq(copies.bench, 'south'));
    await expect
      .poll(async () => (await state(atNorth, id)).says, { interval: 100 })
      .toContain('no server stands beside it');
    expect((await command(atNorth, south, '*IDN?')).status).toBe(503);
    expect((await start(atNorth, south)).status).toBe(503);
    // Whatever the load did meanwhile: it is off once somebody stands beside it.
    south.rig.rack.fault('dc-load', 'none');
    atSouth = await aServer('south');
    await untilDraws(south, false);
    // Whoever takes it back at once is heard, also before whoever carries it out has begun.
    await ask(atNorth, 'POST', `/sheet-runs/${id}/asks`, { ask: { kind: 'go on', person: 'Warden' } });
    await expect.poll(async () => (await state(atNorth, id)).state, { interval: 20 }).toBe('running');
    await ask(atNorth, 'POST', `/sheet-runs/${id}/asks`, { ask: { kind: 'stop', reason: '' } });
    await expect.poll(async () => (await state(atNorth, id)).state).toBe('stopped');
  });
});

describe('the door between copies', () => {
  const knock = ({ port }: Forked, path: string, body: string, token: string) =>
    fetch(`http://127.0.0.1:${port}${path}`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json', [SIGNED_BY]: token },
      body,
    }).then(({ status }) => status);

  it('opens to what is signed for this question, just now, and once', async () => {
    const signature = new Signature(await labKey(harness.db, 'copies'));
    const token = await signature.sign(PEER.loadsOff, '{}');
    expect(await knock(atNorth, PEER.loadsOff, '{}', token)).toBe(200);
    expect(await knock(atNorth, PEER.loadsOff, '{}', token), 'the same again').toBe(403);
    const other = await signature.sign(PEER.loadsOff, '{}');
    expect(await knock(atNorth, PEER.ask, '{}', other), 'for something else').toBe(403);
    expect(await knock(atNorth, PEER.loadsOff, '{"a":1}', other), 'with something else').toBe(403);
    expect(await knock(atNorth, PEER.loadsOff, '{}', ''), 'unsigned').toBe(403);
    const forged = await new Signature('0'.repeat(64)).sign(PEER.loadsOff, '{}');
    expect(await knock(atNorth, PEER.loadsOff, '{}', forged), 'by another key').toBe(403);
    const [head = '', payload = ''] = (await signature.sign(PEER.loadsOff, '{}')).split('.');
    const none = `${Buffer.from('{"alg":"none"}').toString('base64url')}.${payload}.`;
    expect(await knock(atNorth, PEER.loadsOff, '{}', none), 'by no algorithm').toBe(403);
    expect(await knock(atNorth, PEER.loadsOff, '{}', `${head}.${payload}.`), 'by nothing').toBe(403);
  });
});
