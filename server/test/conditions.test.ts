// A run that does something by itself: reads again, leaves out, adds, and says why; what it added survives its server.
import { CHARGERS } from '@lastmark/bench/sim';
import type { SampleDossier, SheetRun, StoredInstrument, StoredMethod, StoredSheet } from '@lastmark/contract';
import {
  type Condition,
  type Method,
  methodOf,
  ofKind,
  type PointStep,
  type SheetStep,
  USUAL_CONDITIONS,
} from '@lastmark/core/plan';
import request from 'supertest';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { type Harness, startHarness } from '../testing/harness.ts';
import { AGAIN_WHERE_VOID, fullPoint, startRig, type TestRig } from '../testing/rig.ts';

let harness: Harness;
let bench: TestRig;
beforeAll(async () => {
  harness = await startHarness('conditions', { liveEvery: 25 });
  bench = await startRig(harness, 60);
  for (const volts of [5, 20])
    await bench.make.claim(bench.sample.id, { kind: 'port-line', port: 'C1', volts, amps: volts === 5 ? 3 : 2.25 });
});
afterEach(async () => {
  await bench.release();
  bench.rack.bench.setSupply({ on: false });
  bench.rack.bench.setSupply({ on: true });
});
afterAll(async () => {
  await harness.stop();
  await bench.close();
});

const run = async (
  steps: (made: readonly SheetStep[]) => readonly SheetStep[],
  conditions: readonly Condition[],
): Promise<SheetRun> => bench.start((await bench.sheet(steps, 'local-mains', conditions)).id);
const shortPoint = (made: readonly SheetStep[], id: string, part: Partial<PointStep> = {}): PointStep => {
  const series = ofKind(made, 'point').find(({ station, load }) => station === 'efficiency' && load === 1);
  return { ...(series as PointStep), id, dwell: 4, settle: null, attended: false, ...part };
};
const U = /U ([\d.]+) %: the meters alone leave ([\d.]+) %/;

const put = (sheet: StoredSheet, conditions: unknown) =>
  request(harness.app)
    .put(`/api/run-sheets/${sheet.id}`)
    .set('If-Match', `"v${sheet.version}"`)
    .send({ title: sheet.title, rigId: sheet.rigId, steps: sheet.steps, conditions });

describe('a point whose U is to be small', () => {
  it('says that reading again would not help where the meters alone leave more', async () => {
    const exact = await run((made) => [shortPoint(made, 'p')], [{ kind: 'repeat', within: 0.0001, most: 4 }]);
    const alone = await bench.toItsEnd(exact.id, 'the exact one');
    const [, all = '', floor = ''] = U.exec(alone.outcomes.p?.says ?? '') ?? [];
    expect(alone.steps, alone.outcomes.p?.says).toHaveLength(1);
    expect(Number(all)).toBeGreaterThanOrEqual(Number(floor));
    expect(Number(floor)).toBeGreaterThan(0.01);
  });

  it('is read again where its scatter is what is left, up to the count, and each reading stands in the record', async () => {
    // Meters said to be all but perfect: what remains is what readings differ by.
    const { items } = await bench.call<{ items: StoredInstrument[] }>('get', '/instruments');
    const meters = items.filter(({ id }) => Object.values(bench.rig.meters).includes(id));
    for (const { id, version, ...instrument } of meters) {
      const perfect = { readingPercent: 1e-7, rangePercent: 0, range: 0, offset: 0, resolution: 0, floor: 0 };
      const specs = Object.fromEntries(
        Object.entries(instrument.specs).map(([quantity, spec]) => [quantity, { ...spec, ...perfect }]),
      );
      const answer = await request(harness.app)
        .put(`/api/instruments/${id}`)
        .set('If-Match', `"v${version}"`)
        .send({ ...instrument, specs });
      expect(answer.status, JSON.stringify(answer.body)).toBe(200);
    }
    const { id } = await run((made) => [shortPoint(made, 'p')], [{ kind: 'repeat', within: 0.00001, most: 3 }]);
    const ended = await bench.toItsEnd(id, 'the repeats');
    expect(ended.says).toBe('3 of 3 steps done.');
    expect(ended.steps.map(({ repeats }) => repeats ?? '')).toEqual(['', 'p', 'p']);
    expect(ended.steps[1]?.because).toMatch(/^U was [\d.]+ %, more than 0\.001 %\.$/);
    expect(ended.outcomes.a2?.says).toMatch(/U [\d.]+ % after 3 readings, more than 0\.001 %\.$/);
    const { points } = await bench.call<SampleDossier>('get', `/samples/${bench.sample.id}/dossier`);
    const made = Object.values(ended.outcomes).flatMap(({ madeIds }) => madeIds);
    expect(points.filter((one) => made.includes(one.id))).toHaveLength(3);
  });

  it('takes looser words at their word: nothing is read twice', async () => {
    const { id } = await run((made) => [shortPoint(made, 'p')], [{ kind: 'repeat', within: 0.5, most: 9 }]);
    const ended = await bench.toItsEnd(id, 'one reading');
    expect([ended.steps.length, ended.says]).toEqual([1, '1 of 1 steps done.']);
  });
});

describe('an output that goes away under load', AGAIN_WHERE_VOID, () => {
  it('is proved again right behind the step, which is in the run before anybody answers', async () => {
    const { id } = await run(
      (made) => [fullPoint(made, { id: 'soak', dwell: 240, attended: false }), shortPoint(made, 'after')],
      [USUAL_CONDITIONS.gone],
    );
    await bench.drawing(id);
    bench.rack.bench.cutOut();
    const held = await bench.heldFor(id, /^C1 cut off/);
    if (held.outcomes.soak?.state === 'done')
      throw new Error('void: the first step was over before anybody cut it out');
    expect(held.steps.map((step) => [step.id, step.because ?? ''])).toEqual([
      ['soak', ''],
      ['a1', 'C1 went away under load.'],
      ['a2', 'C1 went away under load.'],
      ['after', ''],
    ]);
    await bench.ask(id, { kind: 'cycle' });
    await bench.until(id, ({ state }) => state !== 'held', 'goes on');
    const ended = await bench.toItsEnd(id, 'proved again');
    expect(ended.says).toBe('4 of 4 steps done.');
    expect(ended.outcomes.a1?.says).toMatch(/^C1 20\.\d+ V/);
    expect(ended.outcomes.a2?.says).toMatch(/^C1 (19|20)\.\d+ V 2\.2\d+ A/);
  });
});

describe('a port that gives less than is asked', () => {
  it('has the rest of that level left out with the reason, and other levels read', async () => {
    const whole = CHARGERS.find(({ name }) => name === 'Ember 45');
    if (!whole) throw new Error('no such charger');
    bench.rack.bench.load({ ...whole, ports: whole.ports.map((port) => ({ ...port, weak: 0.93 })) });
    const { id } = await run(
      (made) => {
        const full = fullPoint(made, { id: 'full', dwell: 4, attended: false });
        const [output] = full.outputs;
        if (!output) throw new Error('no output');
        return [
          full,
          { ...full, id: 'half', load: 0.5 },
          { ...full, id: 'low', outputs: [{ ...output, volts: 5, amps: 1 }] },
        ];
      },
      [USUAL_CONDITIONS.folded],
    );
    const ended = await bench.toItsEnd(id, 'the rest left out');
    expect(ended.outcomes.half).toMatchObject({ state: 'skipped', says: expect.stringMatching(/^C1 (gave|fell)/) });
    expect(ended.outcomes.low?.state).toBe('done');
  });
});

describe('conditions', () => {
  it('come with the method, stay where a change names none, and are changed with the sheet', async () => {
    const sheet = await bench.sheet();
    expect(sheet.conditions.map(({ kind }) => kind)).toEqual(['unsettled', 'folded', 'dropped', 'gone']);
    const same = await put(sheet, undefined);
    expect([same.status, same.body.conditions]).toEqual([200, sheet.conditions]);
    const other = await put(same.body, [{ kind: 'repeat', within: 0.01, most: 2 }]);
    expect([other.status, other.body.conditions]).toEqual([200, [{ kind: 'repeat', within: 0.01, most: 2 }]]);
    expect((await put(other.body, [])).body.conditions).toEqual([]);
  });
  it.each([
    [[{ kind: 'gone' }, { kind: 'gone' }], 'A condition stands twice'],
    [[{ kind: 'repeat', within: 0.01, most: 1 }], 'Readings altogether of condition 1 must be at least 2'],
    [[{ kind: 'folded', share: 1.2 }], 'Share a port must give of condition 1 must be at most'],
    [[{ kind: 'dance' }], 'condition 1'],
  ])('that cannot be kept are refused in words: %j', async (conditions, words) => {
    const answer = await put(await bench.sheet(), conditions);
    expect([answer.status, JSON.stringify(answer.body.errors)]).toEqual([422, expect.stringContaining(words)]);
  });
});

describe('a method of one’s own', () => {
  const { id: _id, ...local } = methodOf('local-mains') as Method;
  const own = (part: object) => ({
    method: { ...local, title: 'Hut, watched', hottest: 348.15, watch: 'all the time', ...part },
    note: '',
  });
  it('carries its conditions, its heat limit and who watches into the sheet', async () => {
    const conditions: Condition[] = [{ kind: 'repeat', within: 0.01, most: 3 }];
    const made = await bench.make.post<StoredMethod>('/methods', own({ conditions }));
    const sheet = await bench.call<StoredSheet>('post', `/samples/${bench.sample.id}/run-sheets`, {
      methodId: made.id,
      rigId: bench.rig.id,
    });
    expect(sheet.conditions).toEqual(conditions);
    expect(sheet.steps.length).toBeGreaterThan(5);
    expect(sheet.steps.every(({ hottest, attended }) => hottest === 348.15 && attended)).toBe(true);
  });
  it.each([
    [{ hottest: 600 }, 'method.hottest'],
    [{ watch: 'never' }, 'method.watch'],
    [{ conditions: [{ kind: 'gone' }, { kind: 'gone' }] }, 'method.conditions'],
  ])('is refused with %j', async (part, path) => {
    const answer = await request(harness.app).post('/api/methods').send(own(part));
    expect([answer.status, answer.body.errors?.[0]?.path]).toEqual([422, path]);
  });
});

describe('a port that drops out of a combination', () => {
  it('is read in pairs with each of the others that the sheet does not have', async () => {
    const { sample } = await bench.play('Quad 130');
    bench.rack.clock.speed = 4;
    const made = await bench.call<StoredSheet>('post', `/samples/${sample.id}/run-sheets`, {
      methodId: 'local-mains',
      rigId: bench.rig.id,
    });
    const triple = ofKind(made.steps, 'split').find(({ order }) => order.length === 3 && order.includes('C1'));
    if (!triple) throw new Error('no set of three');
    await put({ ...made, steps: [triple] }, [USUAL_CONDITIONS.dropped]).expect(200);
    const { id } = await bench.start(made.id, { tag: sample.tag });
    const after = await bench.through(id, ({ outcomes }) => outcomes[triple.id] !== undefined, 'the set of three');
    const pairs = ofKind(after.steps, 'split').filter(({ order }) => order.length === 2);
    expect(after.outcomes[triple.id]?.says).toMatch(/dropped when/);
    expect(pairs.length, JSON.stringify(after.outcomes)).toBeGreaterThan(0);
    for (const { order, because } of pairs) {
      expect(order.every((port) => triple.order.includes(port))).toBe(true);
      expect(because).toMatch(/ dropped out of /);
    }
  });
});
