// A charger that dies in the middle of a sheet gets no verdict: the run notices, says what happened, and waits for proof.
import { CHARGERS } from '@lastmark/bench/sim';
import type { SampleDossier, SheetRun, StoredSheet } from '@lastmark/contract';
import { ofKind, type SheetStep, type StepKind } from '@lastmark/core/plan';
import { currentRuns } from '@lastmark/core/run';
import request from 'supertest';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { type Harness, startHarness } from '../testing/harness.ts';
import { fullPoint, startRig, type TestRig } from '../testing/rig.ts';

let harness: Harness;
let bench: TestRig;
beforeAll(async () => {
  harness = await startHarness('run_silence', { liveEvery: 25 });
  bench = await startRig(harness, 60);
  for (const volts of [5, 20])
    await bench.make.claim(bench.sample.id, { kind: 'port-line', port: 'C1', volts, amps: volts === 5 ? 3 : 2.25 });
});
afterEach(async () => {
  await bench.release();
  revive();
});
afterAll(async () => {
  await harness.stop();
  await bench.close();
});

const waits = ({ state }: SheetRun) => state === 'waiting';
const over = ({ state }: SheetRun) => state === 'done' || state === 'stopped';
const goOn = (id: string) => bench.ask(id, { kind: 'go on', person: 'Warden' });
const dossier = () => bench.call<SampleDossier>('get', `/samples/${bench.sample.id}/dossier`);
/** Everything that was ever measured of the sample. */
const measured = async () => {
  const { points, runs, readOuts, captures } = await dossier();
  return { points: points.length, runs: runs.length, readOuts: readOuts.length, captures: captures.length };
};
/** Without mains the charger forgets that it tripped. */
const revive = () => {
  bench.rack.bench.setSupply({ on: false });
  bench.rack.bench.setSupply({ on: true });
};

async function only(
  pick: (steps: readonly SheetStep[]) => readonly SheetStep[],
  method = 'regulatory-pair',
): Promise<string> {
  // What a run does by itself has tests of its own.
  const sheet = await bench.sheet(pick, method, []);
  return (await bench.start(sheet.id, { watched: false })).id;
}

const warmUpAndPoint = (steps: readonly SheetStep[]): SheetStep[] => {
  const warmUp = ofKind(steps, 'warm-up')[0] as SheetStep<'warm-up'>;
  const point = ofKind(steps, 'point').find(({ station, load }) => station === 'efficiency' && load === 1);
  return [
    { ...warmUp, id: 'warm', dwell: 1000, attended: false },
    { ...(point as SheetStep<'point'>), id: 'point', dwell: 5, settle: null, attended: false, mains: warmUp.mains },
  ];
};

describe('a cut-off', () => {
  it('in the middle of a point holds the run with time, load and supply, and is kept as found', async () => {
    const before = await measured();
    const id = await only((steps) => [fullPoint(steps, { id: 'soak', attended: false })]);
    await bench.drawing(id);
    bench.rack.bench.cutOut();
    const run = await bench.heldFor(id, /^C1 cut off/);
    expect(run.says).toMatch(
      /^C1 cut off [\d.]+ (s|min) after the load came on: C1 20 V 2\.25 A at 230 V 50 Hz, hottest .* °C/,
    );
    expect(run.says).toContain('Let it cool, replug it, or cycle the supply');
    expect(run.outcomes).toEqual({});
    const found = await dossier();
    expect(currentRuns(found.runs).at(-1)).toMatchObject({
      kind: 'hold',
      port: 'C1',
      volts: 20,
      amps: 2.25,
      end: 'cut off',
    });
    expect(await measured()).toEqual({ ...before, runs: before.runs + 1 });
    expect(bench.rack.bench.isOn('C1')).toBe(false);
  });

  it('counts as over only once the output is proved: going on finds it silent, cycling the supply finds it there', async () => {
    const id = await only((steps) => [fullPoint(steps, { id: 'soak', attended: false })]);
    await bench.drawing(id);
    bench.rack.bench.cutOut();
    await bench.heldFor(id, /^C1 cut off/);
    await goOn(id);
    const still = await bench.through(id, ({ says }) => says.includes('still silent'), 'still silent');
    expect(still.says).toContain('C1 is still silent: 0.0 V.');
    await bench.ask(id, { kind: 'cycle' });
    await bench.drawing(id);
    expect((await bench.call<SheetRun>('get', `/sheet-runs/${id}`)).state).toBe('running');
  });

  it.each<[StepKind, string]>([
    ['idle', 'regulatory-pair'],
    ['read-out', 'local-mains'],
    ['point', 'local-mains'],
    ['capture', 'regulatory-pair'],
    ['warm-up', 'regulatory-pair'],
  ])(
    'lets a step of the kind %s neither fail nor be done: nothing is stored of a dead charger',
    async (kind, method) => {
      const kinds: string[] = [];
      const before = await measured();
      bench.rack.bench.setDead(true);
      const id = await only((steps) => {
        const own = steps
          .filter((step) => step.kind === kind && !(step.kind === 'capture' && step.capture !== 'waveform'))
          .slice(0, 1);
        kinds.push(...own.map((step) => step.kind));
        return own.map((step) => ({ ...step, attended: false, dwell: Math.min(step.dwell, 60) }));
      }, method);
      expect(kinds).toEqual([kind]);
      try {
        const run = await bench.toItsEnd(id, kind);
        expect(run.state, JSON.stringify(run.outcomes)).toBe('held');
        expect(run.outcomes).toEqual({});
        const { runs, ...rest } = await measured();
        expect(rest).toEqual({ points: before.points, readOuts: before.readOuts, captures: before.captures });
        expect(runs - before.runs).toBeLessThanOrEqual(1);
      } finally {
        bench.rack.bench.setDead(false);
      }
    },
  );
});

describe('a warm-up', () => {
  it('that broke off is not done, and points behind it are taken only on purpose, saying so', async () => {
    const id = await only(warmUpAndPoint);
    await bench.drawing(id);
    bench.rack.bench.cutOut();
    await bench.heldFor(id, /^C1 cut off/);
    revive();
    await bench.ask(id, { kind: 'skip', reason: 'no time' });
    const asked = await bench.through(id, waits, 'asks');
    expect(asked.outcomes.warm?.state).toBe('skipped');
    expect(asked.says).toContain('The warm-up before this is not done.');
    await goOn(id);
    const run = await bench.toItsEnd(id, 'the point');
    expect(run.says).toBe('1 of 2 steps done, 1 left out.');
    const point = (await dossier()).points.find((one) => one.id === run.outcomes.point?.madeIds[0]);
    expect(point?.taken?.warmUp).toBe(0);
  });

  it('is done now when a person says Repeat, and a good one counts as a hold', async () => {
    const id = await only((steps) => {
      const [warmUp, point] = warmUpAndPoint(steps) as [SheetStep<'warm-up'>, SheetStep<'point'>];
      return [{ ...warmUp, dwell: 200 }, point];
    });
    await bench.drawing(id);
    bench.rack.bench.cutOut();
    await bench.heldFor(id, /^C1 cut off/);
    revive();
    await bench.ask(id, { kind: 'skip', reason: 'later' });
    await bench.through(id, waits, 'asks');
    await bench.ask(id, { kind: 'repeat' });
    const run = await bench.toItsEnd(id, 'both');
    expect(run.says).toBe('2 of 2 steps done.');
    const { points, runs } = await dossier();
    expect(points.find((one) => one.id === run.outcomes.point?.madeIds[0])?.taken?.warmUp).toBeGreaterThan(190);
    const hold = runs.find((one) => one.id === run.outcomes.warm?.madeIds[0]);
    expect(hold).toMatchObject({ kind: 'hold', end: 'held to the end', planned: 200, held: 200 });
  });
});

describe('one port of a combination', () => {
  it('that falls silent is proved alone, and is read as found once it falls silent in the same set again', async () => {
    const trio = CHARGERS.find(({ name }) => name === 'Trio 75');
    if (!trio) throw new Error('no Trio');
    const ports = trio.ports.map(({ label }) => ({
      label,
      connector: label.startsWith('A') ? ('A' as const) : ('C' as const),
      twin: null,
    }));
    const sample = await bench.make.sample({ model: { ports } });
    const made = await bench.call<StoredSheet>('post', `/samples/${sample.id}/run-sheets`, {
      methodId: 'local-mains',
      rigId: bench.rig.id,
    });
    const pair = ofKind(made.steps, 'split').find(
      ({ order }) => order.length === 2 && !order.some((one) => one[0] === 'A'),
    );
    const [first, second] = pair?.order ?? [];
    if (!pair || !first || !second) throw new Error('no pair of C ports');
    await request(harness.app)
      .put(`/api/run-sheets/${made.id}`)
      .set('If-Match', '"v1"')
      .send({ title: made.title, rigId: bench.rig.id, steps: [pair] })
      .expect(200);
    const ember = bench.rack.bench.charger;
    bench.rack.bench.load(trio);
    try {
      const { id } = await bench.call<SheetRun>('post', `/run-sheets/${made.id}/runs`, {
        person: 'Warden',
        tag: sample.tag,
        watched: false,
      });
      /** Once both draw all they may, the second goes. */
      const cutSecond = async () => {
        const { bench: sim } = bench.rack;
        await expect
          .poll(() => sim.port(first).amps > 1 && sim.port(second).amps > 1, { interval: 5, timeout: 60_000 })
          .toBe(true);
        sim.cutOut(second);
      };
      await cutSecond();
      await bench.heldFor(id, new RegExp(`^${second} cut off`));
      await goOn(id);
      await cutSecond();
      const run = await bench.toItsEnd(id, 'the pair');
      expect(run.says).toBe('1 of 1 steps done.');
      const { runs } = await bench.call<SampleDossier>('get', `/samples/${sample.id}/dossier`);
      const madeIds = run.outcomes[pair.id]?.madeIds ?? [];
      const found = runs.find(
        (one) => one.kind === 'split' && madeIds.includes(one.id) && one.shares.every(({ light }) => !light),
      );
      const amps = (port: string) =>
        found?.kind === 'split' ? found.shares.find((one) => one.port === port)?.amps : undefined;
      expect(amps(second)).toBeLessThan(0.01);
      expect(amps(first)).toBeGreaterThan(1);
      expect(run.outcomes[pair.id]).toMatchObject({ state: 'done', found: true });
      expect(run.outcomes[pair.id]?.says).toContain(`${second} gives nothing in this set; alone it does.`);
    } finally {
      bench.rack.bench.load(ember);
    }
  });
});

describe('a stopped run', () => {
  it('is taken up again where it stood, with the tag looked at anew, and counts by its own steps', async () => {
    const sheet = await bench.sheet((steps) => {
      const [point] = ofKind(steps, 'point').filter(({ load }) => load === 0);
      return [
        { ...(point as SheetStep<'point'>), id: 'first', attended: false },
        fullPoint(steps, { id: 'soak', dwell: 300, attended: false }),
        { ...(point as SheetStep<'point'>), id: 'left', skip: 'not today' },
      ];
    });
    const { id } = await bench.start(sheet.id);
    await bench.drawing(id);
    await bench.ask(id, { kind: 'stop', reason: 'lunch' });
    await bench.through(id, over, 'stopped');
    const resume = (body: object) => request(harness.app).post(`/api/sheet-runs/${id}/resume`).send(body);
    await resume({ person: 'Elder', tag: 'QQQQQQ', watched: false }).expect(422);
    const { body } = await resume({ person: 'Elder', tag: bench.sample.tag, watched: false }).expect(201);
    expect(body).toMatchObject({ id, state: 'running', person: 'Elder', endedAt: null });
    expect(body.outcomes.first.state).toBe('done');
    await resume({ person: 'Elder', tag: bench.sample.tag, watched: false }).expect(409);
    const run = await bench.toItsEnd(id, 'taken up again');
    expect(run.says).toBe('2 of 2 steps done, 1 left out.');
    const { items } = await bench.call<{ items: { id: string; run: object }[] }>('get', '/run-sheets');
    expect(items.find((one) => one.id === sheet.id)?.run).toMatchObject({ done: 2, steps: 2 });
  });
});
