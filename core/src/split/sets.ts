// Sets of ports: which there are, which are worth measuring, and in which order.
import { stateKey } from './types.ts';

/** Up to this many ports every set is measured. */
export const ALL_SETS_TO = 5;

/** Every set of one port or more, in an order where each differs from the one before by few plugs (Gray code). */
export function allSets(ports: readonly string[]): readonly (readonly string[])[] {
  const count = 2 ** ports.length;
  return Array.from({ length: count - 1 }, (_, index) => {
    const code = (index + 1) ^ ((index + 1) >> 1);
    return ports.filter((_port, bit) => (code >> bit) & 1);
  });
}

export interface Sweep {
  /** Sets to measure, in order. */
  readonly sets: readonly (readonly string[])[];
  /** Why these, in a sentence. */
  readonly says: string;
}

/**
 * The sets worth measuring: all of them for five ports or fewer; for more the single ports, every pair, every set with
 * one port left out, and all together. Pairs tell who shares with whom; the large sets what is left when all is busy.
 */
export function sweepSets(ports: readonly string[]): Sweep {
  if (ports.length < 2) return { sets: [], says: 'One port: nothing is shared.' };
  const all = allSets(ports);
  if (ports.length <= ALL_SETS_TO)
    return { sets: all, says: `All ${all.length} combinations of ${ports.length} ports.` };
  const wanted = (size: number) => size <= 2 || size >= ports.length - 1;
  const sets = all.filter((set) => wanted(set.length));
  return {
    sets,
    says: `${sets.length} of ${all.length} combinations: each port alone, every pair, every set that leaves one out, and all. Pairs show who shares with whom; the large sets what is left when all is busy.`,
  };
}

/**
 * The order in which a set is plugged in: pairs as the ports stand, larger sets the other way round, so that a sweep sees
 * every port run while every other comes.
 */
export const plugOrder = (set: readonly string[]): readonly string[] => (set.length > 2 ? [...set].reverse() : set);

/** Sets that were not measured yet, in the sweep's order. */
export function setsLeft(sweep: Sweep, measured: readonly (readonly string[])[]): readonly (readonly string[])[] {
  const done = new Set(measured.map(stateKey));
  return sweep.sets.filter((set) => !done.has(stateKey(set)));
}

export interface MeterMove {
  /** Port the meter sits in. */
  readonly meterAt: string;
  readonly occupied: readonly string[];
  /** Ports to plug in and to pull for it. */
  readonly plug: readonly string[];
  readonly pull: readonly string[];
  /** Whether the meter moves for it, which breaks that port. */
  readonly moves: boolean;
}

/**
 * With one meter only: every set once for each of its ports, in the order that moves the meter least. The meter stays
 * in a port through all sets that hold it; between them as few plugs as possible change.
 */
export function meterMoves(ports: readonly string[], sets: readonly (readonly string[])[]): readonly MeterMove[] {
  let before: readonly string[] = [];
  let at: string | null = null;
  return ports.flatMap((meterAt) =>
    sets
      .filter((set) => set.includes(meterAt))
      .map((occupied): MeterMove => {
        const move = {
          meterAt,
          occupied,
          plug: occupied.filter((port) => !before.includes(port)),
          pull: before.filter((port) => !occupied.includes(port)),
          moves: at !== meterAt,
        };
        before = occupied;
        at = meterAt;
        return move;
      }),
  );
}
