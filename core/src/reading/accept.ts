// Gives an entered value its instrument and uncertainty: the one place where a value becomes a reading.
import { formatPlain, type QuantityId } from '../quantity/index.ts';
import {
  type AccuracySpec,
  isStated,
  product,
  readBy,
  specUncertainty,
  standardUncertainty,
  topOf,
} from '../uncertainty/index.ts';
import type { Instrument, Place, Rig } from './types.ts';

/** A value as entered, already in SI, before it has an uncertainty. */
export interface Entry {
  readonly quantity: QuantityId;
  readonly place: Place;
  readonly port: string | null;
  /** SI; null strikes out the reading it supersedes. */
  readonly value: number | null;
  readonly count: number;
  readonly spread: number;
  /** SI step of the last digit as written; 0 when it says nothing. Only a display, which has no spec, needs it. */
  readonly step: number;
}

export interface Accepted {
  readonly instrumentId: string | null;
  /** Standard uncertainty from the instrument, SI; null where its accuracy is not stated. */
  readonly u: number | null;
}

/** The instrument of a rig that reads a quantity at a place. */
function instrumentFor(entry: Entry, rig: Rig, instruments: readonly Instrument[]): Instrument | undefined {
  const { mains, outputVolts, outputAmps, loadEnd } = rig.meters;
  const output = entry.quantity === 'current' ? outputAmps : outputVolts;
  const behind: Readonly<Record<Place, string | null>> = {
    mains,
    port: output,
    'load-end': rig.outputPlace === 'load-end' ? output : loadEnd,
    display: null,
  };
  return instruments.find((instrument) => instrument.id === behind[entry.place]);
}

/** A full scale is read to its last digit: this little above it is still on it. */
const ON_SCALE = 1.0005;

/**
 * Why a reading cannot be one of its meter's, in a sentence: it lies above the top range, where the maker states nothing
 * and the meter shows what it likes. Null where it can, or where no range is stated.
 */
export function aboveRange(entry: Entry, rig: Rig, instruments: readonly Instrument[]): string | null {
  const meter = instrumentFor(entry, rig, instruments);
  const spec = meter?.specs[entry.quantity];
  const top = spec ? topOf(spec) : null;
  if (!meter || top === null || entry.value === null || Math.abs(entry.value) <= top * ON_SCALE) return null;
  const said = formatPlain(entry.value, entry.quantity);
  return `${said} is above the top range of "${meter.name}", ${formatPlain(top, entry.quantity)}: it cannot have read that.`;
}

/** Quantities no limit is held against by themselves. */
const NEVER_JUDGED: readonly QuantityId[] = ['duration', 'power-factor'];

/** Whether an instrument's calibration was overdue on the day of a reading. @param takenAt UTC ISO 8601 */
export const calibrationOverdue = ({ calibrationDue }: Pick<Instrument, 'calibrationDue'>, takenAt: string): boolean =>
  calibrationDue != null && calibrationDue < takenAt.slice(0, 10);

/** Whether anything is said about an instrument's calibration: the day of it, or the day it is good for. */
export const isCalibrationStated = ({ calibrationDue, calibratedOn }: Instrument): boolean =>
  (calibrationDue ?? calibratedOn ?? null) !== null;

/** The spec of a rig's meter for a quantity at a place, if the instrument has one. */
export function specFor(
  quantity: QuantityId,
  place: Place,
  rig: Rig,
  instruments: readonly Instrument[],
): AccuracySpec | undefined {
  const entry: Entry = { quantity, place, port: null, value: 0, count: 1, spread: 0, step: 0 };
  return instrumentFor(entry, rig, instruments)?.specs[quantity];
}

/** What reads a quantity at a place of a rig, as a source of uncertainty. */
export function readAt(
  value: number,
  quantity: QuantityId,
  place: Place,
  rig: Rig | undefined,
  instruments: readonly Instrument[],
) {
  const entry: Entry = { quantity, place, port: null, value, count: 1, spread: 0, step: 0 };
  const meter = rig && instrumentFor(entry, rig, instruments);
  return readBy(meter?.specs[quantity], value, { meter: meter?.id ?? null, quantity });
}

/**
 * The instrument and standard uncertainty of an entry.
 * Energy takes the relative uncertainty of the mean power; an output power given as such takes those of the volts and
 * amps entered with it. A charger's own display gets the rounding of its last digit: nobody states more about it.
 * A quantity nobody stated an accuracy for gets null: unknown, which is not nought. A counted time is exact, and a power
 * factor is told but never judged.
 * @param together everything entered for the same point, the entry included
 */
export function accept(
  entry: Entry,
  together: readonly Omit<Entry, 'step'>[],
  rig: Rig,
  instruments: readonly Instrument[],
): Accepted {
  const instrument = instrumentFor(entry, rig, instruments);
  const instrumentId = instrument?.id ?? null;
  if (entry.value === null || NEVER_JUDGED.includes(entry.quantity)) return { instrumentId, u: 0 };
  if (entry.place === 'display')
    return { instrumentId, u: entry.step > 0 ? entry.step / Math.sqrt(12) : entry.value === 0 ? 0 : null };
  const partner = (quantity: QuantityId) =>
    together.findLast(
      (other) => other.quantity === quantity && other.place === entry.place && other.port === entry.port,
    );
  if (entry.quantity === 'energy') {
    const seconds = partner('duration')?.value ?? 0;
    const spec = instrument?.specs.power;
    return {
      instrumentId,
      u: spec && seconds > 0 ? specUncertainty(spec, entry.value / seconds) * seconds : null,
    };
  }
  const spec = instrument?.specs[entry.quantity];
  const factors = (['voltage', 'current'] as const).map((quantity) => partner(quantity)?.value ?? null);
  const [volts, amps] = factors;
  if (entry.quantity === 'power' && entry.place !== 'mains' && volts != null && amps != null) {
    const watts = product(
      readAt(volts, 'voltage', entry.place, rig, instruments),
      readAt(amps, 'current', entry.place, rig, instruments),
    );
    if (isStated(watts)) return { instrumentId, u: standardUncertainty(watts) };
  }
  return { instrumentId, u: spec ? specUncertainty(spec, entry.value) : null };
}
