// From readings of many port sets to the simplest rule that explains every one of them.
import { formatPlain } from '../quantity/index.ts';
import { expandedUncertainty, type Measured } from '../uncertainty/index.ts';
import { allSets } from './sets.ts';
import { type Budget, type Sharing, type SplitReading, type SplitRule, setKey } from './types.ts';

/** A load sets its current in steps and a level has its tolerance: powers this near are the same share. */
const SAME_WATTS = 0.5;
const SAME_PART = 0.02;

/** Whether two readings of a port's power tell of different shares. */
export function differs(a: Measured, b: Measured): boolean {
  const allowed = Math.hypot(expandedUncertainty(a), expandedUncertainty(b));
  return Math.abs(a.value - b.value) > allowed + SAME_WATTS + SAME_PART * Math.max(a.value, b.value);
}

const near = (a: number, b: number): boolean => Math.abs(a - b) <= SAME_WATTS + SAME_PART * Math.max(a, b);
const sum = (values: readonly number[]): number => values.reduce((total, value) => total + value, 0);
const watts = (value: number): string => formatPlain(Math.round(value), 'power');

type Influence = 'yes' | 'no' | 'unknown';

/** Readings that count for a rule: loaded to what each port offers, by a load. */
const full = (readings: readonly SplitReading[]): readonly SplitReading[] =>
  readings.filter(({ light, atLeast }) => light.length === 0 && !atLeast);

/** Whether plugging something into one port changes what another gets. */
function influenceOf(readings: readonly SplitReading[], on: string, by: string): Influence {
  let compared = false;
  for (const without of readings) {
    const before = without.watts[on];
    if (!before || without.occupied.includes(by)) continue;
    const wanted = new Set([...without.occupied, by]);
    const joined = readings.filter(
      ({ occupied }) => occupied.length === wanted.size && occupied.every((port) => wanted.has(port)),
    );
    for (const { watts: own } of joined) {
      const after = own[on];
      if (!after) continue;
      compared = true;
      if (differs(before, after)) return 'yes';
    }
  }
  return compared ? 'no' : 'unknown';
}

/** Ports that influence each other, directly or through others. */
function budgetsOf(
  ports: readonly string[],
  linked: (a: string, b: string) => boolean,
): readonly (readonly string[])[] {
  const left = new Set(ports);
  const groups: string[][] = [];
  for (const port of ports) {
    if (!left.delete(port)) continue;
    const group = [port];
    for (const member of group)
      for (const other of [...left])
        if (linked(member, other) || linked(other, member)) {
          left.delete(other);
          group.push(other);
        }
    groups.push(ports.filter((one) => group.includes(one)));
  }
  return groups;
}

/** What each state of a budget gave: the mean over whatever else was occupied. */
function statesOf(group: readonly string[], readings: readonly SplitReading[]): Record<string, Record<string, number>> {
  const seen = new Map<string, Map<string, number[]>>();
  for (const { occupied, watts: own } of readings) {
    const key = setKey(group.filter((port) => occupied.includes(port)));
    for (const port of group) {
      const value = own[port]?.value;
      if (value === undefined) continue;
      const state = seen.get(key) ?? new Map<string, number[]>();
      state.set(port, [...(state.get(port) ?? []), value]);
      seen.set(key, state);
    }
  }
  return Object.fromEntries(
    [...seen].map(([key, state]) => [
      key,
      Object.fromEntries([...state].map(([port, values]) => [port, sum(values) / values.length])),
    ]),
  );
}

const aloneOf = (states: Budget['states'], port: string): number =>
  states[port]?.[port] ?? Math.max(0, ...Object.values(states).map((state) => state[port] ?? 0));

/** What a way of sharing gives the ports of one state; null where it says nothing. */
function shareOf(
  sharing: Sharing,
  states: Budget['states'],
  occupied: readonly string[],
): Record<string, number> | null {
  const alone = (port: string) => aloneOf(states, port);
  const each = (of: (port: string) => number) => Object.fromEntries(occupied.map((port) => [port, of(port)]));
  switch (sharing.kind) {
    case 'alone':
      return each(alone);
    case 'even':
      return each((port) =>
        occupied.length === 1 ? alone(port) : Math.min(alone(port), sharing.budget / occupied.length),
      );
    case 'proportional': {
      const all = sum(occupied.map(alone));
      return each((port) => (all <= sharing.budget ? alone(port) : (alone(port) * sharing.budget) / all));
    }
    case 'priority': {
      if (occupied.length === 1) return each(alone);
      const first = occupied.includes(sharing.first);
      const left = sharing.budget - (first ? sharing.keeps : 0);
      const others = occupied.length - (first ? 1 : 0);
      return each((port) =>
        port === sharing.first ? Math.min(alone(port), sharing.keeps) : Math.min(alone(port), left / others),
      );
    }
    case 'table': {
      const state = states[setKey(occupied)];
      return state && occupied.every((port) => port in state) ? state : null;
    }
  }
}

const explains = (sharing: Sharing, states: Budget['states']): boolean =>
  Object.entries(states).every(([key, state]) => {
    const given = shareOf(sharing, states, key.split('+'));
    return given !== null && Object.entries(state).every(([port, value]) => near(given[port] ?? Number.NaN, value));
  });

/** Ways of sharing that explain every state, the simplest first; "table" always does and comes last. */
function waysOf(group: readonly string[], states: Budget['states']): readonly Sharing[] {
  if (group.length === 1) return [{ kind: 'alone' }];
  const whole = Object.entries(states).filter(
    ([key, state]) => key.includes('+') && Object.keys(state).length === key.split('+').length,
  );
  const totals = whole.map(([, state]) => sum(Object.values(state)));
  const budget = Math.max(0, ...totals);
  const candidates: Sharing[] = [
    { kind: 'even', budget },
    { kind: 'proportional', budget },
    ...group.flatMap((first): Sharing[] => {
      const kept = whole.flatMap(([, state]) => state[first] ?? []);
      return kept.length > 0 ? [{ kind: 'priority', first, keeps: sum(kept) / kept.length, budget }] : [];
    }),
  ];
  return [...candidates.filter((one) => explains(one, states)), { kind: 'table' }];
}

function sentenceOf({ ports, sharing, states, most }: Budget): string {
  const names = ports.join(', ').replace(/, ([^,]*)$/, ' and $1');
  const alone = ports.map((port) => `${port} ${watts(aloneOf(states, port))}`).join(', ');
  switch (sharing.kind) {
    case 'alone':
      return `${names} stands alone: ${watts(aloneOf(states, ports[0] ?? ''))} whatever else is plugged in.`;
    case 'even':
      return `${names} share ${watts(sharing.budget)} evenly; alone ${alone}.`;
    case 'proportional':
      return `${names} share ${watts(sharing.budget)} in proportion to what each gives alone: ${alone}.`;
    case 'priority':
      return `${names} share ${watts(sharing.budget)}: ${sharing.first} keeps ${watts(sharing.keeps)}, the rest goes to the others evenly; alone ${alone}.`;
    case 'table': {
      const together = Object.entries(states)
        .filter(([key]) => key.includes('+'))
        .map(
          ([key, state]) =>
            `${key} ${key
              .split('+')
              .map((port) => (port in state ? Math.round(state[port] ?? 0) : '–'))
              .join(' + ')} W`,
        );
      return `${names} share up to ${watts(most)}, by which of them are plugged in: ${together.join('; ')}; alone ${alone}.`;
    }
  }
}

/** Whether the others get more when one draws little: only light readings beside full ones of the same set can tell. */
function demandOf(readings: readonly SplitReading[]): SplitRule['demand'] {
  let tested = false;
  for (const soft of readings.filter(({ light }) => light.length > 0)) {
    const hard = full(readings).find(({ occupied }) => setKey(occupied) === setKey(soft.occupied));
    if (!hard) continue;
    for (const [port, value] of Object.entries(soft.watts)) {
      const other = hard.watts[port];
      if (soft.light.includes(port) || !other) continue;
      tested = true;
      if (value.value > other.value && differs(value, other)) return 'follows demand';
    }
  }
  return tested ? 'fixed' : 'not tested';
}

/** States of a budget nobody read, that its rule leaves open. */
function openStates(budget: Budget, ways: readonly Sharing[]): SplitRule['open'] {
  const found: { says: string; measure: readonly string[] }[] = [];
  for (const set of allSets(budget.ports)) {
    if (budget.states[setKey(set)]) continue;
    const told = ways.map((way) => shareOf(way, budget.states, set)).filter((one) => one !== null);
    const [first, ...others] = told;
    const agree =
      first !== undefined && others.every((other) => set.every((port) => near(first[port] ?? 0, other[port] ?? 0)));
    if (agree) continue;
    const names = ways.filter(({ kind }) => kind !== 'table').map(({ kind }) => kind);
    found.push({
      says:
        told.length > 1
          ? `${setKey(set)} was not read, and ${names.join(' and ')} sharing both explain what was.`
          : `${setKey(set)} was not read, and no short rule says what it gives.`,
      measure: set,
    });
  }
  // The one that decides most: the largest disagreement is in the largest set.
  return found.sort((a, b) => b.measure.length - a.measure.length).slice(0, 3);
}

/**
 * The simplest rule that explains every reading within its uncertainty: which ports share a budget, and how.
 * @param ports all ports in physical order
 * @param readings of any sets, in any number; lightly loaded and device-limited ones only tell about demand and bounds
 */
export function inferRule(ports: readonly string[], readings: readonly SplitReading[]): SplitRule {
  const counting = full(readings);
  const influence = new Map<string, Influence>();
  for (const on of ports)
    for (const by of ports) if (on !== by) influence.set(`${on} ${by}`, influenceOf(counting, on, by));
  const read = ports.filter((port) => counting.some(({ watts: own }) => own[port] !== undefined));
  const groups = budgetsOf(read, (a, b) => influence.get(`${a} ${b}`) === 'yes');
  const made = groups.map((group) => {
    const states = statesOf(group, counting);
    const ways = waysOf(group, states);
    const most = Math.max(0, ...Object.values(states).map((state) => sum(Object.values(state))));
    return { budget: { ports: group, sharing: ways[0] ?? { kind: 'table' as const }, states, most }, ways };
  });
  const budgets = made.map(({ budget }) => budget);
  const rule = { budgets, sentences: budgets.map(sentenceOf), demand: demandOf(readings), unexplained: [], open: [] };
  const unexplained = counting.flatMap(({ occupied, watts: own }) => {
    const predicted = predictSplit(rule, occupied);
    const wrong = Object.entries(own).filter(([port, value]) => {
      const given = predicted[port];
      return (
        given != null &&
        Math.abs(given - value.value) >
          expandedUncertainty(value) + SAME_WATTS + SAME_PART * Math.max(given, value.value)
      );
    });
    return wrong.map(([port, value]) => ({
      occupied,
      says: `${port} gave ${formatPlain(Number(value.value.toFixed(1)), 'power')} with ${setKey(occupied)}, where the rule says ${watts(predicted[port] ?? 0)}.`,
    }));
  });
  const apart = ports.flatMap((a, index) =>
    ports.slice(index + 1).flatMap((b) => {
      const both = [influence.get(`${a} ${b}`), influence.get(`${b} ${a}`)];
      return both.every((one) => one === 'unknown')
        ? [
            {
              says: `Nothing read tells whether ${a} and ${b} share.`,
              measure: ports.filter((port) => port === a || port === b),
            },
          ]
        : [];
    }),
  );
  const missing = ports
    .filter((port) => !read.includes(port))
    .map((port) => ({ says: `${port} was not read at all.`, measure: [port] }));
  const open = [...missing, ...apart, ...made.flatMap(({ budget, ways }) => openStates(budget, ways))];
  return { ...rule, unexplained, open };
}

/** What a rule gives each port of a set, W; null where the rule leaves it open. */
export function predictSplit(
  rule: Pick<SplitRule, 'budgets'>,
  occupied: readonly string[],
): Readonly<Record<string, number | null>> {
  const given: Record<string, number | null> = Object.fromEntries(occupied.map((port) => [port, null]));
  for (const { ports, sharing, states } of rule.budgets) {
    const here = ports.filter((port) => occupied.includes(port));
    if (here.length === 0) continue;
    // What was read stands before what a rule says.
    const read = shareOf({ kind: 'table' }, states, here);
    const shares = read ?? shareOf(sharing, states, here);
    for (const port of here) given[port] = shares?.[port] ?? null;
  }
  return given;
}
