// Whether the window is too narrow for spine, work and ledger side by side: a small screen, or 200 % zoom.
import useMediaQuery from '@mui/material/useMediaQuery';

/** CSS px from which the spine stands beside the work. */
export const NARROW = 860;

export const useNarrow = (): boolean => useMediaQuery(`(max-width: ${NARROW - 1}px)`, { noSsr: true });
