import { describe, expect, it } from 'vitest';
import { decodeSource } from '../pd/index.ts';
import { seededRandom } from '../random/index.ts';
import { granted, judgeArrangement, type PlugCharger } from './assign.ts';
import { demandAt, demandShown, type PlugDevice, USUAL_PROFILE } from './devices.ts';
import { readyAt, simulateEvening } from './evening.ts';
import { givesAlone } from './promises.ts';
import { adviseSeveral, keepsItsTime, MOST_TOGETHER, type PlugStation, wouldDo } from './several.ts';

/** A charger whose ports share a budget: alone each gives its own, together what is left is divided evenly. */
function charger(
  ports: Readonly<Record<string, number>>,
  budget: number,
  part: Partial<PlugCharger> = {},
): PlugCharger {
  return {
    ports: Object.keys(ports).map((label) => ({
      label,
      volts: [5, 9, 20],
      connector: label.startsWith('A') ? 'A' : 'C',
    })),
    shares: (occupied) => {
      const wanted = occupied.reduce((sum, port) => sum + (ports[port] ?? 0), 0);
      const scale = Math.min(1, budget / wanted);
      return Object.fromEntries(occupied.map((port) => [port, (ports[port] ?? 0) * scale]));
    },
    drops: () => false,
    ...part,
  };
}
const device = (id: string, watts: number, part: Partial<PlugDevice> = {}): PlugDevice => ({
  id,
  name: id,
  watts,
  volts: null,
  battery: watts * 3600,
  level: 0.2,
  staysOn: false,
  comes: 0,
  profile: USUAL_PROFILE,
  ...part,
});

/** Everything that can be plugged, one after the other; scored by the arrangement's own judgement and the evening's steps. */
function bruteForce(stations: readonly PlugStation[], devices: readonly PlugDevice[]): readonly number[] {
  let best: readonly number[] = [-1];
  const above = (a: readonly number[], b: readonly number[]) => {
    const at = a.findIndex((one, index) => Math.abs(one - (b[index] ?? -1)) > 1e-6);
    return at >= 0 && (a[at] ?? 0) > (b[at] ?? -1);
  };
  const places = stations.flatMap(({ charger: one }, at) => one.ports.map(({ label }) => [at, label] as const));
  const walk = (index: number, arrangements: readonly Readonly<Record<string, string>>[]) => {
    if (index === devices.length) {
      const totals = [0, 0, 0, 0];
      for (const [at, arrangement] of arrangements.entries()) {
        const own = devices.filter(({ id }) => arrangement[id] !== undefined);
        const { score, met } = judgeArrangement((stations[at] as PlugStation).charger, own, arrangement);
        totals[0] = (totals[0] as number) + score.kept;
        totals[1] = (totals[1] as number) + own.filter((one) => keepsItsTime(one, met[one.id]?.watts ?? 0)).length;
        totals[2] = (totals[2] as number) + own.length;
        totals[3] = (totals[3] as number) + score.watts;
      }
      if (above(totals, best)) best = totals;
      return;
    }
    const it = devices[index] as PlugDevice;
    walk(index + 1, arrangements);
    for (const [at, label] of places) {
      if (Object.values(arrangements[at] ?? {}).includes(label)) continue;
      const port = (stations[at] as PlugStation).charger.ports.find((one) => one.label === label);
      if (!port || granted(it, port, 1) === 0) continue;
      walk(
        index + 1,
        arrangements.map((one, other) => (other === at ? { ...one, [it.id]: label } : one)),
      );
    }
  };
  walk(
    0,
    stations.map(() => ({})),
  );
  return best;
}

describe('several chargers', () => {
  it('are used as well as can be: the same as trying everything', () => {
    for (let seed = 1; seed <= 40; seed += 1) {
      const random = seededRandom(seed);
      const count = 2 + Math.floor(random() * 4);
      const devices = Array.from({ length: count }, (_, at) =>
        device(`d${at}`, 5 + Math.floor(random() * 70), {
          staysOn: random() < 0.3,
          comes: Math.floor(random() * 3) * 3600,
          battery: random() < 0.2 ? null : 200_000 * random() + 20_000,
          needs: random() < 0.4 ? { level: 0.5 + random() * 0.5, by: 3600 * (1 + random() * 6) } : null,
          leads: random() < 0.3 ? [{ name: 'A lead', fits: 'A', watts: 12, volts: 5 }] : undefined,
        }),
      );
      const drop = random() < 0.5;
      const stations: PlugStation[] = [
        {
          id: 'one',
          charger: charger(
            { C1: 65, A1: 18 },
            70,
            drop ? { drops: (port, cause) => port === 'A1' && cause === 'C1' } : {},
          ),
        },
        {
          id: 'two',
          charger: charger({ C1: 45, C2: 30 }, 60, random() < 0.3 ? { watched: () => false } : {}),
        },
      ];
      const { score } = adviseSeveral(stations, devices);
      const [kept, needs, plugged, watts] = bruteForce(stations, devices);
      expect([seed, score.kept, score.needs, score.plugged]).toEqual([seed, kept, needs, plugged]);
      expect(score.watts).toBeCloseTo(watts ?? 0, 3);
    }
  });

  it('give each device the charger that suits it', () => {
    const stations = [
      { id: 'small', charger: charger({ C1: 20 }, 20) },
      { id: 'large', charger: charger({ C1: 65 }, 65) },
    ];
    const { chargers, waiting, score } = adviseSeveral(stations, [device('phone', 18), device('laptop', 60)]);
    expect(chargers.map(({ id, arrangement }) => [id, arrangement])).toEqual([
      ['small', { phone: 'C1' }],
      ['large', { laptop: 'C1' }],
    ]);
    expect([waiting, score]).toEqual([[], { kept: 0, needs: 0, plugged: 2, watts: 78 }]);
  });

  it('leave a device waiting rather than let go what must stay on', () => {
    const stations = [{ id: 'one', charger: charger({ C1: 60, C2: 60 }, 60) }];
    const { waiting, score } = adviseSeveral(stations, [device('router', 50, { staysOn: true }), device('phone', 18)]);
    expect([waiting, score.kept]).toEqual([['phone'], 1]);
  });

  it('mind who interrupts whom', () => {
    const stations = [{ id: 'one', charger: charger({ C1: 60, C2: 60 }, 120, { drops: (port) => port === 'C1' }) }];
    const { chargers, score } = adviseSeveral(stations, [
      device('radio', 10, { staysOn: true }),
      device('laptop', 60, { comes: 3600 }),
    ]);
    expect([chargers[0]?.arrangement, score.kept]).toEqual([{ radio: 'C2', laptop: 'C1' }, 1]);
  });

  it('keep a time that can be kept', () => {
    // 60 Wh from 20 to 90 %: at 90 % into the battery 46.7 Wh; at 60 W falling it takes about an hour and a half.
    const laptop = device('laptop', 60, { battery: 60 * 3600, needs: { level: 0.9, by: 2 * 3600 } });
    expect(keepsItsTime(laptop, 60)).toBe(true);
    expect(keepsItsTime(laptop, 20)).toBe(false);
    expect(keepsItsTime({ ...laptop, needs: null }, 60)).toBe(false);
    const stations = [{ id: 'one', charger: charger({ C1: 60, C2: 20 }, 80) }];
    const tablet = device('tablet', 60);
    expect(adviseSeveral(stations, [tablet, laptop]).chargers[0]?.arrangement).toEqual({ laptop: 'C1', tablet: 'C2' });
  });

  it('that would do with fewer are told', () => {
    const stations = [
      { id: 'a', mass: 0.05, charger: charger({ C1: 20 }, 20) },
      { id: 'b', mass: 0.2, charger: charger({ C1: 65, C2: 30 }, 95) },
      { id: 'c', mass: 0.04, charger: charger({ A1: 12 }, 12) },
    ];
    const both = [device('phone', 18), device('laptop', 60)];
    expect(wouldDo(stations, both)).toEqual([{ ids: ['b'], mass: 0.2, ofMass: expect.closeTo(0.29, 9) }]);
    const unweighed = stations.map((one) => (one.id === 'a' ? { ...one, mass: null } : one));
    expect(wouldDo(unweighed, both)).toEqual([{ ids: ['b'], mass: 0.2, ofMass: null }]);
    expect(wouldDo(stations, [device('x', 18), device('y', 60), device('z', 20), device('w', 10)])).toEqual([]);
  });

  it('with more devices than are tried together say what no arrangement can exceed', () => {
    const stations = [
      { id: 'a', charger: charger({ C1: 65, C2: 30, C3: 30, C4: 20, A1: 12, A2: 12 }, 120) },
      { id: 'b', charger: charger({ C1: 65, C2: 30, C3: 30, C4: 20, A1: 12, A2: 12 }, 120) },
    ];
    const many = Array.from({ length: MOST_TOGETHER + 3 }, (_, at) =>
      device(`d${at}`, 8 + 4 * at, { staysOn: at < 2 }),
    );
    const { exact, score, bound, waiting } = adviseSeveral(stations, many);
    expect(exact).toBe(false);
    expect(score.watts).toBeLessThanOrEqual(bound.watts);
    expect([score.plugged + waiting.length, score.kept <= bound.kept]).toEqual([many.length, true]);
    expect(score.plugged).toBe(12);
  });

  it('are refused beyond what can be tried', () => {
    expect(() => adviseSeveral([], [device('a', 5)])).toThrow(RangeError);
    const none = adviseSeveral([{ id: 'a', charger: charger({ C1: 20 }, 20) }], []);
    expect(none.score).toEqual({ kept: 0, needs: 0, plugged: 0, watts: 0 });
  });
});

describe('an evening with devices as their charges show them', () => {
  const shown = {
    levels: [0.2, 0.4, 0.6, 0.8, 1],
    watts: [40, 40, 20, 10],
    joules: [100_000, 110_000, 90_000, 100_000],
  };
  const laptop = device('laptop', 40, {
    ...demandShown(shown, 40),
    needs: { level: 0.6, by: 3600 },
  });

  it('asks for what was taken at each level, and takes in all what whole charges took', () => {
    expect([0.2, 0.3, 0.5, 0.9].map((level) => demandAt(laptop, level))).toEqual([40, 40, 40, 10]);
    expect(demandAt(laptop, 0.6)).toBeCloseTo(30, 9);
    // A whole charge takes 100 kJ at the port.
    const { energy, devices } = simulateEvening(
      charger({ C1: 65 }, 65),
      [{ ...laptop, level: 0 }],
      { laptop: 'C1' },
      12 * 3600,
    );
    expect(devices[0]?.fullAt).not.toBeNull();
    expect(Math.abs(energy / 100_000 - 1)).toBeLessThan(0.02);
  });

  it('is ready when it first has its level, or never', () => {
    const evening = simulateEvening(charger({ C1: 65 }, 65), [laptop], { laptop: 'C1' }, 6 * 3600);
    const at = readyAt(evening, laptop, evening.devices[0]?.levels ?? []);
    // 0.4 of 100 kJ at 40 W, the last of it at less.
    expect(Math.abs((at ?? 0) - 1040)).toBeLessThan(120);
    const slow = simulateEvening(charger({ C1: 1 }, 1), [laptop], { laptop: 'C1' }, 3600);
    expect(readyAt(slow, laptop, slow.devices[0]?.levels ?? [])).toBeNull();
    expect(readyAt(evening, { ...laptop, needs: null }, evening.devices[0]?.levels ?? [])).toBeNull();
  });
});

describe('what a port gives alone', () => {
  const claims = [{ promise: { kind: 'port-line', port: 'C2', volts: 20, amps: 3.75 } }] as const;

  it('is what it says itself where it was read out, else what is promised, else unknown', () => {
    const offers = [decodeSource(0x0001912c), decodeSource(0x00064096)];
    // 5 V 3 A and 20 V 1.5 A.
    expect(givesAlone('C2', claims, offers)).toBeCloseTo(30, 9);
    expect(givesAlone('C2', claims, [])).toBeCloseTo(75, 9);
    expect(givesAlone('A1', claims, [])).toBeNull();
  });
});
