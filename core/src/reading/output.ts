// One output at the receptacle, whichever place of the chain it was read at.
import { type Measured, measured, product, propagate } from '../uncertainty/index.ts';
import { asMeasured, readingAt } from './current.ts';
import type { Output, Place, Point, Rig } from './types.ts';

/** One output of a loaded point, at the receptacle. */
export interface OutputResult {
  readonly port: string;
  /** V at the receptacle */
  readonly volts: Measured;
  readonly amps: Measured;
  /** W at the receptacle */
  readonly watts: Measured;
}

/** Loop resistance of a rig's lead as it was entered, Ω; null for a rig that senses at the port. */
export const statedLead = ({ outputPlace, leadOhms, leadUOhms }: Rig): Measured | null =>
  outputPlace === 'load-end' && leadOhms > 0 ? measured(leadOhms, leadUOhms) : null;

/**
 * What was sensed at an end of a lead, at the receptacle: Vport = Vload + I·R and P = Vload·I + I²·R, so dP/dI = Vload + 2·I·R
 * and dP/dR = I².
 * @param lead loop resistance between the receptacle and where it was sensed, Ω; null for none
 * @param sensed W there, where they were formed sample by sample; V·I otherwise
 */
export function atReceptacle(
  port: string,
  volts: Measured,
  amps: Measured,
  lead: Measured | null,
  sensed = product(volts, amps),
): OutputResult {
  if (lead === null) return { port, volts, amps, watts: sensed };
  const drop = amps.value * lead.value;
  return {
    port,
    amps,
    volts: propagate(volts.value + drop, [
      { weight: 1, of: volts },
      { weight: lead.value, of: amps },
      { weight: amps.value, of: lead },
    ]),
    watts: propagate(sensed.value + amps.value * drop, [
      { weight: amps.value, of: volts },
      { weight: volts.value + 2 * drop, of: amps },
      { weight: amps.value ** 2, of: lead },
    ]),
  };
}

/**
 * Output of one port at the receptacle. See {@link atReceptacle}.
 * A mean power of many samples (from a meter file) is used as it stands: V·I is formed per sample, never from means.
 * @param place where it was sensed
 * @param lead loop resistance between the port and that place, Ω; null for none
 * @returns the output, or what is missing for it
 */
export function outputAtReceptacle(
  point: Pick<Point, 'readings'>,
  port: string,
  place: Place,
  lead: Measured | null,
): OutputResult | readonly string[] {
  const voltsReading = readingAt(point, 'voltage', place, port);
  const ampsReading = readingAt(point, 'current', place, port);
  const wattsReading = readingAt(point, 'power', place, port);
  const missing = [
    ...(voltsReading ? [] : [`output volts of ${port}`]),
    ...(ampsReading ? [] : [`output amps of ${port}`]),
  ];
  if (!voltsReading || !ampsReading) return missing;
  const volts = asMeasured(voltsReading);
  const amps = asMeasured(ampsReading);
  const sensed = wattsReading ? asMeasured(wattsReading) : product(volts, amps);
  return atReceptacle(port, volts, amps, place === 'port' ? null : lead, sensed);
}

/** Whether two lists ask for the same: ports, levels, ranges and currents, in any order. */
export const sameOutputs = (a: readonly Output[], b: readonly Output[]): boolean =>
  a.length === b.length &&
  a.every((one) =>
    b.some(
      (other) =>
        other.port === one.port &&
        other.supply === one.supply &&
        Math.abs(other.volts - one.volts) < 1e-3 &&
        Math.abs(other.amps - one.amps) < 1e-3,
    ),
  );

/** Currents are set to 10 mA, downwards so that no step asks for more than is offered. */
export const setAmps = (amps: number): number => Math.floor(amps * 100 + 1e-6) / 100;
