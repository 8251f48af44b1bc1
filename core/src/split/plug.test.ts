import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { measured } from '../uncertainty/index.ts';
import {
  adviseArrangement,
  compareScores,
  demandAt,
  inferRule,
  judgeArrangement,
  levelAfter,
  type PlugCharger,
  type PlugDevice,
  plugCharger,
  type SplitReading,
  simulateEvening,
  USUAL_PROFILE,
} from './index.ts';

const reading = (watts: Record<string, number>, part: Partial<SplitReading> = {}): SplitReading => ({
  occupied: Object.keys(watts),
  light: [],
  watts: Object.fromEntries(Object.entries(watts).map(([port, value]) => [port, measured(value, 0.05)])),
  rest: null,
  total: null,
  mainsWatts: null,
  atLeast: false,
  sourceIds: [],
  ...part,
});

const device = (id: string, watts: number, part: Partial<PlugDevice> = {}): PlugDevice => ({
  id,
  name: id,
  watts,
  volts: null,
  battery: 40 * 3600,
  level: 0.2,
  staysOn: false,
  comes: 0,
  profile: USUAL_PROFILE,
  ...part,
});
const charger = (part: Partial<PlugCharger> = {}): PlugCharger => ({
  ports: [
    { label: 'C1', volts: [5, 9, 15, 20] },
    { label: 'C2', volts: [5, 9] },
    { label: 'A1', volts: [5] },
  ],
  shares: (occupied) => Object.fromEntries(occupied.map((port) => [port, { C1: 60, C2: 27, A1: 12 }[port] ?? 0])),
  drops: () => false,
  ...part,
});

describe('where to plug', () => {
  it('gives the laptop the big port and the lamp the small one', () => {
    const { best, why } = adviseArrangement(charger(), [
      device('lamp', 5),
      device('phone', 20, { volts: 9 }),
      device('laptop', 60, { volts: 20 }),
    ]);
    expect(best.arrangement).toEqual({ laptop: 'C1', phone: 'C2', lamp: 'A1' });
    expect(best.score.watts).toBe(85);
    expect(why).toMatch(/W more in use|as good|Every other/);
  });
  it('puts what must stay on where nothing interrupts it, even if it costs watts', () => {
    const breaking = charger({ drops: (port) => port === 'C1' });
    const radio = device('radio', 9, { staysOn: true, battery: null });
    const { best, runnerUp } = adviseArrangement(breaking, [radio, device('laptop', 60, { comes: 600 })]);
    expect(best.arrangement.radio).not.toBe('C1');
    expect(best.score.lost).toBe(0);
    expect(runnerUp).not.toBeNull();
  });
  it('lets someone wait when there are more devices than ports', () => {
    const many = [device('a', 50), device('b', 40), device('c', 20), device('d', 10)];
    const { best } = adviseArrangement(charger(), many);
    expect(Object.keys(best.arrangement)).toHaveLength(3);
    expect(best.arrangement.a).toBe('C1');
  });
  it('is the best of all there are', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 3, max: 90 }), { minLength: 1, maxLength: 3 }), (demands) => {
        const devices = demands.map((watts, index) => device(`d${index}`, watts));
        const { best } = adviseArrangement(charger(), devices);
        for (const order of [
          ['C1', 'C2', 'A1'],
          ['A1', 'C2', 'C1'],
          ['C2', 'A1', 'C1'],
          ['C2', 'C1', 'A1'],
          ['A1', 'C1', 'C2'],
          ['C1', 'A1', 'C2'],
        ]) {
          const other = judgeArrangement(
            charger(),
            devices,
            Object.fromEntries(devices.map(({ id }, index) => [id, order[index] ?? ''])),
          );
          expect(compareScores(other.score, best.score)).toBeLessThanOrEqual(0);
        }
      }),
      { numRuns: 60 },
    );
  });
  it('refuses more than it can try, and a charger without ports', () => {
    expect(() =>
      adviseArrangement(
        charger(),
        Array.from({ length: 9 }, (_, index) => device(`d${index}`, 5)),
      ),
    ).toThrow(RangeError);
    expect(() => adviseArrangement(charger({ ports: [] }), [])).not.toThrow();
  });
});

describe('what nobody tested', () => {
  const labels = ['C1', 'C2', 'A1'];
  const radio = device('radio', 9, { staysOn: true, battery: null });
  const phone = device('phone', 20, { comes: 600 });
  it('is neither safe nor failed: a port that was watched comes first', () => {
    const watched = charger({ watched: (port) => port === 'A1' });
    const { best } = adviseArrangement(watched, [radio, phone]);
    expect(best.arrangement.radio).toBe('A1');
    expect(best.score).toMatchObject({ open: 0, kept: 1 });
    const none = adviseArrangement(charger({ watched: () => false }), [radio, phone]).best;
    expect(none.score).toMatchObject({ lost: 0, open: 1, kept: 0 });
    expect(none.measureFirst.length).toBeGreaterThan(0);
  });
  it('with no share known at all is said, with the set to read first', () => {
    const blank = charger({
      shares: (occupied) => Object.fromEntries(occupied.map((port) => [port, null])),
      read: () => false,
    });
    const { best } = adviseArrangement(blank, [radio, phone]);
    expect(Object.values(best.met).map(({ watts }) => watts)).toEqual([null, null]);
    expect(best.score).toMatchObject({ lost: 0, open: 1 });
    expect(best.measureFirst[0]).toHaveLength(2);
    expect(labels).toEqual(expect.arrayContaining([...(best.measureFirst[0] ?? [])]));
  });
  it('by a source with nothing measured knows nothing either', () => {
    const source = {
      ports: labels.map((label) => ({ label, volts: [5] })),
      by: 'measured' as const,
      rule: { budgets: [] },
      promised: [],
      alone: {},
      drops: [],
    };
    const { best } = adviseArrangement(plugCharger(source), [radio]);
    expect(best.met.radio?.watts).toBeNull();
    expect(best.score).toMatchObject({ lost: 0, open: 1, kept: 0 });
  });
});

describe('a lead', () => {
  const ports = [
    { label: 'C1', volts: [5, 20], connector: 'C' as const },
    { label: 'A1', volts: [5], connector: 'A' as const },
  ];
  const two = charger({
    ports,
    shares: (occupied) => Object.fromEntries(occupied.map((port) => [port, { C1: 60, A1: 12 }[port] ?? 0])),
  });
  const lead = (name: string, fits: 'C' | 'A', watts: number, volts: number | null = null) => ({
    name,
    fits,
    watts,
    volts,
  });
  it('from C to C does not fit an A port', () => {
    const laptop = device('laptop', 60, { leads: [lead('C to C', 'C', 60, 20)] });
    expect(judgeArrangement(two, [laptop], { laptop: 'A1' }).met.laptop?.watts).toBe(0);
    expect(adviseArrangement(two, [laptop]).best.arrangement).toEqual({ laptop: 'C1' });
  });
  it('is chosen by the port: the one that fits and carries most', () => {
    const phone = device('phone', 25, {
      leads: [lead('short', 'C', 25, 9), lead('old', 'C', 15), lead('A lead', 'A', 10)],
    });
    expect(judgeArrangement(two, [phone], { phone: 'C1' }).leads).toEqual({ phone: 'short' });
    expect(judgeArrangement(two, [phone], { phone: 'A1' })).toMatchObject({
      leads: { phone: 'A lead' },
      met: { phone: { watts: 10 } },
    });
  });
});

describe('an evening', () => {
  it('counts each minute once: an hour at 10 W is 10 Wh', () => {
    const lamp = device('lamp', 10, { battery: null });
    for (const seconds of [3600, 90, 30])
      expect(simulateEvening(charger(), [lamp], { lamp: 'C1' }, seconds).energy).toBeCloseTo(10 * seconds, 9);
  });
  it('gives a device without its level what the advice gives it', () => {
    const laptop = device('laptop', 60, { volts: 20, level: 0 });
    const { met } = judgeArrangement(charger(), [laptop], { laptop: 'C2' });
    const evening = simulateEvening(charger(), [laptop], { laptop: 'C2' }, 600);
    expect(met.laptop?.watts).toBe(15);
    expect(evening.devices[0]?.watts[0]).toBe(15);
  });
  it('fills a battery by what it gets: energy and level belong together', () => {
    const laptop = device('laptop', 60, { battery: 64 * 3600, level: 0 });
    const evening = simulateEvening(charger(), [laptop], { laptop: 'C1' }, 12 * 3600);
    const [one] = evening.devices;
    expect(one?.levels.at(-1)).toBeCloseTo(1, 3);
    expect((one?.energy ?? 0) * 0.9).toBeCloseTo(64 * 3600, -3);
    expect(one?.fullAt).toBeGreaterThan(64 * 60);
    expect(evening.energy).toBe(one?.energy);
  });
  it('says what each plug-in interrupts, and when', () => {
    const breaking = charger({ drops: (port, cause) => port === 'C1' && cause === 'C2' });
    const evening = simulateEvening(
      breaking,
      [device('radio', 9), device('phone', 20, { comes: 1800 })],
      { radio: 'C1', phone: 'C2' },
      3600,
    );
    expect(evening.breaks).toEqual([{ at: 1800, id: 'radio', by: 'phone' }]);
  });
  it('leaves out what waits, and never gives more than is asked', () => {
    const evening = simulateEvening(charger(), [device('a', 50), device('b', 5)], { a: 'C1' }, 600);
    expect(evening.devices[1]?.energy).toBe(0);
    expect(Math.max(...(evening.devices[0]?.watts ?? []))).toBeLessThanOrEqual(50);
    expect(() => simulateEvening(charger(), [], {}, 0)).toThrow(RangeError);
  });
  it('demand falls along the profile, and a full battery takes nothing', () => {
    const one = device('a', 50);
    expect([0, 0.6, 0.7, 1].map((level) => Math.round(demandAt(one, level)))).toEqual([50, 50, 41, 0]);
    expect(demandAt(device('lamp', 5, { battery: null }), 1)).toBe(5);
    expect(levelAfter(3600, 0.5, 1, 1e6)).toBe(1);
    expect(levelAfter(null, 0.5, 10, 100)).toBe(0.5);
  });
  it('of eight devices on eight ports is found and simulated for twelve hours in a moment', () => {
    const ports = Array.from({ length: 8 }, (_, index) => ({ label: `P${index}`, volts: [5, 9, 20] }));
    const eight: PlugCharger = {
      ports,
      shares: (occupied) => Object.fromEntries(occupied.map((port, index) => [port, 60 - index * 5])),
      drops: () => false,
    };
    const devices = ports.map((_, index) => device(`d${index}`, 10 + index * 8));
    const { best, tried } = adviseArrangement(eight, devices);
    expect(tried).toBe(40_320);
    expect(simulateEvening(eight, devices, best.arrangement, 12 * 3600).moments).toHaveLength(721);
  });
});

describe('a charger to plug into', () => {
  const source = {
    ports: [
      { label: 'C1', volts: [20] },
      { label: 'C2', volts: [20] },
    ],
    rule: inferRule(['C1', 'C2'], [reading({ C1: 65 }), reading({ C2: 65 }), reading({ C1: 45, C2: 20 })]),
    promised: [{ occupied: ['C1', 'C2'], watts: { C1: 65, C2: 65 } }],
    alone: { C1: 65, C2: 65 },
    drops: [
      {
        port: 'C1',
        cause: 'C2',
        how: 'plugged' as const,
        dropped: true,
        seconds: 1,
        lowest: 0,
        back: 'same level' as const,
      },
    ],
  };
  it('gives what was measured, or what is printed', () => {
    expect(plugCharger({ ...source, by: 'measured' }).shares(['C1', 'C2'])).toEqual({ C1: 45, C2: 20 });
    expect(plugCharger({ ...source, by: 'promised' }).shares(['C1', 'C2'])).toEqual({ C1: 65, C2: 65 });
    expect(plugCharger({ ...source, by: 'promised' }).shares(['C1'])).toEqual({ C1: 65 });
  });
  it('interrupts where a drop was seen', () => {
    const made = plugCharger({ ...source, by: 'measured' });
    expect([made.drops('C1', 'C2'), made.drops('C2', 'C1')]).toEqual([true, false]);
  });
});
