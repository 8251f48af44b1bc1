// How a station looks: untouched, under way, done, found wanting. Four shapes; the colour only helps.
import type { StationLook } from '@lastmark/core/station';
import { useTheme } from '@mui/material/styles';
import type { ReactNode } from 'react';

const SHAPES: Readonly<Record<StationLook, ReactNode>> = {
  untouched: (
    <circle cx="8" cy="8" r="5.6" fill="none" stroke="currentColor" strokeWidth="1.4" strokeDasharray="2.2 2.2" />
  ),
  'under way': (
    <>
      <circle cx="8" cy="8" r="6" fill="none" stroke="currentColor" strokeWidth="1.6" />
      <path d="M8 2v12A6 6 0 0 1 8 2z" fill="currentColor" />
    </>
  ),
  done: <path d="M2.2 8.6l3.8 4L13.8 3.6" fill="none" stroke="currentColor" strokeWidth="2.4" />,
  'found wanting': <path d="M.6 1.8h14.8L8 15.2z" fill="currentColor" />,
};

interface Props {
  readonly look: StationLook;
  readonly size?: number;
  /** Said to those who do not see it; left out where words beside it say it already. */
  readonly label?: string;
}

export function StationMark({ look, size = 16, label }: Props) {
  const { palette } = useTheme();
  return (
    <svg
      width={size}
      height={size}
      viewBox="0 0 16 16"
      style={{ flexShrink: 0, color: look === 'found wanting' ? palette.error.main : palette.soft }}
      role={label ? 'img' : undefined}
      aria-label={label}
      aria-hidden={label ? undefined : true}
    >
      {label && <title>{label}</title>}
      {SHAPES[look]}
    </svg>
  );
}
