// A trace that is in memory already.
import { TraceReader } from './reader.ts';
import type { TraceHints, TraceReading } from './types.ts';

/** Read a trace that is in memory. */
export function readTrace(content: Uint8Array | string, hints: TraceHints = {}): TraceReading {
  const bytes = typeof content === 'string' ? new TextEncoder().encode(content) : content;
  const reader = new TraceReader({ bytes: bytes.length, ...hints });
  for (let from = 0; from < bytes.length && !reader.failed; from += 1 << 20)
    reader.push(bytes.subarray(from, from + (1 << 20)));
  return reader.result();
}
