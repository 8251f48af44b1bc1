// What is answered may be sent back as it is: null where null was answered, without what only the server says.
import { type Operation, ROUTES, type Route, validate } from '@lastmark/contract';
import request from 'supertest';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { aPoint, EU, type Harness, makers, startHarness } from '../testing/harness.ts';

let harness: Harness;
let make: ReturnType<typeof makers>;
beforeAll(async () => {
  harness = await startHarness('sent_back');
  make = makers(harness);
});
afterAll(() => harness.stop());

/** An answer less what its operation takes no word on. */
function asSent(operation: Operation, answer: Record<string, unknown>): Record<string, unknown> {
  const { body } = ROUTES[operation] as Route;
  const fields = Object.keys((body as unknown as { fields: object }).fields);
  return Object.fromEntries(Object.entries(answer).filter(([key]) => fields.includes(key)));
}

describe('what is answered', () => {
  it.each<[string, Operation, (rigId: string, sampleId: string) => Promise<[path: string, answer: object]>]>([
    [
      'a sample',
      'updateSample',
      async (_rig, sample) => [`/samples/${sample}`, (await request(harness.app).get(`/api/samples/${sample}`)).body],
    ],
    [
      'a loading',
      'updateSetup',
      async (rig, sample) => {
        const setup = await make.setup(sample, rig);
        return [`/setups/${setup.id}`, setup];
      },
    ],
    [
      'a claim',
      'updateClaim',
      async (_rig, sample) => {
        const claim = await make.claim(sample, { kind: 'total', watts: 45 });
        return [`/claims/${claim.id}`, claim];
      },
    ],
    [
      'an instrument',
      'updateInstrument',
      async () => {
        const [one] = (await request(harness.app).get('/api/instruments')).body.items;
        return [`/instruments/${one.id}`, one];
      },
    ],
    [
      'a rig',
      'updateRig',
      async (rig) => {
        const one = (await request(harness.app).get('/api/rigs')).body.items.find(
          ({ id }: { id: string }) => id === rig,
        );
        return [`/rigs/${rig}`, one];
      },
    ],
    [
      'a device',
      'updateDevice',
      async () => {
        const device = await make.post<{ id: string }>('/devices', {
          name: 'Fell laptop',
          kind: 'laptop',
          ceilings: [],
          baseline: null,
          battery: null,
          note: '',
        });
        return [`/devices/${device.id}`, device];
      },
    ],
    ['the profile', 'updateProfile', async () => ['/profile', (await request(harness.app).get('/api/profile')).body]],
  ])('%s is taken back', async (_name, operation, find) => {
    const rig = await make.rig();
    const sample = await make.sample();
    const [path, answer] = await find(rig.id, sample.id);
    const { version, etag = `"v${version}"` } = answer as { version: number; etag?: string };
    const sent = asSent(operation, answer as Record<string, unknown>);
    expect(Object.keys(sent).length).toBeGreaterThan(1);
    const again = await request(harness.app).put(`/api${path}`).set('If-Match', etag).send(sent);
    expect([again.status, again.status < 300 ? '' : JSON.stringify(again.body)]).toEqual([200, '']);
    expect(asSent(operation, again.body)).toEqual(sent);
  });

  it('of a bench without a simulated one says so, and every device is listed', async () => {
    expect((await request(harness.app).get('/api/simulated-bench').expect(200)).body).toMatchObject({ there: false });
    const { body } = await request(harness.app).get('/api/devices').expect(200);
    expect(body.items.map(({ name }: { name: string }) => name)).toContain('Fell laptop');
  });

  it('of a point may be sent as another', async () => {
    const rig = await make.rig();
    const sample = await make.sample();
    const setup = await make.setup(sample.id, rig.id);
    const path = `/samples/${sample.id}/readings`;
    const { points } = await make.post<{ points: Record<string, unknown>[] }>(path, {
      points: [aPoint(setup.id, rig.id, { watts: '71.6', volts: '20', amps: '3.25' }, { mains: EU })],
    });
    const [{ id: _, sampleId: __, evidence: ___, ...point } = {}] = points;
    const readings = (point.readings as Record<string, unknown>[]).map(
      ({ quantity, place, port, typed, count, spread, source, supersedes }) => ({
        quantity,
        place,
        port,
        typed,
        count,
        spread,
        source,
        supersedes,
      }),
    );
    const { fields } = (ROUTES.addReadings as Route).body as unknown as {
      fields: { points: { innerType: { fields: object } } };
    };
    const known = Object.keys(fields.points.innerType.fields);
    const sent = Object.fromEntries(Object.entries({ ...point, readings }).filter(([key]) => known.includes(key)));
    const { points: twice } = await make.post<{ points: unknown[] }>(path, { points: [sent] });
    expect(twice).toHaveLength(1);
  });

  it('null is no value where none is answered', () => {
    const { body } = ROUTES.updateProfile as Route;
    expect(validate(body as never, null).ok).toBe(false);
  });
});
