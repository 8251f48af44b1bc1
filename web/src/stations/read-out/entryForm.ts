// The form of a read-out as text, and what is sent of it.
import type { ReadOutInput, StoredReadOut } from '@lastmark/contract/types';
import { type ByteOrder, wordText } from '@lastmark/core/pd';
import { parseCelsius, ROOM_RANGE, ZERO_CELSIUS } from '@lastmark/core/quantity';
import {
  bytesText,
  type Marker,
  markerIn,
  REVISIONS,
  type Revision,
  readInfo,
  type WordsAre,
} from '@lastmark/core/read-out';
import type { SignalResult } from '@lastmark/core/signal';
import { ulid } from 'ulid';
import { typedSi } from '../../parts/fields.tsx';
import type { UnreachableText } from './Unreachables.tsx';
import type { Decoded } from './useInterpret.ts';

export type Asked = Revision | 'not noted';
export const REVISION_CHOICES: readonly Asked[] = ['not noted', ...REVISIONS];
export type Looked = SignalResult | 'not looked for';
export const LOOKED: readonly Looked[] = ['not looked for', 'seen', 'not seen', 'cannot see'];

/** The dialog's fields as text. */
export interface Form {
  readonly port: string;
  readonly instrumentId: string;
  readonly text: string;
  readonly order: ByteOrder;
  readonly are: WordsAre;
  readonly cable: string;
  /** What the source states of its power: hexadecimal, or watts in words. */
  readonly info: string;
  readonly extended: string;
  readonly occupied: readonly string[];
  readonly marker: Marker;
  readonly askedWith: Asked;
  readonly declared: Asked;
  readonly temperature: string;
  readonly elapsed: string;
  readonly signals: Readonly<Record<string, Looked>>;
  readonly unreachable: readonly UnreachableText[];
  readonly note: string;
}

const kelvin = (text: string): number | null => {
  if (text.trim() === '') return null;
  const parsed = parseCelsius(text, ROOM_RANGE, 'room');
  return parsed.ok ? parsed.value : Number.NaN;
};

const noted = (asked: Asked): Revision | null => (asked === 'not noted' ? null : asked);

/** Words of the cable's own reply: of the text itself, or of the field beside it. */
export const replyOf = (decoded: Decoded, cableWords: readonly number[]): readonly string[] =>
  [...(decoded.identity.length > 0 ? decoded.identity : cableWords)].map(wordText);

/** The marker by its own reply, which counts before what is chosen; null where no cable answered, or the lead is captive. */
export function markerTold(reply: readonly string[], chosen: Marker): Marker | null {
  const told = chosen === 'captive' ? 'none' : markerIn(reply);
  return told === 'none' ? null : told;
}

const UNREAD_INFO = 'Eight digits such as 00412D2D, or watts: max 65, present 45, reported 45.';
const UNREAD_EXTENDED = 'Two digits a byte, at most 64 bytes.';

type Said = Pick<ReadOutInput, 'info' | 'extended'>;

/** What the source states, of the text itself before the fields beside it. */
export interface StatedForm {
  readonly kept: Said;
  /** What the text tells: it counts before what is typed. */
  readonly told: Said;
  /** Why what is typed cannot be read. */
  readonly unread: { readonly info?: string; readonly extended?: string };
}

export function statedOf(
  { info, extended, order }: Pick<Form, 'info' | 'extended' | 'order'>,
  decoded: Pick<Decoded, 'info' | 'extended'>,
): StatedForm {
  const told = {
    info: decoded.info === null ? null : wordText(decoded.info),
    extended: decoded.extended.length > 0 ? bytesText(decoded.extended) : null,
  };
  const word = readInfo(info, order);
  const bytes = extended.replace(/0x|[\s,;:-]/gi, '').toUpperCase();
  const sound = /^(?:[0-9A-F]{2}){1,64}$/.test(bytes);
  return {
    kept: {
      info: told.info ?? (word === null ? null : wordText(word)),
      extended: told.extended ?? (sound ? bytes : null),
    },
    told,
    unread: {
      ...(told.info === null && info.trim() !== '' && word === null ? { info: UNREAD_INFO } : {}),
      ...(told.extended === null && bytes !== '' && !sound ? { extended: UNREAD_EXTENDED } : {}),
    },
  };
}

/** A filled form as it is sent. */
export function toInput(
  form: Form,
  decoded: Decoded,
  cableWords: readonly number[],
  stated: Said,
  correct: StoredReadOut | null,
): ReadOutInput {
  const reply = replyOf(decoded, cableWords);
  return {
    id: ulid(),
    port: form.port,
    instrumentId: form.instrumentId,
    // A correction is about the same moment.
    takenAt: correct?.takenAt ?? new Date().toISOString(),
    occupied: form.occupied,
    marker: markerTold(reply, form.marker) ?? form.marker,
    askedWith: noted(form.askedWith),
    temperature: kelvin(form.temperature),
    elapsed: typedSi(form.elapsed, 'duration'),
    words: [...decoded.words].map(wordText),
    epr: decoded.epr,
    declared: decoded.declared ?? noted(form.declared),
    cableWords: [...reply],
    ...stated,
    signals: Object.entries(form.signals).flatMap(([mode, result]) =>
      result === 'not looked for' ? [] : [{ mode, result }],
    ),
    unreachable: form.unreachable.map(({ position, reason }) => ({
      position: Number(position),
      reason: reason.trim(),
    })),
    note: form.note.trim(),
    source: 'keypad',
    supersedes: correct?.id ?? null,
    withdrawn: false,
  };
}

export function fromReadOut(readOut: Partial<StoredReadOut>, before: Form): Form {
  const { words, cableWords, temperature, elapsed, signals, unreachable, askedWith, declared, occupied, marker, note } =
    readOut;
  const { info, extended } = readOut;
  return {
    ...before,
    ...(words ? { text: words.join('\n'), order: 'value' as const, are: 'offers' as const } : {}),
    ...(cableWords ? { cable: cableWords.join(' ') } : {}),
    ...(info ? { info } : {}),
    ...(extended ? { extended } : {}),
    ...(occupied ? { occupied } : {}),
    ...(marker ? { marker } : {}),
    ...(note === undefined ? {} : { note }),
    askedWith: askedWith ?? before.askedWith,
    declared: declared ?? before.declared,
    temperature: temperature == null ? before.temperature : (temperature - ZERO_CELSIUS).toFixed(1),
    elapsed: elapsed == null ? before.elapsed : `${elapsed} s`,
    ...(signals ? { signals: Object.fromEntries(signals.map(({ mode, result }) => [mode, result])) } : {}),
    ...(unreachable
      ? { unreachable: unreachable.map(({ position, reason }) => ({ position: String(position), reason })) }
      : {}),
  };
}

/** Nothing typed yet. */
export const emptyForm = (port: string, instrumentId: string): Form => ({
  port,
  instrumentId,
  text: '',
  order: 'value',
  are: 'offers',
  cable: '',
  info: '',
  extended: '',
  occupied: [],
  marker: '5 A',
  askedWith: 'not noted',
  declared: 'not noted',
  temperature: '',
  elapsed: '',
  signals: {},
  unreachable: [],
  note: '',
});

/** A text too long for a field to lay out: kept beside it, decoded all the same. */
export interface Listing {
  readonly name: string;
  readonly text: string;
}

/** Longest text the field itself takes, characters. */
export const LONGEST_TYPED = 20_000;
