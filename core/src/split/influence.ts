// Whether plugging something into one port changes what another gets, and how.
import { expandedUncertainty, type Measured } from '../uncertainty/index.ts';
import type { SplitReading } from './types.ts';

/** A load sets its current in steps and a level has its tolerance: powers this near are the same share. */
export const SAME_WATTS = 0.5;
export const SAME_PART = 0.02;

/** Whether two readings of a port's power tell of different shares. Readings of unknown accuracy tell of none. */
export function differs(a: Measured, b: Measured): boolean {
  const allowed = Math.hypot(expandedUncertainty(a), expandedUncertainty(b));
  return Math.abs(a.value - b.value) > allowed + SAME_WATTS + SAME_PART * Math.max(a.value, b.value);
}

export const near = (a: number, b: number): boolean => Math.abs(a - b) <= SAME_WATTS + SAME_PART * Math.max(a, b);

/**
 * - `watts`: another share of power
 * - `level`: the port fell back to 5 V; its power changed with its level, not because a budget is divided
 */
export type Influence = 'watts' | 'level' | 'no' | 'unknown';

/** The level every port has; one that falls back to it gave up the level it had agreed on. */
const FIVE_VOLTS = 5.5;

function fellToFive(before: SplitReading, after: SplitReading, port: string): boolean {
  const had = before.volts?.[port];
  const has = after.volts?.[port];
  return had !== undefined && has !== undefined && had > FIVE_VOLTS && has <= FIVE_VOLTS;
}

/** Whether plugging something into one port changes what another gets. */
export function influenceOf(readings: readonly SplitReading[], on: string, by: string): Influence {
  let found: Influence = 'unknown';
  for (const without of readings) {
    const before = without.watts[on];
    if (!before || without.occupied.includes(by)) continue;
    const wanted = new Set([...without.occupied, by]);
    const joined = readings.filter(
      ({ occupied }) => occupied.length === wanted.size && occupied.every((port) => wanted.has(port)),
    );
    for (const together of joined) {
      const after = together.watts[on];
      if (!after) continue;
      if (fellToFive(without, together, on)) found = 'level';
      else if (differs(before, after)) return 'watts';
      else if (found === 'unknown') found = 'no';
    }
  }
  return found;
}

/** Ports that influence each other, directly or through others. */
export function groupsOf(
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
