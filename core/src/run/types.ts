// What takes time and is kept as one: devices on a port, holds, moved levels, searches over the rating, ports together.
import type { Mains, Output } from '../reading/index.ts';

/** The most a device takes over one connector and lead. */
export interface Ceiling {
  /** What the lead ends in at the charger: C or A. */
  readonly connector: string;
  readonly lead: string;
  /** Level it needs for that, V; null when it does not matter. */
  readonly volts: number | null;
  /** W */
  readonly watts: number;
}

export const DEVICE_KINDS = ['phone', 'tablet', 'laptop', 'radio', 'headlamp', 'other'] as const;

/** A real device that serves as a load: what it can show is limited by what it takes. */
export interface Device {
  readonly id: string;
  readonly name: string;
  readonly kind: (typeof DEVICE_KINDS)[number];
  /** J; null when not known. */
  readonly battery: number | null;
  readonly ceilings: readonly Ceiling[];
  /** What it took alone on a charger known to be strong, W. */
  readonly baseline: number | null;
  readonly note: string;
}

export const WORKLOADS = ['asleep', 'idle', 'screen on', 'heavy computing'] as const;
export const OUTCOMES = ['charging', 'held', 'slowly falling', 'not charging'] as const;

interface RunHead {
  readonly id: string;
  /** Port under test. */
  readonly port: string;
  readonly rigId: string;
  readonly takenAt: string;
  /** Standard uncertainty of its power, W, from the rig's meters; null where their accuracy is not stated. */
  readonly u: number | null;
  readonly note: string;
  readonly supersedes: string | null;
  readonly withdrawn: boolean;
}

/** A device took what it wanted: settled, then noted. */
export interface DeviceRun extends RunHead {
  readonly kind: 'device';
  readonly deviceId: string;
  readonly connector: string;
  readonly lead: string;
  readonly workload: (typeof WORKLOADS)[number];
  /** State of charge at the start, 0…1; null when not noted. */
  readonly charge: number | null;
  /** Time it was given to settle, s. */
  readonly settled: number;
  /** Where the power was read: at the port, or at the socket. */
  readonly place: 'port' | 'mains';
  /** Level it ran at, V; null when only the socket was read. */
  readonly volts: number | null;
  /** The plateau, W. */
  readonly watts: number;
  /** From a log: highest W of a few seconds, mean W and its spread after it settled; left out where only the plateau was noted. */
  readonly peak?: number | null | undefined;
  readonly mean?: number | null | undefined;
  readonly spread?: number | null | undefined;
  readonly outcome: (typeof OUTCOMES)[number];
  /** What the device says itself, kept as said. */
  readonly message: string;
  /** How warm the device was, K; left out where nobody looked. */
  readonly warmth?: number | null | undefined;
}

export const HOLD_ENDS = ['held to the end', 'folded back', 'cut off', 'dropped a level'] as const;

/** How long a power was held. */
export interface HoldRun extends RunHead {
  readonly kind: 'hold';
  /** V */
  readonly volts: number;
  /** A */
  readonly amps: number;
  /** What was loaded on other ports at the same time. */
  readonly others: readonly Output[];
  /** Time asked for, s. */
  readonly planned: number;
  /** Time it held, s. */
  readonly held: number;
  readonly end: (typeof HOLD_ENDS)[number];
  /** Hottest spot at the end, K; null when not measured. */
  readonly hottest: number | null;
  /** Room, K; null when not noted. */
  readonly ambient: number | null;
  /** Power left after a fold-back, W; null when it does not apply. */
  readonly after: number | null;
}

/** An adjustable level moved while loaded. */
export interface MoveRun extends RunHead {
  readonly kind: 'move';
  readonly fromVolts: number;
  readonly toVolts: number;
  /** A */
  readonly amps: number;
  readonly breaks: number;
  /** Longest break, s; null when there was none or it was not timed. */
  readonly longest: number | null;
  /** Lowest voltage seen, V; null when not seen. */
  readonly lowest: number | null;
}

/** One short step over the rating. */
export interface OverStep {
  /** A asked for */
  readonly asked: number;
  /** A read */
  readonly amps: number;
  /** V read */
  readonly volts: number;
  /** s */
  readonly seconds: number;
}

/** A search over the rating, seconds a step. */
export interface OverRun extends RunHead {
  readonly kind: 'over';
  /** Level, V */
  readonly volts: number;
  /** Rated current, A */
  readonly rated: number;
  readonly steps: readonly OverStep[];
  readonly attached: 'electronic load' | 'device';
  /** Stays off until unplugged; null when it never cut off. */
  readonly latched: boolean | null;
  /** Time to come back, s; null when it did not or it was not timed. */
  readonly recovery: number | null;
}

/** What one port of a loaded set gave. */
export interface SplitShare {
  readonly port: string;
  /** V and A read; null for a port without a meter. */
  readonly volts: number | null;
  readonly amps: number | null;
  /** Loaded lightly only, to see whether the others then get more. */
  readonly light: boolean;
  /** The device that took it; left out for a load, or one nobody named. */
  readonly device?: ShareDevice | null | undefined;
}

/** A real device on a port of a loaded set. */
export interface ShareDevice {
  readonly deviceId: string;
  /** State of charge as it was plugged in, 0…1; null when not noted. */
  readonly charge: number | null;
  /** How often it was plugged in until it charged; null when not counted. */
  readonly tries: number | null;
}

/** Several ports loaded together, in the order they were plugged in. */
export interface SplitRun extends RunHead {
  readonly kind: 'split';
  /** Ports in the order plugged; `port` is the first. */
  readonly order: readonly string[];
  readonly mains: Mains;
  readonly shares: readonly SplitShare[];
  /** W at the socket; null when not read. */
  readonly mainsWatts: number | null;
  readonly evidence: 'load' | 'device';
  /** What happened to ports that were running as the others came. */
  readonly drops: readonly Drop[];
}

export type Run = DeviceRun | HoldRun | MoveRun | OverRun | SplitRun;
export type RunKind = Run['kind'];

/** How a port came back. */
export const RETURNS = ['same level', 'lower level', 'stayed off'] as const;
export type Return = (typeof RETURNS)[number];

/** What happened to one running port. */
export interface Drop {
  /** The port that was running. */
  readonly port: string;
  /** The port something was plugged into or pulled from. */
  readonly cause: string;
  readonly how: 'plugged' | 'unplugged';
  /** Whether it dropped out at all. */
  readonly dropped: boolean;
  /** s without output; null when it was not timed or it did not drop. */
  readonly seconds: number | null;
  /** How far that may be off, s, by how often it was looked; left out where nobody knows. */
  readonly offBy?: number | null | undefined;
  /** Lowest voltage seen, V; null when not seen. */
  readonly lowest: number | null;
  readonly back: Return;
}
