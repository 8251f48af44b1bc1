// Who gets what on the simulated bench: a port's share of the power, and what it offers of it.
import { advertisedWatts, type SourceInfo, type SourceObject, voltsOf } from '@lastmark/core/pd';
import type { CableTruth, ChargerTruth, PortTruth } from './truth.ts';

/** A port of a charger. @throws RangeError for a label it does not have */
export function portOf({ ports }: Pick<ChargerTruth, 'ports'>, label: string): PortTruth {
  const port = ports.find((one) => one.label === label);
  if (!port) throw new RangeError(`There is no port ${label}.`);
  return port;
}

/** Power a port may give while these are occupied, W. */
export function shareOf(charger: ChargerTruth, label: string, occupied: readonly string[]): number {
  const { watts: alone } = portOf(charger, label);
  if (occupied.length <= 1 || !occupied.includes(label)) return alone;
  const rule = charger.allocations.find(
    ({ ports }) => ports.length === occupied.length && ports.every((port) => occupied.includes(port)),
  );
  if (rule) return Math.min(alone, rule.watts[label] ?? 0);
  const all = occupied.reduce((sum, port) => sum + portOf(charger, port).watts, 0);
  return all <= charger.nameplate ? alone : (alone * charger.nameplate) / all;
}

/** Watts as a port states them: whole ones, rounded down. */
const wholeWatts = (watts: number): number => Math.min(255, Math.floor(watts + 1e-6));

/** What a port states of its power: what it is built for, has with its share, and advertises of that. */
export function statedBy(
  { ports }: Pick<ChargerTruth, 'ports'>,
  { watts }: PortTruth,
  share: number,
  offers: readonly SourceObject[],
): SourceInfo {
  const maximum = wholeWatts(watts);
  const present = Math.min(maximum, wholeWatts(share));
  return {
    guaranteed: ports.length === 1,
    maximum,
    present,
    reported: Math.min(present, wholeWatts(advertisedWatts(offers))),
  };
}

/** What a port offers with a share of the power: cut down to it, and to what the cable's marker allows. */
export function offersWith(
  { offers, watts }: PortTruth,
  share: number,
  { marks }: Pick<CableTruth, 'marks'>,
): readonly SourceObject[] {
  const whole = share >= watts - 0.5;
  const epr = marks === '5 A EPR' && whole;
  const most = marks === '5 A' || marks === '5 A EPR' ? 5 : 3;
  /** Current that is left of an offer at a voltage, in the steps offers are told in. */
  const left = (amps: number, volts: number) =>
    Math.floor(Math.min(amps, most, whole ? amps : share / volts) * 100 + 1e-6) / 100;
  return offers.flatMap((object): SourceObject[] => {
    const range = voltsOf(object);
    if (!range || (range.high > 21.5 && !epr)) return [];
    if (!('amps' in object)) return [object];
    if (object.kind === 'spr-avs')
      return [{ ...object, amps: left(object.amps, 15), ampsAbove: left(object.ampsAbove, 20) }];
    const amps = left(object.amps, range.high);
    return amps < 0.5 ? [] : [{ ...object, amps }];
  });
}
