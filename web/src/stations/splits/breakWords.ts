// How long a port was without output, and how far off that may be.
import { fixed, formatMeasured } from '@lastmark/core/quantity';

/**
 * @param seconds without output
 * @param offBy how far that may be off, s; left out or null for what was timed by hand
 * @example breakWords(0.82, 0.2) // '0.82 ± 0.20 s'
 */
export const breakWords = (seconds: number, offBy: number | null | undefined): string =>
  offBy == null ? `${fixed(seconds, 1)} s` : formatMeasured(seconds, offBy, 'duration', 's');
