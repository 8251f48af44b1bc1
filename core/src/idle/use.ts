// What a charger takes over a year of real use, off a small store, from a vehicle battery, and from a circuit of many.
import { requireFinite } from '../uncertainty/index.ts';

/** Hours of a day in each state; they add up to 24. */
export interface DayOfUse {
  /** Not plugged in, or switched off at the socket. */
  readonly off: number;
  readonly idle: number;
  /** About a tenth of its load: a device nearly full. */
  readonly light: number;
  /** Full load. */
  readonly active: number;
}

/** What is usual where nobody says otherwise: always plugged in, two hours at work, two more with devices nearly full. */
export const USUAL_DAY: DayOfUse = { off: 0, idle: 20, light: 2, active: 2 };

/** Input and output at one state, W. */
export interface StatePower {
  readonly input: number;
  readonly output: number;
}

export interface UseYear {
  /** kWh a year taken from the mains. */
  readonly taken: number;
  /** kWh a year that become heat. */
  readonly lost: number;
  /** Part of the loss that idle alone makes, 0…1; 0 when nothing is lost. */
  readonly idlePart: number;
}

const DAYS = 365;

/**
 * A year weighted by hours of use: idle alone misleads for a charger that always works.
 * @throws RangeError for hours that are negative or do not add up to 24
 */
export function usageYear(day: DayOfUse, idleWatts: number, light: StatePower, active: StatePower): UseYear {
  const hours = [day.off, day.idle, day.light, day.active];
  for (const hour of hours) if (!(hour >= 0)) throw new RangeError('Hours of a day are not negative.');
  if (Math.abs(hours.reduce((sum, hour) => sum + hour, 0) - 24) > 0.01)
    throw new RangeError('The hours of a day add up to 24.');
  for (const watts of [idleWatts, light.input, light.output, active.input, active.output])
    requireFinite('power', watts);
  const year = (watts: number, hour: number) => (watts * hour * DAYS) / 1000;
  const idle = year(idleWatts, day.idle);
  const lost = idle + year(light.input - light.output, day.light) + year(active.input - active.output, day.active);
  return {
    taken: idle + year(light.input, day.light) + year(active.input, day.active),
    lost,
    idlePart: lost > 0 ? idle / lost : 0,
  };
}

/**
 * Days until a constant drain takes a battery from one level to another. The battery's own discharge comes on top.
 * @param ampHours capacity, Ah
 * @param amps drain, A
 * @param from and @param to levels, 0…1
 */
export function batteryDays(ampHours: number, amps: number, from: number, to: number): number {
  if (!(ampHours > 0) || !(amps > 0)) throw new RangeError('A battery has a capacity and a drain above zero.');
  if (!(from > to && to >= 0 && from <= 1)) throw new RangeError('It falls from the higher level to the lower one.');
  return (ampHours * (from - to)) / amps / 24;
}

/** What some chargers of one kind draw from a circuit together. */
export interface CircuitDraw {
  /** W */
  readonly watts: number;
  /** VA: what the wire and the fuse see. */
  readonly voltAmps: number;
  /** A rms */
  readonly amps: number;
  /** A rms as a part of what the circuit is for. */
  readonly share: number;
}

/**
 * Active and apparent power of several chargers on one circuit, their current peaks taken as falling together.
 * @param ratedAmps what the circuit is for, A
 * @throws RangeError for a power factor outside 0…1, no volts or no amps
 */
export function circuitDraw(
  count: number,
  watts: number,
  powerFactor: number,
  volts: number,
  ratedAmps: number,
): CircuitDraw {
  if (!(count >= 0) || !(watts >= 0)) throw new RangeError('Count and power are not negative.');
  if (!(powerFactor > 0 && powerFactor <= 1) || !(volts > 0))
    throw new RangeError('A power factor is above 0 and at most 1; a circuit has volts.');
  if (!(ratedAmps > 0)) throw new RangeError('A circuit is for more than 0 A.');
  const voltAmps = (count * watts) / powerFactor;
  const amps = voltAmps / volts;
  return { watts: count * watts, voltAmps, amps, share: amps / ratedAmps };
}

/** Highest current of several switched on at once, A: their surges fall together, less what the wiring limits. */
export function surgeTogether(count: number, peaks: readonly number[]): number {
  if (!(count >= 0)) throw new RangeError('A count is not negative.');
  return count * Math.max(0, ...peaks);
}

/** Part of a day's sun that a draw from the store takes. @param ampHours a day @param sunWattHours a day, above 0 */
export function sunShare(ampHours: number, storeVolts: number, sunWattHours: number): number {
  if (!(sunWattHours > 0)) throw new RangeError('A day with sun has more than 0 Wh.');
  return (ampHours * storeVolts) / sunWattHours;
}

/** Current a draw takes from a DC supply, A. */
export function drainAmps(watts: number, volts: number): number {
  requireFinite('power', watts);
  if (!(volts > 0)) throw new RangeError('A supply has volts.');
  return watts / volts;
}
