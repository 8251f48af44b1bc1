// Limits at which loads go off, as they are typed.
import type { Limits } from '@lastmark/core/plan';
import { formatPlain } from '@lastmark/core/quantity';
import { typedSi } from './fields.tsx';

export const LIMIT_FIELDS = [
  { key: 'hottest', label: 'Hottest point, °C', quantity: 'temperature' },
  { key: 'volts', label: 'Voltage at a port, V', quantity: 'voltage' },
  { key: 'amps', label: 'Current at a port, A', quantity: 'current' },
  { key: 'watts', label: 'Power of a port, W', quantity: 'power' },
] as const;

export type LimitText = Record<keyof Limits, string>;

export const toLimitText = (limits: Limits | null): LimitText =>
  Object.fromEntries(
    LIMIT_FIELDS.map(({ key, quantity }) => {
      const value = limits?.[key] ?? null;
      return [key, value === null ? '' : formatPlain(value, quantity)];
    }),
  ) as LimitText;

/** Limits as typed; null for one left empty. NaN for one that cannot be read, which the server refuses. */
export const fromLimitText = (text: LimitText): Limits =>
  Object.fromEntries(LIMIT_FIELDS.map(({ key, quantity }) => [key, typedSi(text[key], quantity)])) as unknown as Limits;
