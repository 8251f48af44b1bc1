// From readings of many port sets to the simplest rule that explains every one of them.
import { formatPlain } from '../quantity/index.ts';
import { expandedUncertainty, isStated } from '../uncertainty/index.ts';
import { differs, groupsOf, type Influence, influenceOf, near, SAME_PART, SAME_WATTS } from './influence.ts';
import { allSets } from './sets.ts';
import { sentenceOf, shareOf, statesOf, watts, waysOf } from './sharing.ts';
import { type Budget, type Sharing, type SplitReading, type SplitRule, setKey, stateKey } from './types.ts';

export { differs } from './influence.ts';

/** Readings that count for a rule: loaded to what each port offers, by a load. */
const full = (readings: readonly SplitReading[]): readonly SplitReading[] =>
  readings.filter(({ light, atLeast }) => light.length === 0 && !atLeast);

const samePorts = (a: readonly string[], b: readonly string[]): boolean =>
  stateKey([...a].sort()) === stateKey([...b].sort());

/** Whether the others get more when one draws little: only light readings beside full ones of the same set can tell. */
function demandOf(readings: readonly SplitReading[]): SplitRule['demand'] {
  let tested = false;
  for (const soft of readings.filter(({ light }) => light.length > 0)) {
    const hard = full(readings).find(({ occupied }) => samePorts(occupied, soft.occupied));
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

/** What ports that draw little keep back: alone, less what the other gets beside them, less what they draw. */
function reservesOf(readings: readonly SplitReading[]): SplitRule['reserves'] {
  return readings
    .filter(({ light, occupied }) => light.length > 0 && occupied.length === light.length + 1)
    .flatMap(({ light, occupied, watts: own }) => {
      const port = occupied.find((one) => !light.includes(one)) ?? '';
      const beside = own[port];
      const alone = full(readings).find(({ occupied: only }) => samePorts(only, [port]))?.watts[port];
      if (!beside || !alone || beside.value >= alone.value || !differs(alone, beside)) return [];
      const drawn = light.reduce((total, one) => total + (own[one]?.value ?? 0), 0);
      const kept = alone.value - beside.value - drawn;
      return kept > SAME_WATTS + SAME_PART * alone.value ? [{ from: port, by: light, watts: kept }] : [];
    });
}

/** Sets that gave something else in another order of plugging. */
function ordersOf(readings: readonly SplitReading[]): readonly string[] {
  const counting = full(readings).filter(({ order }) => (order?.length ?? 0) > 1);
  return counting.flatMap((one, index) =>
    counting.slice(index + 1).flatMap((other) => {
      if (!samePorts(one.occupied, other.occupied) || stateKey(one.order ?? []) === stateKey(other.order ?? []))
        return [];
      const port = one.occupied.find((name) => {
        const [a, b] = [one.watts[name], other.watts[name]];
        return a && b && differs(a, b);
      });
      if (port === undefined) return [];
      const said = ({ order, watts: own }: SplitReading) =>
        `${watts(own[port]?.value ?? 0)} plugged in as ${(order ?? []).join(', then ')}`;
      return [`The order of plugging matters in ${setKey(one.occupied)}: ${port} gave ${said(one)}, ${said(other)}.`];
    }),
  );
}

/** States of a budget nobody read, that its rule leaves open. */
function openStates(budget: Budget, ways: readonly Sharing[]): SplitRule['open'] {
  const found: { says: string; measure: readonly string[] }[] = [];
  for (const set of allSets(budget.ports)) {
    if (budget.states[stateKey(set)]) continue;
    const told = ways.map((way) => shareOf(way, budget.states, set)).filter((one) => one !== null);
    const [first, ...others] = told;
    const agree =
      first !== undefined && others.every((other) => set.every((port) => near(first[port] ?? 0, other[port] ?? 0)));
    const names = ways.filter(({ kind }) => kind !== 'table').map(({ kind }) => kind);
    found.push({
      says: agree
        ? `${setKey(set)} was not read; what is said of it is filled in by the rule.`
        : told.length > 1
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
 * What was not read is open, also where a rule would fill it in.
 * @param ports all ports in physical order
 * @param readings of any sets, in any number; lightly loaded and device-limited ones only tell about demand and bounds,
 *   readings of unknown accuracy about nothing
 */
export function inferRule(ports: readonly string[], readings: readonly SplitReading[]): SplitRule {
  const stated = readings.map((one) => ({
    ...one,
    watts: Object.fromEntries(Object.entries(one.watts).filter(([, value]) => isStated(value))),
  }));
  const counting = full(stated);
  const influences = new Map<string, Influence>();
  for (const on of ports)
    for (const by of ports) if (on !== by) influences.set(stateKey([on, by]), influenceOf(counting, on, by));
  const influence = (on: string, by: string): Influence => influences.get(stateKey([on, by])) ?? 'unknown';
  const linked = (a: string, b: string) => influence(a, b) === 'watts' || influence(a, b) === 'level';
  const read = ports.filter((port) => counting.some(({ watts: own }) => own[port] !== undefined));
  const made = groupsOf(read, linked).map((group) => {
    const states = statesOf(group, counting);
    const divided = group.some((on) => group.some((by) => influence(on, by) === 'watts'));
    const ways = waysOf(group, states, group.length > 1 && !divided);
    const most = Math.max(0, ...Object.values(states).map((state) => Object.values(state).reduce((a, b) => a + b, 0)));
    return { budget: { ports: group, sharing: ways[0] ?? { kind: 'table' as const }, states, most }, ways };
  });
  const budgets = made.map(({ budget }) => budget);
  const withAll = (port: string) =>
    counting.some(({ occupied, watts: own }) => occupied.length === ports.length && own[port] !== undefined);
  const reserves = reservesOf(stated);
  const rule = {
    budgets,
    sentences: [
      ...budgets.map((budget) => sentenceOf(budget, budget.ports.every(withAll))),
      ...reserves.map(
        ({ from, by, watts: kept }) =>
          `${by.join(' and ')} keep${by.length === 1 ? 's' : ''} ${watts(kept)} back from ${from} while drawing little.`,
      ),
      ...ordersOf(stated),
    ],
    demand: demandOf(stated),
    reserves,
  };
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
      const both = [influence(a, b), influence(b, a)];
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
  const lonely = budgets
    .flatMap(({ sharing, ports: own }) => (sharing.kind === 'alone' ? own : []))
    .filter((port) => !withAll(port));
  const together =
    ports.length > 2 && lonely.length > 0 && apart.length === 0 && missing.length === 0
      ? [
          {
            says: `Whether ${lonely.join(', ')} stand${lonely.length === 1 ? 's' : ''} alone shows only with every port occupied.`,
            measure: ports,
          },
        ]
      : [];
  const open = [...missing, ...apart, ...together, ...made.flatMap(({ budget, ways }) => openStates(budget, ways))];
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

/** Whether what a rule gives a set was read there, state by state, rather than filled in. */
export const readSet = ({ budgets }: Pick<SplitRule, 'budgets'>, occupied: readonly string[]): boolean =>
  occupied.every((port) => budgets.some(({ ports }) => ports.includes(port))) &&
  budgets.every(({ ports, states }) => {
    const here = ports.filter((port) => occupied.includes(port));
    const state = states[stateKey(here)];
    return here.length === 0 || (state !== undefined && here.every((port) => port in state));
  });
