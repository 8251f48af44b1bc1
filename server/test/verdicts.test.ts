// What the verdicts need of the server: unknown accuracies kept as unknown, classes with their reasons, shared promises,
// figures that never outlive what they follow from.
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Sample, SampleDossier, StoredInstrument, StoredSetup } from '@lastmark/contract';
import { FIGURES_FORM, judgeSample } from '@lastmark/core/verdict';
import { eq, sql } from 'drizzle-orm';
import request from 'supertest';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { forgetAllFigures } from '../src/changes/changes.ts';
import { readings, samples } from '../src/db/schema.ts';
import { getDossier, toJudge } from '../src/dossier/dossier.ts';
import { keepFigures, listSamples } from '../src/shelf/shelf.ts';
import { aPoint, aSample, type Harness, makers, startHarness } from './harness.ts';

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
  const rowOf = async (id: string) => {
    const [row] = await harness.db.select().from(samples).where(eq(samples.id, id));
    if (!row) throw new Error('gone');
    return row;
  };

  it('worked out before a change of rules are not kept after it, though no sample was touched', async () => {
    const { id } = await makers(harness).sample();
    await listSamples(harness.db, {});
    const seen = await rowOf(id);
    expect(seen.figures).not.toBeNull();
    await forgetAllFigures(harness.db);
    const after = await rowOf(id);
    expect(after.updatedAt).toEqual(seen.updatedAt);
    await keepFigures(harness.db, seen, { ...(seen.figures as NonNullable<typeof seen.figures>), watts: 999 });
    expect((await rowOf(id)).figures).toBeNull();
    await keepFigures(harness.db, after, seen.figures as NonNullable<typeof seen.figures>);
    expect((await rowOf(id)).figures).toEqual(seen.figures);
  });

  it('of an older form are worked out anew', async () => {
    const { id } = await makers(harness).sample();
    await listSamples(harness.db, {});
    const { figures } = await rowOf(id);
    const old = { ...(figures as NonNullable<typeof figures>), form: FIGURES_FORM - 1, watts: 999 };
    await harness.db.update(samples).set({ figures: old }).where(eq(samples.id, id));
    const { items } = await listSamples(harness.db, {});
    expect(items.find((one) => one.id === id)?.figures).toMatchObject({ form: FIGURES_FORM, watts: null });
  });
});
