// Which marker a reply to Discover Identity is of.
import { decodeIdentity, wordOf } from '../pd/index.ts';
import type { Marker } from './types.ts';

/**
 * What kind of marker answered with these words.
 * @param cableWords reply to Discover Identity, as hexadecimal words; empty where nothing answered
 * @example markerIn([]) // 'none'
 */
export function markerIn(cableWords: readonly string[]): Marker {
  const rating = decodeIdentity(cableWords.map(wordOf)).cable?.rating;
  if (!rating) return 'none';
  return rating.epr ? '5 A EPR' : rating.amps === 5 ? '5 A' : '3 A';
}
