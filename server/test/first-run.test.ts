// An empty bench can be filled with the demo, which says that it is one and can be put away.
import request from 'supertest';
import { afterEach, expect, it } from 'vitest';
import { aSample, type Harness, startHarness } from '../testing/harness.ts';

let harness: Harness;
afterEach(() => harness.stop());

const demo = async () => (await request(harness.app).get('/api/demo')).body;
const show = (shown: unknown) => request(harness.app).put('/api/demo').send({ shown });
const shelf = async (query = '') => (await request(harness.app).get(`/api/samples${query}`)).body;

it('greets while there is nothing, and has no demo to put away', async () => {
  harness = await startHarness('first_run');
  expect(await demo()).toEqual({ demo: 'none', empty: true });
  expect((await show(false)).status).toBe(409);
  expect((await show('yes')).body.errors).toEqual([
    { path: 'shown', message: 'Whether it is shown must be yes or no' },
  ]);
  // The demo fills an empty bench only: nobody's work is mixed with it.
  await request(harness.app).post('/api/samples').send(aSample()).expect(201);
  expect((await show(true)).status).toBe(409);
});

it('is put away and brought back, without losing what a person took in', async () => {
  harness = await startHarness('first_run_demo', { demo: true });
  expect(await demo()).toEqual({ demo: 'shown', empty: false });
  const all = await shelf();
  expect(all.total).toBeGreaterThanOrEqual(7);
  const [first] = all.items;

  const own = await request(harness.app).post('/api/samples').send(aSample());
  expect(own.status).toBe(201);

  expect((await show(false)).body).toEqual({ demo: 'away', empty: false });
  expect((await shelf()).items.map(({ id }: { id: string }) => id)).toEqual([own.body.id]);
  expect(await shelf('?q=tarnhook&sort=efficiency')).toMatchObject({ total: 1 });
  // Trials of its samples are away with them.
  const trials = async () => (await request(harness.app).get('/api/trials')).body.items.length;
  expect(await trials()).toBe(0);
  // Nothing of it is deleted.
  expect((await request(harness.app).get(`/api/samples/${first.id}`)).status).toBe(200);

  await show(true);
  expect((await shelf()).total).toBe(all.total + 1);
  expect(await trials()).toBe(2);
});
