// What the verdicts need of the server: unknown accuracies kept as unknown, classes with their reasons, shared promises,
// figures that never outlive what they follow from.
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { DossierAnswer, Sample, SampleDossier, StoredInstrument, StoredSetup } from '@lastmark/contract';
import { FIGURES_FORM, judgeSample } from '@lastmark/core/verdict';
import { eq, sql } from 'drizzle-orm';
import request from 'supertest';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { changed, changedForAll, EVERYONE, revisionsOf, sharedRevision } from '../src/changes/changes.ts';
import { newId } from '../src/db/ids.ts';
import { figures, readings, samples } from '../src/db/schema.ts';
import { getDossier } from '../src/dossier/dossier.ts';
import { toJudge } from '../src/dossier/judged.ts';
import { keepFigures, workOutFigures } from '../src/shelf/figures.ts';
import { listSamples } from '../src/shelf/shelf.ts';
import { aPoint, aSample, type Harness, makers, startHarness } from '../testing/harness.ts';

let harness: Harness;
beforeAll(async () => {
  harness = await startHarness('verdicts');
});
afterAll(async () => {
  await harness.stop();
});

const verdictOf = async (id: string) => judgeSample(toJudge(await getDossier(harness.db, id)));
const spec = {
  readingPercent: 0.05,
  rangePercent: 0,
  range: 0,
  offset: 0.004,
  resolution: 0,
  floor: 0,
  coverage: 'not stated',
};

describe('a meter nobody stated the accuracy of', () => {
  it('is kept as unknown, decides nothing, and decides once it is stated', async () => {
    const make = makers(harness);
    const bare = {
      name: 'Nameless meter',
      class: 'bench multimeter',
      firmware: '',
      calibrationDue: null,
      address: null,
      profileId: null,
      sees: null,
      specs: {},
    };
    const meter = await make.post<StoredInstrument>('/instruments', bare);
    const meters = { mains: meter.id, outputVolts: meter.id, outputAmps: meter.id, loadEnd: null };
    const rig = await make.rig({ meters });
    const { id } = await make.sample();
    await make.claim(id, { kind: 'port-line', port: 'C1', volts: 20, amps: 3.25 });
    const setup = await make.setup(id, rig.id);
    const points = [aPoint(setup.id, rig.id, { watts: '72', volts: '20.05', amps: '3.25' })];
    await make.post(`/samples/${id}/readings`, { points });

    const { body } = await request(harness.app).get(`/api/samples/${id}/dossier`);
    expect((body as SampleDossier).points[0]?.readings.map(({ u }) => u)).toEqual([null, null, null]);
    expect((await verdictOf(id)).claims[0]).toMatchObject({
      state: 'cannot be decided',
      sentence: expect.stringContaining('The accuracy of “Nameless meter” for voltage and current is not stated.'),
    });

    const put = (specs: object) =>
      request(harness.app)
        .put(`/api/instruments/${meter.id}`)
        .set('If-Match', '"v1"')
        .send({ ...bare, specs });
    // Nothing but zeroes is no statement.
    expect((await put({ voltage: { ...spec, readingPercent: 0, offset: 0 } })).status).toBe(422);
    expect((await put({ voltage: spec, current: spec, power: spec })).status).toBe(200);
    expect((await verdictOf(id)).claims[0]?.state).toBe('proven');
  });

  it('is unknown in a database from before, where it was written as nought', async () => {
    const make = makers(harness);
    const rig = await make.rig();
    const { id } = await make.sample();
    const setup = await make.setup(id, rig.id);
    await make.post(`/samples/${id}/readings`, { points: [aPoint(setup.id, rig.id, { watts: '72', volts: '20.05' })] });
    const [watts] = await harness.db.select().from(readings).where(eq(readings.quantity, 'power'));
    await harness.db
      .update(readings)
      .set({ u: 0 })
      .where(eq(readings.id, watts?.id ?? ''));
    const migration = readFileSync(join(import.meta.dirname, '../migrations/0007_verdicts.sql'), 'utf8');
    const mend = migration.split('--> statement-breakpoint').at(-1)?.trim() ?? '';
    expect(mend).toMatch(/^UPDATE/);
    await harness.db.execute(sql.raw(mend));
    const [after] = await harness.db
      .select()
      .from(readings)
      .where(eq(readings.id, watts?.id ?? ''));
    expect(after?.u).toBeNull();
    const others = await harness.db.select().from(readings).where(eq(readings.quantity, 'voltage'));
    expect(others.some(({ u }) => u !== null && u > 0)).toBe(true);
  });
});

describe('a nameplate class of one’s own', () => {
  it('of a loading stays with its reason when the loading is changed', async () => {
    const make = makers(harness);
    const rig = await make.rig();
    const { id } = await make.sample();
    const { id: setupId, version: _, ...input } = await make.setup(id, rig.id);
    const own = { ...input, nameplateClass: 'multiple-voltage', classReason: 'two outputs behind a flap' };
    const put = (version: number, body: object) =>
      request(harness.app).put(`/api/setups/${setupId}`).set('If-Match', `"v${version}"`).send(body);
    expect((await put(1, own)).status).toBe(200);
    const renamed = await put(2, { ...own, name: 'Both at 20 V' });
    expect(renamed.body as StoredSetup).toMatchObject({ name: 'Both at 20 V', classReason: own.classReason });
    expect((await put(3, { ...own, classReason: null })).status).toBe(422);
  });

  it('of a sample needs a reason, and decides its no-load limit', async () => {
    const make = makers(harness);
    const sample = await make.sample();
    const put = (classChoice: object | null, etag: string) =>
      request(harness.app)
        .put(`/api/samples/${sample.id}`)
        .set('If-Match', etag)
        .send({ ...aSample(), model: { ...aSample().model, classChoice } });
    expect((await put({ nameplateClass: 'basic', reason: '' }, sample.etag)).status).toBe(422);
    const kept = await put({ nameplateClass: 'basic', reason: 'one port at a time' }, sample.etag);
    expect((kept.body as Sample).model.classChoice).toEqual({ nameplateClass: 'basic', reason: 'one port at a time' });
    const back = await put(null, (kept.body as Sample).etag);
    expect((back.body as Sample).model.classChoice).toBeNull();
  });
});

describe('ports that share what is promised', () => {
  it('are ports of the sample, each once', async () => {
    const make = makers(harness);
    const { id } = await make.sample();
    const shared = await make.claim(id, { kind: 'combination', shares: [{ port: 'C1', with: ['A1'], watts: 20 }] });
    expect(shared.promise).toEqual({ kind: 'combination', shares: [{ port: 'C1', with: ['A1'], watts: 20 }] });
    for (const shares of [
      [{ port: 'C1', with: ['C9'], watts: 20 }],
      [{ port: 'C1', with: ['C1'], watts: 20 }],
      [
        { port: 'C1', with: ['A1'], watts: 20 },
        { port: 'A1', watts: 5 },
      ],
      [],
    ]) {
      const answer = await request(harness.app)
        .post(`/api/samples/${id}/claims`)
        .send({ promise: { kind: 'combination', shares }, duration: { kind: 'unstated' }, printed: 'label' });
      expect(answer.status).toBe(422);
    }
  });
});

describe('key figures', () => {
  const shelfRow = async (id: string) => {
    const { items } = await listSamples(harness.db, { size: 200 });
    const row = items.find((one) => one.id === id);
    if (!row) throw new Error('gone');
    return row;
  };
  const sampleRow = async (id: string) => {
    const [row] = await harness.db.select().from(samples).where(eq(samples.id, id));
    if (!row) throw new Error('gone');
    return row;
  };
  const shared = async () => sharedRevision(await revisionsOf(harness.db, [EVERYONE]));
  const workOut = async () => {
    while (await workOutFigures(harness.db, 50));
  };

  it('are answered at once and say that they are being worked out', async () => {
    const { id } = await makers(harness).sample();
    await workOut();
    expect(await shelfRow(id)).toMatchObject({ pending: false, unjudged: false });
    await harness.db.transaction((tx) => changed(tx, id, 'points'));
    expect(await shelfRow(id)).toMatchObject({ pending: true, figures: { form: FIGURES_FORM } });
    await workOut();
    expect((await shelfRow(id)).pending).toBe(false);
  });

  it('follow a change of rules, which touches one row and no sample', async () => {
    const { id } = await makers(harness).sample();
    await workOut();
    const before = await sampleRow(id);
    await changedForAll(harness.db, 'profile');
    expect(await sampleRow(id)).toEqual(before);
    expect((await shelfRow(id)).pending).toBe(true);
    await workOut();
    expect((await shelfRow(id)).pending).toBe(false);
    expect((await sampleRow(id)).updatedAt).toEqual(before.updatedAt);
  });

  it('worked out before a change are not kept after it', async () => {
    const { id } = await makers(harness).sample();
    await workOut();
    const { changes } = await sampleRow(id);
    const { figures: body } = await shelfRow(id);
    await harness.db.transaction((tx) => changed(tx, id, 'claims' as never));
    await keepFigures(harness.db, [{ id, changes, body: { ...body, watts: 999 } }], await shared());
    expect(await shelfRow(id)).toMatchObject({ pending: true, figures: { watts: body.watts } });
    await keepFigures(harness.db, [{ id, changes: changes + 1, body }], await shared());
    expect(await shelfRow(id)).toMatchObject({ pending: false, figures: body });
  });

  it('worked out before a change of rules are not kept for current ones', async () => {
    const { id } = await makers(harness).sample();
    const seen = await shared();
    await changedForAll(harness.db, 'rigs');
    const { changes } = await sampleRow(id);
    await keepFigures(harness.db, [{ id, changes, body: null }], seen);
    expect(await shelfRow(id)).toMatchObject({ pending: true, unjudged: true });
    await workOut();
    expect(await shelfRow(id)).toMatchObject({ pending: false, unjudged: false });
  });

  it('of an older form are worked out anew', async () => {
    const { id } = await makers(harness).sample();
    await workOut();
    const { figures: body } = await shelfRow(id);
    const old = { ...body, form: FIGURES_FORM - 1, watts: 999 };
    await harness.db
      .update(figures)
      .set({ body: old, form: FIGURES_FORM - 1 })
      .where(eq(figures.sampleId, id));
    expect((await shelfRow(id)).pending).toBe(true);
    await workOut();
    expect(await shelfRow(id)).toMatchObject({ pending: false, figures: body });
  });

  it('sort the shelf, what is missing last either way', async () => {
    const make = makers(harness);
    const [small, large, unknown] = [await make.sample(), await make.sample(), await make.sample()];
    await make.claim(small.id, { kind: 'total', watts: 20 });
    await make.claim(large.id, { kind: 'total', watts: 140 });
    await workOut();
    const ours = [small.id, large.id, unknown.id];
    const order = async (down: boolean) =>
      (await listSamples(harness.db, { size: 200, sort: 'watts', down })).items
        .map(({ id }) => id)
        .filter((id) => ours.includes(id));
    expect(await order(false)).toEqual([small.id, large.id, unknown.id]);
    expect(await order(true)).toEqual([large.id, small.id, unknown.id]);
    // Page by page it is the same list: nothing twice and nothing left out where those without a figure begin.
    for (const query of [{}, { down: true }, { kind: 'wall' as const }]) {
      const ids = async (size: number, page: number) =>
        (await listSamples(harness.db, { size, page, sort: 'watts', ...query })).items.map(({ id }) => id);
      const whole = await ids(200, 1);
      const pages: string[] = [];
      for (let page = 1; pages.length < whole.length; page += 1) {
        const more = await ids(2, page);
        expect(more.length).toBeGreaterThan(0);
        pages.push(...more);
      }
      expect(pages).toEqual(whole);
    }
  });
});

describe('a dossier for who has some of it', () => {
  const since = async (id: string, have: string) => {
    const answer = await request(harness.app).get(`/api/samples/${id}/dossier?have=${have}`);
    expect(answer.status).toBe(200);
    return answer.body as DossierAnswer;
  };
  const have = ({ revisions }: DossierAnswer) =>
    Object.entries(revisions)
      .map((pair) => pair.join('.'))
      .join(',');
  const parts = (answer: DossierAnswer) => Object.keys(answer).sort();

  it('is only what changed', async () => {
    const make = makers(harness);
    const { id } = await make.sample();
    const rig = await make.rig();
    const setup = await make.setup(id, rig.id);
    const first = await since(id, '');
    expect(first).toMatchObject({ claims: [], setups: [{ id: setup.id }], points: [] });
    expect(parts(await since(id, have(first)))).toEqual(['revisions', 'sample']);
    const point = aPoint(setup.id, rig.id, { watts: '71.62', volts: '20.043', amps: '3.248' });
    await make.post(`/samples/${id}/readings`, { points: [point] });
    const second = await since(id, have(first));
    expect(parts(second)).toEqual(['points', 'revisions', 'sample']);
    expect(second.points).toHaveLength(1);
    await make.claim(id, { kind: 'total', watts: 65 });
    await make.rig();
    expect(parts(await since(id, have(second)))).toEqual(['claims', 'instruments', 'revisions', 'rigs', 'sample']);
  });

  it('is everything for what nobody can have', async () => {
    const { id } = await makers(harness).sample();
    const whole = parts(await since(id, ''));
    for (const odd of ['points.x', 'points.-1', 'points.99999', 'nonsense', '__proto__.1', ','])
      expect(parts(await since(id, odd)), odd).toEqual(whole);
    expect((await request(harness.app).get(`/api/samples/${id}/dossier?have=${'a'.repeat(500)}`)).status).toBe(422);
  });

  it('counts every part that is written', async () => {
    const make = makers(harness);
    const { id } = await make.sample();
    const before = await since(id, '');
    const rig = await make.rig();
    const setup = await make.setup(id, rig.id);
    await make.post(`/samples/${id}/stated`, {
      id: newId(),
      setupId: setup.id,
      mains: { kind: 'ac', volts: 230, hertz: 50 },
      taken: { warmUp: 1800, rest: null, source: { volts: 230, hertz: 50, distortion: null, crest: null } },
    });
    const after = await since(id, have(before));
    expect(parts(after)).toEqual(['instruments', 'revisions', 'rigs', 'sample', 'setups', 'stated'].sort());
  });
});
