// Below every grid that is typed into: for when it counts, and what was corrected in it lately.

import type { Point } from '@lastmark/core/reading';
import Box from '@mui/material/Box';
import TextField from '@mui/material/TextField';
import { useSettings } from '../state/settings.tsx';
import { Corrections } from './Corrections.tsx';
import { MoveReadings } from './MoveReadings.tsx';
import { parseTaken } from './taken.ts';

/** @param points those the grid shows */
export function GridFoot({ points }: { readonly points: readonly Point[] }) {
  const { typedAs, change } = useSettings();
  const read = parseTaken(typedAs, new Date());
  return (
    <Box
      sx={{ display: 'flex', flexWrap: 'wrap', columnGap: 2, rowGap: 1, alignItems: 'start', mb: 1.5, fontSize: 14 }}
    >
      <Box sx={{ flex: '1 1 320px', pt: 1 }}>
        <Corrections points={points} />
        <MoveReadings points={points} />
      </Box>
      <TextField
        label="What is typed was taken"
        placeholder="now, or 2026-03-02 14:30"
        value={typedAs}
        error={'reason' in read}
        helperText={'reason' in read ? read.reason : undefined}
        onChange={(event) => change({ typedAs: event.target.value })}
        slotProps={{ inputLabel: { shrink: true }, htmlInput: { maxLength: 20, autoComplete: 'off' } }}
        sx={{ width: 230 }}
      />
    </Box>
  );
}
