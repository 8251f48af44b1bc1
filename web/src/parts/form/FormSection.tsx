// Fields that belong together, under a name, with a line that says what they are for.
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { type ReactNode, useId } from 'react';

interface Props {
  readonly title: string;
  readonly hint?: string;
  readonly children: ReactNode;
}

/** A group of a form. Fields keep one width, so that groups stand under each other. */
export function FormSection({ title, hint, children }: Props) {
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
        <Typography variant="h3" id={id}>
          {title}
        </Typography>
        {hint && (
          <Typography variant="body2" color="text.secondary">
            {hint}
          </Typography>
        )}
      </Box>
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: 'repeat(auto-fill, minmax(210px, 1fr))',
          gap: 1.5,
          alignItems: 'start',
        }}
      >
        {children}
      </Box>
    </Box>
  );
}
