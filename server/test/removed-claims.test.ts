// A claim that was removed counts no more, is seen from any browser, and comes back as it was.
import request from 'supertest';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { aSample, type Harness, makers, startHarness } from '../testing/harness.ts';

let harness: Harness;
let make: ReturnType<typeof makers>;
beforeAll(async () => {
  harness = await startHarness('removed_claims');
  make = makers(harness);
});
afterAll(() => harness.stop());

const claimsOf = async (id: string) =>
  (await request(harness.app).get(`/api/samples/${id}/dossier`)).body.claims as { id: string; version: number }[];
const removedOf = async (id: string) =>
  (await request(harness.app).get(`/api/samples/${id}/removed-claims`).expect(200)).body.items as {
    id: string;
    removedAt: string;
    promise: object;
  }[];
const remove = (id: string, version: number) =>
  request(harness.app).delete(`/api/claims/${id}`).set('If-Match', `"v${version}"`);
const back = (sampleId: string, id: string) => request(harness.app).post(`/api/samples/${sampleId}/claims/${id}/back`);

describe('a claim that was removed', () => {
  it('is not judged, is listed, and comes back as it was', async () => {
    const sample = await make.sample();
    const claim = await make.claim(sample.id, { kind: 'total', watts: 45 });
    await remove(claim.id, 1).expect(204);
    expect(await claimsOf(sample.id)).toEqual([]);
    expect((await request(harness.app).get(`/api/samples/${sample.id}/verdict`)).body.claims).toEqual([]);
    expect(await removedOf(sample.id)).toMatchObject([{ id: claim.id, promise: { kind: 'total', watts: 45 } }]);
    // Gone is gone: neither changed nor removed twice.
    await remove(claim.id, 2).expect(404);
    await back(sample.id, claim.id).expect(201);
    expect(await claimsOf(sample.id)).toMatchObject([{ id: claim.id, version: 3 }]);
    expect(await removedOf(sample.id)).toEqual([]);
    // Asked twice, after a lost answer.
    expect((await back(sample.id, claim.id).expect(201)).body).toMatchObject({ version: 3 });
  });

  it('of another model, or of a port that is gone, does not come back', async () => {
    const sample = await make.sample();
    const claim = await make.claim(sample.id, { kind: 'port-line', port: 'A1', volts: 5, amps: 2.4 });
    await remove(claim.id, 1).expect(204);
    const other = await make.sample();
    await back(other.id, claim.id).expect(404);
    const { ports } = aSample().model;
    const { body } = await request(harness.app).get(`/api/samples/${sample.id}`);
    await request(harness.app)
      .put(`/api/samples/${sample.id}`)
      .set('If-Match', body.etag)
      .send(aSample({ model: { ports: ports.slice(0, 1) } }))
      .expect(200);
    const refused = await back(sample.id, claim.id);
    expect([refused.status, JSON.stringify(refused.body)]).toEqual([422, expect.stringContaining('There is no port')]);
  });

  it('goes with its sample', async () => {
    const sample = await make.sample();
    const claim = await make.claim(sample.id, { kind: 'total', watts: 45 });
    await remove(claim.id, 1).expect(204);
    const { body } = await request(harness.app).get(`/api/samples/${sample.id}`);
    await request(harness.app).delete(`/api/samples/${sample.id}`).set('If-Match', body.etag).expect(204);
    await back(sample.id, claim.id).expect(404);
  });
});
