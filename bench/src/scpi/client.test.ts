import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { type Rack, startRack } from '../sim/index.ts';
import { overSocket } from '../ways/index.ts';
import { ScpiClient, ScpiError } from './index.ts';

let rack: Rack;
const open: ScpiClient[] = [];
beforeAll(async () => {
  rack = await startRack({ firstPort: 0, speed: 60, seed: 3 });
});
afterEach(() => {
  for (const client of open.splice(0)) client.close();
  for (const kind of ['multimeter', 'wall-meter', 'dc-load', 'oscilloscope'] as const) rack.fault(kind, 'none');
});
afterAll(() => rack.close());

const client = (kind: keyof Rack['ports'], part: object = {}) => {
  const one = new ScpiClient({ way: overSocket('127.0.0.1', rack.ports[kind]), firstPause: 20, timeout: 400, ...part });
  open.push(one);
  one.open();
  return one;
};
const until = async (met: () => boolean) => {
  for (let turn = 0; turn < 500; turn += 1) {
    if (met()) return;
    await new Promise((resolve) => setTimeout(resolve, 10));
  }
  throw new Error('It did not come to that.');
};
const kindOf = async (work: Promise<unknown>) => {
  try {
    await work;
    return 'none';
  } catch (error) {
    return error instanceof ScpiError ? error.kind : 'other';
  }
};

describe('an instrument', () => {
  it('says who it is, in long or short form, several at once in the order asked', async () => {
    const meter = client('multimeter');
    const answers = await Promise.all([
      meter.query('*IDN?'),
      meter.query('MEAS:VOLT?'),
      meter.query('MEASure:VOLTage?'),
    ]);
    expect(answers[0]).toContain('Bench multimeter');
    expect(answers.slice(1).map(Number).every(Number.isFinite)).toBe(true);
  });

  it('puts what it will not take onto its error queue, which is emptied and reported', async () => {
    const load = client('dc-load');
    await load.write('CURR 99');
    await load.write('NONS:ENSE 1');
    await load.write('CURR');
    expect(await load.drainErrors()).toEqual([
      '-222,"Data out of range;99 is not in 0 to 6"',
      '-113,"Undefined header;NONS:ENSE 1"',
      '-109,"Missing parameter"',
    ]);
    expect(await load.drainErrors()).toEqual([]);
    await expect(load.confirm('INP MAYBE')).rejects.toThrow('INP MAYBE: -224');
  });

  it('that does not answer in time is late, and the next question is not answered by the last', async () => {
    const meter = client('wall-meter');
    await meter.query('*IDN?');
    rack.fault('wall-meter', 'hang');
    expect(await kindOf(meter.query('MEAS:POW?'))).toBe('timeout');
    rack.fault('wall-meter', 'none');
    await until(() => meter.state === 'up');
    expect(await meter.query('*IDN?')).toContain('Plug-in wall meter');
  });

  it('is not late where this process stood still, and is after that', async () => {
    /** As soon as the question is on the wire: nothing is read, and its time is up meanwhile. */
    const gate = () => {
      process.nextTick(() => {
        const until = performance.now() + 1000;
        while (performance.now() < until);
      });
      return null;
    };
    const meter = client('wall-meter');
    await meter.query('*IDN?');
    expect(await meter.query('*IDN?', { gate })).toContain('Plug-in wall meter');
    expect(meter.state).toBe('up');
    rack.fault('wall-meter', 'hang');
    expect(await kindOf(meter.query('MEAS:POW?', { gate }))).toBe('timeout');
  });

  it('whose connection drops is connected again, and what was asked meanwhile is refused', async () => {
    const meter = client('multimeter');
    await meter.query('*IDN?');
    rack.fault('multimeter', 'drop');
    await until(() => meter.state !== 'up');
    expect(['down', 'none']).toContain(await kindOf(meter.query('*IDN?')));
    await until(() => meter.state === 'up');
    expect(await meter.query('*IDN?')).toContain('multimeter');
  });

  it('that starts anew comes back after a pause', async () => {
    const load = client('dc-load');
    await load.write('CURR 1.5');
    await load.query('*OPC?');
    rack.fault('dc-load', 'reboot');
    await until(() => load.state === 'up' && load.traffic.length > 0);
    await until(() => load.state === 'up');
    // While it starts it takes no one; then it answers again.
    let answer = '';
    for (let turn = 0; turn < 100 && !answer; turn += 1) {
      answer = await load.query('*IDN?').catch(() => '');
      if (!answer) await new Promise((resolve) => setTimeout(resolve, 30));
    }
    expect(answer).toContain('DC load');
  });

  it('that garbles gives no number, and one that freezes gives the same', async () => {
    const meter = client('wall-meter');
    rack.fault('wall-meter', 'garble');
    expect(await meter.queryNumbers('MEAS:POW?')).toEqual([Number.NaN]);
    rack.fault('wall-meter', 'none');
    rack.fault('wall-meter', 'freeze');
    const first = await meter.query('MEAS:POW?');
    expect(await meter.query('MEAS:POW?')).toBe(first);
  });

  it('sends a large capture as one block', async () => {
    const scope = client('oscilloscope', { timeout: 5000 });
    const block = await scope.queryBlock('WAV:DATA? 500000');
    expect(block.length).toBe(1_000_000);
    expect(await kindOf(scope.query('WAV:DATA? 10'))).toBe('garbled');
    expect(await kindOf(scope.queryBlock('*IDN?'))).toBe('garbled');
  });

  it('has longer to make a record ready than to tell a number', async () => {
    const scope = client('oscilloscope', { timeout: 100 });
    await scope.query('*IDN?');
    rack.fault('oscilloscope', 'hang');
    const [asked, late] = [performance.now(), kindOf(scope.queryBlock('WAV:DATA? 500000'))];
    expect(await late).toBe('timeout');
    expect(performance.now() - asked).toBeGreaterThan(450);
    rack.fault('oscilloscope', 'none');
  });

  it('hears an urgent command although a queue of readings waits', async () => {
    const load = client('dc-load', { timeout: 5000 });
    await load.query('*IDN?');
    const queue = Array.from({ length: 200 }, () => load.query('FETC?'));
    await load.write('INP:ALL OFF', { urgent: true });
    const sent = load.traffic.filter(({ direction }) => direction === 'out').map(({ text }) => text);
    expect(sent.indexOf('INP:ALL OFF')).toBeLessThan(6);
    await Promise.all(queue);
  });

  it('that is closed refuses, and one that was never there is down', async () => {
    const meter = client('multimeter');
    meter.close();
    expect(await kindOf(meter.query('*IDN?'))).toBe('closed');
    const nobody = new ScpiClient({ way: overSocket('127.0.0.1', 1), firstPause: 10_000 });
    open.push(nobody);
    expect(await kindOf(nobody.query('*IDN?'))).toBe('down');
    nobody.open();
    expect(await kindOf(nobody.query('*IDN?'))).toBe('down');
  });
});
