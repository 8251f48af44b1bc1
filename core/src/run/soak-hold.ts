// What a soak tells of how long a power is held: the same evidence as a hold that was run for itself.
import { ZERO_CELSIUS } from '../quantity/index.ts';
import type { Mains, Output } from '../reading/index.ts';
import type { HoldRun } from './types.ts';

/** A soak, as far as a hold needs it. */
export interface SoakOfHold {
  readonly id: string;
  readonly kind: string;
  readonly mains: Mains;
  readonly outputs?: readonly Output[] | null | undefined;
  readonly rigId: string;
  readonly takenAt: string;
  readonly supersedes: string | null;
  readonly withdrawn: boolean;
  readonly figures: { readonly kind: string };
}

/** What its figures have of it. Temperatures in °C. */
interface Drawn {
  readonly ambient: number | null;
  readonly sensors: readonly { readonly highest: number }[];
  readonly events: readonly {
    readonly kind: string;
    readonly at: number;
    readonly to: number;
    readonly temperature: number | null;
  }[];
  /** When output was drawn, s; null or left out where the log does not tell. */
  readonly drawn?: { readonly from: number; readonly to: number } | null | undefined;
}

const ENDS: Readonly<Record<string, HoldRun['end']>> = {
  throttle: 'folded back',
  renegotiation: 'dropped a level',
  cutoff: 'cut off',
  pulsing: 'cut off',
};

const kelvin = (celsius: number | null): number | null => (celsius === null ? null : celsius + ZERO_CELSIUS);

/**
 * Soaks that stand, as holds: from when the load drew to the first thing that happened to the output, or to its end.
 * A soak whose log has no output tells nothing of holding. The id is that of the soak.
 */
export function holdsOfSoaks(captures: readonly SoakOfHold[]): readonly HoldRun[] {
  const replaced = new Set(captures.flatMap(({ supersedes }) => supersedes ?? []));
  return captures.flatMap((soak): HoldRun[] => {
    if (soak.kind !== 'soak' || soak.figures.kind !== 'soak' || soak.withdrawn || replaced.has(soak.id)) return [];
    const { ambient, sensors, events, drawn } = soak.figures as unknown as Drawn;
    const [first, ...others] = (soak.outputs ?? []).filter(({ amps }) => amps > 0);
    if (!first || !drawn) return [];
    const [event] = events;
    const { port, volts, amps } = first;
    return [
      {
        kind: 'hold',
        id: soak.id,
        port,
        volts,
        amps,
        others,
        rigId: soak.rigId,
        takenAt: soak.takenAt,
        u: null,
        note: '',
        supersedes: null,
        withdrawn: false,
        planned: drawn.to - drawn.from,
        held: Math.max(0, (event?.at ?? drawn.to) - drawn.from),
        end: event ? (ENDS[event.kind] ?? 'cut off') : 'held to the end',
        hottest: kelvin(event ? event.temperature : Math.max(...sensors.map(({ highest }) => highest))),
        ambient: kelvin(ambient),
        after: event?.kind === 'throttle' || event?.kind === 'renegotiation' ? event.to : null,
      },
    ];
  });
}
