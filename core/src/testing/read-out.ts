// Builders that let tests read as statements about read-outs.
import { encodeSource, parseOffer, wordText } from '../pd/index.ts';
import type { ReadOut } from '../read-out/types.ts';

let serial = 0;

const wordOf = (offer: string): string => {
  if (offer === '–') return wordText(0);
  const parsed = parseOffer(offer);
  if (!parsed.ok) throw new Error(parsed.reason);
  return wordText(encodeSource(parsed.object));
};

/** A read-out of C1 alone over a 5 A cable, with offers in words. */
export function aReadOut(offers: readonly string[], part: Partial<ReadOut> = {}): ReadOut {
  serial += 1;
  return {
    id: `o${serial}`,
    port: 'C1',
    instrumentId: 'analyser',
    takenAt: `2026-03-02T09:00:00.${String(serial).padStart(3, '0')}Z`,
    occupied: [],
    marker: '5 A',
    askedWith: '3.2',
    temperature: null,
    elapsed: null,
    words: offers.map(wordOf),
    epr: false,
    declared: null,
    cableWords: [],
    info: null,
    extended: null,
    signals: [],
    unreachable: [],
    note: '',
    source: 'keypad',
    supersedes: null,
    withdrawn: false,
    ...part,
  };
}
