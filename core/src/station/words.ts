// States as they are said; light enough for the first view.
import type { ClaimState } from '../evidence/index.ts';

/** A state as it is said: words that promise nothing testable are no fault of the program. */
export const stateWord = (state: ClaimState): string => (state === 'undefined' ? 'untestable' : state);
