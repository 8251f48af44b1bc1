import { describe, expect, it } from 'vitest';
import { RowClock } from './row-clock.ts';

const MINUTE = 60;

/** How far each row is from the one before, s. */
function steps(form: 'date' | 'clock', written: readonly string[]) {
  const clock = new RowClock(form, false);
  const times = written.map((text) => clock.at(text));
  return { steps: times.slice(1).map((time, index) => time - (times[index] ?? 0)), remarks: clock.remarks };
}

const BACK = ['Its clock went back an hour in the night, as summer time does: times go on without a break.'];
const AHEAD = ['Its clock went ahead an hour in the night, as summer time does: times go on without a break.'];

describe('the clock of rows, over the end of summer time', () => {
  it.each([
    ['in the middle of Europe', ['2026-10-25 02:50', '2026-10-25 02:55', '2026-10-25 02:00', '2026-10-25 02:05']],
    ['in the east of it', ['25.10.2026 03:50', '25.10.2026 03:55', '25.10.2026 03:00', '25.10.2026 03:05']],
    ['in the west of it', ['2026-10-25T01:50:00', '2026-10-25T01:55:00', '2026-10-25T01:00:00', '2026-10-25T01:05:00']],
    [
      'across the ocean',
      ['11/1/2026 1:50:00 AM', '11/1/2026 1:55:00 AM', '11/1/2026 1:00:00 AM', '11/1/2026 1:05:00 AM'],
    ],
    ['in the south', ['2026-04-05 02:50', '2026-04-05 02:55', '2026-04-05 02:00', '2026-04-05 02:05']],
  ])('goes on %s', (_, written) => {
    expect(steps('date', written)).toEqual({ steps: [300, 300, 300], remarks: BACK });
  });

  it('goes on without a date, past midnight before', () => {
    const told = steps('clock', ['23:30:00', '00:30:00', '01:30:00', '02:30:00', '02:00:00', '02:30:00', '03:30:00']);
    expect(told.steps.slice(0, 3)).toEqual([3600, 3600, 3600]);
    // An hour from row to row hides an hour that comes twice: it stays a time that goes back.
    expect(told.steps[3]).toBeLessThan(0);
    const finer = steps('clock', ['23:59:00', '00:29:00', '00:59:00', '01:29:00', '01:59:00', '01:29:00', '01:59:00']);
    expect(finer.steps).toEqual([1800, 1800, 1800, 1800, 1800, 1800]);
    expect(finer.remarks).toEqual(BACK);
  });

  it('goes on where clocks go ahead, by a date', () => {
    expect(steps('date', ['2026-03-29 01:50', '2026-03-29 01:55', '2026-03-29 03:00', '2026-03-29 03:05'])).toEqual({
      steps: [300, 300, 300],
      remarks: AHEAD,
    });
    // Without one it may as well have been a break of an hour.
    expect(steps('clock', ['01:50:00', '01:55:00', '03:00:00']).steps).toEqual([300, 3900]);
  });

  it('takes nothing else for it: another day, another hour, another time of the day, a zone beside it', () => {
    const before = -55 * MINUTE;
    expect(steps('date', ['2026-10-24 02:50', '2026-10-24 02:55', '2026-10-24 02:00']).steps[1]).toBe(before);
    expect(steps('date', ['2026-08-30 02:50', '2026-08-30 02:55', '2026-08-30 02:00']).steps[1]).toBe(before);
    expect(steps('date', ['2026-10-25 14:50', '2026-10-25 14:55', '2026-10-25 14:00']).steps[1]).toBe(before);
    expect(steps('date', ['2026-10-25 02:50', '2026-10-25 02:55', '2026-10-25 02:20']).steps[1]).toBe(-35 * MINUTE);
    expect(steps('date', ['2026-10-25T02:50Z', '2026-10-25T02:55Z', '2026-10-25T02:00Z']).steps[1]).toBe(before);
    expect(steps('date', ['2026-03-29 01:50', '2026-03-29 01:55', '2026-03-29 03:20']).steps[1]).toBe(85 * MINUTE);
    expect(steps('date', ['2026-03-28 01:50', '2026-03-28 01:55', '2026-03-28 03:00']).steps[1]).toBe(65 * MINUTE);
    expect(steps('clock', ['14:50:00', '14:55:00', '14:00:00']).steps[1]).toBe(before);
  });

  it('of a second hour that comes twice says what the first said: it is a time that goes back', () => {
    const once = ['2026-10-25 02:50', '2026-10-25 02:55', '2026-10-25 02:00', '2026-10-25 02:55', '2026-10-25 02:00'];
    expect(steps('date', once).steps[3]).toBe(-55 * MINUTE);
  });

  it('passes midnight, and reads what is no time as none', () => {
    expect(steps('clock', ['23:59:30', '00:00:30', '23:59:30', '00:00:30']).steps).toEqual([60, 86_340, 60]);
    expect(new RowClock('date', false).at('soon')).toBeNaN();
    expect(new RowClock('clock', true).at('59:30')).toBe(3570);
  });
});
