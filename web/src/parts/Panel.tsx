// A white card that scrolls sideways by itself, so that the page never does.
import Box from '@mui/material/Box';
import type { ReactNode } from 'react';

export function Panel({ children }: { readonly children: ReactNode }) {
  return (
    <Box
      sx={{
        p: 1.5,
        mb: 1.5,
        border: 1,
        borderColor: 'divider',
        borderRadius: 1,
        bgcolor: 'background.paper',
        overflowX: 'auto',
      }}
    >
      {children}
    </Box>
  );
}
