// One line to an instrument, as nc would send it.
import { createConnection } from 'node:net';

/** Send a line to a loopback port; resolves once it is written and the connection closed. */
export const scpiLine = (port, line) =>
  new Promise((resolve, reject) => {
    const socket = createConnection({ host: '127.0.0.1', port }, () => socket.end(`${line}\n`));
    socket.once('close', resolve);
    socket.once('error', reject);
  });
