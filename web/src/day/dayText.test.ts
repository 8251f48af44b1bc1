import { describe, expect, it } from 'vitest';
import { clockOf, clockWords, peopleOf } from './dayText.ts';

describe('a clock', () => {
  it.each([
    ['8', 28_800],
    ['8:05', 29_100],
    ['13.30', 48_600],
    ['24:00', 86_400],
  ])('%s is read', (text, seconds) => expect(clockOf(text)).toBe(seconds));
  it.each(['', 'noon', '25:00', '8:75', '24:30'])('%j is no time', (text) => expect(clockOf(text)).toBeNull());
  it('is said with the day where it is another one', () => {
    expect([clockWords(29_100), clockWords(86_400 + 1800), clockWords(59.9)]).toEqual(['8:05', '+1 0:30', '0:01']);
  });
});

describe('people', () => {
  it('are a line each, with their hours on every day', () => {
    const read = peopleOf('Warden 8:00–12:00, 13-17\n\nKeeper', 2);
    expect(
      read.ok && read.people.map(({ title, there }) => [title, there.map(({ from, to }) => [from / 3600, to / 3600])]),
    ).toEqual([
      [
        'Warden',
        [
          [8, 12],
          [13, 17],
          [32, 36],
          [37, 41],
        ],
      ],
      [
        'Keeper',
        [
          [0, 24],
          [24, 48],
        ],
      ],
    ]);
    expect(peopleOf('')).toEqual({ ok: true, people: [] });
  });
  it('with hours that are none are told by their line', () => {
    expect(peopleOf('Warden 12:00–8:00')).toEqual({
      ok: false,
      problems: ['Line 1: “12:00–8:00” are no hours. Write 8:00–12:00.'],
    });
    expect(peopleOf('8:00–12:00')).toEqual({ ok: false, problems: ['Line 1: write a name before the hours.'] });
    expect(peopleOf('Warden from 8')).toMatchObject({ ok: false });
  });
});
