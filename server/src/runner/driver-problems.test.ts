import { ScpiError } from '@lastmark/bench/scpi';
import { describe, expect, it } from 'vitest';
import { InstrumentProblem, SettingProblem, saying } from './driver-problems.ts';
import { whyHeld } from './turns.ts';

const LOAD = { name: 'Slate DC load' };
const failed = (error: unknown) => saying(LOAD, () => Promise.reject(error)).catch((caught: unknown) => caught);

describe('speaking to one instrument of several', () => {
  it('gives what it said', async () => {
    expect(await saying(LOAD, async () => '20.01')).toBe('20.01');
  });

  it('names the one that is silent, and what to look at, and the run holds with that', async () => {
    const silent = await failed(new ScpiError('timeout', 'INP ON was not answered within 2000 ms.'));
    expect(silent).toBeInstanceOf(InstrumentProblem);
    expect(whyHeld(silent)).toBe('"Slate DC load": INP ON was not answered within 2000 ms. Is it on, and connected?');
  });

  it('names the one that refused, in its own words', async () => {
    const refused = await failed(new ScpiError('instrument', 'CURR 9: -222, "Data out of range"'));
    expect(whyHeld(refused)).toBe('"Slate DC load": CURR 9: -222, "Data out of range"');
  });

  it('a silent instrument is no finding about the charger', async () => {
    expect(await failed(new ScpiError('down', 'The connection was lost.'))).not.toBeInstanceOf(SettingProblem);
  });

  it.each([
    ['a command that must not go out now', new ScpiError('barred', 'The server was too slow.')],
    ['a connection that was closed here', new ScpiError('closed', 'The connection was closed.')],
    ['anything else', new TypeError('no such thing')],
  ])('%s is told as it is', async (_what, error) => {
    expect(await failed(error)).toBe(error);
  });
});
