// A wire to an instrument that remembers every line and by which connection it came.
import { type AddressInfo, createConnection, createServer, type Socket } from 'node:net';

export interface WireLine {
  /** Counts connections up, in the order they were made. */
  readonly connection: number;
  readonly at: number;
  readonly text: string;
}

/** Whether a line does more than ask. */
export const commands = ({ text }: WireLine): boolean => !text.split(';').every((part) => part.includes('?'));

/** Lay a wire to a port on loopback. */
export async function layWire(to: number) {
  const lines: WireLine[] = [];
  const sockets = new Set<Socket>();
  let connections = 0;
  const server = createServer((near) => {
    connections += 1;
    const connection = connections;
    const far = createConnection({ host: '127.0.0.1', port: to });
    let text = '';
    near.on('data', (piece) => {
      text += piece.toString('latin1');
      const parts = text.split('\n');
      text = parts.pop() ?? '';
      for (const part of parts) lines.push({ connection, at: performance.now(), text: part });
    });
    near.pipe(far);
    far.pipe(near);
    for (const socket of [near, far]) {
      sockets.add(socket);
      socket.on('error', () => undefined);
      socket.on('close', () => {
        near.destroy();
        far.destroy();
        sockets.delete(socket);
      });
    }
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  return {
    port: (server.address() as AddressInfo).port,
    lines,
    connections: () => connections,
    close: async () => {
      for (const socket of sockets) socket.destroy();
      await new Promise((resolve) => server.close(resolve));
    },
  };
}
