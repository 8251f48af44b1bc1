// A charger to plug into, made from plain data so that it can be handed to a worker.
import type { Drop } from '../run/index.ts';
import type { PlugCharger, PlugPort } from './assign.ts';
import { pairsOf } from './drops.ts';
import type { PromisedRow } from './promises.ts';
import { predictSplit, readSet } from './rule.ts';
import { type SplitRule, stateKey } from './types.ts';

export interface PlugSource {
  readonly ports: readonly PlugPort[];
  /** What decides the shares: what was measured, or what is printed. */
  readonly by: 'measured' | 'promised';
  readonly rule: Pick<SplitRule, 'budgets'>;
  readonly promised: readonly Pick<PromisedRow, 'occupied' | 'watts'>[];
  /** W each port promises or offers alone, for sets the table leaves out. */
  readonly alone: Readonly<Record<string, number>>;
  readonly drops: readonly Drop[];
}

/** The charger of a source. A set the promised table leaves out takes what each port gives alone, as the label suggests. */
export function plugCharger({ ports, by, rule, promised, alone, drops }: PlugSource): PlugCharger {
  const unsafe = new Set(
    pairsOf(
      ports.map(({ label }) => label),
      drops,
    )
      .filter(({ state }) => state === 'drops')
      .map(({ port, cause }) => stateKey([port, cause])),
  );
  const seen = new Set(drops.map(({ port, cause }) => stateKey([port, cause])));
  // How ports that share divide it is not printed: then nothing is known of any of the set.
  const printed = new Map(
    promised.flatMap(({ occupied, watts }) =>
      occupied.every((port) => port in watts) ? [[stateKey(occupied), watts] as const] : [],
    ),
  );
  const shared = new Set(
    promised.flatMap(({ occupied, watts }) => (occupied.every((port) => port in watts) ? [] : [stateKey(occupied)])),
  );
  return {
    ports,
    shares: (occupied) => {
      if (by === 'measured') return predictSplit(rule, occupied);
      const row = printed.get(stateKey(occupied));
      if (shared.has(stateKey(occupied))) return Object.fromEntries(occupied.map((port) => [port, null]));
      return Object.fromEntries(occupied.map((port) => [port, row?.[port] ?? alone[port] ?? null]));
    },
    drops: (port, cause) => unsafe.has(stateKey([port, cause])),
    watched: (port, cause) => seen.has(stateKey([port, cause])),
    read: (occupied) =>
      by === 'measured' ? readSet(rule, occupied) : printed.has(stateKey(occupied)) || occupied.length < 2,
  };
}
