import { describe, expect, it } from 'vitest';
import type { Device, DeviceRun } from '../run/index.ts';
import { type BoardCharge, type BoardRun, deviceBoard, foretell } from './board.ts';

const laptop: Device = {
  id: 'laptop',
  name: 'Ridge 14',
  kind: 'laptop',
  battery: 60 * 3600,
  ceilings: [
    { connector: 'C', lead: '5 A', volts: 20, watts: 60 },
    { connector: 'C', lead: '3 A', volts: 20, watts: 45 },
  ],
  baseline: 60,
  note: '',
};
const samples = ['a', 'b', 'c'].map((id) => ({ id, tag: id.toUpperCase(), name: `Charger ${id}` }));
const ran = (sampleId: string, watts: number, part: Partial<DeviceRun> = {}): BoardRun => ({
  sampleId,
  run: {
    kind: 'device',
    id: `${sampleId}${watts}`,
    port: 'C1',
    rigId: 'rig',
    takenAt: `2026-05-01T10:00:${String(Math.round(watts)).padStart(2, '0')}Z`,
    u: 0.3,
    note: '',
    supersedes: null,
    withdrawn: false,
    deviceId: 'laptop',
    connector: 'C',
    lead: '5 A',
    workload: 'idle',
    charge: 0.3,
    settled: 200,
    place: 'port',
    volts: 20,
    watts,
    outcome: 'charging',
    message: '',
    ...part,
  },
});
const board = (runs: readonly BoardRun[], device: Device = laptop) =>
  deviceBoard([device], { samples, runs, charges: [] });

describe('devices on every charger', () => {
  it('say who serves one best, with the base of the comparison', () => {
    const [row] = board([ran('a', 57), ran('b', 44)]);
    expect(row?.best).toBe('a');
    expect(row?.says).toBe('Charger a: 13.0 W more than the next, 1.30 × 44 W.');
    expect(row?.cells.map(({ part }) => part)).toEqual([57 / 60, 44 / 60]);
  });

  it('call nobody ahead within the uncertainty, or where it is not stated', () => {
    expect(board([ran('a', 57), ran('b', 56.5)])[0]).toMatchObject({
      best: null,
      says: 'Charger a and Charger b are level within the uncertainty.',
    });
    expect(board([ran('a', 57), ran('b', 44, { u: null })])[0]?.best).toBeNull();
  });

  it('leave aside what is no like for like', () => {
    const [row] = board([ran('a', 57, { charge: 0.9 }), ran('b', 44), ran('c', 40, { settled: 30 })]);
    expect(row?.cells.map(({ sampleId, aside }) => [sampleId, aside])).toEqual([
      ['b', null],
      ['a', 'nearly full, 90 %'],
      ['c', 'not settled'],
    ]);
    expect([row?.best, row?.says]).toEqual([null, 'One charger only.']);
    expect(board([ran('a', 70, { place: 'mains' })])[0]?.says).toBe('No settled run at a port.');
  });

  it('have a row for each workload, and take the best port by its newest run', () => {
    const rows = board([
      ran('a', 57),
      ran('a', 58, { port: 'C2', takenAt: '2026-05-01T09:00:00Z' }),
      ran('a', 30, { port: 'C2' }),
      ran('b', 20, { workload: 'asleep' }),
    ]);
    expect(rows.map(({ workload }) => workload)).toEqual(['idle', 'asleep']);
    expect(rows[0]?.cells[0]?.run.watts).toBe(57);
  });

  it('without a baseline say what they cannot tell', () => {
    expect(board([ran('a', 57), ran('b', 44)], { ...laptop, baseline: null })[0]?.says).toContain('No baseline:');
  });
});

/** 60 Wh at one power from empty to full. */
const flat = (watts: number) => ({
  levels: Array.from({ length: 51 }, (_, at) => at / 50),
  watts: Array.from({ length: 50 }, () => watts),
  seconds: Array.from({ length: 50 }, () => (60 * 3600) / 50 / watts),
});
const charge = (sampleId: string, watts: number, part: Partial<BoardCharge> = {}): BoardCharge => ({
  sampleId,
  captureId: `${sampleId} ${watts}`,
  deviceId: 'laptop',
  port: 'C1',
  lead: '5 A',
  takenAt: '2026-05-01T10:00:00Z',
  workload: 'asleep',
  course: flat(watts),
  ...part,
});

describe('foretold times', () => {
  const ports = [
    { label: 'C1', watts: 30 },
    { label: 'A1', watts: null },
  ];

  it('come from charges elsewhere and stand beside what was measured here', () => {
    const [first, second] = foretell('a', ports, [laptop], { charges: [charge('b', 60), charge('a', 29)] });
    // 60 % of 60 Wh at 30 W: 72 min; at 29 W it took 74.5.
    expect((first?.seconds ?? 0) / 60).toBeCloseTo(72, 0);
    expect((first?.measured[0] ?? 0) / 60).toBeCloseTo(74.5, 1);
    expect(first).toMatchObject({ charges: 1, held: 1, reason: null });
    expect((first?.low ?? 0) < (first?.seconds ?? 0) && (first?.high ?? 0) > (first?.measured[0] ?? 0)).toBe(true);
    expect(second?.reason).toBe('nothing says what this port gives');
  });

  it('count a charge that began at the very level, as it is kept in single precision', () => {
    const course = flat(29);
    const kept = {
      ...course,
      levels: Array.from(Float32Array.from(course.levels.slice(10))),
      watts: course.watts.slice(10),
      seconds: course.seconds.slice(10),
    };
    const [row] = foretell('a', ports, [laptop], { charges: [charge('b', 60), charge('a', 29, { course: kept })] });
    expect(row?.measured).toHaveLength(1);
    expect(row?.outside).toBe(false);
    const [slow] = foretell('a', ports, [laptop], { charges: [charge('b', 60), charge('a', 20)] });
    expect(slow?.outside).toBe(true);
  });

  it('mind the lead', () => {
    const rows = foretell('a', [{ label: 'C1', watts: 100 }], [laptop], {
      charges: [charge('b', 60), charge('b', 45, { lead: '3 A' })],
    });
    expect(rows.map(({ lead, seconds }) => [lead, Math.round((seconds ?? 0) / 60)])).toEqual([
      ['5 A', 36],
      ['3 A', 48],
    ]);
  });

  it('are not told from the very charge they would foretell, nor from a device at work', () => {
    expect(foretell('a', ports, [laptop], { charges: [charge('a', 30)] })[0]).toMatchObject({
      seconds: null,
      reason: 'only charged here so far',
    });
    expect(foretell('a', ports, [laptop], { charges: [charge('b', 30, { workload: 'screen on' })] })).toEqual([]);
    expect(foretell('a', ports, [laptop], { charges: [charge('b', 30, { course: null })] })[0]?.reason).toBe(
      'its charges tell no power by level',
    );
  });
});
