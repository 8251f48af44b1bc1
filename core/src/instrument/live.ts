// What an instrument tells when it is asked for everything at once: the numbers of the live stream, by class.
import type { QuantityId } from '../quantity/index.ts';
import type { ProfileClass } from './actions.ts';

/** What one number of a reply means. */
export interface Meaning {
  /** `time` is the instrument's own clock, s. Temperatures are in °C as told. */
  readonly quantity: QuantityId | 'time';
  /** Channel it belongs to, from 1; null for the whole instrument or the channel it is set to. */
  readonly channel: number | null;
}

/** The action that tells all numbers of a class; classes left out tell none. */
export const LIVE_ACTION: Readonly<Partial<Record<ProfileClass, string>>> = {
  'power analyser': 'all',
  'DC load': 'all',
  thermometer: 'all',
  'thermal imager': 'all',
  'climate chamber': 'temperature',
  'bench multimeter': 'all',
  'plug-in wall meter': 'watts',
  'inline USB meter': 'all',
};

const whole = (...quantities: readonly Meaning['quantity'][]): readonly Meaning[] =>
  quantities.map((quantity) => ({ quantity, channel: null }));

const perChannel = (count: number, ...quantities: readonly QuantityId[]): readonly Meaning[] =>
  Array.from({ length: count }, (_, index) => {
    const quantity = quantities[index % quantities.length] ?? 'voltage';
    return { quantity, channel: Math.floor(index / quantities.length) + 1 };
  });

/** What the numbers of a class mean, in order. @param count how many came */
export function meaningsOf(kind: string, count: number): readonly Meaning[] {
  switch (kind as ProfileClass) {
    case 'power analyser':
      return whole('time', 'power', 'voltage', 'current', 'power-factor').slice(0, count);
    case 'DC load':
      return [...whole('time'), ...perChannel(Math.max(0, count - 1), 'voltage', 'current')].slice(0, count);
    case 'bench multimeter':
      return [...whole('time'), ...perChannel(Math.max(0, count - 1), 'voltage')].slice(0, count);
    case 'inline USB meter':
      return whole('time', 'voltage', 'current').slice(0, count);
    case 'plug-in wall meter':
      return whole('power').slice(0, count);
    case 'thermometer':
    case 'thermal imager':
    case 'climate chamber':
      return perChannel(count, 'temperature');
    default:
      return [];
  }
}

/** Where an instrument tells volts and amps of the same channel, by the order of its numbers. @param count how many came */
export function pairsOf(
  kind: string,
  count: number,
): readonly { readonly channel: number | null; readonly volts: number; readonly amps: number }[] {
  const meanings = meaningsOf(kind, count);
  return meanings.flatMap(({ quantity, channel }, volts) => {
    const amps = meanings.findIndex((one) => one.quantity === 'current' && one.channel === channel);
    return quantity === 'voltage' && amps >= 0 ? [{ channel, volts, amps }] : [];
  });
}

/**
 * Power of every channel of one reply, W: never mean volts × mean amps.
 * @returns null for a channel that did not tell both
 * @example powersOf('DC load', [0, 20, 2.25, 5, null]) // [45, null]
 */
export const powersOf = (kind: string, values: readonly (number | null)[]): readonly (number | null)[] =>
  pairsOf(kind, values.length).map(({ volts, amps }) => {
    const watts = (values[volts] ?? Number.NaN) * (values[amps] ?? Number.NaN);
    return Number.isFinite(watts) ? watts : null;
  });

/**
 * One number out of a reply.
 * @param values as told; what is no number is null or NaN
 * @param channel from 1; an instrument that tells only the channel it is set to answers for any
 * @returns null when it was not told
 */
export function toldNumber(
  kind: string,
  values: readonly (number | null)[],
  quantity: Meaning['quantity'],
  channel: number | null = null,
): number | null {
  const at = meaningsOf(kind, values.length).findIndex(
    (one) => one.quantity === quantity && (one.channel === null || one.channel === channel),
  );
  const value = at < 0 ? null : (values[at] ?? null);
  return value !== null && Number.isFinite(value) ? value : null;
}
