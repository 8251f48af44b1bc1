// What a cable's rating holds chargers back to.
import type { CableRating } from '../pd/index.ts';
import type { Promised } from '../promise/index.ts';

/** Most a port is promised to give, and the most of it a cable lets through. */
export interface HeldBack {
  readonly port: string;
  /** W */
  readonly promised: number;
  readonly through: number;
}

/** W of a level over a cable. A level above the cable's voltage is not offered; its current is cut to the cable's. */
const through = (volts: number, amps: number, { amps: most, volts: highest }: CableRating): number =>
  volts > highest * 1.055 ? 0 : volts * Math.min(amps, most);

/**
 * By how much a cable would hold each port of a charger back, the most first; ports it does not touch are left out.
 * @example heldBack([{ kind: 'port-line', port: 'C1', volts: 20, amps: 5 }], UNMARKED, [C1]) // C1: 100 W, 60 W through
 */
export function heldBack(
  promises: readonly Promised[],
  rating: CableRating,
  /** Ports of the charger: only what a C plug goes into depends on a marker. */
  sockets: readonly { readonly label: string; readonly connector: string }[],
): readonly HeldBack[] {
  const ports = new Map<string, { promised: number; through: number }>();
  for (const promise of promises) {
    if (promise.kind !== 'port-line' && promise.kind !== 'range') continue;
    if (sockets.find(({ label }) => label === promise.port)?.connector !== 'C') continue;
    const volts = promise.kind === 'range' ? promise.high : promise.volts;
    const own = ports.get(promise.port) ?? { promised: 0, through: 0 };
    const reach = promise.kind === 'range' ? Math.min(promise.high, rating.volts * 1.05) : volts;
    const passes =
      promise.kind === 'range' && promise.low <= reach
        ? reach * Math.min(promise.amps, rating.amps)
        : through(volts, promise.amps, rating);
    ports.set(promise.port, {
      promised: Math.max(own.promised, volts * promise.amps),
      through: Math.max(own.through, passes),
    });
  }
  return [...ports]
    .map(([port, one]) => ({ port, ...one }))
    .filter((one) => one.through < one.promised * 0.995)
    .sort((a, b) => b.promised - b.through - (a.promised - a.through));
}
