import type { Point, Reading } from '@lastmark/core/reading';
import { expect, it } from 'vitest';
import { moved } from './move.ts';

const reading = (id: string, typed: string, supersedes: string | null = null): Reading => ({
  id,
  quantity: 'power',
  place: 'mains',
  port: null,
  value: typed === '' ? null : 1,
  u: 0,
  count: 1,
  spread: 0,
  typed,
  instrumentId: null,
  takenAt: '2026-03-02T09:00:00.000Z',
  source: 'keypad',
  supersedes,
});
const mains = { kind: 'ac', volts: 230, hertz: 50 } as const;
const point = (readings: Reading[]): Point => ({
  id: 'here',
  setupId: 's1',
  mains,
  load: 1,
  attached: 'nothing',
  evidence: 'load',
  rigId: 'r',
  takenAt: '2026-03-02T09:00:00.000Z',
  override: null,
  readings,
});
const to = { setupId: 's2', mains, load: 0.5, attached: 'nothing' } as const;
const ids = () => {
  let count = 0;
  return () => {
    count += 1;
    return `n${count}`;
  };
};

it('enters the standing readings there and strikes them out here', () => {
  const [there, here] = moved(point([reading('a', '71'), reading('b', '61', 'a')]), to, ids());
  expect(there).toMatchObject({
    setupId: 's2',
    load: 0.5,
    takenAt: '2026-03-02T09:00:00.000Z',
    readings: [{ typed: '61' }],
  });
  expect(here).toMatchObject({ id: 'here', setupId: 's1', load: 1, readings: [{ typed: '', supersedes: 'b' }] });
});

it('moves nothing where nothing stands', () =>
  expect(moved(point([reading('a', '71'), reading('b', '', 'a')]), to, ids())).toEqual([]));
