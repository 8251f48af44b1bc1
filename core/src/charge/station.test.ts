// Devices as a station: cells, charges, and two of them compared over the levels both went through.
import { describe, expect, it } from 'vitest';
import { readTrace, type Trace } from '../trace/index.ts';
import {
  type ChargeRecord,
  type ChargeSession,
  chargeOf,
  compareCharges,
  devicesStation,
  intoDevice,
  type LevelCurve,
  repeatsSay,
  sessionSays,
  thinned,
  withPower,
} from './index.ts';

const EU = { kind: 'ac', volts: 230, hertz: 50 } as const;
const typed = (rows: readonly (readonly [minutes: number, level: number])[]): ChargeSession => {
  const reading = readTrace(['time [min],level [%]', ...rows.map((row) => row.join(','))].join('\n'));
  if (!reading.ok) throw new Error(reading.reason);
  const session = chargeOf(reading.trace);
  if ('reason' in session) throw new Error(session.reason);
  return session;
};
const side = (place: string, session: Pick<ChargeSession, 'curve' | 'start'>) => ({
  captureId: place,
  device: 'Hut tablet',
  place,
  session,
});

describe('two charges', () => {
  // 20 → 100 % in 80 min, evenly; 40 → 90 % in 40 min.
  const one = typed([
    [0, 20],
    [80, 100],
  ]);
  const other = typed([
    [0, 40],
    [40, 90],
  ]);

  it('are compared over their common levels only, in time', () => {
    const found = compareCharges([side('C1', one)], [side('C2', other)]);
    expect(found).toMatchObject({ from: 0.4, to: 0.9, seconds: [3000, 2400] });
    expect(found?.sentence).toBe(
      'Hut tablet, 40 % to 90 %: on C2 it takes 20 % less time than on C1, 40 min instead of 50 min. One charge each: repeat to know whether that is more than chance.',
    );
  });

  it('that take the same say so', () =>
    expect(compareCharges([side('C1', one)], [side('C2', one)])?.sentence).toBe(
      'Hut tablet, 20 % to 100 %: the same time on C1 and on C2, 80 min.',
    ));

  it('without levels in common, or without levels, are not compared', () => {
    const low = typed([
      [0, 5],
      [20, 25],
    ]);
    expect(compareCharges([side('C1', one)], [side('C2', low)])).toBeNull();
    expect(compareCharges([side('C1', one)], [side('C2', { curve: null, start: 0 })])).toBeNull();
  });
});

describe('the station', () => {
  const record = (id: string, part: Partial<ChargeRecord> = {}): ChargeRecord => ({
    id,
    kind: 'charge',
    mains: EU,
    port: 'C1',
    takenAt: '2026-05-01T10:00:00Z',
    charge: { deviceId: 'tablet', lead: '1 m' },
    figures: {
      kind: 'charge',
      ...typed([
        [0, 20],
        [30, 50],
        [60, 80],
        [90, 100],
      ]),
    } as ChargeRecord['figures'],
    supersedes: null,
    withdrawn: false,
    ...part,
  });
  const devices = ['tablet', 'radio'].map((id) => ({ id, name: `Hut ${id}`, ceilings: [] })) as never;
  const run = (id: string, part: object) => ({
    run: {
      id,
      deviceId: 'radio',
      port: 'A1',
      lead: 'A lead',
      workload: 'idle',
      charge: null,
      watts: 7,
      volts: 5,
      outcome: 'charging',
      message: '',
      ...part,
    },
    sentence: '',
    limiter: 'the device limits.',
    notes: [],
  });
  const conclude = (captures: readonly ChargeRecord[], runs: readonly ReturnType<typeof run>[] = []) =>
    devicesStation.conclude(
      { sample: { ports: [{ label: 'C1' }, { label: 'A1' }] }, captures, devices },
      { proof: { devices: runs as never } },
    );

  it('keeps runs of another cable, workload or a nearly full battery apart', () => {
    const found = conclude(
      [],
      [
        run('a', {}),
        run('b', { lead: 'long lead' }),
        run('c', { workload: 'screen on' }),
        run('d', { charge: 0.85 }),
        run('e', { charge: 0.3 }),
      ],
    );
    expect(found.cells.map(({ runId, battery }) => [runId, battery])).toEqual([
      ['a', 'not noted'],
      ['b', 'not noted'],
      ['c', 'not noted'],
      ['d', 'nearly full'],
      ['e', 'not full'],
    ]);
  });

  it('takes two devices for no two states of one', () => {
    const alike = ['tablet', 'radio'].map((id) => ({ id, name: `Hut ${id}`, kind: 'phone', ceilings: [] })) as never;
    const slips = (runs: readonly ReturnType<typeof run>[], known = alike) =>
      devicesStation.conclude(
        { sample: { ports: [{ label: 'A1' }] }, captures: [], devices: known },
        { proof: { devices: runs as never } },
      ).slips;
    const full = run('a', { charge: 0.9 });
    const empty = run('b', { deviceId: 'tablet', charge: 0.2 });
    expect(slips([full, empty])).toEqual([
      'A1: nearly full was only Hut radio, not full only Hut tablet. Two devices are no two states of one.',
    ]);
    expect(slips([full, empty, run('c', { charge: 0.2 })])).toEqual([]);
    expect(slips([full, empty], devices)).toEqual([]);
  });

  it('brings its charges to the promises, with the lead that held one back', () => {
    const tablet = {
      id: 'tablet',
      name: 'Hut tablet',
      ceilings: [
        { connector: 'C', lead: '1 m', volts: 15, watts: 18 },
        { connector: 'C', lead: '5 A', volts: 15, watts: 28 },
      ],
    };
    const found = devicesStation.conclude(
      { sample: { ports: [{ label: 'C1' }] }, captures: [record('a')], devices: [tablet as never] },
      { proof: { devices: [] } },
    );
    expect(devicesStation.evidence?.(found, {} as never).charged).toMatchObject([
      { captureId: 'a', device: 'Hut tablet', heldBy: 'it takes 18 W at most over this lead, 28 W over another' },
    ]);
  });

  it('has a cell for a device at a port, by its newest run, and every charge that stands', () => {
    const found = conclude(
      [record('a'), record('b', { supersedes: 'a', withdrawn: true }), record('c'), record('d', { kind: 'soak' })],
      [run('first', { watts: 6 }), run('second', {})],
    );
    expect(found.cells).toMatchObject([{ runId: 'second', watts: 7, runs: 2, limiter: 'the device limits.' }]);
    expect(found.sessions.map(({ captureId, title }) => [captureId, title])).toEqual([
      ['c', 'Hut tablet on C1, 1 m, 230 V 50 Hz, 2026-05-01'],
    ]);
    expect(found.devices.map(({ id }) => id)).toEqual(['tablet', 'radio']);
    expect(devicesStation.progress(found, {} as never, [], [])).toEqual({ done: 2, total: 2, worst: null });
    expect(devicesStation.says?.(found, {} as never)).toEqual([
      'Hut tablet on C1, 1 m, 230 V 50 Hz, 2026-05-01: 50 % after 30 min, 80 % after 60 min, 100 % after 90 min as typed.',
    ]);
  });

  it('of nothing is not begun', () =>
    expect(devicesStation.progress(conclude([]), {} as never, [], [])).toEqual({ done: 0, total: 1, worst: null }));

  it('a charge cut off says so', () =>
    expect(
      sessionSays({
        ...typed([
          [0, 20],
          [30, 60],
        ]),
        energy: 20.2,
        end: null,
      }),
    ).toBe('50 % after 23 min as typed. 20.2 Wh in 30 min. It was not seen to its end.'));
});

it('a thinned curve keeps its ends and tells what the whole one tells', () => {
  const whole: LevelCurve = {
    source: 'energy',
    times: Array.from({ length: 4001 }, (_, at) => at),
    levels: Array.from({ length: 4001 }, (_, at) => (at / 4000) ** 0.5),
  };
  const few = thinned(whole, 200);
  expect([few.times.length, few.times[0], few.times.at(-1)]).toEqual([200, 0, 4000]);
  expect(thinned(few, 200)).toBe(few);
});

describe('power', () => {
  const channel = (quantity: 'voltage' | 'current' | 'power', values: readonly number[]) => ({
    name: quantity,
    quantity,
    unit: '',
    values: Float64Array.from(values),
  });
  const trace = (...channels: ReturnType<typeof channel>[]): Trace => ({
    samples: 2,
    interval: 1,
    times: null,
    began: null,
    channels,
    facts: { bandwidth: null, envelope: false, coupling: null },
    remarks: [],
  });

  it('stands beside volts and amps as their product, sample by sample, and is never formed twice', () => {
    const made = withPower(trace(channel('voltage', [9, 20]), channel('current', [2, 3])));
    expect(made.channels.map(({ quantity }) => quantity)).toEqual(['voltage', 'current', 'power']);
    expect([...(made.channels[2]?.values ?? [])]).toEqual([18, 60]);
    expect(withPower(made)).toBe(made);
    const volts = trace(channel('voltage', [9, 20]));
    expect(withPower(volts)).toBe(volts);
  });

  it('is drawn into the device, whichever way round the meter was', () => {
    const spots = (...values: number[]) => values.map((y, x) => ({ x, y }));
    expect(intoDevice(spots(-18, -17, 0.1)).map(({ y }) => y)).toEqual([18, 17, -0.1]);
    expect(intoDevice(spots(18, Number.NaN, -0.1)).map(({ y }) => y)).toEqual([18, -0.1]);
  });
});

describe('repeats of a charge', () => {
  /** From 20 to 100 % in so many minutes, evenly. */
  const took = (minutes: number, part: Partial<Pick<ChargeSession, 'startCelsius'>> = {}) => ({
    ...typed([
      [0, 20],
      [minutes, 100],
    ]),
    ...part,
  });
  const all = (place: string, list: readonly number[]) =>
    list.map((minutes, at) => ({ ...side(place, took(minutes)), captureId: `${place} ${at}` }));

  it('have a mean with its interval and spread', () => {
    // 1.1 ± 0.340 of ten minutes more: Student’s t with four degrees of freedom.
    expect(repeatsSay(all('C1', [11.2, 10.8, 11.5, 10.9, 11.1]))).toBe(
      'Hut tablet on C1, 5 charges from 20 % to 100 %: 11.1 min on average, 10.8 min to 11.4 min (95 %), spread 0.3 min.',
    );
    expect(repeatsSay(all('C1', [11]))).toBeNull();
  });

  it('call a difference beyond their chance, and none within it', () => {
    const beyond = compareCharges(all('C1', [62.1, 63.0, 61.4]), all('C2', [70.2, 68.9, 71.5, 69.8]));
    expect(beyond?.called).toBe(true);
    expect(beyond?.sentence).toBe(
      'Hut tablet, 20 % to 100 %: on C1 it takes 11 % less time than on C2, 62 min instead of 70 min, means of 3 and 4 charges; the difference is 6.1 min to 9.8 min (95 %).',
    );
    const within = compareCharges(all('C1', [60, 70, 65]), all('C2', [64, 69, 71]));
    expect(within?.called).toBe(false);
    expect(within?.sentence).toContain('no difference can be called. It lies between');
    expect(within?.sentence).toMatch(/To call 3\.3 min \(5 %\), charge \d+ times on each\.$/);
  });

  it('that are alike to the digit tell of no scatter, and call little', () => {
    expect(repeatsSay(all('C1', [11, 11, 11]))).toBe(
      'Hut tablet on C1, 3 charges from 20 % to 100 %: 11 min each, to the digit: read too coarsely to tell how they scatter.',
    );
    const few = compareCharges(all('C1', [60, 60]), all('C2', [66, 66]));
    expect([few?.called, few?.sentence]).toEqual([
      false,
      'Hut tablet, 20 % to 100 %: on C1 it takes 9 % less time than on C2, 60 min instead of 66 min, to the digit in each of 2 and 2 charges: read too coarsely to tell how they scatter, so this may be chance.',
    ]);
    expect(compareCharges(all('C1', [60, 60, 60, 60]), all('C2', [66, 66, 66, 66]))?.called).toBe(true);
  });

  it('of which one side has one charge alone say what is missing', () => {
    expect(compareCharges(all('C1', [60, 61]), all('C2', [70]))?.sentence).toContain('One side has a single charge');
  });

  it('with the device in another state are not comparable', () => {
    const asleep = [{ ...side('C1', took(60)), workload: 'asleep' as const }];
    const working = [{ ...side('C2', took(75)), workload: 'screen on' as const }];
    expect(compareCharges(asleep, working)?.sentence).toBe(
      'Hut tablet, 20 % to 100 %: 60 min on C1, 75 min on C2. Not comparable. The device was not in the same state: asleep in one, screen on in the other.',
    );
    const [cold, warm] = [[side('C1', took(60, { startCelsius: 23 }))], [side('C2', took(75, { startCelsius: 38 }))]];
    expect(compareCharges(cold, warm)?.sentence).toContain(
      'The device began at 23 °C in one and at 38 °C in the other.',
    );
    expect(compareCharges(cold, [side('C2', took(75, { startCelsius: 26 }))])?.sentence).toContain('less time');
  });
});

describe('a log that began before the plug', () => {
  // Ten minutes at 20 % and nothing flowing, then 30 W and a per cent a minute.
  const rows = Array.from({ length: 541 }, (_, at) => {
    const t = at * 10;
    return `${t},${t < 600 ? 0 : 30},${t < 600 ? 20 : 20 + Math.floor((t - 600) / 60)}`;
  });
  const read = readTrace(['time [s],power [W],level [%]', ...rows].join('\n'));
  if (!read.ok) throw new Error(read.reason);
  const session = chargeOf(read.trace);
  if ('reason' in session) throw new Error(session.reason);

  it('counts from when power flowed, in its times, its course and beside others', () => {
    expect(session.start).toBeCloseTo(600, -1);
    expect((session.times[50] ?? 0) / 60).toBeCloseTo(30, 0);
    expect((session.course?.seconds[0] ?? 0) / 60).toBeCloseTo(2, 0);
    const other = typed([
      [0, 20],
      [79, 99],
    ]);
    const compared = compareCharges([side('C1', session)], [side('C2', other)]);
    expect(compared?.from).toBeCloseTo(0.2, 6);
    expect(Math.abs((compared?.seconds[0] ?? 0) - (compared?.seconds[1] ?? 0))).toBeLessThan(60);
  });

  it('keeps what its device said before it was unplugged for nothing', () => {
    // It had lost two per cent by then.
    const lost = readTrace(
      ['time [s],power [W],level [%]', ...rows.map((row, at) => (at < 30 ? row.replace(/,20$/, ',22') : row))].join(
        '\n',
      ),
    );
    if (!lost.ok) throw new Error(lost.reason);
    const found = chargeOf(lost.trace);
    expect('reason' in found ? null : found.startLevel).toBeCloseTo(0.2, 6);
  });
});
