import { describe, expect, it } from 'vitest';
import { seededNormal, seededRandom } from '../random/index.ts';
import { readTrace } from '../trace/index.ts';
import {
  exponentOf,
  heatEvents,
  perWatt,
  predicted,
  type SoakFigures,
  settledAfter,
  soakOf,
  spotCelsius,
  TOUCH_TS1,
  warmFit,
} from './index.ts';

const MINUTE = 60;
const times = (minutes: number, every: number) =>
  Array.from({ length: Math.floor((minutes * MINUTE) / every) + 1 }, (_, at) => at * every);
const normal = seededNormal(seededRandom(11));

describe('the curve of a warming body', () => {
  it('five readings of 24.6 + 41.3·(1 − e^(−t/19 min)) lead to 65.9 °C, not settled after an hour', () => {
    const fit = warmFit([0, 300, 1200, 2400, 3600], [24.6, 34.16, 51.49, 60.87, 64.14], 0.01);
    expect(fit?.steady).toBeCloseTo(65.9, 1);
    expect(fit?.timeConstants[0]).toBeCloseTo(19 * MINUTE, -1);
    // 41.3·e^(−t/19 min) = 1 K after 70.7 min.
    expect(settledAfter(fit as never)).toBeCloseTo(70.7 * MINUTE, -2);
  });

  it('two time constants are found where there are two', () => {
    const t = times(90, 10);
    const y = t.map((s) => 25 + 30 * (1 - Math.exp(-s / 1200)) + 10 * (1 - Math.exp(-s / 100)) + 0.05 * normal());
    const fit = warmFit(t, y);
    expect(fit?.timeConstants).toHaveLength(2);
    expect((fit?.timeConstants[0] ?? 0) / 1200).toBeCloseTo(1, 1);
    expect((fit?.timeConstants[1] ?? 0) / 100).toBeCloseTo(1, 0);
    expect(fit?.steady).toBeCloseTo(65, 1);
  });

  it('what does not move has no time constant, and what is too short no bound', () => {
    expect(
      warmFit(
        times(30, 30),
        times(30, 30).map(() => 24 + 0.1 * normal()),
      ),
    ).toMatchObject({ timeConstants: [] });
    const t = times(5, 10);
    const short = warmFit(
      t,
      t.map((s) => 25 + 40 * (1 - Math.exp(-s / 2400)) + 0.2 * normal()),
    );
    expect(short?.interval[1] === null || (short?.interval[1] ?? 0) - (short?.interval[0] ?? 0) > 5).toBe(true);
    expect(warmFit([0, 1, 2], [1, 2, 3])).toBeNull();
  });

  it('a thermometer with steps of a whole degree is not believed to a hundredth', () => {
    const t = times(60, 60);
    const fit = warmFit(
      t,
      t.map((s) => Math.round(25 + 40 * (1 - Math.exp(-s / 1140)))),
      1,
    );
    const [low, high] = fit?.interval ?? [null, null];
    expect((high ?? 0) - (low ?? 0)).toBeGreaterThan(0.1);
    expect(low).toBeLessThan(65);
    expect(high).toBeGreaterThan(65);
  });
});

const log = (
  minutes: number,
  watts: (s: number) => number,
  volts: ((s: number) => number) | null = null,
  every = 5,
) => {
  const t = times(minutes, every);
  return { times: t, watts: t.map((s) => watts(s) * (1 + 0.001 * normal())), volts: volts && t.map((s) => volts(s)) };
};
const told = (...args: Parameters<typeof log>) => heatEvents(log(...args)).map(({ kind, at }) => [kind, at]);

describe('what happened to the output', () => {
  it('a lasting loss of 4 % is throttling, 2 % is not, nor is a slow sag of 1 %', () => {
    expect(told(60, (s) => (s < 1800 ? 65 : 62.4))).toEqual([['throttle', 1800]]);
    expect(told(60, (s) => (s < 1800 ? 65 : 63.7))).toEqual([]);
    expect(told(60, (s) => 65 * (1 - (0.01 * s) / 3600))).toEqual([]);
  });

  it('a loss that takes minutes is one', () => {
    const ramp = (s: number) => (s < 1800 ? 65 : s < 2100 ? 65 - (10 * (s - 1800)) / 300 : 55);
    const events = heatEvents(log(60, ramp));
    expect(events).toHaveLength(1);
    expect(Math.abs((events[0]?.at ?? 0) - 1800)).toBeLessThanOrEqual(60);
    expect(events[0]?.to).toBeCloseTo(55, 0);
  });

  it('a fall to a lower level is told from throttling by the volts', () => {
    const fall = (s: number) => (s < 1000 ? 60 : 45);
    expect(told(40, fall, (s) => (s < 1000 ? 20 : 15))).toEqual([['renegotiation', 1000]]);
    expect(told(40, fall, () => 20)).toEqual([['throttle', 1000]]);
  });

  it('a cut-out, one that comes back, and several in a row', () => {
    expect(
      told(
        60,
        (s) => (s < 1200 ? 65 : 0),
        (s) => (s < 1200 ? 20 : 0),
      ),
    ).toEqual([['cutoff', 1200]]);
    const back = heatEvents(log(60, (s) => (s >= 1200 && s < 1500 ? 0 : 65)));
    expect(back).toMatchObject([{ kind: 'cutoff', at: 1200, recovered: 1500 }]);
    expect(told(60, (s) => (s > 1200 && s % 120 < 30 ? 0 : 65))[0]).toEqual(['pulsing', 1205]);
  });

  it('a load switched off at the end is no cut-out: the volts stand', () => {
    expect(
      told(
        60,
        (s) => (s < 3000 ? 65 : 0),
        () => 20,
      ),
    ).toEqual([]);
    expect(told(60, (s) => (s < 3590 ? 65 : 0))).toEqual([]);
  });
});

const soak = (text: string, context = {}): SoakFigures => {
  const read = readTrace(text);
  if (!read.ok) throw new Error(read.reason);
  const found = soakOf(read.trace, context);
  if ('reason' in found) throw new Error(found.reason);
  return found;
};

describe('a soak from its log', () => {
  it('takes sensors, ambient and output by names and units', () => {
    const rows = times(60, 10).map((s) => {
      const rise = 41.3 * (1 - Math.exp(-s / 1140));
      return `${(s / 60).toFixed(3)};${(((24.6 + rise + 0.1 * normal()) * 9) / 5 + 32).toFixed(2)};${(24.6 + 0.7 * rise + 0.1 * normal()).toFixed(2)};24.6;20.01;3.25`;
    });
    const found = soak(`time [min];Hot spot [°F];side [°C];Room [°C];Vout [V];Iout [A]\n${rows.join('\n')}\n`);
    expect(found.ambient).toBeCloseTo(24.6, 6);
    expect(found.watts).toBeCloseTo(65.03, 1);
    expect(found.sensors.map(({ name }) => name)).toEqual(['Hot spot', 'side']);
    const [hot] = found.sensors;
    expect(hot?.steady).toBeCloseTo(65.9, 0);
    expect(hot).toMatchObject({ settled: false });
    expect(hot?.remaining).toBeCloseTo(1.76, 0);
    expect(found.findings.join()).toMatch(/Hot spot had not settled: 1\.\d K/);
    expect(found.events).toEqual([]);
  });

  it('is fitted to the longest stretch at one power, with the event and its temperature', () => {
    let T = 25;
    const rows = times(90, 10).map((s) => {
      const watts = s < 3000 ? 75 : 60;
      const row = `${s},${(T + 0.05 * normal()).toFixed(2)},25.0,${watts + 0.05 * normal()}`;
      for (let step = 0; step < 10; step += 1) T += ((25 + watts * 0.6 - T) / 900) * 1;
      return row;
    });
    const found = soak(`time,case temp,ambient,power\n${rows.join('\n')}\n`);
    expect(found.events).toMatchObject([{ kind: 'throttle', at: 3000 }]);
    expect(found.events[0]?.temperature).toBeCloseTo(25 + 45 * (1 - Math.exp(-3000 / 900)), 0);
    expect(found.sensors[0]?.steady).toBeCloseTo(70, 0);
    expect(found.findings.join()).toMatch(/Volts were not recorded/);
  });

  it.each([
    'time_s,T_front_C,T_ambient_C,P_W',
    'elapsed_s,front,ambient,power',
    'Time (s),Sensor 1 [°C],Room [°C],Output power [W]',
    'time,case_temp_degC,room_degC,pout_w',
  ])('reads the columns of %s', (heads) => {
    const rows = times(60, 15).map(
      (s) => `${s},${(24 + 40 * (1 - Math.exp(-s / 900)) + 0.05 * normal()).toFixed(2)},24.0,${s < 2400 ? 60 : 50}`,
    );
    const found = soak(`${heads}\n${rows.join('\n')}\n`);
    expect(found.ambient).toBeCloseTo(24, 6);
    expect(found.sensors).toHaveLength(1);
    expect(found.sensors[0]?.steady).toBeCloseTo(64, 0);
    expect(found.events).toMatchObject([{ kind: 'throttle', at: 2400 }]);
  });

  describe('of a body of 15 minutes that goes to 65 °C', () => {
    const rise = (s: number) => 42 * (1 - Math.exp(-Math.max(0, s) / 900));
    /** Warms from one second on, cools again from another. */
    const warmed = (from: number, to: number) => (s: number) =>
      23 + (s <= to ? rise(s - from) : rise(to - from) * Math.exp(-(s - to) / 900));
    const written = (minutes: number, celsius: (s: number) => number, watts: ((s: number) => number) | null = null) =>
      soak(
        `time [s],front [°C],room [°C]${watts ? ',out [V],out [A]' : ''}\n${times(minutes, 5)
          .map((s) =>
            [s, (celsius(s) + 0.1 * normal()).toFixed(2), '23.0', ...(watts ? [20, watts(s) / 20] : [])].join(','),
          )
          .join('\n')}\n`,
      );

    it('is fitted where it was loaded, however long it cooled afterwards and whatever a load that is off still reads', () => {
      for (const idle of [0, 0.02, 0.4]) {
        const found = written(145, warmed(0, 1500), (s) => (s < 1500 ? 45 : idle));
        expect(found.sensors[0]?.steady, `${idle} W`).toBeCloseTo(65, 0);
        expect(found).toMatchObject({ events: [], watts: expect.closeTo(45, 1) });
      }
    });
    it('is fitted to one of several loadings', () => {
      let celsius = 23;
      const on = (s: number) => s % 3600 < 1800;
      const course = Array.from({ length: 7201 }, (_, s) => {
        const now = celsius;
        celsius += ((on(s) ? 65 : 23) - celsius) / 900;
        return now;
      });
      const found = written(
        120,
        (s) => course[s] ?? 0,
        (s) => (on(s) ? 45 : 0.02),
      );
      expect(found.sensors[0]?.steady).toBeCloseTo(65, 0);
      expect(found.watts).toBeCloseTo(45, 1);
    });
    it('with output not recorded is fitted where it warms: not to what stood before, nor to what cooled after', () => {
      for (const [from, to] of [
        [600, 1e9],
        [0, 3000],
        [600, 3600],
      ] as const) {
        const found = written(110, warmed(from, to));
        expect(found.sensors[0]?.steady, `${from} to ${to} s`).toBeCloseTo(65, 0);
        expect(found.findings.join()).toContain('where it warms');
      }
    });
    it('leads nowhere once its sensor fell off', () => {
      const found = written(
        60,
        (s) => (s < 2400 ? warmed(0, 1e9)(s) : 25 + 37 * Math.exp(-(s - 2400) / 60)),
        () => 45,
      );
      expect(found.sensors[0]).toMatchObject({ steady: null, settled: null, fit: null });
      expect(found.findings.join()).toContain('front follows no curve: where it is going cannot be told');
    });
    it('still leads there in a room that breathes, and by a thermometer of 1.5 K', () => {
      expect(written(90, (s) => warmed(0, 1e9)(s) + 0.7 * Math.sin(s / 95)).sensors[0]?.steady).toBeCloseTo(65, 0);
      expect(written(60, (s) => warmed(0, 1e9)(s) + 1.5 * normal()).sensors[0]?.steady).toBeCloseTo(65, 0);
    });
  });

  it('leaves out what a sensor tells that is not connected, and says so', () => {
    const rows = times(60, 10).map((s, at) => {
      const celsius = at % 50 === 3 ? '-127.00' : (23 + 42 * (1 - Math.exp(-s / 900)) + 0.1 * normal()).toFixed(2);
      return `${s},${celsius},${at % 90 === 5 ? '850' : '23.0'},-200`;
    });
    const found = soak(`time [s],front [°C],room [°C],back [°C]\n${rows.join('\n')}\n`);
    expect(found.sensors.map(({ name, steady }) => [name, Math.round(steady ?? 0)])).toEqual([['front', 65]]);
    expect(found.ambient).toBeCloseTo(23, 9);
    expect(found.findings.join(' ')).toMatch(/8 readings of front left out: -127 °C/);
    expect(found.findings.join(' ')).toMatch(/361 readings of back left out: -200 °C/);
    const nowhere = soak(
      `time [s],front [°C],room [°C]\n${rows.map((row) => row.replace(/,[^,]+,-200$/, ',-200')).join('\n')}\n`,
    );
    expect(nowhere.ambient).toBeNull();
  });

  it('may be logged ten times a second for five hours, by a meter that always says 45 W', () => {
    const samples = 200_000;
    const column = (name: string, quantity: 'temperature' | 'power', unit: string, of: (s: number) => number) => ({
      name,
      quantity,
      unit,
      values: Float32Array.from({ length: samples }, (_, at) => of(at / 10)),
    });
    const found = soakOf({
      samples,
      interval: 0.1,
      times: null,
      channels: [
        column('front', 'temperature', '°C', (s) => 23 + s / 10_000 + 42 * (1 - Math.exp(-s / 3000))),
        column('room', 'temperature', '°C', (s) => 23 + s / 10_000),
        column('output', 'power', 'W', () => 45),
      ],
      began: null,
      facts: { bandwidth: null, envelope: false, coupling: null },
      remarks: [],
    });
    if ('reason' in found) throw new Error(found.reason);
    expect(found).toMatchObject({ watts: expect.closeTo(45, 6), events: [] });
    // It stands on a room that has come to 25 °C.
    expect(found.sensors[0]?.steady).toBeCloseTo(67, 1);
  });

  it('takes its mean power over time, not over readings', () => {
    const dense = times(10, 5).map((s) => [s, 40]);
    const sparse = times(50, 300)
      .slice(1)
      .map((s) => [600 + s, 44]);
    const rows = [...dense, ...sparse].map(
      ([s = 0, watts]) => `${s},${(25 + 30 * (1 - Math.exp(-s / 900))).toFixed(2)},${watts}`,
    );
    const found = soak(`time [s],front [°C],power [W]\n${rows.join('\n')}\n`);
    const [span] = found.sensors;
    // Half of the 300 s from the last dense reading to the first sparse one at either power.
    const end = (span?.from ?? 0) + (span?.lasted ?? 0);
    const by = (from: number) => (42 * 300 + 44 * (end - 900) + 40 * (600 - from)) / (end - from);
    expect(found.watts).toBeCloseTo((span?.from ?? 0) < 600 ? by(span?.from ?? 0) : 44, 1);
  });

  it('says which units it took for granted, and doubts what is kelvin', () => {
    const bare = soak('time [min],front,T_room\n0,25,24\n1,26,24\n2,27.1,24\n3,28,24\n4,29,24\n');
    expect(bare.findings).toContain('No unit is stated: "front" in °C is assumed.');
    const kelvin = soak('time [min],front,back [°C]\n0,298,25\n1,299,25\n2,299.5,26\n3,299.8,27\n4,299.9,28\n');
    expect(kelvin.findings.join()).not.toContain('kelvin');
    const doubted = soak('time [min],T_front\n0,298\n1,299\n2,299.5\n3,299.8\n4,299.9\n');
    expect(doubted.findings[0]).toBe(
      '“T_front” never falls below 250: is that kelvin? Write the unit behind its name, as in “T_front [K]”.',
    );
  });

  it('says what is missing, and never guesses', () => {
    const found = soak('time [min],front [°C]\n0,25\n1,26\n2,27.1\n3,28\n4,29\n');
    expect(found.ambient).toBeNull();
    expect(found.sensors[0]?.steady).toBeNull();
    expect(found.findings.join()).toMatch(/Ambient was not recorded.*Output was not recorded.*do not tell/);
    const none = readTrace('time,V\n0,1\n1,2\n');
    expect(none.ok && soakOf(none.trace)).toHaveProperty('reason');
  });
});

describe('what a soak says beyond itself', () => {
  it('41.3 K at 4.52 W are 9.137 K/W; at 3 W and 35 °C 62.4 °C if linear, and a spread until two losses tell', () => {
    expect(perWatt(41.3, 4.52)).toBeCloseTo(9.137, 3);
    const rise = { steady: 41.3, interval: [41.3, 41.3] as const };
    expect(predicted(rise, 4.52, 3, 35, 1)?.celsius).toBeCloseTo(62.4, 1);
    const open = predicted(rise, 4.52, 3, 35, null);
    expect(open?.interval[0]).toBeCloseTo(62.41, 1);
    expect(open?.interval[1]).toBeCloseTo(35 + 41.3 * (3 / 4.52) ** 0.8, 6);
    expect(predicted({ steady: 40, interval: [39, null] }, 4, 3, 35, 1)).toBeNull();
  });

  it('the exponent follows from two losses far enough apart', () => {
    expect(exponentOf({ rise: 40, loss: 4 }, { rise: 40 * 0.5 ** 0.85, loss: 2 })).toBeCloseTo(0.85, 9);
    expect(exponentOf({ rise: 40, loss: 4 }, { rise: 39, loss: 3.9 })).toBeNull();
  });

  it('45 °C shown of a surface of 0.90 among 23 °C is 47.18 °C; bare metal is not trusted', () => {
    expect(spotCelsius(45, 0.9, 23)).toBeCloseTo(47.18, 2);
    expect(spotCelsius(45, 1, 23)).toBeCloseTo(45, 9);
    expect(spotCelsius(45, 0.1, 23)).toBeNull();
    expect(spotCelsius(45, 2, 23)).toBeNull();
  });

  it('touch limits are those of TS1', () => {
    expect(TOUCH_TS1.gripped).toEqual({ plastic: 77, glass: 71, metal: 60 });
    expect(TOUCH_TS1.untouched).toEqual({ plastic: 94, glass: 85, metal: 70 });
  });
});
