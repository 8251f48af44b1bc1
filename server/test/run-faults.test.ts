// Whatever goes wrong in the middle of a run: loads off first, and nothing recorded is lost.
import type { SheetRun, StoredProfile } from '@lastmark/contract';
import type { PointStep } from '@lastmark/core/plan';
import { eq } from 'drizzle-orm';
import { pino } from 'pino';
import request from 'supertest';
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { profiles, samples, sheetRuns } from '../src/db/schema.ts';
import { createWorking } from '../src/working.ts';
import { type Harness, startHarness } from '../testing/harness.ts';
import { AGAIN_WHERE_VOID, fullPoint, startRig, type TestRig } from '../testing/rig.ts';

let harness: Harness;
let bench: TestRig;
let runId: string;
beforeAll(async () => {
  harness = await startHarness('run_faults', { confirm: { every: 2500, grace: 1500 } });
  bench = await startRig(harness, 60);
  await bench.make.claim(bench.sample.id, { kind: 'port-line', port: 'C1', volts: 20, amps: 2.25 });
});
afterAll(async () => {
  await harness.stop();
  await bench.close();
});

const draws = () => bench.rack.bench.isOn('C1');
const untilOff = () => expect.poll(draws, { interval: 20 }).toBe(false);

/** A soak that would last for hours. */
async function soak(part: Partial<PointStep> = {}, start: object = {}): Promise<string> {
  const sheet = await bench.sheet((steps) => [fullPoint(steps, { id: 'soak', ...part })]);
  return (await bench.start(sheet.id, start)).id;
}

beforeEach(() => {
  runId = '';
});
afterEach(async () => {
  await harness.db.delete(profiles);
  await harness.db.update(samples).set({ limits: null });
  for (const kind of ['dc-load', 'power-analyser', 'multimeter'] as const) bench.rack.fault(kind, 'none');
  await bench.release();
});

describe('loads go off and the run holds', AGAIN_WHERE_VOID, () => {
  it('when Loads off is pressed, and no load comes on again by itself', async () => {
    runId = await soak();
    await bench.drawing(runId);
    await request(harness.app).post('/api/loads-off').send({}).expect(201);
    expect(draws()).toBe(false);
    await bench.heldFor(runId, /Loads were switched off|On hold/);
    await new Promise((resolve) => setTimeout(resolve, 600));
    expect(draws()).toBe(false);
    await bench.ask(runId, { kind: 'go on', person: 'Warden' });
    await bench.drawing(runId);
  });

  it('when Loads off is pressed while a step is being set up', async () => {
    for (let turn = 0; turn < 5; turn += 1) {
      runId = await soak();
      await new Promise((resolve) => setTimeout(resolve, 60 * turn + 250));
      await request(harness.app).post('/api/loads-off').send({}).expect(201);
      await bench.heldFor(runId, /Loads were switched off|On hold/);
      expect(draws()).toBe(false);
      await bench.ask(runId, { kind: 'stop', reason: '' });
      await bench.until(runId, ({ state }) => state === 'stopped', 'stopped');
      await expect.poll(async () => (await bench.call<{ items: unknown[] }>('get', '/leases')).items).toEqual([]);
    }
  });

  it('when the load goes off by itself, which it says when it is asked', async () => {
    runId = await soak();
    await bench.drawing(runId);
    bench.rack.bench.loadsOff();
    await bench.heldFor(
      runId,
      /^"Simulated DC load" draws [-−]?0\.00\d A from C1 instead of 2\.250 A: it is off, and nobody here switched it off\./,
    );
    await bench.ask(runId, { kind: 'go on', person: 'Warden' });
    await bench.drawing(runId);
  });

  it('when nothing is connected to a load that is on', async () => {
    runId = await soak();
    await bench.drawing(runId);
    bench.rack.bench.setLoad('C1', { amps: 0 });
    await bench.heldFor(
      runId,
      /^"Simulated DC load" draws [-−]?0\.00\d A from C1 instead of 2\.250 A\. Is it connected\?$/,
    );
    expect(draws()).toBe(false);
  });

  it('when the hottest spot passes the limit of this sample', async () => {
    const { etag } = await bench.call<{ etag: string }>('get', `/samples/${bench.sample.id}`);
    await request(harness.app)
      .put(`/api/samples/${bench.sample.id}/limits`)
      .set('If-Match', etag)
      .send({ limits: { hottest: 273.15 + 32, volts: null, amps: null, watts: null } })
      .expect(200);
    runId = await soak();
    await bench.heldFor(runId, /^Hottest spot 32\.\d °C: above the limit of 32\.0 °C\.$/);
    expect(draws()).toBe(false);
  });

  it('when a port stands above the voltage limit of the bench', async () => {
    const profile = await bench.call<StoredProfile>('get', '/profile');
    const put = (limits: object, version: number) => {
      const { version: _, ...body } = profile;
      return request(harness.app)
        .put('/api/profile')
        .set('If-Match', `"v${version}"`)
        .send({ ...body, limits });
    };
    const none = { hottest: null, amps: null, watts: null };
    const above = await put({ ...none, volts: 61 }, profile.version);
    expect([above.status, above.body.detail]).toEqual([422, expect.stringContaining('can take: 60 V')]);
    await put({ ...none, volts: 15 }, profile.version).expect(200);
    runId = await soak();
    await bench.heldFor(runId, /^C1 20\.\d\d V: above the limit of 15 V\.$/);
    expect(draws()).toBe(false);
  });

  it('when a meter hangs', async () => {
    runId = await soak();
    await bench.drawing(runId);
    bench.rack.fault('power-analyser', 'hang');
    await bench.heldFor(runId, /^"Simulated power analyser" tells nothing any more\.$/);
    expect(draws()).toBe(false);
  });

  it('when the load itself is lost, as soon as it answers again', async () => {
    runId = await soak();
    await bench.drawing(runId);
    bench.rack.fault('dc-load', 'drop');
    await bench.heldFor(
      runId,
      /connection to "Simulated DC load" was lost|"Simulated DC load": The connection was lost during/,
    );
    await untilOff();
  });

  it('when a meter stands still although the load moves', async () => {
    runId = await soak();
    await bench.drawing(runId);
    bench.rack.fault('power-analyser', 'freeze');
    // As a person at the bench would turn a knob.
    bench.rack.bench.setLoad('C1', { amps: 1 });
    await bench.heldFor(runId, /^"Simulated power analyser" tells the same moment again and again: it stands still\./);
    expect(draws()).toBe(false);
  });

  it('when nobody is at the console of a run that is not to be left alone', async () => {
    runId = await soak({}, { watched: true });
    await bench.drawing(runId);
    const here = () => request(harness.app).post(`/api/sheet-runs/${runId}/here`).send({});
    for (let turn = 0; turn < 4; turn += 1) {
      await here().expect(201);
      await new Promise((resolve) => setTimeout(resolve, 3000));
    }
    expect(draws()).toBe(true);
    await bench.heldFor(runId, /Nobody is at the console/);
    expect(draws()).toBe(false);
  });

  it('and a watched step does not begin before someone is there', async () => {
    runId = await soak({ attended: true });
    await bench.through(
      runId,
      ({ state, says }) => state === 'waiting' && says.startsWith('A watched step'),
      'the question',
    );
    expect(draws()).toBe(false);
    await bench.ask(runId, { kind: 'go on', person: 'Warden' });
    await bench.drawing(runId);
    // It asks again, takes an answer, and switches off when there is none.
    const asks = ({ progress }: SheetRun) => progress?.doing.startsWith('Still there?') ?? false;
    await bench.through(runId, asks, 'the first asking');
    await bench.ask(runId, { kind: 'go on', person: 'Warden' });
    await bench.through(runId, (run) => !asks(run), 'the answer');
    expect(draws()).toBe(true);
    await bench.heldFor(runId, /^A watched step was not confirmed\.$/);
    expect(draws()).toBe(false);
  });
});

describe('a rig that does not prove itself', () => {
  it('keeps the sheet from running, and says what to look at', async () => {
    bench.rack.bench.lay({ name: 'worn', copperOhms: 0.4, contactOhms: 0.2, marker: [], marks: 'none' });
    const sheet = await bench.sheet((steps) =>
      steps.filter(({ kind }) => kind === 'rig' || kind === 'idle').slice(0, 2),
    );
    runId = (await bench.start(sheet.id)).id;
    const run = await bench.heldFor(runId, /Reference cable: 6\d\d(\.\d)? mΩ measured, 115\.5 mΩ stated/);
    const good = { name: '240 W, 1 m', copperOhms: 0.078, contactOhms: 0.036, marker: [], marks: '5 A EPR' } as const;
    bench.rack.bench.lay(good);
    await bench.ask(runId, { kind: 'repeat' });
    await bench.through(runId, ({ stepId, state }) => state === 'running' && stepId !== run.stepId, 'the next step');
  });
});

describe('a server that goes away', AGAIN_WHERE_VOID, () => {
  /** A second one on the same database. */
  const anotherServer = () =>
    createWorking({
      db: harness.db,
      vital: harness.db,
      log: pino({ level: 'silent' }),
      databaseUrl: harness.url,
      version: '9.9.9',
    });

  it('when stopped, leaves the run interrupted and loads off; another takes it up at the step it was in', async () => {
    const second = anotherServer();
    runId = await soak();
    await bench.drawing(runId);
    await harness.runner.close();
    expect(draws()).toBe(false);
    const run = await bench.call<SheetRun>('get', `/sheet-runs/${runId}`);
    expect(run).toMatchObject({
      state: 'interrupted',
      stepId: 'soak',
      says: expect.stringContaining('The server was stopped.'),
    });
    await second.watch();
    try {
      await bench.ask(runId, { kind: 'go on', person: 'Warden' });
      await bench.drawing(runId);
      await bench.ask(runId, { kind: 'skip', reason: 'taken up' });
      const end = await bench.through(runId, ({ state }) => state === 'done', 'taken up and ended');
      expect(end.outcomes.soak).toMatchObject({ state: 'skipped', says: 'taken up' });
    } finally {
      await second.close();
      await harness.runner.watch();
    }
  });

  it('without a word is noticed: the run shows as interrupted and its loads go off', async () => {
    const second = anotherServer();
    runId = await soak();
    await bench.drawing(runId);
    await harness.runner.close();
    // As if it had been killed: the row still says it runs, and nobody says it is alive.
    await harness.db
      .update(sheetRuns)
      .set({ state: 'running', says: '', aliveAt: new Date(Date.now() - 10_000) })
      .where(eq(sheetRuns.id, runId));
    bench.rack.bench.setLoad('C1', { on: true });
    await second.watch();
    try {
      const run = await bench.until(runId, ({ state }) => state === 'interrupted', 'noticed');
      expect(run.says).toContain('The server went away in the middle of it. Loads are off');
      await untilOff();
      await bench.ask(runId, { kind: 'stop', reason: '' });
      await bench.until(runId, ({ state }) => state === 'stopped', 'stopped after all');
    } finally {
      await second.close();
      await harness.runner.watch();
    }
  });
});
