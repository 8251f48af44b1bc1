// Which backups are kept: the newest of each of the last days, weeks and months.

export const RULE = { days: 7, weeks: 5, months: 12 };

const DAY = 86_400_000;

/** Monday of the week a day is in, as days since 1970. */
const weekOf = (at) => Math.floor((Math.floor(at.getTime() / DAY) + 3) / 7);

/**
 * Those that may go.
 * @param backups each with its name and when it was made
 * @returns names, the newest of each day, week and month left out for as long as the rule says; the newest of all always stays
 */
export function mayGo(backups, rule = RULE) {
  const newestFirst = [...backups].sort((a, b) => b.at - a.at);
  const kept = new Set(newestFirst.slice(0, 1).map(({ name }) => name));
  const keep = (most, keyOf) => {
    const seen = new Set();
    for (const { name, at } of newestFirst) {
      const key = keyOf(at);
      if (seen.has(key)) continue;
      if (seen.size >= most) break;
      seen.add(key);
      kept.add(name);
    }
  };
  keep(rule.days, (at) => at.toISOString().slice(0, 10));
  keep(rule.weeks, weekOf);
  keep(rule.months, (at) => at.toISOString().slice(0, 7));
  return newestFirst.filter(({ name }) => !kept.has(name)).map(({ name }) => name);
}
