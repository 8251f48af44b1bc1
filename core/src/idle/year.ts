// What a constant draw takes and costs in the long run.
import { requireFinite } from '../uncertainty/index.ts';

/** Hours of the year, in thousands: W × 8.760 = kWh. */
const KILOHOURS_A_YEAR = 8.76;

/**
 * Energy of a constant draw over a year.
 * @param watts mean input power, W
 * @returns kWh. 0.045 W → 0.394 kWh
 */
export function yearlyKilowattHours(watts: number): number {
  requireFinite('idle power', watts);
  return watts * KILOHOURS_A_YEAR;
}

/** Cost of a constant draw over a year, in the currency of the tariff. */
export function yearlyCost(watts: number, tariffPerKilowattHour: number): number {
  requireFinite('tariff', tariffPerKilowattHour);
  return yearlyKilowattHours(watts) * tariffPerKilowattHour;
}

/**
 * Charge a constant draw takes from a store each day: (W/η + W_idle)·24/V.
 * @param watts draw at the mains side of the inverter, W
 * @param storeVolts 12 or 24 V
 * @param inverterEfficiency 0…1
 * @param inverterIdleWatts what the inverter takes for itself, W
 * @returns Ah a day
 */
export function ampHoursADay(
  watts: number,
  storeVolts: number,
  inverterEfficiency: number,
  inverterIdleWatts: number,
): number {
  if (!(inverterEfficiency > 0 && inverterEfficiency <= 1))
    throw new RangeError('Inverter efficiency is above 0 and at most 1.');
  if (!(storeVolts > 0)) throw new RangeError('The store has a voltage above zero.');
  return ((watts / inverterEfficiency + inverterIdleWatts) * 24) / storeVolts;
}
