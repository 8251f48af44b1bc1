import { describe, expect, it } from 'vitest';
import { offeredLevels, proofSteps, readStepList, stepKey, stepTitle } from '../proof/index.ts';
import { aReadOut } from '../testing/read-out.ts';

const line = (port: string, volts: number, amps: number) => ({
  promise: { kind: 'port-line' as const, port, volts, amps },
});
const total = (watts: number) => ({ promise: { kind: 'total' as const, watts } });
const titles = (...args: Parameters<typeof proofSteps>) => proofSteps(...args).map(stepTitle);

describe('the steps to prove', () => {
  it('are each fixed level without load and at its rated current, upwards', () => {
    expect(titles(['C1'], [], [aReadOut(['5 V 3 A', '20 V 3.25 A'])])).toEqual([
      'C1 5 V, no load',
      'C1 5 V 3 A',
      'C1 20 V, no load',
      'C1 20 V 3.25 A',
    ]);
  });

  it('are the corners and the middle of every range, at what may be drawn there', () => {
    const ranges = aReadOut(['PPS 3.3–21 V 3 A', 'EPR AVS 15–28 V 140 W', 'SPR AVS 3 A / 2.25 A']);
    expect(titles(['C1'], [], [ranges])).toEqual([
      'C1 PPS 3.3 V 3 A',
      'C1 PPS 12.15 V 3 A',
      'C1 PPS 21 V 3 A',
      'C1 EPR AVS 15 V 5 A',
      'C1 EPR AVS 21.5 V 5 A',
      'C1 EPR AVS 28 V 5 A',
      'C1 SPR AVS 9 V 3 A',
      'C1 SPR AVS 15 V 3 A',
      'C1 SPR AVS 20 V 2.25 A',
    ]);
  });

  it('of power-limited PPS on a single port stay within the source’s power', () => {
    const limited = aReadOut(['PPS 5–20 V 5 A limited']);
    expect(titles(['C1'], [total(65)], [limited])).toEqual([
      'C1 PPS 5 V 5 A',
      'C1 PPS 12.5 V 5 A',
      'C1 PPS 20 V 3.25 A',
    ]);
  });

  it('add what the label promises and the port does not offer, but not what it refuses', () => {
    const refused = aReadOut(['5 V 3 A', '12 V 3 A'], { unreachable: [{ position: 2, reason: 'Refused.' }] });
    expect(titles(['C1'], [line('C1', 5, 3), line('C1', 12, 3), line('C1', 9, 2)], [refused])).toEqual([
      'C1 5 V, no load',
      'C1 5 V 3 A',
      'C1 9 V, no load',
      'C1 9 V 2 A',
    ]);
  });

  it('add both ends of a promised range that is not offered', () => {
    const promise = { kind: 'range' as const, port: 'C1', supply: 'pps' as const, low: 3.3, high: 11, amps: 3 };
    expect(titles(['C1'], [{ promise }], [])).toEqual(['C1 PPS 3.3 V 3 A', 'C1 PPS 11 V 3 A']);
  });

  it('draw the total as the combination that sums to it, each share at its highest level', () => {
    const claims = [
      total(72),
      {
        promise: {
          kind: 'combination' as const,
          shares: [
            { port: 'C1', watts: 45 },
            { port: 'C2', watts: 27 },
          ],
        },
      },
    ];
    const readOuts = [aReadOut(['9 V 3 A', '20 V 3 A']), aReadOut(['5 V 3 A', '9 V 3 A'], { port: 'C2' })];
    expect(titles(['C1', 'C2'], claims, readOuts).at(-1)).toBe('C1 20 V 2.25 A + C2 9 V 3 A');
  });

  it('fill the total from the strongest port where no combination says how', () => {
    const readOuts = [aReadOut(['20 V 3 A']), aReadOut(['5 V 3 A'], { port: 'A1' })];
    expect(titles(['C1', 'A1'], [total(70)], readOuts).at(-1)).toBe('C1 20 V 3 A + A1 5 V 2 A');
  });

  it('stand once each, and take in those a user adds', () => {
    const steps = proofSteps(
      ['C1'],
      [],
      [aReadOut(['5 V 3 A'])],
      [[{ port: 'C1', volts: 5, amps: 3 }], [{ port: 'C1', volts: 5, amps: 1 }]],
    );
    expect(steps.map(stepKey)).toEqual([...new Set(steps.map(stepKey))]);
    expect(steps.filter(({ reason }) => reason === 'own').map(stepTitle)).toEqual(['C1 5 V 1 A']);
  });

  it('are none while nothing is offered or promised', () => expect(proofSteps(['C1'], [], [])).toEqual([]));
});

describe('a list of steps', () => {
  const head = 'port,set_V,load_A,port_V,port_A,end_V,mains_W';

  it('is read with either decimal sign and with units', () => {
    const { steps, bad } = readStepList(`${head.replaceAll(',', ';')}\nC1;20;2,25;20,03;2250 mA;19,8;49`, ['C1']);
    expect(bad).toEqual([]);
    expect(steps[0]).toMatchObject({ output: { port: 'C1', volts: 20, amps: 2.25 }, load: 1, line: 2 });
    expect(steps[0]?.readings.map(({ place, quantity, typed }) => `${place} ${quantity} ${typed}`)).toEqual([
      'port voltage 20,03',
      'port current 2250 mA',
      'load-end voltage 19,8',
      'mains power 49',
    ]);
  });

  it('takes the unit of a column from its head', () => {
    const { steps, bad } = readStepList(
      'port,set [mV],load_mA,port (mV),port_A,mains_mW\nC1,20000,2250,20031,2.25 A,49100',
      ['C1'],
    );
    expect(bad).toEqual([]);
    expect(steps[0]?.output).toEqual({ port: 'C1', volts: 20, amps: 2.25 });
    expect(steps[0]?.readings.map(({ typed }) => typed)).toEqual(['20031 mV', '2.25 A', '49100 mW']);
    expect(readStepList('port,set_V,load_A,port_V,end_foo\nC1,20,2,20.1,3', ['C1']).bad).toEqual([
      { line: 1, reason: 'the unit of the column end_foo is not known; write it as V, mV, A, mA, W or mW.' },
    ]);
  });

  it('tells what it does not read about a place', () => {
    const list = readStepList('port,set_V,load_A,port_V,port_W,display_W,note\nC1,20,2,20.1,40,41,warm', ['C1']);
    expect([list.bad, list.unread]).toEqual([[], ['port_W', 'display_W']]);
  });

  it('puts a line without load to the level a loaded line names, in the list or among the steps', () => {
    const text = `${head}\nC1,20,0,20.08,,,\nC1,20,2.25,20.03,2.25,,`;
    expect(readStepList(text, ['C1']).steps.map(({ load, output }) => [load, output.amps])).toEqual([
      [0, 2.25],
      [1, 2.25],
    ]);
    const known = [{ port: 'C1', volts: 9, amps: 3 }];
    expect(readStepList(`${head}\nC1,9,0,9.04,,,`, ['C1'], known).steps[0]?.output.amps).toBe(3);
  });

  it('names each bad line with its number and reason', () => {
    const lines = ['C9,20,2,20,2,,', 'C1,zero,2,20,2,,', 'C1,20,2,,,,', 'C1,12,0,12,,,', 'C1,20,2,20 W,,,'];
    const { steps, bad } = readStepList([head, ...lines].join('\n'), ['C1']);
    expect(steps).toEqual([]);
    expect(bad.map(({ line: number }) => number)).toEqual([2, 3, 4, 5, 6]);
    expect(bad[0]?.reason).toContain('no port "C9"');
    expect(readStepList('a,b\n1,2', ['C1']).bad[0]?.reason).toContain('port, set_v, load_a are missing');
    expect(readStepList('', ['C1']).steps).toEqual([]);
  });
});

describe('the levels a sample offers', () => {
  it('come from the label where nothing was read out, port by port', () => {
    const levels = offeredLevels(['C1', 'A1'], [line('C1', 20, 2.25), line('C1', 5, 3), line('A1', 5, 2.4)], []);
    expect(levels.map(({ port, volts, amps }) => [port, volts, amps])).toEqual([
      ['C1', 5, 3],
      ['C1', 20, 2.25],
      ['A1', 5, 2.4],
    ]);
  });

  it('leave out ranges and the total', () => {
    const claims = [
      line('C1', 20, 3),
      total(75),
      { promise: { kind: 'range' as const, port: 'C1', supply: 'pps' as const, low: 3.3, high: 21, amps: 3 } },
    ];
    expect(offeredLevels(['C1'], claims, [])).toEqual([{ port: 'C1', volts: 20, amps: 3 }]);
  });
});
