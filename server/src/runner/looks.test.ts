import type { LiveEvent, StoredInstrument, StoredRig } from '@lastmark/contract';
import { describe, expect, it } from 'vitest';
import { Looks } from './looks.ts';

const instrument = (id: string, kind: string) =>
  ({ id, class: kind, name: id, address: '127.0.0.1:1' }) as StoredInstrument;
const rig = {
  meters: { mains: 'analyser', outputVolts: 'load', outputAmps: 'load', loadEnd: null },
  drives: { load: 'load' },
  outputPlace: 'port',
} as unknown as StoredRig;

function listening() {
  let now = 0;
  const looks = new Looks(
    rig,
    [instrument('analyser', 'power analyser'), instrument('load', 'DC load')],
    ['C1', 'C2'],
    () => now,
  );
  const tell = (instrumentId: string, values: (number | null)[]) => {
    now += 50;
    looks.take({ instrumentId, values, problem: null } as LiveEvent);
  };
  const wait = (milliseconds: number) => {
    now += milliseconds;
  };
  return { looks, tell, wait };
}
const MAINS = { quantity: 'power', place: 'mains', port: null } as const;

describe('what a run heard', () => {
  it('over hours has the mean of all of them, not of the last half hour', () => {
    const { looks, tell } = listening();
    tell('analyser', [0, 50, 230, 0.3, 0.7]);
    const begun = looks.begin();
    // Ten hours of a look a second: 50 W, then the last hour 20 W.
    for (let second = 1; second <= 36_000; second += 1)
      tell('analyser', [second, second <= 32_400 ? 50 : 20, 230, 0.3, 0.7]);
    const mean = looks.mean(MAINS, begun);
    expect(mean?.value).toBeCloseTo((50 * 32_401 + 20 * 3600) / 36_001, 9);
    expect(mean).toMatchObject({ count: 36_001, least: 20, most: 50, covered: 36_000 });
    // The step between two looks belongs to both by half.
    expect(mean?.area).toBeCloseTo(50 * 32_400 + 20 * 3600 + 15, 6);
  });

  it('multiplies volts and amps look by look, channel by channel', () => {
    const { looks, tell } = listening();
    tell('analyser', [0, 50, 230, 0.3, 0.7]);
    // Where current pulses against voltage, the product of the means would be 20 W.
    tell('load', [0, 10, 1, 5, 0]);
    tell('load', [1, 10, 3, 5, 0]);
    tell('load', [2, 2, 5, 5, null]);
    expect(looks.watts('C1', 0)).toMatchObject({ count: 3, value: 50 / 3 });
    expect(looks.watts('C2', 0)).toMatchObject({ count: 2, value: 0 });
    expect(looks.newest({ quantity: 'current', place: 'port', port: 'C2' })).toBeNull();
    expect(looks.newest({ quantity: 'voltage', place: 'port', port: 'C1' })).toBe(2);
    expect(looks.mean({ quantity: 'temperature', place: 'port', port: 'C1' }, 0)).toBeNull();
  });
  it('of a timekeeper that answers and whose time stands, says that it stands', () => {
    const { looks, tell, wait } = listening();
    const hear = (seconds: number) => tell('analyser', [seconds, 50, 230, 0.3, 0.7]);
    hear(1);
    // By 50 ms a look: the same moment for five seconds.
    for (let at = 0; at < 100; at += 1) hear(1);
    expect(looks.stands()).toBeNull();
    hear(1);
    expect(looks.stands()?.id).toBe('analyser');
    hear(2);
    expect(looks.stands()).toBeNull();
    // One that does not answer at all is silent, which is something else; and the server’s own standstill is excused.
    wait(6000);
    expect(looks.stands()).toBeNull();
    hear(3);
    for (let at = 0; at < 101; at += 1) hear(3);
    expect(looks.stands()?.id).toBe('analyser');
    looks.excuse(1000);
    expect(looks.stands()).toBeNull();
    for (let at = 0; at < 20; at += 1) hear(3);
    expect(looks.stands()).not.toBeNull();
    looks.trust();
    expect(looks.stands()).toBeNull();
  });
  it('of a timekeeper without a time of its own, never says that it stands', () => {
    const { looks, tell } = listening();
    for (let at = 0; at < 300; at += 1) tell('analyser', [null, 50, 230, 0.3, 0.7]);
    expect(looks.stands()).toBeNull();
  });

  describe('from a thermometer', () => {
    const warmRig = { ...rig, drives: { load: 'load', thermometer: 'logger' } } as StoredRig;
    function warm(patience = 2000) {
      let now = 0;
      const looks = new Looks(
        warmRig,
        [instrument('analyser', 'power analyser'), instrument('load', 'DC load'), instrument('logger', 'thermometer')],
        ['C1'],
        () => now,
        new Map([['logger', patience]]),
      );
      const wait = (seconds: number) => {
        now += seconds * 1000;
      };
      const tell = (instrumentId: string, values: (number | null)[]) =>
        looks.take({ instrumentId, values, problem: null } as LiveEvent);
      /** @param seconds how long it tells the same, once a second */
      const logs = (seconds: number, values: (number | null)[]) => {
        for (let at = 0; at < seconds; at += 1) {
          wait(1);
          tell('analyser', [at, 50, 230, 0.3, 0.7]);
          tell('logger', values);
        }
      };
      tell('analyser', [0, 50, 230, 0.3, 0.7]);
      return { looks, wait, logs };
    }

    it('are the room and the hottest of the rest, in kelvin', () => {
      const { looks, logs } = warm();
      logs(2, [24, 61, 58]);
      expect(looks.heat()).toEqual({ room: 297.15, hottest: 334.15 });
      expect(looks.unminded()).toBeNull();
    });

    it('are nothing once it fell silent, and that is said', () => {
      const { looks, logs, wait } = warm();
      logs(2, [24, 61, 58]);
      wait(59);
      expect(looks.heat().hottest).toBe(334.15);
      wait(2);
      expect(looks.heat()).toEqual({ room: null, hottest: null });
      expect(looks.unminded()).toBe('"logger" tells nothing any more');
    });

    it('say which sensor came off, and go on without it when a person does', () => {
      const { looks, logs } = warm();
      logs(2, [24, 61, 58]);
      logs(61, [24, null, 58]);
      expect(looks.heat().hottest).toBe(331.15);
      expect(looks.unminded()).toBe('Point "front" of "logger" tells nothing any more');
      looks.trust();
      expect(looks.unminded()).not.toBeNull();
      looks.goOnWithout();
      expect(looks.unminded()).toBeNull();
      logs(61, [24, null, 58]);
      expect(looks.unminded()).toBeNull();
      logs(1, [24, 60, 58]);
      logs(61, [24, null, 58]);
      expect(looks.unminded()).toContain('front');
    });

    it('need no room, and no sensor that never told anything', () => {
      const { looks, logs } = warm();
      logs(2, [24, 61, null]);
      logs(61, [null, 61, null]);
      expect(looks.heat()).toEqual({ room: null, hottest: 334.15 });
      expect(looks.unminded()).toBeNull();
    });

    it('may come as seldom as its profile says, and while the server stood still', () => {
      const seldom = warm(180_000);
      seldom.logs(1, [24, 61]);
      seldom.wait(170);
      expect(seldom.looks.unminded()).toBeNull();
      const { looks, logs, wait } = warm();
      logs(1, [24, 61]);
      wait(100);
      looks.excuse(90_000);
      expect(looks.unminded()).toBeNull();
    });
  });

  describe('of a meter that is asked more often than it measures', () => {
    const VOLTS = { quantity: 'voltage', place: 'port', port: 'C1' } as const;

    it('counts each measurement once, by the meter’s own clock', () => {
      const { looks, tell } = listening();
      tell('analyser', [0, 50, 230, 0.3, 0.7]);
      const { mark } = looks;
      for (let at = 0; at < 20; at += 1) {
        tell('analyser', [at / 10, 50, 230, 0.3, 0.7]);
        tell('load', [Math.floor(at / 5), 20.04, 1, 5, 0]);
      }
      expect(looks.measurements(VOLTS, mark)).toHaveLength(4);
      // What stood before an event is the first of what it did.
      const event = looks.mark;
      tell('load', [4, 0.1, 0, 5, 0]);
      expect(looks.measurements(VOLTS, event).map(({ value }) => value)).toEqual([20.04, 0.1]);
    });

    it('has the mean and the spread of what was measured, not of how often it was told', () => {
      const { looks, tell } = listening();
      tell('analyser', [0, 50, 230, 0.3, 0.7]);
      // Sample standard deviation of these five: √(0.001 / 4).
      const measured = [20, 20.01, 19.99, 20.02, 19.98];
      for (const [second, volts] of measured.entries())
        for (let told = 0; told < 10; told += 1) {
          tell('analyser', [second + told / 10, 50, 230, 0.3, 0.7]);
          tell('load', [second, volts, 1, 5, 0]);
        }
      const mean = looks.mean(VOLTS, 0);
      expect(mean).toMatchObject({ count: 5, least: 19.98, most: 20.02 });
      expect(mean?.value).toBeCloseTo(20, 9);
      expect(mean?.spread).toBeCloseTo(0.015811388, 8);
      // A window that holds one measurement only tells no spread.
      expect(looks.mean(VOLTS, 4)).toMatchObject({ count: 1, spread: 0 });
    });

    it('without a clock, by what it shows: a steady number may be one measurement or many', () => {
      const { looks, tell } = listening();
      tell('analyser', [0, 50, 230, 0.3, 0.7]);
      const { mark } = looks;
      const shown = [20.04, 20.04, 20.04, 0.1, 0.1, 20.04, null, 20.04];
      for (const [at, volts] of shown.entries()) {
        tell('analyser', [at / 10, 50, 230, 0.3, 0.7]);
        tell('load', [null, volts, 1, 5, 0]);
      }
      expect(looks.measurements(VOLTS, mark)).toEqual([
        { seconds: 0, value: 20.04 },
        { seconds: 0.3, value: 0.1 },
        { seconds: 0.5, value: 20.04 },
      ]);
    });

    it('whose clock does not run, by what it shows', () => {
      const { looks, tell } = listening();
      tell('analyser', [0, 50, 230, 0.3, 0.7]);
      const { mark } = looks;
      for (const volts of [20, 20, 0, 20]) tell('load', [0, volts, 1, 5, 0]);
      expect(looks.measurements(VOLTS, mark).map(({ value }) => value)).toEqual([20, 0, 20]);
    });
  });

  it('of a meter whose replies take seconds, is lost only after those', () => {
    let now = 0;
    const looks = new Looks(
      rig,
      [instrument('analyser', 'power analyser')],
      ['C1'],
      () => now,
      new Map([['analyser', 6000]]),
    );
    looks.take({ instrumentId: 'analyser', values: [0, 50, 230, 0.3, 0.7], problem: null } as unknown as LiveEvent);
    now = 5900;
    expect(looks.lost(['analyser'])).toBeNull();
    now = 6100;
    expect(looks.lost(['analyser'])?.id).toBe('analyser');
  });
});
