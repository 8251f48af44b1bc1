// From whatever a person pastes or types to offers, requests and a cable's reply: one door for all of it.
import {
  type ByteOrder,
  cableReply,
  decodeSource,
  describeOffer,
  type Finding,
  type Message,
  type RequestKind,
  readHex,
  requestKind,
} from '../pd/index.ts';
import { isList, isOfferLines, readList } from './list.ts';
import type { ReadOut } from './types.ts';

/** What bare words are; messages say it themselves. */
export type WordsAre = 'offers' | 'request' | 'identity';

export interface ReadRequest {
  readonly word: number;
  readonly kind: RequestKind;
  /** The offer asked for, where it is known. */
  readonly offer: number | null;
}

export interface Interpreted {
  /** How the text was taken, in words; empty for empty text. */
  readonly form: '' | 'words' | 'messages' | 'list' | 'lines' | 'open form';
  readonly offers: readonly number[];
  readonly epr: boolean;
  readonly requests: readonly ReadRequest[];
  /** Words of a cable's Discover Identity reply. */
  readonly identity: readonly number[];
  readonly messages: readonly Message[];
  readonly readOut: Partial<ReadOut> | null;
  /** Several read-outs in one text, of which one is to be chosen. */
  readonly several: readonly Partial<ReadOut>[];
  readonly findings: readonly Finding[];
}

const NOTHING: Interpreted = {
  form: '',
  offers: [],
  epr: false,
  requests: [],
  identity: [],
  messages: [],
  readOut: null,
  several: [],
  findings: [],
};

/** A list longer than the seven SPR places is an EPR one. */
const isEpr = (words: readonly number[]): boolean => words.length > 7;

function requestOf(word: number, offers: readonly number[], copy: number | null): ReadRequest {
  const position = Math.floor(word / 2 ** 28);
  const offer = copy ?? offers[position - 1] ?? null;
  return { word, kind: requestKind(offer === null ? undefined : decodeSource(offer)), offer };
}

function fromMessages(messages: readonly Message[]): Pick<Interpreted, 'offers' | 'epr' | 'requests' | 'identity'> {
  // A later list of offers replaces an earlier one, as it does for a device.
  const lists = messages.filter(({ kind }) => kind === 'offers' || kind === 'epr-offers');
  const list = lists.findLast(({ kind }) => kind === 'epr-offers') ?? lists.at(-1);
  const offers = list?.words ?? [];
  const requests = messages.flatMap(({ kind, words }) => {
    const [word, copy = null] = words;
    return word !== undefined && (kind === 'request' || kind === 'epr-request') ? [requestOf(word, offers, copy)] : [];
  });
  return {
    offers,
    epr: list?.kind === 'epr-offers',
    requests,
    identity: cableReply(messages.filter(({ kind }) => kind === 'identity').map(({ words }) => words)),
  };
}

const beginsWithFive = ([first]: readonly number[]): boolean => {
  const object = first === undefined ? null : decodeSource(first);
  return object?.kind === 'fixed' && object.volts === 5;
};

/** Offers of hexadecimal text, read in one byte order. */
function hexOffers(text: string, order: ByteOrder): readonly number[] {
  const { form, words, messages } = readHex(text, order);
  return form === 'messages' ? fromMessages(messages).offers : words;
}

/** Offers begin with 5 V: what does so only in the other byte order was written in that. */
function otherOrder(text: string, order: ByteOrder, offers: readonly number[]): Finding[] {
  if (beginsWithFive(offers)) return [];
  const others = hexOffers(text, order === 'wire' ? 'value' : 'wire');
  if (!beginsWithFive(others)) return [];
  const named = others
    .slice(0, SHOWN)
    .map((word) => describeOffer(decodeSource(word)))
    .join(', ');
  const sentence = `In the other order of digits it begins with ${named}: choose that order.`;
  return [{ kind: 'byte-order', grade: 'fault', sentence, positions: [] }];
}
const SHOWN = 3;

/**
 * Understand text about what a charger offers. Never throws.
 * @param known offers a bare request refers to
 */
export function interpret(text: string, order: ByteOrder, are: WordsAre, known: readonly number[] = []): Interpreted {
  if (text.trim() === '') return NOTHING;
  if (isList(text) || isOfferLines(text)) {
    const { words, findings, readOut, several } = readList(text);
    const form = readOut || several.length > 0 ? 'open form' : isList(text) ? 'list' : 'lines';
    return { ...NOTHING, form, offers: words, epr: readOut?.epr ?? isEpr(words), readOut, several, findings };
  }
  const { form, words, messages, findings } = readHex(text, order);
  if (form === 'messages') {
    const from = fromMessages(messages);
    const turned = from.requests.length + from.identity.length > 0 ? [] : otherOrder(text, order, from.offers);
    return { ...NOTHING, form, messages, ...from, findings: [...turned, ...findings] };
  }
  const read = { ...NOTHING, form, findings };
  if (are === 'identity') return { ...read, identity: words };
  if (are === 'request') return { ...read, requests: words.map((word) => requestOf(word, known, null)) };
  return { ...read, offers: words, epr: isEpr(words), findings: [...otherOrder(text, order, words), ...findings] };
}
