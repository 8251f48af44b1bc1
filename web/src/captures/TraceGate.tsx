// The whole of a trace, in the room of its picture: being fetched, failed, or there.
import type { TraceWindow } from '@lastmark/contract/types';
import { useQuery } from '@tanstack/react-query';
import type { ReactNode } from 'react';
import { QueryGate } from '../parts/QueryGate.tsx';
import { traceQuery } from './traceQuery.ts';

interface Props {
  readonly id: string;
  readonly buckets: number;
  /** What is being fetched, for the messages. */
  readonly what: string;
  /** How high its picture will be, px. */
  readonly height: number;
  readonly children: (trace: TraceWindow) => ReactNode;
}

export function TraceGate({ id, buckets, what, height, children }: Props) {
  return (
    <QueryGate query={useQuery(traceQuery(id, buckets))} what={what} height={height}>
      {children}
    </QueryGate>
  );
}
