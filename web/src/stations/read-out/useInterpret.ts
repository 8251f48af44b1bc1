// Decodes while one types: short text at once, a long listing in a worker.
import { type ByteOrder, checkOffers, type Finding } from '@lastmark/core/pd';
import { type Interpreted, interpret, type WordsAre } from '@lastmark/core/read-out';
import { wrap } from 'comlink';
import { startTransition, useEffect, useMemo, useState } from 'react';
import type { DecodeWork } from '../../workers/decode.worker.ts';

/** Text up to this length decodes within a frame. */
const SHORT = 4_000;

const UNREADABLE: Finding = {
  kind: 'unreadable',
  grade: 'fault',
  sentence: 'This text could not be read as a whole. Take it in smaller pieces.',
  positions: [],
};

export interface Decoded extends Omit<Interpreted, 'offers'> {
  readonly words: Uint32Array;
  /** Findings beyond those listed. */
  readonly more: number;
  readonly findings: readonly Finding[];
}

function decodeNow(text: string, order: ByteOrder, are: WordsAre): Decoded {
  const { offers, findings, ...rest } = interpret(text, order, are);
  return {
    ...rest,
    words: Uint32Array.from(offers),
    findings: [...findings, ...checkOffers(offers, rest.epr)],
    more: 0,
  };
}

/** What the text says. `busy` while a long one is being read; the last result stays meanwhile. */
export function useInterpret(text: string, order: ByteOrder, are: WordsAre): { decoded: Decoded; busy: boolean } {
  const long = text.length > SHORT;
  const short = useMemo(() => decodeNow(long ? '' : text, order, are), [long, text, order, are]);
  const [result, setResult] = useState<{ text: string; decoded: Decoded } | null>(null);
  useEffect(() => {
    if (!long) return;
    const worker = new Worker(new URL('../../workers/decode.worker.ts', import.meta.url), { type: 'module' });
    const { decode } = wrap<DecodeWork>(worker);
    let wanted = true;
    const failed = { ...decodeNow('', order, are), findings: [UNREADABLE] };
    void decode(text, order, are)
      .catch(() => failed)
      // Drawn in slices between frames: the list is long and the form around it large.
      .then((decoded) => wanted && startTransition(() => setResult({ text, decoded })));
    return () => {
      wanted = false;
      worker.terminate();
    };
  }, [long, text, order, are]);
  if (!long) return { decoded: short, busy: false };
  return { decoded: result?.decoded ?? short, busy: result?.text !== text };
}
