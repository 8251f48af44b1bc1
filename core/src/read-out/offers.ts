// The offers of a read-out, decoded, and which read-outs stand.
import { decodeSource, type SourceObject, wordOf } from '../pd/index.ts';
import type { ReadOut, ReadOutConditions } from './types.ts';

export interface Offer {
  /** 1-based, as requests name it. */
  readonly position: number;
  readonly word: number;
  readonly object: SourceObject;
  /** Why it cannot be had in practice; null when nothing says so. */
  readonly unreachable: string | null;
}

/** All offers in order; place holders are left out, positions are kept. */
export function offersOf({ words, unreachable }: Pick<ReadOut, 'words' | 'unreachable'>): readonly Offer[] {
  return words.flatMap((text, index) => {
    const word = wordOf(text);
    const object = decodeSource(word);
    const position = index + 1;
    const reason = unreachable.find((one) => one.position === position)?.reason ?? null;
    return object.kind === 'empty' ? [] : [{ position, word, object, unreachable: reason }];
  });
}

/** Read-outs that stand: neither corrected nor withdrawn; oldest first. */
export function currentReadOuts(readOuts: readonly ReadOut[]): readonly ReadOut[] {
  const superseded = new Set(readOuts.map(({ supersedes }) => supersedes));
  return readOuts
    .filter(({ id, withdrawn }) => !superseded.has(id) && !withdrawn)
    .sort((a, b) => a.takenAt.localeCompare(b.takenAt));
}

const fullness = ({ occupied, marker, epr, words }: ReadOut): number =>
  (occupied.length === 0 ? 100 : 0) +
  (marker === '5 A EPR' ? 30 : marker === '5 A' || marker === 'captive' ? 20 : 0) +
  (epr ? 5 : 0) +
  // Of two analysers the one that saw more shows the port better.
  words.filter((word) => wordOf(word) !== 0).length / 20;

/**
 * The read-out that shows a port at its best: alone, over the most capable cable, the newest of equals.
 * Claims about a port are held against this one.
 */
export function bestReadOut(readOuts: readonly ReadOut[], port: string): ReadOut | undefined {
  return currentReadOuts(readOuts)
    .filter((one) => one.port === port)
    .reduce<ReadOut | undefined>((best, one) => (best && fullness(best) > fullness(one) ? best : one), undefined);
}

/** Whether more than 3 A could flow over the cable the read-out was taken with. */
export const fiveAmpCable = ({ marker }: Pick<ReadOutConditions, 'marker'>): boolean =>
  marker === '5 A' || marker === '5 A EPR' || marker === 'captive';
