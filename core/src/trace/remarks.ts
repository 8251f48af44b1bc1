// What is said of a file beside its samples: units that were assumed, and how many cells told nothing.
import type { Head } from './head.ts';
import { assumedSays } from './names.ts';

/** A number with its noun and verb. */
export const counted = (count: number, one: string, many: string): string => `${count} ${count === 1 ? one : many}`;

const USUAL = { voltage: 'V', current: 'A', power: 'W', temperature: '°C', energy: 'Wh', level: '%' } as const;

/** Which units were assumed where none is stated: a file may mean others. */
export function assumedUnits(columns: Head['columns']): string[] {
  const assumed = columns.flatMap(({ name, role, form, unit, quantity, bare }): (readonly [string, string])[] => {
    if (unit !== '' || !bare) return [];
    if (role === 'time') return form === 'number' ? [[name, 's']] : [];
    return role === 'value' && quantity !== null ? [[name, USUAL[quantity]]] : [];
  });
  return assumedSays(assumed);
}
