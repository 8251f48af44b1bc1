// A way to an instrument: bytes there and back. The client of the instrument minds lines, questions and time.
import type { TcpNetConnectOpts } from 'node:net';
import { createConnection } from 'node:net';

/** One connection on its way: what it tells, and what can be done with it. */
export interface Line {
  onOpen(told: () => void): void;
  onData(told: (piece: Uint8Array) => void): void;
  onError(told: (error: Error) => void): void;
  onClose(told: () => void): void;
  write(text: string): void;
  destroy(): void;
}

/** Begins a connection. @throws Error for an address nothing can be begun with */
export type Way = () => Line;

/** What every stream of Node has in common that a line needs. */
interface StreamLike {
  on(event: string, told: (...values: never[]) => void): unknown;
  write(text: string): unknown;
  destroy(): unknown;
}

/** A stream as a line. @param opened the event that says that it is open */
export const lineOf = (stream: StreamLike, opened: 'connect' | 'open'): Line => ({
  onOpen: (told) => void stream.on(opened, told),
  onData: (told) => void stream.on('data', told as (...values: never[]) => void),
  onError: (told) => void stream.on('error', told as (...values: never[]) => void),
  onClose: (told) => void stream.on('close', told),
  write: (text) => void stream.write(text),
  destroy: () => void stream.destroy(),
});

/** Raw TCP. @param lookup how a host name becomes an address; what it refuses is never connected */
export const overSocket =
  (host: string, port: number, lookup?: TcpNetConnectOpts['lookup']): Way =>
  () => {
    const socket = createConnection({ host, port, ...(lookup ? { lookup } : {}) });
    socket.setNoDelay(true);
    return lineOf(socket, 'connect');
  };
