// The program as a script meets it: its output, its errors, its exit status.
import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { analyseProgram } from './lib/analyse-program.mjs';

let program;
let folder;
beforeAll(async () => {
  program = await analyseProgram();
  folder = mkdtempSync(join(tmpdir(), 'lastmark-analyse-'));
});
afterAll(() => rmSync(folder, { recursive: true }));

const file = (name, content) => {
  const path = join(folder, name);
  writeFileSync(path, content);
  return path;
};
const run = (...args) => {
  const { status, stdout, stderr } = spawnSync(process.execPath, [program, ...args], { encoding: 'utf8' });
  return { status, stdout, stderr };
};
const json = (...args) => JSON.parse(run(...args, '--json').stdout);

const sine = (rate, count) =>
  Array.from({ length: count }, (_, at) => {
    const t = at / rate;
    return `${t.toFixed(7)},${(10 * Math.sin(2 * Math.PI * 100 * t) + 5 * Math.sin(2 * Math.PI * 50e3 * t)).toFixed(5)}`;
  }).join('\n');

describe('analyse judge', () => {
  it('says of what is no package why, with the exit status of a refusal', () => {
    const { status, stderr } = run('judge', file('none.zip', 'hello'));
    expect(status).toBe(2);
    expect(stderr).toContain('It is no archive that can be read');
    expect(run('judge', join(folder, 'missing.zip')).stderr).toContain('There is no file');
  });
});

describe('analyse', () => {
  it('ripple: figures in SI, and the same in words', () => {
    const path = file('ripple.csv', `time [s],out [mV]\n${sine(500e3, 50_000)}\n`);
    const figures = json('ripple', path);
    expect(Object.keys(figures)).toEqual(
      expect.arrayContaining(['samples', 'sampleRate', 'peakToPeak', 'peakToPeak9999', 'rms', 'lines', 'findings']),
    );
    expect(figures.samples).toBe(50_000);
    expect(figures.peakToPeak).toBeCloseTo(0.0295, 4);
    expect(figures.lines).toMatchObject([{ kind: 'mains' }, { kind: 'switching' }]);
    expect(figures.lines[1].peakToPeak).toBeCloseTo(0.01, 4);
    const words = run('ripple', path);
    expect(words).toMatchObject({ status: 0, stderr: '' });
    expect(words.stdout).toMatch(/100 Hz: 20 mV peak to peak, mains\./);
  });

  it('resistance: of one reading, of a series, and by length', () => {
    const one = json('resistance', file('one.csv', 'current_A,near_V,far_V,temp_C\n3.000,20.043,19.311,31\n'));
    expect(one).toMatchObject({ interval: null, contact: null, curvature: null, pluggings: 1 });
    expect(one.ohms).toBeCloseTo(0.244, 6);
    expect(one.at20).toBeCloseTo(0.2339, 4);
    expect(one.findings.join()).toContain('One current alone');
    const stated = json(
      'resistance',
      file('one.csv', 'current_A,near_V,far_V\n3.000,20.043,19.311\n'),
      '--volts',
      '0.05 % + 4 mV',
      '--amps',
      '0.1 % + 3 mA',
      '--ambient',
      '31',
    );
    expect(stated.interval[0]).toBeCloseTo(0.244 - 2 * 0.0037772, 5);
    const rows = [1, 2, 3].flatMap((length) =>
      [0, 1, 3, 5].flatMap((amps) =>
        [-1, 1].map(
          (off) =>
            `${amps};${((0.03 + 0.08 * length) * amps * 1000 + off * 0.05).toFixed(2).replace('.', ',')};20;${length}`,
        ),
      ),
    );
    const series = json('resistance', file('lengths.csv', `I [A];drop [mV];T [°C];length [m]\n${rows.join('\n')}\n`));
    expect(series.ohms).toBeCloseTo(0.11, 4);
    expect(series.contact).toBeCloseTo(0.03, 4);
    expect(series.perMetre).toBeCloseTo(0.08, 4);
    expect(series.interval[0]).toBeLessThan(0.11);
    expect(series.interval[1]).toBeGreaterThan(0.11);
    expect(
      run('resistance', file('one.csv', 'current_A,near_V,far_V,temp_C\n3.000,20.043,19.311,31\n')).stdout,
    ).toContain('244 mΩ at 31.0 °C, 233.9 mΩ at 20 °C.');
    expect(run('resistance', file('bad.csv', 'a;b\nx;y\n'))).toMatchObject({
      status: 2,
      stderr: expect.stringContaining('line 1'),
    });
  });

  it('charge: stages, times to a level, its end and what came after', () => {
    // 45 W for 40 min, then evenly down to 5 W in 50 min, then 0.3 W: 30 + 20.83 Wh.
    const watts = (t) => (t < 2400 ? 45 : t < 5400 ? 45 - ((t - 2400) / 3000) * 40 : 0.3);
    const rows = Array.from(
      { length: 3900 },
      (_, at) =>
        `${at * 2};${watts(at * 2)
          .toFixed(2)
          .replace('.', ',')}`,
    );
    const path = file('charge.csv', `t (s);P (W)\n${rows.join('\n')}\n`);
    const figures = json('charge', path, '--start', '10');
    expect(figures).toMatchObject({
      energy: expect.closeTo(50.83, 1),
      duration: expect.closeTo(5400, -1),
      stages: [{ from: 0, kind: 'constant', volts: null }, { kind: 'tail' }],
      level: 'energy',
      times: { 50: expect.closeTo((50.83 * (4 / 9) * 3600) / 45, -1), 100: expect.closeTo(5400, -1) },
      end: { at: expect.closeTo(5400, -1), by: 'tail' },
      afterFull: expect.closeTo(0.3, 2),
      findings: [],
    });
    expect(run('charge', path).stdout).toMatch(/0 min to 40 min: constant, 45\.0 W\./);
    expect(run('charge', path, '--start', '120')).toMatchObject({
      status: 2,
      stderr: expect.stringContaining('0 to 100 per cent'),
    });
    expect(run('charge', file('dark.csv', 's,W\n0,0\n1,0\n2,0\n3,0\n4,0\n'))).toMatchObject({
      status: 2,
      stderr: expect.stringContaining('nothing was charged'),
    });
  });

  it('ripple of binary samples with their description beside them, and of what is piped in', () => {
    const samples = Int16Array.from({ length: 40_000 }, (_, at) =>
      Math.round(1000 * Math.sin((2 * Math.PI * at) / 16)),
    );
    const path = file('x.bin', new Uint8Array(samples.buffer));
    file('x.bin.json', JSON.stringify({ format: 'int16', rate: 1e6, channels: [{ unit: 'V', scale: 1e-5 }] }));
    expect(json('ripple', path)).toMatchObject({ samples: 40_000, sampleRate: 1e6, lines: [{ kind: 'switching' }] });
    const { status, stdout } = spawnSync(process.execPath, [program, 'ripple', '-', '--rate', '1000', '--json'], {
      input: `v\n${Array.from({ length: 100 }, (_, at) => at % 2).join('\n')}\n`,
      encoding: 'utf8',
    });
    expect([status, JSON.parse(stdout).samples]).toEqual([0, 100]);
  });

  it('heat: sensors, events and the ambient that was said', () => {
    const rows = Array.from({ length: 361 }, (_, at) => {
      const t = at * 10;
      const power = t < 2400 ? 65 : 0;
      return `${t},${(25 + 40 * (1 - Math.exp(-Math.min(t, 2400) / 900))).toFixed(3)},${power}`;
    });
    const figures = json(
      'heat',
      file('heat.csv', `time,front [°C],output [W]\n${rows.join('\n')}\n`),
      '--ambient',
      '25',
    );
    expect(figures).toMatchObject({ ambient: 25, events: [{ kind: 'cutoff', at: 2400, from: 65, to: 0 }] });
    expect(Object.keys(figures.sensors[0])).toEqual(
      expect.arrayContaining(['name', 'steady', 'steadyInterval', 'timeConstants', 'settled', 'remaining', 'atEnd']),
    );
    expect(figures.sensors[0].steady).toBeCloseTo(65, 1);
  });

  it('captures of the other kinds', () => {
    const rows = Array.from({ length: 200 }, (_, at) => `${at * 0.1},${at % 50 < 5 ? 0.4 : 0.03}`);
    const figures = json('idle', file('idle.csv', `time [s],power [W]\n${rows.join('\n')}\n`));
    expect(figures.watts).toBeCloseTo(0.067, 3);
    expect(figures.bursts).toBe(4);
  });

  it.each([
    ['a line that is wrong', ['ripple', 'BAD'], /bad\.csv, line 3: "x" under "v" is no number/],
    ['no such file', ['heat', '/nowhere/at/all.csv'], /There is no file/],
    ['a kind nobody knows', ['noise', 'x'], /"noise" is none of ripple, heat/],
    ['no file', ['ripple'], /Name a file/],
    ['an option nobody knows', ['ripple', 'x', '--loud'], /--loud/],
    ['a rate that is none', ['ripple', 'x', '--rate', 'fast'], /--rate is "fast"/],
    ['a column that is not there', ['ripple', 'GOOD', '--channel', 'amps'], /no column "amps"/],
    ['no temperatures', ['heat', 'GOOD'], /No column of temperature/],
  ])('%s: a sentence on stderr, nothing on stdout, status 2', (_, args, says) => {
    const paths = {
      BAD: file('bad.csv', 'time,v\n0,1\n1,x\n2,3\n'),
      GOOD: file('good.csv', 'time,v\n0,1\n1,2\n2,3\n'),
    };
    const answer = run(...args.map((one) => paths[one] ?? one));
    expect(answer.status).toBe(2);
    expect(answer.stdout).toBe('');
    expect(answer.stderr).toMatch(says);
  });
});
