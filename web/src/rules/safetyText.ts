// Whose limits the safety look is held against, as text in a form.
import { formatPlain } from '@lastmark/core/quantity';
import { SAFETY_LIMITS, type SafetyChoice, USUAL_SAFETY } from '@lastmark/core/safety';
import { typedSi } from '../parts/fields.tsx';

export interface SafetyText {
  /** Ids of limit sets, joined by +. */
  readonly safetySets: string;
  readonly safetyTouch: string;
}

/** Every set alone, all together, none. */
export const SAFETY_CHOICES: readonly { readonly value: string; readonly label: string }[] = [
  ...SAFETY_LIMITS.map(({ id, title }) => ({ value: id, label: title.toLowerCase() })),
  { value: SAFETY_LIMITS.map(({ id }) => id).join('+'), label: 'all of them' },
  { value: '', label: 'none' },
];

/** @example toSafetyText(null) // { safetySets: 'iec-62368-1', safetyTouch: '' } */
export function toSafetyText(choice: SafetyChoice | null | undefined): SafetyText {
  const { setIds, touch } = choice ?? { setIds: USUAL_SAFETY, touch: null };
  return {
    safetySets: SAFETY_LIMITS.flatMap(({ id }) => ((setIds as readonly string[]).includes(id) ? [id] : [])).join('+'),
    safetyTouch: touch === null ? '' : formatPlain(touch, 'current', 'µA'),
  };
}

/** NaN for what cannot be read, which the schema refuses in its own words. */
export const fromSafetyText = ({ safetySets, safetyTouch }: SafetyText): SafetyChoice => ({
  setIds: safetySets === '' ? [] : safetySets.split('+'),
  touch: typedSi(safetyTouch, 'current', 'µA'),
});
