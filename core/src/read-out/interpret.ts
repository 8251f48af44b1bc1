// From whatever a person pastes or types to offers, requests and a cable's reply: one door for all of it.
import {
  type ByteOrder,
  besideInfo,
  cableReply,
  decodeSource,
  describeOffer,
  type Finding,
  infoInWords,
  isExtendedBlock,
  type Message,
  type MessageKind,
  type RequestKind,
  readHex,
  requestKind,
  wordText,
} from '../pd/index.ts';
import { isList, isOfferLines, offerWords, readList } from './list.ts';
import { decimalWords, messagesIn, offersInLog, propertiesIn } from './log.ts';
import { REVISIONS, type ReadOut, type Revision } from './types.ts';

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
  readonly form: '' | 'words' | 'messages' | 'list' | 'lines' | 'open form' | 'info';
  readonly offers: readonly number[];
  readonly epr: boolean;
  readonly requests: readonly ReadRequest[];
  /** Words of a cable's Discover Identity reply. */
  readonly identity: readonly number[];
  /** Source info, where the source gave it. */
  readonly info: number | null;
  /** Extended source capabilities as bytes; empty where the source gave none. */
  readonly extended: readonly number[];
  /** Highest revision the source declared; null where it was not asked, or is none there is. */
  readonly declared: Revision | null;
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
  info: null,
  extended: [],
  declared: null,
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

/** Revision of a Revision message: its first two digits. USB Power Delivery R3.2, 6.4.12. */
function revisionOf(word: number | undefined): Revision | null {
  const [major = '', minor = ''] = wordText(word ?? 0);
  return REVISIONS.find((one) => one === `${major}.${minor}`) ?? null;
}

type FromMessages = Pick<
  Interpreted,
  'offers' | 'epr' | 'requests' | 'identity' | 'info' | 'extended' | 'declared' | 'findings'
>;

function fromMessages(messages: readonly Message[]): FromMessages {
  const last = (kind: MessageKind) => messages.findLast((one) => one.kind === kind);
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
    info: last('info')?.words[0] ?? null,
    extended: messages.findLast(({ kind, bytes }) => kind === 'extended' && isExtendedBlock(bytes))?.bytes ?? [],
    declared: revisionOf(last('revision')?.words[0]),
    findings: changedLists(lists.filter(({ kind }) => kind === list?.kind)),
  };
}

/** That a source changed what it offers while it was listened to: only the last of it is taken. */
function changedLists(lists: readonly Message[]): Finding[] {
  const different = new Set(lists.map(({ words }) => words.join())).size;
  return different < 2
    ? []
    : [
        {
          kind: 'offers-changed',
          grade: 'note',
          sentence: `${different} different lists of offers stand here; the last one counts. Enter each with its conditions.`,
          positions: [],
        },
      ];
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

/** Understand text that holds nothing else but what counts. */
function interpretWhole(text: string, order: ByteOrder, are: WordsAre, known: readonly number[]): Interpreted {
  if (isList(text) || isOfferLines(text)) {
    const { words, findings, readOut, several } = readList(text);
    const form = readOut || several.length > 0 ? 'open form' : isList(text) ? 'list' : 'lines';
    return { ...NOTHING, form, offers: words, epr: readOut?.epr ?? isEpr(words), readOut, several, findings };
  }
  const { form, words, messages, findings } = readHex(text, order);
  if (form === 'messages') {
    const from = fromMessages(messages);
    const turned = saysOther(from) ? [] : otherOrder(text, order, from.offers);
    return { ...NOTHING, form, messages, ...from, findings: [...turned, ...findings, ...from.findings] };
  }
  const read = { ...NOTHING, form, findings };
  if (are === 'identity') return { ...read, identity: words };
  if (are === 'request') return { ...read, requests: words.map((word) => requestOf(word, known, null)) };
  return { ...read, offers: words, epr: isEpr(words), findings: [...otherOrder(text, order, words), ...findings] };
}

/** Whether something beside offers was read. */
const saysOther = ({ requests, identity, info, extended }: FromMessages): boolean =>
  requests.length + identity.length + extended.length > 0 || info !== null;

const passedBy = (passed: number): Finding[] =>
  passed === 0
    ? []
    : [
        {
          kind: 'passed-over',
          grade: 'note',
          sentence: `${passed} ${passed === 1 ? 'line' : 'lines'} of a log passed over: no offer, request or identity stands there.`,
          positions: [],
        },
      ];

/** What a log has among other things; null where it has nothing. */
function interpretLog(text: string): Interpreted | null {
  const log = messagesIn(text);
  if (log) {
    const { messages, findings } = readHex(log.lines.join('\n'), 'wire');
    const from = fromMessages(messages);
    if (from.offers.length > 0 || saysOther(from))
      return {
        ...NOTHING,
        form: 'messages',
        messages,
        ...from,
        findings: [...passedBy(log.passed), ...findings, ...from.findings],
      };
  }
  const rows = propertiesIn(text);
  const lines = rows ? null : offersInLog(text);
  const decimal = rows || lines ? null : decimalWords(text);
  const read = rows
    ? offerWords(rows)
    : lines
      ? offerWords(lines.lines)
      : decimal
        ? { words: decimal, findings: [] }
        : null;
  if (!read) return null;
  return {
    ...NOTHING,
    form: decimal ? 'words' : 'lines',
    offers: read.words,
    epr: isEpr(read.words),
    findings: [...passedBy(lines?.passed ?? 0), ...read.findings],
  };
}

const DIGITS_ALONE = /^[\s0-9a-fx,;:]*$/i;

/** Whether all of it was read, as far as what was read can tell; digits alone in the other order are told, not turned. */
function isClear(read: Interpreted, text: string): boolean {
  const { offers, readOut, several, findings } = read;
  const kinds = new Set(findings.map(({ kind }) => kind));
  if (kinds.has('byte-order') && DIGITS_ALONE.test(text)) return true;
  if (kinds.has('unreadable') || kinds.has('cut-short')) return false;
  const other = saysOther(read) || several.length > 0 || readOut !== null;
  return other || beginsWithFive(offers);
}

/**
 * Understand text about what a charger offers: words, messages, offers in words, lists, read-outs; and logs that hold such beside
 * other things. Never throws.
 * @param known offers a bare request refers to
 */
export function interpret(text: string, order: ByteOrder, are: WordsAre, known: readonly number[] = []): Interpreted {
  if (text.trim() === '') return NOTHING;
  const info = infoInWords(text);
  const other = info === null ? text : besideInfo(text);
  if (other.trim() === '') return { ...NOTHING, form: 'info', info };
  const whole = interpretWhole(other, order, are, known);
  const read = isClear(whole, other) ? whole : (interpretLog(other) ?? whole);
  return read.info === null ? { ...read, info } : read;
}

/**
 * Source info typed by itself: eight digits, the message that gave it, or watts in words.
 * @returns null for empty text and what is none of these
 * @example readInfo('max 65 W, present 45 W, reported 45 W', 'value') // 0x00412d2d
 */
export function readInfo(text: string, order: ByteOrder): number | null {
  const { form, words, findings } = readHex(text, order);
  const [word] = words;
  if (form === 'words' && words.length === 1 && word !== undefined && findings.length === 0) return word;
  return interpret(text, order, 'offers').info;
}
