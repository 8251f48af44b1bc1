// A simulated rack with its rig on a harness, for tests of runs.
import { CHARGERS, type ChargerTruth, CLASSES, type InstrumentClass, type Rack, startRack } from '@lastmark/bench/sim';
import type { Sample, SheetRun, StoredRig, StoredSheet } from '@lastmark/contract';
import { type Condition, ofKind, type PointStep, type SheetStep } from '@lastmark/core/plan';
import request from 'supertest';
import { expect } from 'vitest';
import { listRigs } from '../src/bench/store.ts';
import { createSimulatedInstrumentsAt } from '../src/demo/simulated.ts';
import { type Harness, makers } from './harness.ts';
import { NO_TIME } from './no-time.ts';

type Wanted = (run: SheetRun) => boolean;

export interface TestRig {
  readonly rack: Rack;
  readonly rig: StoredRig;
  readonly sample: Sample;
  readonly make: ReturnType<typeof makers>;
  readonly call: <T>(method: 'get' | 'post', path: string, body?: object) => Promise<T>;
  readonly sheet: (
    steps?: (made: readonly SheetStep[]) => readonly SheetStep[],
    methodId?: string,
    conditions?: readonly Condition[],
  ) => Promise<StoredSheet>;
  /** Put a desktop charger of the simulated world on the bench, and take it in as a sample. */
  readonly play: (name: string) => Promise<{ readonly truth: ChargerTruth; readonly sample: Sample }>;
  readonly start: (sheetId: string, part?: object) => Promise<SheetRun>;
  readonly ask: (runId: string, ask: object) => Promise<SheetRun>;
  /** Wait until a run is as wanted. */
  readonly until: (runId: string, wanted: Wanted, what: string) => Promise<SheetRun>;
  /** Wait until a run is as wanted. Where only this machine had no time for it, it is gone on with, as a person would. */
  readonly through: (runId: string, wanted: Wanted, what: string) => Promise<SheetRun>;
  /** Wait through until it is held, or interrupted, and says why. */
  readonly heldFor: (runId: string, why: RegExp) => Promise<SheetRun>;
  /** Wait through until the first port of the charger draws. */
  readonly drawing: (runId: string) => Promise<void>;
  /** Wait through until it ends. */
  readonly toItsEnd: (runId: string, what: string) => Promise<SheetRun>;
  /** Stop whatever still runs, so that a test that failed costs no other. */
  readonly release: () => Promise<void>;
  readonly close: () => Promise<void>;
}

/** The point of a sheet that loads 20 V fully, as one of its own. */
export const fullPoint = (steps: readonly SheetStep[], part: Partial<PointStep> & Pick<PointStep, 'id'>): PointStep => {
  const point = ofKind(steps, 'point').find(({ outputs, load }) => outputs[0]?.volts === 20 && load === 1);
  if (!point) throw new Error('The sheet has no point at 20 V.');
  return { ...point, settle: null, dwell: 100_000, ...part };
};

/** Longer than anything takes on a busy processor, ms. */
const PATIENCE = 200_000;

const stopped = ({ state }: SheetRun): boolean => state === 'held' || state === 'interrupted';

/**
 * A failure that tells of a run in that state, whatever a test calls what it waits for; or one a test calls void because
 * a record says that it has a hole.
 */
export const VOID = new RegExp(`^void: |\\b(held|interrupted)(: | ")[^\n]*?(${NO_TIME.source})`);

/** For a test of what happens at its time: where a run itself says that the machine had none, it is void and done again. */
export const AGAIN_WHERE_VOID = { retry: { count: 3, condition: VOID } };

/**
 * An Ember 45 with its claims on a rack whose clock runs fast.
 * @param harness with its runner where runs are carried out here, and not by servers of the test's own
 * @param via where an instrument is reached instead of at its own port
 */
export async function startRig(
  harness: Pick<Harness, 'db' | 'app'> & Partial<Pick<Harness, 'runner'>>,
  speed: number,
  seed = 3,
  via: (kind: InstrumentClass, port: number) => Promise<number> = async (_kind, port) => port,
): Promise<TestRig> {
  const rack = await startRack({ firstPort: 0, speed, seed });
  const ports = new Map<InstrumentClass, number>();
  for (const kind of CLASSES) ports.set(kind, await via(kind, rack.ports[kind]));
  await createSimulatedInstrumentsAt(harness.db, (kind) => ports.get(kind) ?? 0);
  const rig = (await listRigs(harness.db)).at(-1) as StoredRig;
  const make = makers(harness);
  const sample = await make.sample({ model: { ports: [{ label: 'C1', connector: 'C', twin: null }] } });
  // As a server that was started: it takes up what was interrupted.
  await harness.runner?.watch();
  const call = async <T>(method: 'get' | 'post', path: string, body?: object): Promise<T> => {
    const answer = await request(harness.app)[method](`/api${path}`).send(body);
    if (answer.status >= 400) throw new Error(`${path}: ${answer.status} ${answer.body.detail}`);
    return answer.body as T;
  };
  const wait = async (runId: string, wanted: Wanted, what: string, meanwhile: (run: SheetRun) => Promise<unknown>) => {
    const begun = Date.now();
    for (;;) {
      const run = await call<SheetRun>('get', `/sheet-runs/${runId}`);
      if (wanted(run)) return run;
      await meanwhile(run);
      if (Date.now() - begun > PATIENCE) {
        expect.fail(
          `${what}: still ${run.state} "${run.says}" at ${run.stepId} ${JSON.stringify(run.progress)} ${JSON.stringify(run.outcomes)}`,
        );
      }
      await new Promise((resolve) => setTimeout(resolve, 150));
    }
  };
  const until: TestRig['until'] = (runId, wanted, what) => wait(runId, wanted, what, async () => undefined);
  const through: TestRig['through'] = (runId, wanted, what) =>
    wait(runId, wanted, what, async (run) => {
      if (!stopped(run) || !NO_TIME.test(run.says)) return;
      await call('post', `/sheet-runs/${runId}/asks`, { ask: { kind: 'go on', person: 'Warden' } });
      await until(runId, ({ state }) => state !== run.state, `${what} goes on`);
    });
  return {
    rack,
    rig,
    sample,
    make,
    call,
    sheet: async (change, methodId = 'local-mains', conditions = undefined) => {
      const made = await call<StoredSheet>('post', `/samples/${sample.id}/run-sheets`, { methodId, rigId: rig.id });
      if (!change) return made;
      const answer = await request(harness.app)
        .put(`/api/run-sheets/${made.id}`)
        .set('If-Match', '"v1"')
        .send({ title: made.title, rigId: rig.id, steps: change(made.steps), ...(conditions ? { conditions } : {}) });
      expect(answer.status, JSON.stringify(answer.body)).toBe(200);
      return answer.body as StoredSheet;
    },
    play: async (name) => {
      const truth = CHARGERS.find((one) => one.name === name);
      if (!truth) throw new Error(`The simulated bench has no ${name}.`);
      rack.bench.load(truth);
      const ports = truth.ports.map(({ label }) => ({ label, connector: 'C' as const, twin: null }));
      return { truth, sample: await make.sample({ model: { model: name, kind: 'desktop', ports } }) };
    },
    start: (sheetId, part = {}) =>
      call<SheetRun>('post', `/run-sheets/${sheetId}/runs`, {
        person: 'Warden',
        tag: sample.tag,
        watched: false,
        ...part,
      }),
    ask: (runId, ask) => call<SheetRun>('post', `/sheet-runs/${runId}/asks`, { ask }),
    until,
    through,
    heldFor: (runId, why) => through(runId, (run) => stopped(run) && why.test(run.says), `held for ${why}`),
    drawing: async (runId) => {
      await through(runId, () => rack.bench.isOn('C1'), 'draws');
    },
    toItsEnd: (runId, what) =>
      through(
        runId,
        (run) => !['running', 'waiting'].includes(run.state) && !(stopped(run) && NO_TIME.test(run.says)),
        what,
      ),
    release: async () => {
      const leases = async () => (await call<{ items: { runId: string }[] }>('get', '/leases')).items;
      for (const id of new Set((await leases()).map(({ runId }) => runId))) {
        await call('post', `/sheet-runs/${id}/asks`, { ask: { kind: 'stop', reason: 'after the test' } });
        await until(id, ({ state }) => state === 'stopped', 'stopped after the test');
      }
      await expect.poll(leases).toEqual([]);
    },
    close: () => rack.close(),
  };
}
