// Ways ports of one budget divide it, which of them explain the readings, and how each is said.
import { formatPlain } from '../quantity/index.ts';
import { near } from './influence.ts';
import { type Budget, portsOf, type Sharing, type SplitReading, setKey, stateKey } from './types.ts';

const sum = (values: readonly number[]): number => values.reduce((total, value) => total + value, 0);
export const watts = (value: number): string => formatPlain(Math.round(value), 'power');

/** What each state of a budget gave: the mean over whatever else was occupied. */
export function statesOf(
  group: readonly string[],
  readings: readonly SplitReading[],
): Record<string, Record<string, number>> {
  const seen = new Map<string, Map<string, number[]>>();
  for (const { occupied, watts: own } of readings) {
    const key = stateKey(group.filter((port) => occupied.includes(port)));
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

export const aloneOf = (states: Budget['states'], port: string): number =>
  states[port]?.[port] ?? Math.max(0, ...Object.values(states).map((state) => state[port] ?? 0));

/** What a way of sharing gives the ports of one state; null where it says nothing. */
export function shareOf(
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
    case 'level':
    case 'table': {
      const state = states[stateKey(occupied)];
      return state && occupied.every((port) => port in state) ? state : null;
    }
  }
}

const explains = (sharing: Sharing, states: Budget['states']): boolean =>
  Object.entries(states).every(([key, state]) => {
    const given = shareOf(sharing, states, portsOf(key));
    return given !== null && Object.entries(state).every(([port, value]) => near(given[port] ?? Number.NaN, value));
  });

/** Ways of sharing that explain every state, the simplest first; "table" always does and comes last. */
export function waysOf(group: readonly string[], states: Budget['states'], byLevel: boolean): readonly Sharing[] {
  if (group.length === 1) return [{ kind: 'alone' }];
  if (byLevel) return [{ kind: 'level' }];
  const whole = Object.entries(states).filter(
    ([key, state]) => portsOf(key).length > 1 && Object.keys(state).length === portsOf(key).length,
  );
  const totals = whole.map(([, state]) => sum(Object.values(state)));
  const budget = Math.max(0, ...totals);
  // A budget below what a port gives alone is none: then only a table says what happens.
  const most = Math.max(...group.map((port) => aloneOf(states, port)));
  if (budget < most && !near(budget, most)) return [{ kind: 'table' }];
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

/** A budget in a sentence. @param told whether a port that stands alone was read with every other port occupied */
export function sentenceOf({ ports, sharing, states, most }: Budget, told: boolean): string {
  const names = ports.join(', ').replace(/, ([^,]*)$/, ' and $1');
  const alone = ports.map((port) => `${port} ${watts(aloneOf(states, port))}`).join(', ');
  switch (sharing.kind) {
    case 'alone':
      return told
        ? `${names} stands alone: ${watts(aloneOf(states, ports[0] ?? ''))} whatever else is plugged in.`
        : `${names} gives ${watts(aloneOf(states, ports[0] ?? ''))} in every set read so far; not every set was read.`;
    case 'level':
      return `${names} fall back to 5 V beside each other: their level changes, no budget is divided. Alone ${alone}.`;
    case 'even':
      return `${names} share ${watts(sharing.budget)} evenly; alone ${alone}.`;
    case 'proportional':
      return `${names} share ${watts(sharing.budget)} in proportion to what each gives alone: ${alone}.`;
    case 'priority':
      return `${names} share ${watts(sharing.budget)}: ${sharing.first} keeps ${watts(sharing.keeps)}, the rest goes to the others evenly; alone ${alone}.`;
    case 'table': {
      const together = Object.entries(states)
        .filter(([key]) => portsOf(key).length > 1)
        .map(
          ([key, state]) =>
            `${setKey(portsOf(key))} ${portsOf(key)
              .map((port) => (port in state ? Math.round(state[port] ?? 0) : '–'))
              .join(' + ')} W`,
        );
      return `${names} share up to ${watts(most)}, by which of them are plugged in: ${together.join('; ')}; alone ${alone}.`;
    }
  }
}
