// Which offer of a list a step asks for.
import { decodeSource, voltsOf, wordOf } from '../pd/index.ts';
import type { Output } from '../reading/index.ts';

/** A request: position in the list, and the voltage to ask for in a range. */
export interface LevelRequest {
  readonly position: number;
  /** V; null for a fixed level. */
  readonly volts: number | null;
}

/**
 * The position that gives a level: the fixed offer at its voltage, or the range of its kind that covers it.
 * @param words the offers as they stand now, eight hexadecimal digits each
 * @returns null when the list does not hold it
 */
export function requestFor(words: readonly string[], { volts, supply }: Output): LevelRequest | null {
  const found = words.flatMap((word, index) => {
    const object = decodeSource(wordOf(word));
    const range = voltsOf(object);
    if (!range || !('amps' in object || object.kind === 'epr-avs')) return [];
    const amps = 'amps' in object ? object.amps : 0;
    const fits = supply
      ? object.kind === supply && volts >= range.low - 1e-6 && volts <= range.high + 1e-6
      : object.kind === 'fixed' && Math.abs(object.volts - volts) <= 0.01 * volts;
    return fits ? [{ position: index + 1, volts: supply ? volts : null, amps }] : [];
  });
  const best = found.reduce<(typeof found)[number] | null>((a, b) => (a && a.amps >= b.amps ? a : b), null);
  return best && { position: best.position, volts: best.volts };
}

/** The fixed offer that gives most; null for a list without any. */
export function bestOffer(words: readonly string[], port: string): Output | null {
  return words.reduce<Output | null>((best, word) => {
    const object = decodeSource(wordOf(word));
    if (object.kind !== 'fixed' || !(object.volts > 0)) return best;
    const one = { port, volts: object.volts, amps: object.amps };
    return best && best.volts * best.amps >= one.volts * one.amps ? best : one;
  }, null);
}
