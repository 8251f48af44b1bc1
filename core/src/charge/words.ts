// Levels and times of charges in words, each rounded one way everywhere.
import { formatPlain } from '../quantity/index.ts';

/** A level to a whole per cent. @example percentOf(0.204) // '20 %' */
export const percentOf = (level: number): string => formatPlain(Math.round(level * 100) / 100, 'efficiency');

/** A time to a whole minute. @example wholeMinutes(1500) // '25 min' */
export const wholeMinutes = (seconds: number): string => formatPlain(Math.round(seconds / 60) * 60, 'duration', 'min');

/** A time to a tenth of a minute. @example tenthMinutes(1350) // '22.5 min' */
export const tenthMinutes = (seconds: number): string => formatPlain(Math.round(seconds / 6) * 6, 'duration', 'min');
