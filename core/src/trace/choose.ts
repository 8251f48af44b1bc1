// Which of several columns of one quantity is what a port gives: logs hold data lines, set points and extremes beside it.
import { isDataLine, isRead } from '../table/index.ts';
import { doubtOf, MOST_OUTPUT } from './doubt.ts';
import { words } from './names.ts';
import type { Channel, TraceReading } from './types.ts';

/** What goes in at the wall. */
const AT_WALL = /\b(?:[uvip] ?)?(?:in|ac)\b|\b(?:input|mains|wall|socket|outlet|grid)\b/i;
const AT_PORT = /out|port|load|bus|dc/i;

/** Whether a column tells what goes in at the wall. */
export const isAtWall = ({ name }: Pick<Channel, 'name'>): boolean => AT_WALL.test(words(name));

function rank(channel: Channel): number {
  if (!isRead(channel.name)) return 4;
  if (isAtWall(channel)) return 3;
  return AT_PORT.test(words(channel.name)) ? 1 : 2;
}

export interface Chosen {
  readonly channel: Channel;
  /** As good a choice: which one is meant nobody knows. */
  readonly others: readonly Channel[];
}

/**
 * The column of a quantity that is what the port gives.
 * @returns null where none is: a data line is none
 * @example chosenOf(channels, 'voltage')?.channel.name // 'Vbus', beside 'D+' and 'V set'
 */
export function chosenOf(channels: readonly Channel[], quantity: Channel['quantity']): Chosen | null {
  const all = channels.filter((one) => one.quantity === quantity && !isDataLine(one.name));
  const best = Math.min(...all.map(rank));
  const [channel, ...others] = all.filter((one) => rank(one) === best);
  return channel ? { channel, others } : null;
}

/** Above it no charger's output is a part of its input. */
const SAME_PLACE = 0.97;

/** Whether one is called what goes in, and the other what comes out. */
const areApart = (...columns: readonly (Channel | null)[]): boolean => {
  const places = columns.map((one) => one && rank(one));
  return places.includes(1) && places.includes(3);
};

export interface OutputColumns {
  readonly volts: Channel | null;
  readonly amps: Channel | null;
  /** Null where none is, or the only one is what goes in while volts and amps tell what comes out. */
  readonly power: Channel | null;
  /** Which of several columns is used, a sentence each. */
  readonly several: readonly string[];
  /** Which of them cannot be in the unit that was assumed, a question each. */
  readonly doubts: readonly string[];
}

/** What a port gives, out of the columns of a log: volts and amps, and watts where they are its own. */
export function outputColumns(channels: readonly Channel[]): OutputColumns {
  const chosen = (['voltage', 'current', 'power'] as const).map((quantity) => chosenOf(channels, quantity));
  const [someVolts = null, someAmps = null, power = null] = chosen.map((one) => one?.channel ?? null);
  // The product of volts and amps of different places is nobody's power.
  const apart = areApart(someVolts, someAmps);
  const [volts = null, amps = null] = [someVolts, someAmps].map((one) => (apart && one && isAtWall(one) ? null : one));
  const elsewhere =
    power && isAtWall(power) && volts && amps && !isAtWall(volts) && !isAtWall(amps) && !isProduct(power, volts, amps);
  const used = power && !elsewhere;
  const doubts = (['voltage', 'current', 'power'] as const).flatMap((quantity, at) => {
    const channel = quantity === 'power' && !used ? null : chosen[at]?.channel;
    return (channel && doubtOf(channel, quantity, MOST_OUTPUT[quantity])) ?? [];
  });
  const several = [
    ...severalSay(used ? chosen : chosen.slice(0, 2)),
    ...(apart
      ? [
          `“${someVolts?.name}” and “${someAmps?.name}” are of different sides of the charger: no power is made of them.`,
        ]
      : []),
  ];
  return { volts, amps, power: used ? power : null, several, doubts };
}

/** Whether watts, whatever they are called, are what volts and amps beside them make. */
function isProduct(power: Channel, volts: Channel, amps: Channel): boolean {
  let [made, told] = [0, 0];
  for (let at = 0; at < power.values.length; at += 1) {
    const product = (volts.values[at] as number) * (amps.values[at] as number);
    const watts = power.values[at] as number;
    if (!Number.isFinite(product) || !Number.isFinite(watts)) continue;
    made += product;
    told += watts;
  }
  return made > SAME_PLACE * told && told > SAME_PLACE * made;
}

const SAID: Readonly<Record<string, string>> = { voltage: 'volts', current: 'amps', power: 'watts', level: 'levels' };
const MOST_NAMED = 3;

/** Says which of several columns is used, a sentence each. */
export const severalSay = (chosen: readonly (Chosen | null)[]): string[] =>
  chosen.flatMap((one) =>
    one && one.others.length > 0
      ? [
          `Several columns of ${SAID[one.channel.quantity ?? ''] ?? 'values'}: “${one.channel.name}” is used, not ${one.others
            .slice(0, MOST_NAMED)
            .map(({ name }) => `“${name}”`)
            .join(', ')}${one.others.length > MOST_NAMED ? ' …' : ''}.`,
        ]
      : [],
  );

/**
 * A recording of some of its columns alone.
 * @param names of the columns that count, as they were read
 */
export function onlyChannels(reading: TraceReading, names: readonly string[]): TraceReading {
  if (!reading.ok) return reading;
  const channels = reading.trace.channels.filter(({ name }) => names.includes(name));
  return channels.length > 0
    ? { ok: true, trace: { ...reading.trace, channels } }
    : { ok: false, line: null, reason: 'No column is left: choose one.' };
}
