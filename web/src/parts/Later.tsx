// What is fetched when it is first wanted, in the room that it will take.
import Box from '@mui/material/Box';
import Skeleton from '@mui/material/Skeleton';
import { type ReactNode, Suspense } from 'react';

interface Room {
  /** What is fetched, for who hears it. */
  readonly what: string;
  /** How high it will be, px: what stands below must not move under a finger when it comes. */
  readonly height: number;
}

export function Room({ what, height }: Room) {
  return (
    <Box role="status" aria-label={`Loading ${what}`} sx={{ height }}>
      <Skeleton variant="rounded" height={height} />
    </Box>
  );
}

/** For what comes with code of its own. */
export function Later({ children, ...room }: Room & { readonly children: ReactNode }) {
  return <Suspense fallback={<Room {...room} />}>{children}</Suspense>;
}
