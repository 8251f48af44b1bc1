import type { PointInput } from '@lastmark/contract/types';
import type { Output, Point, Reading } from '@lastmark/core/reading';
import { beforeEach, describe, expect, it } from 'vitest';
import { createEntry, type Entry, type PointKey, type Target } from './entry.ts';

const EU = { kind: 'ac', volts: 230, hertz: 50 } as const;
const US = { kind: 'ac', volts: 115, hertz: 60 } as const;
const WATTS: Target = { quantity: 'power', place: 'mains', port: null };
const VOLTS: Target = { quantity: 'voltage', place: 'port', port: 'C1' };
const key = (part: Partial<PointKey> = {}): PointKey => ({
  setupId: 'setup',
  mains: EU,
  load: 1,
  attached: 'nothing',
  rigId: 'rig',
  ...part,
});

/** A server that keeps points as the real one does: readings are added, never changed. */
class FakeServer {
  points: Point[] = [];
  setups: { id: string; purpose: 'proof' | 'efficiency'; rigId: string; outputs: readonly Output[] }[] = [];
  readonly sent: PointInput[] = [];
  /** Answers are held back until they are let go. */
  held: (() => void)[] | null = null;
  failing: Error | null = null;
  refreshed = 0;
  outdated = 0;

  store = async (input: PointInput): Promise<Point[]> => {
    this.sent.push(input);
    if (this.held) await new Promise<void>((resolve) => this.held?.push(resolve));
    if (this.failing) throw this.failing;
    if (input.outputs)
      this.setups = [{ id: 'made', purpose: 'proof', rigId: input.rigId, outputs: input.outputs as Output[] }];
    const readings = input.readings.map((one) => ({ ...one, value: Number(one.typed) }) as unknown as Reading);
    const known = this.points.find(({ id }) => id === input.id);
    const point = {
      ...input,
      setupId: input.outputs ? 'made' : (input.setupId ?? null),
      readings: [
        ...(known?.readings ?? []),
        ...readings.filter(({ id }) => !known?.readings.some((one) => one.id === id)),
      ],
    } as unknown as Point;
    this.points = [...this.points.filter(({ id }) => id !== input.id), point];
    return [point];
  };
}

let server: FakeServer;
let entry: Entry;
let ids: number;
beforeEach(() => {
  server = new FakeServer();
  ids = 0;
  entry = createEntry({
    known: () => ({ setups: server.setups as never, points: server.points }),
    store: server.store,
    outdated: async () => {
      server.outdated += 1;
    },
    stored: async (_points, made) => {
      if (made) server.refreshed += 1;
    },
    newId: () => `id${++ids}`,
    now: () => new Date('2026-03-02T09:00:00.000Z'),
  });
});

describe('cells of one row', () => {
  it('land in one point, one after the other, though all are typed before the first answer', async () => {
    server.held = [];
    const all = [entry.commit(key(), WATTS, '50'), entry.commit(key(), VOLTS, '20.1')];
    await Promise.resolve();
    await Promise.resolve();
    expect(server.sent).toHaveLength(1);
    server.held.shift()?.();
    await all[0];
    await Promise.resolve();
    expect(server.sent).toHaveLength(2);
    server.held.shift()?.();
    await Promise.all(all);
    expect(server.points).toHaveLength(1);
    expect(server.points[0]?.readings.map(({ typed }) => typed)).toEqual(['50', '20.1']);
  });

  it('go on after one of them was refused', async () => {
    server.failing = new Error('Output is above input.');
    const refused = entry.commit(key(), WATTS, '5');
    const next = refused.catch(() => {
      server.failing = null;
    });
    await expect(refused).rejects.toThrow('Output is above input.');
    await next;
    await entry.commit(key(), VOLTS, '20.1');
    expect(server.points[0]?.readings.map(({ typed }) => typed)).toEqual(['20.1']);
  });

  it('are told apart by supply, load and what is attached', async () => {
    await entry.commit(key(), WATTS, '50');
    await entry.commit(key({ mains: US }), WATTS, '51');
    await entry.commit(key({ load: 0.5 }), WATTS, '25');
    await entry.commit(key({ attached: 'cable' }), WATTS, '52');
    expect(server.points).toHaveLength(4);
    expect(entry.pointOf({ setups: [], points: server.points }, key({ mains: US }))?.readings[0]?.typed).toBe('51');
  });
});

describe('a value typed again', () => {
  it('corrects the one before, which stays', async () => {
    await entry.commit(key(), WATTS, '50');
    await entry.commit(key(), WATTS, ' 50.4 ');
    const [first, second] = server.sent.flatMap(({ readings }) => readings);
    expect(second).toMatchObject({ typed: '50.4', supersedes: first?.id });
    expect(server.points[0]?.readings).toHaveLength(2);
  });

  it('after a lost answer keeps its id, so that it counts once; another value is another reading', async () => {
    server.failing = new Error('No answer.');
    await expect(entry.commit(key(), WATTS, '50')).rejects.toThrow();
    await expect(entry.commit(key(), WATTS, '50')).rejects.toThrow();
    await expect(entry.commit(key(), WATTS, '51')).rejects.toThrow();
    const [a, b, c] = server.sent;
    expect(b?.readings[0]?.id).toBe(a?.readings[0]?.id);
    expect(c?.readings[0]?.id).not.toBe(a?.readings[0]?.id);
    expect(new Set(server.sent.map(({ id }) => id)).size).toBe(1);
  });

  it('that was asked about is sent as meant', async () => {
    await entry.commit(key(), WATTS, '3250', true);
    expect(server.sent[0]?.readings[0]).toMatchObject({ typed: '3250', really: true });
  });
});

describe('a row repeated', () => {
  it('shows nothing until it is typed, then another point; the first stays', async () => {
    await entry.commit(key(), WATTS, '50');
    entry.repeat(key());
    expect(entry.pointOf({ setups: [], points: server.points }, key())).toBeUndefined();
    await entry.commit(key(), WATTS, '50.2');
    expect(server.points.map(({ readings }) => readings[0]?.typed)).toEqual(['50', '50.2']);
    expect(server.sent[1]?.readings[0]?.supersedes).toBeNull();
  });
});

describe('a proof step', () => {
  const outputs = [{ port: 'C1', volts: 20, amps: 2.25 }];
  const step = key({ setupId: null, outputs, override: 'a short look' });

  it('is made by its first reading, and then known', async () => {
    await entry.commit(step, VOLTS, '20.1');
    expect(server.sent[0]).toMatchObject({ outputs, override: 'a short look' });
    expect('setupId' in (server.sent[0] ?? {})).toBe(false);
    expect(server.refreshed).toBe(1);
    await entry.commit(step, WATTS, '50');
    expect(server.refreshed).toBe(1);
    expect(server.points).toHaveLength(1);
  });

  it('on another rig is another step', async () => {
    await entry.commit(step, VOLTS, '20.1');
    const other = { ...step, rigId: 'other' };
    expect(entry.pointOf({ setups: server.setups as never, points: server.points }, other)).toBeUndefined();
  });
});

describe('a row somebody else begins at the same moment', () => {
  const taken = Object.assign(new Error('Brook Tarn began this row a moment ago.'), { status: 409 });

  it('is told of, shown, and what was typed goes into theirs when it is sent again', async () => {
    server.failing = taken;
    await expect(entry.commit(key(), WATTS, '50')).rejects.toThrow('Brook Tarn began this row');
    expect(server.sent.at(-1)).toMatchObject({ id: 'id1', pointsSeen: [] });
    expect(server.outdated).toBe(1);
    // Theirs is known now.
    server.failing = null;
    const theirs = { ...key(), id: 'theirs', readings: [], takenAt: '2026-03-02T09:00:00.000Z' };
    server.points = [theirs as unknown as Point];
    await entry.commit(key(), WATTS, '50');
    expect(server.sent.at(-1)).toMatchObject({ id: 'theirs' });
    expect(server.sent.at(-1)).not.toHaveProperty('pointsSeen');
    expect(server.points).toHaveLength(1);
  });

  it('does not stand in the way of a repeat: those that are shown are named', async () => {
    await entry.commit(key(), WATTS, '50');
    entry.repeat(key());
    await entry.commit(key(), WATTS, '51');
    expect(server.sent.map(({ id, pointsSeen }) => [id, pointsSeen])).toEqual([
      ['id1', []],
      ['id3', ['id1']],
    ]);
    expect(server.outdated).toBe(0);
  });

  it('is not taken for another refusal', async () => {
    server.failing = Object.assign(new Error('Nothing typed.'), { status: 422 });
    await expect(entry.commit(key(), WATTS, '50')).rejects.toThrow('Nothing typed.');
    expect(server.outdated).toBe(0);
  });
});
