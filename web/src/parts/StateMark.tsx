// A claim state as shape, word and colour; the shape alone is enough.
import type { ClaimState } from '@lastmark/core/claim';
import { stateWord } from '@lastmark/core/station';
import Box from '@mui/material/Box';
import type { Theme } from '@mui/material/styles';
import type { ReactNode } from 'react';

const SHAPES: Record<ClaimState, ReactNode> = {
  proven: (
    <>
      <circle cx="8" cy="8" r="7" fill="currentColor" />
      <path d="M4.6 8.3l2.3 2.3 4.5-4.8" stroke="var(--hole)" strokeWidth="1.9" fill="none" />
    </>
  ),
  assumed: (
    <>
      <circle cx="8" cy="8" r="6.1" fill="none" stroke="currentColor" strokeWidth="1.7" strokeDasharray="3 2" />
      <path d="M4.8 8.3l2.1 2.1 4.2-4.5" stroke="currentColor" strokeWidth="1.7" fill="none" />
    </>
  ),
  short: <path d="M1.2 2.4h13.6L8 14.4z" fill="currentColor" />,
  borderline: (
    <>
      <path d="M8 .8L15.2 8 8 15.2.8 8z" fill="none" stroke="currentColor" strokeWidth="1.7" />
      <path d="M8 .8L.8 8 8 15.2z" fill="currentColor" />
    </>
  ),
  'cannot be decided': (
    <>
      <circle cx="8" cy="8" r="6.1" fill="none" stroke="currentColor" strokeWidth="1.7" />
      <path d="M3.8 12.2l8.4-8.4" stroke="currentColor" strokeWidth="1.7" />
    </>
  ),
  'at least': <path d="M3 2v12M6.5 3l6 5-6 5" stroke="currentColor" strokeWidth="2" fill="none" />,
  'advertised only': (
    <>
      <rect x="1.8" y="1.8" width="12.4" height="12.4" fill="none" stroke="currentColor" strokeWidth="1.7" />
      <circle cx="8" cy="8" r="2.2" fill="currentColor" />
    </>
  ),
  unreachable: <path d="M2.5 2.5l11 11M13.5 2.5l-11 11" stroke="currentColor" strokeWidth="2.4" />,
  'not visible': (
    <path d="M1 8c4-6 10-6 14 0-4 6-10 6-14 0zM2.5 14L13.5 2" stroke="currentColor" strokeWidth="1.5" fill="none" />
  ),
  undefined: <path d="M1.5 9.5c3-5 5 2.5 7-1s4-2.5 6-.5" stroke="currentColor" strokeWidth="2" fill="none" />,
  'not tested': <circle cx="8" cy="8" r="6.1" fill="none" stroke="currentColor" strokeWidth="1.7" />,
};

/** What must be found in a second: a promise that fell short, or cannot be had. */
export const isLoud = (state: ClaimState): boolean => state === 'short' || state === 'unreachable';

/** What somebody still has to look at. */
export const isOpen = (state: ClaimState): boolean => state === 'borderline' || state === 'cannot be decided';

/** Colour a state is drawn in; neutral where there is nothing to worry or rejoice about. */
export function stateColour(state: ClaimState, theme: Theme): string {
  if (state === 'proven' || state === 'assumed') return theme.palette.success.main;
  if (isLoud(state)) return theme.palette.error.main;
  return isOpen(state) ? theme.palette.warning.main : theme.palette.soft;
}

interface Props {
  readonly state: ClaimState;
  /** Leave the word to a tooltip where space is scarce. */
  readonly bare?: boolean;
  /** Said instead of the state, where its own word would promise too much. */
  readonly word?: string;
}

/** The exception is louder than the rule: a filled plate, an outlined one, and plain words. */
function wordLook(state: ClaimState, { palette }: Theme): object {
  const plate = { px: 0.75, borderRadius: 0.75, fontWeight: 700, justifySelf: 'start' };
  if (isLoud(state)) {
    return { ...plate, bgcolor: palette.error.main, color: palette.error.contrastText, '--hole': palette.error.main };
  }
  if (isOpen(state)) {
    return {
      ...plate,
      bgcolor: palette.openGround,
      color: palette.warning.main,
      outline: '1.5px solid currentColor',
      outlineOffset: -1.5,
    };
  }
  const good = state === 'proven' || state === 'assumed';
  return {
    color: palette.soft,
    '& svg': { color: good ? palette.success.main : palette.soft },
    '--hole': palette.background.paper,
  };
}

export function StateMark({ state, bare = false, word = stateWord(state) }: Props) {
  return (
    <Box
      component="span"
      title={bare ? word : undefined}
      sx={(theme) => ({
        display: 'inline-flex',
        alignItems: 'center',
        gap: 0.75,
        whiteSpace: 'nowrap',
        ...(bare
          ? { color: stateColour(state, theme), '--hole': theme.palette.background.paper }
          : wordLook(state, theme)),
      })}
    >
      <svg
        width="14"
        height="14"
        viewBox="0 0 16 16"
        style={{ flexShrink: 0 }}
        role={bare ? 'img' : undefined}
        aria-label={bare ? word : undefined}
        aria-hidden={bare ? undefined : true}
      >
        {SHAPES[state]}
      </svg>
      {!bare && word}
    </Box>
  );
}
