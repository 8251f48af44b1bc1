// What a marker answered, as a read-out: of the cable itself, or of the cable a port was read over.
import { decodeIdentity, wordOf } from '../pd/index.ts';
import type { Marker, ReadOut } from '../read-out/types.ts';

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

/** A read-out of one end of what sits in the line; without words nothing answered there. */
export const markerReadOut = (
  read: Pick<ReadOut, 'id' | 'port' | 'instrumentId' | 'takenAt' | 'source'> & {
    readonly cableWords: readonly string[];
    readonly note?: string;
    readonly temperature?: number | null;
  },
) => ({
  ...read,
  cableWords: [...read.cableWords],
  marker: markerIn(read.cableWords),
  note: read.note ?? '',
  temperature: read.temperature ?? null,
  occupied: [] as string[],
  askedWith: null,
  elapsed: null,
  words: [] as string[],
  epr: false,
  declared: null,
  signals: [],
  unreachable: [],
  supersedes: null,
  withdrawn: false,
});
