// How a station looks from a metre away: four looks, each with its own shape.
import type { StationProgress } from './types.ts';

export const STATION_LOOKS = ['untouched', 'under way', 'done', 'found wanting'] as const;
export type StationLook = (typeof STATION_LOOKS)[number];

/**
 * What a station's progress looks like. Found wanting is louder than how far it is: a promise fell short, or what is
 * offered cannot be had. Nothing to do counts as untouched.
 * @example lookOf({ done: 3, total: 5, worst: 'short' }) // 'found wanting'
 * @example lookOf({ done: 3, total: 5, worst: 'proven' }) // 'under way'
 */
export function lookOf({ done, total, worst }: StationProgress): StationLook {
  if (worst === 'short' || worst === 'unreachable') return 'found wanting';
  if (!(done > 0)) return 'untouched';
  return done < total ? 'under way' : 'done';
}
