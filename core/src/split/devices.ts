// Devices as the evening sees them: what they need, how their demand falls as they fill, when they come.

/** Demand at a level of charge, as a fraction of the most. */
export interface DemandPoint {
  /** 0…1 */
  readonly level: number;
  /** 0…1 of the most */
  readonly part: number;
}

/** A lead a device can be charged over, and what it takes over it. */
export interface DeviceLead {
  readonly name: string;
  /** The port it fits; null where that is not known. */
  readonly fits: 'C' | 'A' | null;
  /** W */
  readonly watts: number;
  /** Level it needs for that, V; null when any will do. */
  readonly volts: number | null;
}

export interface PlugDevice {
  readonly id: string;
  readonly name: string;
  /** Most it takes, W. */
  readonly watts: number;
  /** Level it needs for that, V; null when any will do. */
  readonly volts: number | null;
  /** Its leads; left out or empty where none is on record: then any port will do. */
  readonly leads?: readonly DeviceLead[] | undefined;
  /** J; null for a device without a battery, which draws all the time. */
  readonly battery: number | null;
  /** Level it comes with, 0…1. */
  readonly level: number;
  /** It must never lose power. */
  readonly staysOn: boolean;
  /** When it is plugged in, s from the start. */
  readonly comes: number;
  /** Level it needs by a time, s from the start; left out where it needs none. */
  readonly needs?: { readonly level: number; readonly by: number } | null | undefined;
  /** How demand falls; ours where nobody recorded one. */
  readonly profile: readonly DemandPoint[];
}

/** Full demand to 60 %, then falling steadily: a shape of our own, for a device nobody recorded. */
export const USUAL_PROFILE: readonly DemandPoint[] = [
  { level: 0, part: 1 },
  { level: 0.6, part: 1 },
  { level: 0.8, part: 0.62 },
  { level: 0.95, part: 0.22 },
  { level: 1, part: 0.06 },
];

/** Demand at a level, W. */
export function demandAt(
  { watts, battery, profile }: Pick<PlugDevice, 'watts' | 'battery' | 'profile'>,
  level: number,
): number {
  if (battery === null) return watts;
  if (level >= 1) return 0;
  const above = profile.findIndex((point) => point.level >= level);
  const b = profile[above];
  const a = profile[above - 1];
  if (!b) return watts * (profile.at(-1)?.part ?? 1);
  if (!a || b.level <= a.level) return watts * b.part;
  return watts * (a.part + ((b.part - a.part) * (level - a.level)) / (b.level - a.level));
}

/** What charges showed of a device: W by level, and J a whole charge takes at the rate of each level. */
interface Shown {
  readonly levels: readonly number[];
  readonly watts: readonly number[];
  readonly joules: readonly number[];
}

/**
 * A device as its charges show it, for an evening: demand by level, and the battery that takes what they took.
 * @param most W it takes at most
 */
export function demandShown(
  { levels, watts, joules }: Shown,
  most: number,
): Pick<PlugDevice, 'profile'> & { readonly battery: number } {
  return {
    profile: watts.map((one, at) => ({
      level: ((levels[at] as number) + (levels[at + 1] as number)) / 2,
      part: Math.min(1, one / most),
    })),
    // What a whole charge took at the port is more than what the battery holds.
    battery: (joules.reduce((sum, one) => sum + one, 0) / joules.length) * CHARGING_EFFICIENCY,
  };
}

/** Part of the power that reaches the battery. */
const CHARGING_EFFICIENCY = 0.9;

/** Level after some seconds at a power. */
export const levelAfter = (battery: number | null, level: number, watts: number, seconds: number): number =>
  battery === null ? level : Math.min(1, level + (watts * CHARGING_EFFICIENCY * seconds) / battery);
