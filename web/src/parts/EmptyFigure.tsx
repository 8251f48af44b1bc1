// A picture that is not there yet: its place, what it will show, and what to do for it.
import Box from '@mui/material/Box';
import { useTheme } from '@mui/material/styles';
import type { ReactNode } from 'react';
import { EMPTY_FIGURE } from './heights.ts';

interface Props {
  readonly says: string;
  readonly height?: number;
  /** The one thing to do for it. */
  readonly children?: ReactNode;
}

/** Axes, and the ghost of a curve. */
export function EmptyFigure({ says, height = EMPTY_FIGURE, children }: Props) {
  const { palette } = useTheme();
  return (
    <Box
      sx={{
        display: 'grid',
        placeItems: 'center',
        minHeight: height,
        p: 2,
        boxSizing: 'border-box',
        border: '1px dashed',
        borderColor: 'soft',
        borderRadius: 1,
        bgcolor: 'background.paper',
        textAlign: 'center',
      }}
    >
      <Box>
        <svg width="180" height="84" viewBox="0 0 180 84" aria-hidden="true">
          <path d="M12 4v68h164" fill="none" stroke={palette.soft} strokeWidth="1.5" />
          <path
            d="M22 62C40 30 60 22 90 19s56 0 76 7"
            fill="none"
            stroke={palette.soft}
            strokeWidth="2"
            strokeDasharray="5 5"
          />
          {[22, 54, 90, 128, 166].map((x, index) => (
            <circle
              key={x}
              cx={x}
              cy={[62, 28, 19, 20, 26][index]}
              r="4"
              fill={palette.background.paper}
              stroke={palette.soft}
              strokeWidth="1.5"
            />
          ))}
        </svg>
        <Box sx={{ color: 'text.secondary', mb: children ? 1.5 : 0 }}>{says}</Box>
        {children}
      </Box>
    </Box>
  );
}
