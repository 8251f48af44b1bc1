// Decodes long listings away from the screen. Words come back as one block that is handed over, not copied.
import { type ByteOrder, checkOffers } from '@lastmark/core/pd';
import { interpret, type WordsAre } from '@lastmark/core/read-out';
import { expose, transfer } from 'comlink';

const SHOWN_FINDINGS = 40;

const work = {
  decode: (text: string, order: ByteOrder, are: WordsAre) => {
    const { offers, findings, ...rest } = interpret(text, order, are);
    const all = [...findings, ...checkOffers(offers, rest.epr)];
    const words = Uint32Array.from(offers);
    return transfer(
      {
        ...rest,
        messages: [],
        words,
        findings: all.slice(0, SHOWN_FINDINGS),
        more: Math.max(0, all.length - SHOWN_FINDINGS),
      },
      [words.buffer],
    );
  },
};

export type DecodeWork = typeof work;

expose(work);
