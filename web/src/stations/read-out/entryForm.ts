// The form of a read-out as text, and what is sent of it.
import type { ReadOutInput, StoredReadOut } from '@lastmark/contract/types';
import { type ByteOrder, wordText } from '@lastmark/core/pd';
import { parseCelsius, ROOM_RANGE, ZERO_CELSIUS } from '@lastmark/core/quantity';
import { type Marker, markerIn, REVISIONS, type Revision, type WordsAre } from '@lastmark/core/read-out';
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

/** A filled form as it is sent. */
export function toInput(
  form: Form,
  decoded: Decoded,
  cableWords: readonly number[],
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
    declared: noted(form.declared),
    cableWords: [...reply],
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
  return {
    ...before,
    ...(words ? { text: words.join('\n'), order: 'value' as const, are: 'offers' as const } : {}),
    ...(cableWords ? { cable: cableWords.join(' ') } : {}),
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
