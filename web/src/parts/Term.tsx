// A word of the field that explains itself: on hover, on focus, and to those who hear it.
import Box from '@mui/material/Box';
import Tooltip from '@mui/material/Tooltip';
import type { ReactNode } from 'react';
import { type Term as Known, TERMS } from './terms.ts';

interface Props {
  readonly of: Known;
  /** As it stands in the sentence; the term itself when left out. */
  readonly children?: ReactNode;
}

export function Term({ of, children }: Props) {
  return (
    <Tooltip title={TERMS[of]} describeChild>
      <Box
        component="span"
        tabIndex={0}
        sx={{
          borderBottom: '1px dotted',
          borderColor: 'soft',
          cursor: 'help',
          '&:focus-visible': { outline: '3px solid', outlineColor: 'primary.main' },
        }}
      >
        {children ?? of}
      </Box>
    </Tooltip>
  );
}
