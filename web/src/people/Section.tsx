// A part of one's account: its name with what it is for, and what is there.
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { type ReactNode, useId } from 'react';

interface Props {
  readonly title: string;
  readonly hint: string;
  readonly children: ReactNode;
}

export function Section({ title, hint, children }: Props) {
  const id = useId();
  return (
    <Box
      component="section"
      aria-labelledby={id}
      sx={{
        display: 'grid',
        gridTemplateColumns: { xs: '1fr', md: '200px minmax(0, 1fr)' },
        columnGap: 3,
        rowGap: 1,
        py: 2,
        borderTop: 1,
        borderColor: 'divider',
        '&:first-of-type': { borderTop: 0, pt: 0 },
      }}
    >
      <Box>
        <Typography variant="h2" id={id}>
          {title}
        </Typography>
        <Typography sx={{ fontSize: 13, color: 'text.secondary', overflowWrap: 'anywhere' }}>{hint}</Typography>
      </Box>
      <Box sx={{ display: 'grid', gap: 1, minWidth: 0, justifyItems: 'start', '& > [role=region]': { width: '100%' } }}>
        {children}
      </Box>
    </Box>
  );
}
