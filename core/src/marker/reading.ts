// What a marker answered, as a read-out: of the cable itself, or of the cable a port was read over.
import { markerIn } from '../read-out/marker.ts';
import type { ReadOut } from '../read-out/types.ts';

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
  info: null,
  extended: null,
  signals: [],
  unreachable: [],
  supersedes: null,
  withdrawn: false,
});
