// Fields that belong together, under a name, with a line that says what they are for.
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { type ReactNode, useId } from 'react';

interface Props {
  readonly title: string;
  readonly hint?: string;
  /** What is there takes the whole width, one below the other: tables and sentences rather than fields. */
  readonly wide?: boolean;
  readonly children: ReactNode;
}

/** A group of a form. Fields keep one width, so that groups stand under each other. */
const FIELDS = {
  display: 'grid',
  gridTemplateColumns: 'repeat(auto-fill, minmax(210px, 1fr))',
  gap: 1.5,
  alignItems: 'start',
} as const;

const WIDE = {
  display: 'grid',
  gap: 1,
  minWidth: 0,
  justifyItems: 'start',
  '& > [role=region]': { width: '100%' },
} as const;

export function FormSection({ title, hint, wide = false, children }: Props) {
  const id = useId();
  return (
    <Box
      role="group"
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
        <Typography variant={wide ? 'h2' : 'h3'} id={id}>
          {title}
        </Typography>
        {hint && (
          <Typography variant="body2" color="text.secondary" sx={{ overflowWrap: 'anywhere' }}>
            {hint}
          </Typography>
        )}
      </Box>
      <Box sx={wide ? WIDE : FIELDS}>{children}</Box>
    </Box>
  );
}
