// Which column of a log is what: sensors, the room, and the output; without what a sensor tells that is not connected.
import { AMBIENT_NAME, assumedSays, type Channel, outputColumns, type Trace, words } from '../trace/index.ts';
import type { OutputLog } from './events.ts';

/** Temperatures there can be on a bench, °C. */
const POSSIBLE = { low: -40, high: 300 } as const;
/** Nothing on a bench is always hotter, °C, and everything is in kelvin. */
const KELVIN = 250;

export interface Roles {
  readonly sensors: readonly Channel[];
  readonly ambient: Channel | null;
  /** What was left out, in a sentence each. */
  readonly findings: readonly string[];
  readonly output: OutputLog | null;
}

export const finite = (values: ArrayLike<number>): number[] =>
  Array.from(values).filter((value) => Number.isFinite(value));

/** Values with gaps closed from before, and from after at the beginning. */
export function closed(values: ArrayLike<number>): Float64Array {
  const out = Float64Array.from(values);
  let last = finite(values)[0] ?? 0;
  for (let at = 0; at < out.length; at += 1) {
    if (Number.isFinite(out[at])) last = out[at] as number;
    else out[at] = last;
  }
  return out;
}

const possible = (value: number): boolean => value > POSSIBLE.low && value < POSSIBLE.high;

/** A column without what no bench has: what a sensor tells that is not connected. */
function cleared(channel: Channel): { readonly channel: Channel; readonly finding: string | null } {
  const wrong = finite(channel.values).filter((value) => !possible(value));
  const [first] = wrong;
  if (first === undefined) return { channel, finding: null };
  const values = Float64Array.from(channel.values, (value) => (possible(value) ? value : Number.NaN));
  const many = wrong.length === 1 ? 'One reading' : `${wrong.length} readings`;
  return {
    channel: { ...channel, values },
    finding: `${many} of ${channel.name} left out: ${Number(first.toPrecision(4))} °C is no temperature of a bench. Was it connected?`,
  };
}

export function rolesOf(trace: Trace, times: Float64Array): Roles {
  const { channels } = trace;
  const plausible = ({ values }: Channel) => finite(values).every(possible);
  const isAmbient = ({ name }: Channel) => AMBIENT_NAME.test(words(name));
  const known = channels.filter((channel) => channel.quantity === 'temperature' && !isAmbient(channel));
  // Columns named after places only: "front", "back".
  const placed = channels.filter((channel) => channel.quantity === null && channel.unit === '' && plausible(channel));
  const ambient =
    channels.find((one) => isAmbient(one) && (one.quantity === 'temperature' || one.quantity === null)) ?? null;
  const sensors = known.length > 0 ? known : placed.filter((channel) => !isAmbient(channel));
  const { volts, amps, power, several, doubts } = outputColumns(channels);
  const product =
    volts && amps ? Float64Array.from(volts.values, (value, at) => value * (amps.values[at] as number)) : null;
  const watts = power?.values ?? product;
  // Columns with a quantity and without a unit were told of by whoever read the file.
  const bare = [...sensors, ...(ambient ? [ambient] : [])].filter(({ unit }) => unit === '');
  const assumed = assumedSays(bare.filter(({ quantity }) => quantity === null).map(({ name }) => [name, '°C']));
  const warm = bare.find(({ values }) => finite(values).every((value) => value > KELVIN) && finite(values).length > 0);
  const doubt = warm
    ? [
        `“${warm.name}” never falls below ${KELVIN}: is that kelvin? Write the unit behind its name, as in “${warm.name} [K]”.`,
      ]
    : [];
  const own = sensors.map(cleared);
  const air = ambient && cleared(ambient);
  return {
    sensors: own.map(({ channel }) => channel),
    ambient: air && finite(air.channel.values).length > 0 ? air.channel : null,
    findings: [
      ...several,
      ...doubts,
      ...doubt,
      ...assumed,
      ...[...own, ...(air ? [air] : [])].flatMap(({ finding }) => finding ?? []),
    ],
    output:
      watts && finite(watts).length > 0
        ? { times, watts: closed(watts), volts: volts ? closed(volts.values) : null }
        : null,
  };
}
