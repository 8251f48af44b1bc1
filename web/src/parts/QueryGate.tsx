// Every query's four states in one place: loading, failed, stale, and there.
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Skeleton from '@mui/material/Skeleton';
import Stack from '@mui/material/Stack';
import type { UseQueryResult } from '@tanstack/react-query';
import type { ReactNode } from 'react';
import { isRefused } from '../api/client.ts';
import { Room } from './Later.tsx';

interface Props<T> {
  readonly query: Pick<UseQueryResult<T>, 'data' | 'error' | 'isPending' | 'isFetching' | 'dataUpdatedAt' | 'refetch'>;
  /** What is being fetched, for the messages. */
  readonly what: string;
  /** How high what is fetched will be, px: of a picture, so that nothing below it moves when it comes or fails. */
  readonly height?: number;
  readonly children?: (data: T) => ReactNode;
}

export function Loading({ what }: { readonly what: string }) {
  return (
    <Stack spacing={1} sx={{ p: 3 }} role="status" aria-label={`Loading ${what}`}>
      <Skeleton variant="text" width={260} height={36} />
      <Skeleton variant="rounded" height={120} />
      <Skeleton variant="rounded" height={120} />
    </Stack>
  );
}

export function QueryGate<T>({ query, what, height, children }: Props<T>) {
  const { data, error, isPending, isFetching, dataUpdatedAt, refetch } = query;
  const again = (
    <Button color="inherit" size="small" disabled={isFetching} onClick={() => void refetch()}>
      Try again
    </Button>
  );
  const picture = height !== undefined;
  if (isPending) return picture ? <Room what={what} height={height} /> : <Loading what={what} />;
  if (data === undefined)
    return (
      <Box sx={{ minHeight: height, p: picture ? 0 : 2 }}>
        {isRefused(error) ? (
          <Alert severity="warning">{error.message}</Alert>
        ) : (
          <Alert severity="error" action={again}>
            Could not load {what}. {error?.message}
          </Alert>
        )}
      </Box>
    );
  return (
    <>
      {error && (
        <Alert severity="warning" action={again} sx={{ m: 2, mb: 0 }}>
          Showing {what} as of {new Date(dataUpdatedAt).toISOString().slice(11, 16)} UTC. {error.message}
        </Alert>
      )}
      {children?.(data)}
    </>
  );
}
