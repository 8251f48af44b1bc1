// How well the meters of a rig would know what is to be measured.
import type { Instrument, Rig } from '../reading/index.ts';
import { specUncertainty } from '../uncertainty/index.ts';

export type Read = 'volts' | 'amps' | 'watts';

/** U of a reading, k = 2, SI; null without a meter for it, Infinity where its accuracy is not stated. */
export type Meters = (read: Read, value: number) => number | null;

const QUANTITY = { volts: 'voltage', amps: 'current', watts: 'power' } as const;

/** @param rig whose meters @param instruments all there are */
export function metersOf({ meters }: Pick<Rig, 'meters'>, instruments: readonly Instrument[]): Meters {
  const ids = { volts: meters.outputVolts, amps: meters.outputAmps, watts: meters.mains } as const;
  return (read, value) => {
    const instrument = instruments.find(({ id }) => id === ids[read]);
    if (!instrument) return null;
    const spec = instrument.specs[QUANTITY[read]];
    return spec && Number.isFinite(value) ? 2 * specUncertainty(spec, value) : Number.POSITIVE_INFINITY;
  };
}

/** U of a power at a port, W: volts times amps of two meters. */
export function portWatts(meters: Meters, volts: number, amps: number): number | null {
  const [v, a] = [meters('volts', volts), meters('amps', amps)];
  return v === null || a === null ? null : Math.hypot(v * amps, a * volts);
}

/** U of an efficiency, as a part: output over input. */
export function efficiencyU(meters: Meters, ratio: number, volts: number, amps: number): number | null {
  const output = portWatts(meters, volts, amps);
  const watts = volts * amps;
  const input = ratio > 0 ? meters('watts', watts / ratio) : null;
  if (output === null || input === null || !(watts > 0)) return null;
  return ratio * Math.hypot(output / watts, (input * ratio) / watts);
}
