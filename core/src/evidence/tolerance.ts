// Voltage tolerance of a USB PD level at the receptacle.
import type { Limit } from '../decision/index.ts';
import type { RangeSupply } from '../reading/index.ts';

/**
 * The band a level must stay in at the receptacle, ripple included: 4.75–5.50 V for the fixed 5 V level, ±5 % for every
 * other and for every voltage of a range (USB PD R3.2, 7.1.4.2).
 * @param volts nominal level, V
 * @param own a tighter tolerance of the user's, as a fraction of the level; null takes the standard's
 * @param supply the range it was set in; undefined for a fixed level
 */
export function levelTolerance(
  volts: number,
  own: number | null = null,
  supply?: RangeSupply,
): Limit & { kind: 'within' } {
  if (!(volts > 0) || !Number.isFinite(volts)) throw new RangeError('A level has a voltage above zero.');
  const five = supply === undefined && Math.abs(volts - 5) < 1e-9;
  const low = five ? 4.75 : volts * 0.95;
  const high = five ? 5.5 : volts * 1.05;
  if (own === null) return { kind: 'within', low, high };
  return { kind: 'within', low: Math.max(low, volts * (1 - own)), high: Math.min(high, volts * (1 + own)) };
}
