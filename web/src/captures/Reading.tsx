// How far the reading of a long file is, and how long it will still take.
import Box from '@mui/material/Box';
import LinearProgress from '@mui/material/LinearProgress';
import Typography from '@mui/material/Typography';
import { useState } from 'react';

interface Props {
  readonly name: string;
  readonly done: number;
  readonly total: number;
}

/** Before so much is read, the time left is a guess. */
const TELLING = 0.02;

export function Reading({ name, done, total }: Props) {
  const [begun] = useState(() => performance.now());
  const part = total > 0 ? Math.min(1, done / total) : 0;
  const left = part > TELLING ? ((performance.now() - begun) * (1 - part)) / part / 1000 : null;
  return (
    <Box sx={{ gridColumn: '1 / -1' }}>
      <Typography>
        Reading {name}
        {done > 0 ? `: ${Math.round(part * 100)} %` : ' …'}
        {left !== null && left >= 1 ? `, about ${Math.ceil(left)} s left` : ''}
      </Typography>
      <LinearProgress
        aria-label={`Reading ${name}`}
        variant={done > 0 ? 'determinate' : 'indeterminate'}
        value={part * 100}
      />
    </Box>
  );
}
