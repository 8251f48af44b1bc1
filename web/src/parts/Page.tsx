// The head of every page and the room around it.
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import type { ReactNode } from 'react';
import { usePageTitle } from './usePageTitle.ts';

/** Room between a page and what stands beside it. */
export const PAGE_SIDE = { xs: 1.5, md: 3 } as const;

interface HeadProps {
  readonly title: string;
  /** One filled button at most: the next step. */
  readonly children?: ReactNode;
}

/** Title and actions; they wrap where there is no room. */
export function PageHead({ title, children }: HeadProps) {
  return (
    <Box
      sx={{
        display: 'flex',
        flexWrap: 'wrap',
        columnGap: 1,
        rowGap: 0.5,
        alignItems: 'center',
        mb: 1.5,
        minHeight: 37,
      }}
    >
      <Typography variant="h1" sx={{ flex: 1, minWidth: 'min-content', mr: 1 }}>
        {title}
      </Typography>
      {children}
    </Box>
  );
}

interface PageProps extends HeadProps {
  /** Actions of the head. */
  readonly actions?: ReactNode;
}

/** A page beyond a sample. */
export function Page({ title, actions, children }: PageProps) {
  usePageTitle(title);
  return (
    <Box sx={{ px: PAGE_SIDE, pt: 2.5, pb: 6 }}>
      <PageHead title={title}>{actions}</PageHead>
      {children}
    </Box>
  );
}
