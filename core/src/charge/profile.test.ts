import { describe, expect, it } from 'vitest';
import { readTrace } from '../trace/index.ts';
import type { Course } from './course.ts';
import { predictCharge, profileOf } from './profile.ts';
import { chargeOf } from './session.ts';

/** 60 Wh; 60 W up to 60 %, then evenly down to 6 W at 100 %. */
const takes = (level: number): number => (level <= 0.6 ? 60 : 60 - (54 * (level - 0.6)) / 0.4);

/** The log of a whole charge from 20 %, a sample every ten seconds, where a charger gives so much. */
function log(most: number, capacity = 60): string {
  const lines = ['time [s];power [W];level [%]'];
  let level = 0.2;
  for (let at = 0; level < 0.9999 && at < 30_000; at += 1) {
    const watts = Math.min(most, takes(level));
    if (at % 10 === 0) lines.push(`${at};${watts.toFixed(3)};${Math.floor(level * 100 + 1e-9)}`);
    level += watts / 3600 / capacity;
    if (level >= 0.9999) lines.push(`${at};${watts.toFixed(3)};100`);
  }
  return lines.join('\n');
}

function courseFrom(text: string): Course {
  const read = readTrace(text);
  if (!read.ok) throw new Error(read.reason);
  const session = chargeOf(read.trace);
  if ('reason' in session || !session.course) throw new Error('no course');
  return session.course;
}

const profileFrom = (...logs: string[]) => {
  const profile = profileOf(logs.map(courseFrom));
  if (!profile) throw new Error('no profile');
  return profile;
};

describe('a device’s profile', () => {
  const profile = profileFrom(log(100));

  it('is its power against level', () => {
    expect(profile.levels[0]).toBeCloseTo(0.2, 9);
    const at = (level: number) => profile.watts[profile.levels.findIndex((one) => one > level) - 1] ?? 0;
    expect(at(0.41)).toBeCloseTo(60, 1);
    expect(Math.abs(at(0.81) - takes(0.81))).toBeLessThan(0.6);
    // A cell is passed in a minute or two and logged every ten seconds; all of them together are the battery.
    const mean = profile.joules.reduce((sum, one) => sum + one, 0) / profile.joules.length;
    expect(Math.abs(mean / (60 * 3600) - 1)).toBeLessThan(0.01);
  });

  it('gives the time it took where nothing holds it back', () => {
    const said = predictCharge(profile, { from: 0.2, to: 1, watts: 100, ceiling: 60 });
    if ('reason' in said) throw new Error(said.reason);
    // 24.0 + 61.4 min by integration; the last per cent is a stretch of its own.
    expect(Math.abs(said.seconds / 60 - 85.4)).toBeLessThan(0.6);
    expect(said.held).toBe(0);
  });

  it('gives the time on a charger that gives half of what it takes', () => {
    const said = predictCharge(profile, { from: 0.2, to: 1, watts: 30 });
    if ('reason' in said) throw new Error(said.reason);
    // 117.59 min by numerical integration of 60/min(30, p).
    expect(Math.abs(said.seconds / 60 - 117.6)).toBeLessThan(0.8);
    expect(said.low).toBeLessThan(said.seconds);
    expect(said.high).toBeGreaterThan(said.seconds);
    expect(said.held).toBeCloseTo(74.67 / 117.59, 1);
  });

  it('seen only where a charger held it back does not say how quick it would be with more', () => {
    const held = profileFrom(log(30));
    const said = predictCharge(held, { from: 0.2, to: 0.8, watts: 60 });
    if ('reason' in said) throw new Error(said.reason);
    expect(said.low).toBeNull();
    // With what it was seen to take it is as quick as it was.
    expect(said.seconds / 60).toBeCloseTo((0.6 * 60 * 60) / 30, 0);
    const known = predictCharge(held, { from: 0.2, to: 0.8, watts: 60, ceiling: 31 });
    expect('reason' in known ? null : known.low).not.toBeNull();
  });

  it('of two chargers takes what it took where it was free', () => {
    const both = profileFrom(log(30), log(100));
    const said = predictCharge(both, { from: 0.2, to: 1, watts: 100, ceiling: 60 });
    expect('reason' in said ? 0 : Math.abs(said.seconds / 60 - 85.4)).toBeLessThan(0.6);
  });

  it('knows from its own repeats how much charges differ', () => {
    const alike = profileFrom(log(100), log(100), log(100));
    const unlike = profileFrom(log(100, 52), log(100, 60), log(100, 68));
    expect(alike.spread).toBeLessThan(profile.spread);
    expect(unlike.spread).toBeGreaterThan(profile.spread);
  });

  it('says why there is no time', () => {
    expect(predictCharge(profile, { from: 0, to: 0.8, watts: 30 })).toEqual({
      reason: 'Its charges went from 20 to 100 % only.',
    });
    expect(predictCharge(profile, { from: 0.2, to: 0.8, watts: 0 })).toHaveProperty('reason');
    expect(predictCharge(profile, { from: 0.8, to: 0.8, watts: 30 })).toHaveProperty('reason');
    expect(predictCharge(profile, { from: 0.2, to: 0.8, watts: Number.NaN })).toHaveProperty('reason');
    expect(profileOf([])).toBeNull();
  });
});

describe('the course of a charge', () => {
  it('leaves out what was not logged', () => {
    const lines = log(100).split('\n');
    // Nothing from 50 to 55 min.
    const holed = lines.filter((line) => !(Number(line.split(';')[0]) > 3000 && Number(line.split(';')[0]) < 3300));
    const [whole, cut] = [courseFrom(lines.join('\n')), courseFrom(holed.join('\n'))];
    expect(cut.levels.length).toBeLessThan(whole.levels.length - 1);
    expect(cut.watts.every((one) => one > 0)).toBe(true);
  });

  it('is not told without power, or where too little of it is known', () => {
    const read = readTrace('time [min];level [%]\n0;20\n12;40\n25;60\n43;80');
    if (!read.ok) throw new Error(read.reason);
    const session = chargeOf(read.trace);
    expect('reason' in session ? undefined : session.course).toBeNull();
  });
});
