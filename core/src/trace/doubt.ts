// Numbers that cannot be in the unit that was assumed where none is stated.
import type { Channel } from './types.ts';

const SMALLER = { voltage: 'mV', current: 'mA', power: 'mW' } as const;
type Doubted = keyof typeof SMALLER;

/** What no output on a bench of chargers goes beyond: V, A, W. */
export const MOST_OUTPUT: Readonly<Record<Doubted, number>> = { voltage: 100, current: 30, power: 400 };
/** The same of the mains side, a surge included. */
export const MOST_MAINS: Readonly<Record<Doubted, number>> = { voltage: 600, current: 400, power: 4000 };

/**
 * Asks whether a column without a unit is in a smaller one than was assumed.
 * @param most SI; magnitudes beyond it cannot be
 * @returns the question with what to write, or null where there is nothing to ask
 * @example doubtOf({ name: 'Power', unit: '', values: [45_000] }, 'power', 400) // '“Power” reaches 45000: is that mW? …'
 */
export function doubtOf(
  { name, unit, values }: Pick<Channel, 'name' | 'unit' | 'values'>,
  quantity: Doubted,
  most: number,
): string | null {
  if (unit !== '') return null;
  let largest = 0;
  for (let at = 0; at < values.length; at += 1) largest = Math.max(largest, Math.abs(values[at] as number) || 0);
  const small = SMALLER[quantity];
  return largest > most
    ? `“${name}” reaches ${Number(largest.toPrecision(4))}: is that ${small}? Write the unit behind its name, as in “${name} [${small}]”.`
    : null;
}
