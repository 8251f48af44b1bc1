// Voltage tolerance of a USB PD level at the receptacle.
import type { Limit } from '../decision/index.ts';

/**
 * The band a fixed level must stay in at the receptacle, ripple included: 4.75–5.50 V for 5 V, ±5 % for every other
 * level (USB PD R3.2, 7.1.4.2). @param volts nominal level, V
 */
export function levelTolerance(volts: number): Limit & { kind: 'within' } {
  if (!(volts > 0) || !Number.isFinite(volts)) throw new RangeError('A level has a voltage above zero.');
  return Math.abs(volts - 5) < 1e-9
    ? { kind: 'within', low: 4.75, high: 5.5 }
    : { kind: 'within', low: volts * 0.95, high: volts * 1.05 };
}
