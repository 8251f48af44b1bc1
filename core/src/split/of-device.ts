// A device of the bench as an arrangement takes it.
import type { DeviceLead, PlugDevice } from './devices.ts';
import { USUAL_PROFILE } from './devices.ts';

/** What is known of a device that may be plugged in. */
interface Known {
  readonly id: string;
  readonly name: string;
  readonly ceilings: readonly {
    readonly connector: string;
    readonly lead: string;
    readonly watts: number;
    readonly volts: number | null;
  }[];
  /** W it takes alone; null where nobody measured it. */
  readonly baseline: number | null;
  /** J; null without a battery. */
  readonly battery: number | null;
}

/** What a device takes where nothing is known of it, W. */
const UNKNOWN_WATTS = 10;

/** The port a lead goes into, from how its connector was written: "C", "USB-C", "A to C". */
const leadFits = (connector: string): DeviceLead['fits'] => {
  const plug = /(?:^|[^a-z])([ac])(?=$|[^a-z])/i.exec(connector)?.[1]?.toUpperCase();
  return plug === 'A' || plug === 'C' ? plug : null;
};

/**
 * A device with an empty battery that comes at the start and may be interrupted.
 * @param top most its charges were seen to take, W; 0 where there were none
 */
export function plugDevice({ id, name, ceilings, baseline, battery }: Known, top = 0): PlugDevice {
  const best = ceilings.reduce<Known['ceilings'][number] | null>(
    (most, one) => (most && most.watts >= one.watts ? most : one),
    null,
  );
  return {
    id,
    name,
    watts: Math.max(best?.watts ?? 0, top) || (baseline ?? UNKNOWN_WATTS),
    volts: best?.volts ?? null,
    leads: ceilings.map(({ connector, lead, watts, volts }) => ({
      name: lead,
      fits: leadFits(connector),
      watts,
      volts,
    })),
    battery,
    level: 0,
    comes: 0,
    staysOn: false,
    needs: null,
    profile: USUAL_PROFILE,
  };
}
