// Which columns of a file count: a scope records more channels than the one that is meant, a logger more ports.
import Box from '@mui/material/Box';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import type { Recording } from './useRecording.ts';

export function ColumnsRead({ recording: { file, seen, only, setOnly } }: { readonly recording: Recording }) {
  // While it is read once more, the choice stays where it is.
  const [known, setKnown] = useState<{ readonly file: File | null; readonly all: readonly string[] }>({
    file: null,
    all: [],
  });
  if (seen && file && (known.file !== file || known.all.join() !== seen.all.join())) setKnown({ file, all: seen.all });
  const all = known.file === file ? known.all : [];
  if (all.length < 2) return null;
  const chosen = only ?? all;
  return (
    <TextField
      select
      label="Columns read"
      value={chosen}
      onChange={({ target }) => {
        const names = target.value as unknown as readonly string[];
        setOnly(names.length === all.length ? null : all.filter((one) => names.includes(one)));
      }}
      sx={{ gridColumn: '1 / -1' }}
      slotProps={{
        inputLabel: { shrink: true },
        select: {
          multiple: true,
          displayEmpty: true,
          renderValue: () => (chosen.length === all.length ? `all: ${all.join(', ')}` : chosen.join(', ') || 'none'),
        },
      }}
    >
      {all.map((name) => (
        <MenuItem key={name} value={name}>
          <Box component="span" aria-hidden sx={{ width: 24 }}>
            {chosen.includes(name) ? '✓' : ''}
          </Box>
          {name}
        </MenuItem>
      ))}
    </TextField>
  );
}
