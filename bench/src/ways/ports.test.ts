// A load of two channels with a port each, played by two small servers of their own.
import { type AddressInfo, createServer, type Server, type Socket } from 'node:net';
import { afterEach, describe, expect, it } from 'vitest';
import { ScpiClient } from '../scpi/index.ts';
import { overPorts, overSocket } from './index.ts';

const servers: Server[] = [];
const sockets: Socket[] = [];
const clients: ScpiClient[] = [];
afterEach(() => {
  for (const client of clients.splice(0)) client.close();
  for (const socket of sockets.splice(0)) socket.destroy();
  for (const server of servers.splice(0)) server.close();
});

/** A channel: keeps what it is told, answers questions. */
async function channel(answers: Readonly<Record<string, string>>) {
  const heard: string[] = [];
  const own: Socket[] = [];
  const server = createServer((socket) => {
    sockets.push(socket);
    own.push(socket);
    socket.on('error', () => undefined);
    let held = '';
    socket.on('data', (piece) => {
      held += piece.toString('latin1');
      for (let at = held.indexOf('\n'); at >= 0; at = held.indexOf('\n')) {
        const line = held.slice(0, at).trim();
        held = held.slice(at + 1);
        heard.push(line);
        const answer = line === 'SYST:ERR?' ? '0,"No error"' : answers[line];
        // In two pieces, as a slow port would.
        if (answer !== undefined) {
          socket.write(answer.slice(0, 1));
          setImmediate(() => {
            socket.write(`${answer.slice(1)}\r`);
            setImmediate(() => socket.write('\n'));
          });
        }
      }
    });
  });
  servers.push(server);
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  return { heard, sockets: own, port: (server.address() as AddressInfo).port };
}

async function load() {
  const one = await channel({ 'MEAS?': '20.02,2.25', 'INP?': '1' });
  const two = await channel({ 'MEAS?': '9.01,3.00', 'INP?': '1' });
  const client = new ScpiClient({
    way: overPorts([one, two].map(({ port }) => overSocket('127.0.0.1', port))),
    timeout: 1000,
    firstPause: 5,
  });
  clients.push(client);
  const up = () =>
    new Promise<void>((resolve) => {
      if (client.state === 'up') return resolve();
      const stop = client.onState((state) => {
        if (state !== 'up') return;
        stop();
        resolve();
      });
    });
  client.open();
  await up();
  return { one, two, client, up };
}

describe('channels with a port each', () => {
  it('a line goes to the channel turned to, the first at the beginning', async () => {
    const { one, two, client } = await load();
    await client.confirm('CURR 2.25');
    await client.confirm('@2');
    await client.confirm('CURR 3');
    expect(await client.query('MEAS?')).toBe('9.01,3.00');
    expect(one.heard).toEqual(['CURR 2.25', 'SYST:ERR?']);
    expect(two.heard).toEqual(['SYST:ERR?', 'CURR 3', 'SYST:ERR?', 'MEAS?']);
  });

  it('every channel is told, asked in order, and added up', async () => {
    const { one, two, client } = await load();
    await client.write('@* INP OFF', { urgent: true });
    expect(await client.query('@* MEAS?')).toBe('20.02,2.25,9.01,3.00');
    expect(await client.query('@+ INP?')).toBe('2');
    expect([one.heard, two.heard]).toEqual(Array.from({ length: 2 }, () => ['INP OFF', 'MEAS?', 'INP?']));
  });

  it('one port lost is the instrument lost, and it comes back whole', async () => {
    const { two, client, up } = await load();
    const down = new Promise<void>((resolve) => {
      const stop = client.onState((state) => {
        if (state !== 'down') return;
        stop();
        resolve();
      });
    });
    two.sockets[0]?.destroy();
    await down;
    await up();
    expect(await client.query('@+ INP?')).toBe('2');
  });

  it('a channel that is not there ends the connection instead of speaking to another', async () => {
    const { one, client } = await load();
    await expect(client.confirm('@3')).rejects.toThrow();
    expect(one.heard).toEqual([]);
  });
});
