import type { DayPlan, DayProblem, Task } from '@lastmark/core/schedule';
import { planDay } from '@lastmark/core/schedule';
import { describe, expect, it } from 'vitest';
import { calendarOf, stretchesOf } from './calendar.ts';

const task = (id: string, sampleId: string, seconds: number, attended: boolean, after: string[] = []): Task => ({
  id,
  title: `${sampleId}: ${id}`,
  sampleId,
  seconds,
  needs: ['load'],
  attended,
  after: after.map((one) => ({ id: one, gap: 0 })),
  fixed: null,
});
const problem: DayProblem = {
  tasks: [
    task('point', 'Quad', 600, true),
    task('soak', 'Quad', 3600, false, ['point']),
    task('look', 'Quad', 300, true, ['soak']),
  ],
  resources: [{ id: 'load', title: 'Load', until: null }],
  people: [{ id: 'p', title: 'Warden', there: [{ from: 0, to: 86_400 }] }],
  setUp: 0,
  now: 8 * 3600,
};
const plan: DayPlan = planDay(problem);

describe('a day as a calendar', () => {
  it('joins steps of one sample with one person, and parts those nobody attends', () => {
    expect(
      stretchesOf(problem, plan).map(({ title, steps, who, from, to }) => [
        title,
        steps,
        who,
        from / 3600,
        (to - from) / 60,
      ]),
    ).toEqual([
      ['Quad', ['point'], 'Warden', 8, 10],
      ['Quad', ['soak'], null, 8 + 1 / 6, 60],
      ['Quad', ['look'], 'Warden', 9 + 1 / 6, 5],
    ]);
  });
  it('has somebody there for what is set up, and only for that where it then runs by itself', () => {
    const two = {
      ...problem,
      setUp: 900,
      tasks: [
        task('hold', 'Quad', 600, true),
        task('soak', 'Six', 3600, false, ['hold']),
        task('look', 'Slab', 300, true, ['soak']),
      ],
    };
    expect(
      stretchesOf(two, planDay(two)).map(({ title, steps, who, from, to }) => [
        title,
        steps,
        who,
        from / 60 - 480,
        (to - from) / 60,
      ]),
    ).toEqual([
      ['Quad', ['hold'], 'Warden', 0, 10],
      ['Six', ['set up'], 'Warden', 10, 15],
      ['Six', ['soak'], null, 25, 60],
      ['Slab', ['set up', 'look'], 'Warden', 85, 20],
    ]);
  });
  it('is a file other programs read: folded lines, local times, an id each', async () => {
    const text = await calendarOf(stretchesOf(problem, plan), '2026-11-30');
    const lines = text.replace(/\r\n[ \t]/g, '').split('\r\n');
    expect(lines[0]).toBe('BEGIN:VCALENDAR');
    expect(lines.filter((line) => line === 'BEGIN:VEVENT')).toHaveLength(3);
    expect(lines.filter((line) => line.startsWith('DTSTART'))).toEqual([
      'DTSTART:20261130T080000',
      'DTSTART:20261130T081000',
      'DTSTART:20261130T091000',
    ]);
    expect(new Set(lines.filter((line) => line.startsWith('UID:'))).size).toBe(3);
    expect(lines).toContain('SUMMARY:Quad: runs by itself');
    expect(text.split('\r\n').every((line) => line.length <= 75)).toBe(true);
  });
});
