// Pages are told some events at a time, none twice and none left out; what stands elsewhere seldom; what goes wrong at once.
import type { LiveEvent } from '@lastmark/contract';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { type Batch, Broadcast } from './broadcast.ts';

beforeEach(() => vi.useFakeTimers());
afterEach(() => vi.useRealTimers());

const event = (instrumentId: string, problem: string | null = null): Omit<LiveEvent, 'id'> => ({
  at: new Date().toISOString(),
  instrumentId,
  name: instrumentId,
  class: 'DC load',
  values: [1],
  problem,
});
const idsOf = (batches: readonly Batch[]) => batches.flatMap(({ told }) => told.map(({ event: { id } }) => id));
const usualOf = (batches: readonly Batch[]) =>
  batches
    .map(({ usual }) => usual)
    .join('')
    .match(/^id: \d+$/gm)
    ?.map((line) => Number(line.slice(4))) ?? [];

it('a run hears each at once; a page all of a moment in one piece', async () => {
  const broadcast = new Broadcast();
  const [run, page]: [number[], Batch[]] = [[], []];
  broadcast.listen(({ id }) => run.push(id), null);
  broadcast.follow((batch) => page.push(batch), null);
  for (let at = 0; at < 5; at += 1) broadcast.send(event('load'), true);
  expect([run, page]).toEqual([[1, 2, 3, 4, 5], []]);
  await vi.advanceTimersByTimeAsync(40);
  expect(page).toHaveLength(1);
  expect(usualOf(page)).toEqual([1, 2, 3, 4, 5]);
  expect(page[0]?.usual).toMatch(/^id: 1\ndata: \{.*\}\n\nid: 2\n/);
  expect(JSON.parse(/^data: (.*)$/m.exec(page[0]?.usual ?? '')?.[1] ?? '')).toMatchObject({
    id: 1,
    instrumentId: 'load',
  });
});

it('who comes back in the middle hears what was missed, once, and nobody else hears it again', async () => {
  const broadcast = new Broadcast();
  const [there, back]: [Batch[], Batch[]] = [[], []];
  broadcast.follow((batch) => there.push(batch), null);
  for (let at = 0; at < 3; at += 1) broadcast.send(event('load'), true);
  const stop = broadcast.follow((batch) => back.push(batch), 1);
  broadcast.send(event('load'), true);
  await vi.advanceTimersByTimeAsync(40);
  expect(idsOf(there)).toEqual([1, 2, 3, 4]);
  expect(idsOf(back)).toEqual([2, 3, 4]);
  expect(broadcast.count).toBe(2);
  stop();
  broadcast.send(event('load'), true);
  await vi.advanceTimersByTimeAsync(40);
  expect([idsOf(there).at(-1), idsOf(back).at(-1)]).toEqual([5, 4]);
});

it('of another bench twice a second, save where something goes wrong or well again', async () => {
  const broadcast = new Broadcast();
  const page: Batch[] = [];
  broadcast.follow((batch) => page.push(batch), null);
  for (let at = 0; at < 100; at += 1) {
    broadcast.send(event('here'), true);
    broadcast.send(event('there', at === 50 ? 'It does not answer.' : null), false);
    await vi.advanceTimersByTimeAsync(100);
  }
  const told = page.flatMap((batch) => batch.told);
  expect(told).toHaveLength(200);
  const usual = new Set(usualOf(page));
  const heard = (id: string) => told.filter((one) => one.event.instrumentId === id && usual.has(one.event.id));
  expect(heard('here')).toHaveLength(100);
  // Ten seconds, every 400 ms as they come, and two more for what went wrong.
  expect(heard('there').length).toBeGreaterThanOrEqual(25);
  expect(heard('there').length).toBeLessThanOrEqual(28);
  expect(heard('there').filter((one) => one.event.problem !== null)).toHaveLength(1);
});
