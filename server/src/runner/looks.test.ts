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
});
