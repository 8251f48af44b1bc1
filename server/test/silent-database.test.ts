// A database that hangs (stopped, not gone) while loads draw: the wire does not wait for it.
import { rmSync } from 'node:fs';
import type { LoadsOffAnswer, SheetRun } from '@lastmark/contract';
import request from 'supertest';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
// @ts-expect-error plain script without types
import { startMariadb } from '../../scripts/lib/mariadb.mjs';
// @ts-expect-error plain script without types
import { scratch } from '../../scripts/lib/scratch.mjs';
import { loadsOffLatch, runParts } from '../src/db/schema.ts';
import { type Harness, startHarness } from '../testing/harness.ts';
import { fullPoint, startRig, type TestRig } from '../testing/rig.ts';
import { layWire } from '../testing/wire.ts';

/** Goals, ms, are held to in `npm run attack`; beside other tests, on a busy machine, no time says anything. */
const MEASURED = Boolean(process.env.LASTMARK_ATTACK);
const WIRE = MEASURED ? 200 : Number.MAX_VALUE;
const ANSWER = MEASURED ? 1000 : Number.MAX_VALUE;
const OFF = MEASURED ? 5000 : Number.MAX_VALUE;

const folder = scratch('silent');
let database: { url: string; pid: number; stop: () => Promise<void> };
let harness: Harness;
let bench: TestRig;
let wire: Awaited<ReturnType<typeof layWire>>;
beforeAll(async () => {
  database = await startMariadb(folder);
  harness = await startHarness('silent', { server: database.url });
  bench = await startRig({ db: harness.db, app: harness.app }, 60, 3, async (kind, port) => {
    if (kind !== 'dc-load') return port;
    wire = await layWire(port);
    return wire.port;
  });
  await harness.working.watch();
  await bench.make.claim(bench.sample.id, { kind: 'port-line', port: 'C1', volts: 20, amps: 2.25 });
});
const hang = () => process.kill(database.pid, 'SIGSTOP');
const goOn = () => process.kill(database.pid, 'SIGCONT');
afterEach(() => {
  goOn();
  bench.rack.fault('dc-load', 'none');
});
afterAll(async () => {
  await harness.stop();
  await wire.close();
  await bench.close();
  await database.stop();
  rmSync(folder, { recursive: true, force: true });
});

const draws = () => bench.rack.bench.isOn('C1');
const untilDraws = (wanted: boolean) => expect.poll(draws, { interval: 10 }).toBe(wanted);
async function soak(): Promise<string> {
  const sheet = await bench.sheet((steps) => [fullPoint(steps, { id: 'soak' })]);
  return (await bench.start(sheet.id)).id;
}
const stop = async (id: string) => {
  await bench.ask(id, { kind: 'stop', reason: '' });
  await bench.until(id, ({ state }) => state === 'stopped', 'stopped');
};
/** Press Loads off as a browser does. @returns the answer, and how long command and answer took, ms */
async function press() {
  const pressed = performance.now();
  const answer = await request(harness.app).post('/api/loads-off').send({});
  const answered = performance.now() - pressed;
  const sent = wire.lines.find(({ at, text }) => at >= pressed && text === 'INP:ALL OFF');
  return { body: answer.body as LoadsOffAnswer, answered, onWire: (sent?.at ?? Number.POSITIVE_INFINITY) - pressed };
}

describe('while the database hangs', () => {
  it('Loads off is on the wire at once, and the answer says that it is off and not yet written down', async () => {
    const id = await soak();
    await untilDraws(true);
    hang();
    const { body, answered, onWire } = await press();
    if (MEASURED) console.log(`on the wire after ${onWire.toFixed(0)} ms, answered after ${answered.toFixed(0)} ms`);
    expect(onWire).toBeLessThan(WIRE);
    expect(answered).toBeLessThan(ANSWER);
    expect(draws()).toBe(false);
    expect(body.items.map(({ sent, sure }) => [sent, sure])).toEqual([[true, true]]);
    expect(body.written).toBe(false);
    goOn();
    // Written down as soon as it answers; the run holds or was interrupted meanwhile, and stays off.
    await expect.poll(async () => (await harness.db.select().from(loadsOffLatch))[0]?.offs).toBe(1);
    const run = await bench.until(id, ({ state }) => state === 'held' || state === 'interrupted', 'held');
    expect(run.says).not.toBe('');
    expect(draws()).toBe(false);
    await stop(id);
  });

  it('a run switches its loads off by itself within five seconds, and says that it was the database', async () => {
    const id = await soak();
    await untilDraws(true);
    hang();
    const begun = performance.now();
    await untilDraws(false);
    const took = performance.now() - begun;
    if (MEASURED) console.log(`loads off after ${took.toFixed(0)} ms`);
    expect(took).toBeLessThan(OFF);
    await new Promise((resolve) => setTimeout(resolve, 1500));
    expect(draws()).toBe(false);
    goOn();
    const run = await bench.until(id, ({ state }) => state === 'interrupted' || state === 'held', 'interrupted');
    expect(run.says).toMatch(/^The database (stopped answering|did not answer)/);
    // Everything told until then is there.
    expect((await harness.db.select().from(runParts)).length).toBeGreaterThan(0);
    await bench.ask(id, { kind: 'go on', person: 'Warden' });
    await untilDraws(true);
    await stop(id);
  });

  it('no load goes on: who may command is asked of the database', async () => {
    const id = await soak();
    await bench.until(id, ({ progress }) => progress !== null, 'under way');
    hang();
    await new Promise((resolve) => setTimeout(resolve, 3500));
    expect(draws()).toBe(false);
    goOn();
    await bench.until(id, ({ state }) => state === 'interrupted' || state === 'held', 'not going on by itself');
    await stop(id);
  });
});

describe('a load that does not say that it is off', () => {
  it('is told again until it does; run, answer and stream say that nobody knows, and what to do', async () => {
    const id = await soak();
    await untilDraws(true);
    bench.rack.fault('dc-load', 'hang');
    const { body } = await press();
    expect(body.items[0]).toMatchObject({ sent: true, sure: false });
    // It swallows what it is told: it still draws.
    expect(draws()).toBe(true);
    const told = await bench.until(id, ({ state }) => state === 'held', 'held');
    expect(told.says).toMatch(
      /Nobody knows whether "Simulated DC load" is off: .+\. Switch it off at the load itself, or pull the charger out of the mains\./,
    );
    // The run switched the supply off instead.
    expect(told.says).toContain('"Simulated AC source" was switched off.');
    expect(bench.rack.bench.supply.on).toBe(false);
    const load = harness.working.roster.loads[0]?.instrument.id ?? '';
    expect(harness.working.links.doubt(load)).toContain('Nobody knows');
    const heard: (string | null)[] = [];
    const stopListening = harness.working.live.listen(
      (event) => event.instrumentId === load && heard.push(event.problem),
      null,
      () => undefined,
    );
    await expect.poll(() => String(heard.at(-1))).toContain('Nobody knows');
    bench.rack.fault('dc-load', 'none');
    await untilDraws(false);
    await expect.poll(() => String(heard.at(-1))).not.toContain('Nobody knows');
    stopListening();
    await expect.poll(() => harness.working.links.doubt(load)).toBeNull();
    await bench.until(id, ({ says }: SheetRun) => says.endsWith('Loads are off now.'), 'a word that it is off');
    await bench.ask(id, { kind: 'go on', person: 'Warden' });
    await untilDraws(true);
    await stop(id);
  });
});
