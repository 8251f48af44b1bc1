// What every simulated instrument stands in, and how it writes its answers.
import { seededRandom } from '@lastmark/core/random';
import type { SimulatedBench } from './bench.ts';
import type { Clock } from './clock.ts';
import { type MeterErrors, meterOf } from './meter.ts';

export interface Surroundings {
  readonly bench: SimulatedBench;
  readonly clock: Clock;
  readonly seed: number;
  /** Factor the voltmeter at the port is off by; left out for none. */
  readonly drift?: number | undefined;
}

export const identity = (model: string): string => `Fernwall Workshop,${model},FW-0001,1.0`;
export const number = (value: number): string => (Number.isFinite(value) ? value.toPrecision(8) : '9.91E37');
export const celsius = (kelvin: number): number => kelvin - 273.15;

/** A meter of a class: the same seed and place give the same one. */
export const meter = (seed: number, place: number, errors: MeterErrors) =>
  meterOf(errors, seededRandom(seed * 101 + place));
