import { describe, expect, it } from 'vitest';
import { mayGo } from './lib/keep-rule.mjs';

const DAY = 86_400_000;
const made = (iso) => ({ name: iso, at: new Date(iso) });
/** One each day, as many as asked for, the last on a day. */
const daily = (count, last = '2026-11-28T02:30:00.000Z') =>
  Array.from({ length: count }, (_, at) => made(new Date(Date.parse(last) - at * DAY).toISOString()));
const stays = (backups, rule) => {
  const gone = new Set(mayGo(backups, rule));
  return backups.map(({ name }) => name.slice(0, 10)).filter((_, at) => !gone.has(backups[at].name));
};

describe('backups that are kept', () => {
  it('are one of each of the last seven days, five weeks and twelve months', () => {
    const kept = stays(daily(800));
    expect(kept.slice(0, 7)).toEqual(daily(7).map(({ name }) => name.slice(0, 10)));
    // Weeks begin on Monday: the newest of each is its Sunday, but for the week that is not over.
    expect(kept).toEqual(expect.arrayContaining(['2026-11-22', '2026-11-15', '2026-11-08', '2026-11-01']));
    expect(kept).toEqual(expect.arrayContaining(['2026-10-31', '2026-09-30', '2025-12-31']));
    expect(kept).not.toContain('2025-11-30');
    expect(kept.length).toBe(7 + 3 + 11);
  });

  it('are the newest of a day where there are several', () => {
    const backups = [made('2026-11-28T02:00:00.000Z'), made('2026-11-28T14:00:00.000Z')];
    expect(mayGo(backups)).toEqual(['2026-11-28T02:00:00.000Z']);
  });

  it('are never none: the newest stays however old it is, and whatever the rule', () => {
    expect(mayGo([made('2019-01-01T00:00:00.000Z')])).toEqual([]);
    expect(mayGo(daily(3), { days: 0, weeks: 0, months: 0 })).toHaveLength(2);
    expect(mayGo([])).toEqual([]);
  });

  it('count days there were one, not days that went by', () => {
    // A bench that was off all summer keeps its last seven.
    const backups = [...daily(7, '2026-03-01T00:00:00.000Z'), made('2026-11-28T00:00:00.000Z')];
    expect(mayGo(backups)).toHaveLength(1);
  });
});
