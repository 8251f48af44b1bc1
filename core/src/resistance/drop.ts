// What a resistance means: the drop and loss at a current or a power, what is left at the device, and the limits for it.
import type { Side } from '../cable/index.ts';
import { type Decision, type DecisionRule, decide, type Limit } from '../decision/index.ts';
import { type Measured, propagate } from '../uncertainty/index.ts';

/** Most that may drop along one Type-C cable at its rated current, V. USB Type-C R2.3, 4.4.1 (VBUS) and 4.4.2 (ground). */
export const MOST_DROP: Readonly<Record<Side, number>> = { vbus: 0.5, ground: 0.25, loop: 0.75 };

export const SIDE_WORDS: Readonly<Record<Side, string>> = { loop: 'both conductors', vbus: 'VBUS', ground: 'ground' };

/** What may be along one side at a current. */
export const dropLimit = (side: Side): Limit => ({ kind: 'at-most', high: MOST_DROP[side] });

/**
 * Drop at a current, and whether it may be. A loop within its limit is necessary and not sufficient: each side has its own.
 * @example dropAt(measured(0.2, 0.001), 3, 'loop').decision.outcome // 'proven'
 */
export function dropAt(
  ohms: Measured,
  amps: number,
  side: Side,
  rule: DecisionRule = 'guarded',
): { readonly drop: Measured; readonly decision: Decision } {
  const drop = propagate(ohms.value * amps, [{ weight: amps, of: ohms }]);
  return { drop, decision: decide(drop, dropLimit(side), rule) };
}

export interface AtDevice {
  /** A that flow. */
  readonly amps: number;
  /** V left at the device. */
  readonly volts: number;
  /** W that warm the cable. */
  readonly loss: number;
  /** Loss as a part of what leaves the charger, 0…1. */
  readonly part: number;
}

/**
 * What reaches a device that takes a power whatever its voltage: V = (E + √(E² − 4·P·R))/2.
 * @param volts level at the charger, V @param watts what the device takes @param ohms of the loop
 * @returns null where that power cannot get through at all, or what is asked makes no sense
 * @example atDevice(20, 60, 0.2)?.volts // 19.38
 */
export function atDevice(volts: number, watts: number, ohms: number): AtDevice | null {
  if (!(volts > 0) || !(watts >= 0) || !(ohms >= 0) || ![volts, watts, ohms].every(Number.isFinite)) return null;
  const under = volts ** 2 - 4 * watts * ohms;
  if (under < 0) return null;
  const left = (volts + Math.sqrt(under)) / 2;
  const amps = watts / left;
  const loss = amps ** 2 * ohms;
  return { amps, volts: left, loss, part: watts + loss > 0 ? loss / (watts + loss) : 0 };
}

/**
 * Lowest voltage a device must still work at on a level: the source at its lower tolerance, less what a cable may drop.
 * USB PD R3.2, 7.1.4 with USB Type-C R2.3, 4.4: 5 V − 5 % − 0.75 V = 4.00 V.
 * @example leastAt(5) // 4
 */
export const leastAt = (level: number): number => level * 0.95 - MOST_DROP.loop;

export const DEVICE_FATES = ['stays', 'may step down', 'cannot get through'] as const;
export type DeviceFate = (typeof DEVICE_FATES)[number];

/** Whether a device keeps its level behind a drop. @param volts left at it; null where its power cannot get through */
export const fateOf = (level: number, volts: number | null): DeviceFate =>
  volts === null ? 'cannot get through' : volts < leastAt(level) ? 'may step down' : 'stays';
