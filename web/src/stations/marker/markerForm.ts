// A marker typed by form, as the words it would answer with.
import { type CableKind, decodeCable, encodeCable, wordText } from '@lastmark/core/pd';

export interface MarkerForm {
  /** What answered: words, a form, or nothing at all. */
  readonly by: 'words' | 'form' | 'no answer';
  readonly text: string;
  readonly kind: Extract<CableKind, 'passive' | 'active'>;
  readonly amps: '0' | '1' | '2';
  readonly volts: '0' | '3';
  readonly epr: 'yes' | 'no';
  readonly speed: '0' | '1' | '2' | '3' | '4';
}

export const AMPS = [
  { value: '1', label: '3 A' },
  { value: '2', label: '5 A' },
  { value: '0', label: 'not stated' },
] as const;
export const VOLTS = [
  { value: '0', label: '20 V' },
  { value: '3', label: '50 V' },
] as const;
export const SPEEDS = [
  { value: '0', label: 'USB 2.0' },
  { value: '1', label: 'Gen 1' },
  { value: '2', label: 'Gen 2' },
  { value: '3', label: 'Gen 3' },
  { value: '4', label: 'Gen 4' },
] as const;

/** An acknowledged Discover Identity reply, version 2.x; and what says passive or active cable. */
const REPLY = 0xff00a041;
const PRODUCT = { passive: 0x18000000, active: 0x20000000 } as const;

/**
 * The whole reply a form stands for. @returns words as eight hexadecimal digits
 * @example wordsOf({ kind: 'passive', amps: '2', volts: '3', epr: 'yes', speed: '0' }).at(-1) // '000A2640'
 */
export function wordsOf(form: Pick<MarkerForm, 'kind' | 'amps' | 'volts' | 'epr' | 'speed'>): readonly string[] {
  const cable = encodeCable({
    kind: form.kind,
    raw: {
      ...decodeCable(0, form.kind).raw,
      plug: 2,
      epr: form.epr === 'yes' ? 1 : 0,
      latency: 1,
      volts: Number(form.volts),
      amps: Number(form.amps),
      speed: Number(form.speed),
      ...(form.kind === 'active' ? { through: 1 } : {}),
    },
  });
  return [REPLY, PRODUCT[form.kind], 0, 0, cable].map(wordText);
}
