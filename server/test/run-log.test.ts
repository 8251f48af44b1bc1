// A run in the log: what it finished, what it sent to which instrument, and how it ended; for whoever asks of a sample, a run or a load.
import type { LogPage, LogRow } from '@lastmark/contract';
import { ofKind } from '@lastmark/core/plan';
import request from 'supertest';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { listInstruments } from '../src/bench/store.ts';
import { type Harness, startHarness } from '../testing/harness.ts';
import { NO_TIME } from '../testing/no-time.ts';
import { fullPoint, startRig, type TestRig } from '../testing/rig.ts';

let harness: Harness;
let rig: TestRig;
beforeAll(async () => {
  harness = await startHarness('run_log');
  rig = await startRig(harness, 200);
  await rig.make.claim(rig.sample.id, { kind: 'port-line', port: 'C1', volts: 20, amps: 2.25 });
});
afterAll(async () => {
  await rig.close();
  await harness.stop();
});

const log = async (query: string): Promise<LogRow[]> =>
  ((await request(harness.app).get(`/api/log?${query}&size=200`).expect(200)).body as LogPage).items;

const loadId = async () => (await listInstruments(harness.db)).find((one) => one.class === 'DC load')?.id ?? '';

/** What was sent, the first line first. */
const linesOf = (rows: readonly LogRow[]) =>
  rows
    .filter(({ operation }) => operation === 'command')
    .reverse()
    .flatMap(({ changes }) => changes.map(({ field, is }) => `${field}: ${is}`));

it('tells of steps, commands and the end, found by sample, run, reading and instrument', async () => {
  const sheet = await rig.sheet((steps) => [fullPoint(steps, { id: 'P1', dwell: 30 })]);
  const run = await rig.start(sheet.id);
  const done = await rig.toItsEnd(run.id, 'one point');
  expect(done.state).toBe('done');
  const made = done.outcomes.P1?.madeIds[0] ?? '';
  await expect.poll(async () => linesOf(await log(`thing=${run.id}`)).at(-1)).toMatch(/: OUTP OFF$/);
  const rows = await log(`thing=${run.id}`);
  const [step] = rows.filter(({ operation }) => operation === 'finishStep');
  expect(step).toMatchObject({
    what: 'Finished a step of a run',
    sampleId: rig.sample.id,
    who: 'This machine',
    through: 'server',
  });
  expect(step?.changes).toEqual(
    expect.arrayContaining([
      { field: 'Step', was: null, is: sheet.steps[0]?.title },
      { field: 'What happened', was: null, is: 'done' },
    ]),
  );
  expect(rows.filter(({ operation }) => operation === 'endRun')).toHaveLength(1);
  // What happened to the point it measured: the step that made it.
  expect((await log(`thing=${made}`)).map(({ id }) => id)).toContain(step?.id);
  // On the sample, and on the load: it was told a current before it was switched on.
  for (const query of [`sample=${rig.sample.id}`, `thing=${await loadId()}`]) {
    const lines = linesOf(await log(query));
    const told = lines.findIndex((line) => /: CURR 2\.25$/.test(line));
    const on = lines.findIndex((line) => /: INP ON$/.test(line));
    expect(told, lines.join('\n')).toBeGreaterThan(-1);
    expect(on).toBeGreaterThan(told);
    expect(lines.findLastIndex((line) => /: INP:ALL OFF$/.test(line))).toBeGreaterThan(on);
  }
  // By words of what was sent.
  expect((await log('q=CURR 2.25')).length).toBeGreaterThan(0);
});

it('tells why it holds, what was skipped, and who stopped it', async () => {
  const sheet = await rig.sheet((steps) => [
    ...ofKind(steps, 'point')
      .slice(0, 1)
      .map((step) => ({ ...step, skip: 'no time' })),
    fullPoint(steps, { id: 'P2' }),
  ]);
  const run = await rig.start(sheet.id);
  await rig.through(run.id, ({ stepId, progress }) => stepId === 'P2' && progress !== null, 'the point is on');
  await rig.ask(run.id, { kind: 'hold' });
  await rig.heldFor(run.id, /^On hold/);
  await rig.ask(run.id, { kind: 'stop', reason: 'enough' });
  await rig.until(run.id, ({ state }) => state === 'stopped', 'stopped');
  const told = (await log(`thing=${run.id}`))
    .filter(({ through, operation }) => through === 'server' && operation !== 'command')
    .map(({ operation, changes }) => [operation, ...changes.map(({ is }) => is)].join(' '))
    // Of the machine's own making, and gone on with.
    .filter((line) => !NO_TIME.test(line))
    .reverse();
  expect(told).toHaveLength(3);
  expect(told[0]).toMatch(/^finishStep .*skipped no time$/);
  expect(told[1]).toMatch(/^holdRun On hold/);
  expect(told[2]).toMatch(/^endRun Stopped: enough/);
});
