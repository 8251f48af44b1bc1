import { type AddressInfo, createServer, type Server, type Socket } from 'node:net';
import { afterEach, describe, expect, it } from 'vitest';
import { ScpiClient } from '../scpi/index.ts';
import { overHislip } from './index.ts';

// An instrument of its own, written from the tables of IVI-6.1 with nothing of ours: bytes are put together by hand.
const head = (kind: number, control: number, parameter: number, length: number): Buffer =>
  Buffer.from([
    0x48,
    0x53,
    kind,
    control,
    (parameter >>> 24) & 255,
    (parameter >>> 16) & 255,
    (parameter >>> 8) & 255,
    parameter & 255,
    0,
    0,
    0,
    0,
    (length >>> 24) & 255,
    (length >>> 16) & 255,
    (length >>> 8) & 255,
    length & 255,
  ]);

interface Heard {
  readonly kind: number;
  readonly control: number;
  readonly parameter: number;
  readonly text: string;
}

const servers: Server[] = [];
const sockets: Socket[] = [];
const clients: ScpiClient[] = [];
afterEach(() => {
  for (const client of clients.splice(0)) client.close();
  for (const socket of sockets.splice(0)) socket.destroy();
  for (const server of servers.splice(0)) server.close();
});

async function instrument(answer: (heard: Heard, say: (piece: Buffer) => void) => void) {
  const heard: Heard[] = [];
  const server = createServer((socket) => {
    sockets.push(socket);
    socket.on('error', () => undefined);
    let held = Buffer.alloc(0);
    socket.on('data', (piece) => {
      held = Buffer.concat([held, piece]);
      while (held.length >= 16 && held.length >= 16 + held.readUInt32BE(12)) {
        const length = held.readUInt32BE(12);
        const one = {
          kind: held[2] ?? 0,
          control: held[3] ?? 0,
          parameter: held.readUInt32BE(4),
          text: held.toString('latin1', 16, 16 + length),
        };
        held = held.subarray(16 + length);
        heard.push(one);
        const say = (bytes: Buffer) => void socket.write(bytes);
        if (one.kind === 0) say(head(1, 0, (0x0100 << 16) | 77, 0));
        else if (one.kind === 17) say(head(18, 0, 0x5858, 0));
        else answer(one, say);
      }
    });
  });
  servers.push(server);
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const port = (server.address() as AddressInfo).port;
  const client = new ScpiClient({ way: overHislip('127.0.0.1', port, 'hislip0'), timeout: 2000, firstPause: 20 });
  clients.push(client);
  client.open();
  return { client, heard };
}

const up = (client: ScpiClient) =>
  new Promise<void>((resolve) => {
    if (client.state === 'up') resolve();
    else client.onState((state) => state === 'up' && resolve());
  });

const echo = ({ kind, parameter, text }: Heard, say: (piece: Buffer) => void) => {
  if (kind !== 7 || !text.includes('?')) return;
  const reply = Buffer.from(`said ${text}`);
  say(Buffer.concat([head(7, 0, parameter, reply.length), reply]));
};

describe('HiSLIP', () => {
  it('opens both channels in order, numbers its messages, and says when an answer was taken', async () => {
    const { client, heard } = await instrument(echo);
    await up(client);
    expect(await client.query('*IDN?')).toBe('said *IDN?');
    await client.write('CURR 2');
    expect(await client.query('MEAS:VOLT?')).toBe('said MEAS:VOLT?');
    expect(heard.map(({ kind, text }) => [kind, text])).toEqual([
      [0, 'hislip0'],
      [17, ''],
      [7, '*IDN?\n'],
      [7, 'CURR 2\n'],
      [7, 'MEAS:VOLT?\n'],
    ]);
    // The session the instrument named, and message numbers by two from 0xFFFFFF00.
    expect(heard.slice(1).map(({ parameter }) => parameter)).toEqual([77, 0xffffff00, 0xffffff02, 0xffffff04]);
    expect(heard.slice(2).map(({ control }) => control)).toEqual([0, 1, 0]);
  });

  it('puts an answer together that comes in pieces, and a block that holds line feeds', async () => {
    const { client } = await instrument(({ parameter, text }, say) => {
      if (text.startsWith('LINE')) {
        say(Buffer.concat([head(6, 0, parameter, 3), Buffer.from('1.2')]));
        say(Buffer.concat([head(7, 0, parameter, 2), Buffer.from('5\n')]));
      } else if (text.startsWith('DATA')) {
        const block = Buffer.from('#15\n\n\n\n\n');
        const message = Buffer.concat([head(7, 0, parameter, block.length), block]);
        for (const byte of message) say(Buffer.of(byte));
      }
    });
    await up(client);
    expect(await client.query('LINE?')).toBe('1.25');
    expect([...(await client.queryBlock('DATA?'))]).toEqual([10, 10, 10, 10, 10]);
    expect(await client.query('LINE?')).toBe('1.25');
  });

  it('a fatal error is noted and the connection made anew; what is no HiSLIP never comes up', async () => {
    let fatal = true;
    const { client } = await instrument((one, say) => {
      if (!fatal) return echo(one, say);
      fatal = false;
      say(Buffer.concat([head(2, 3, 0, 4), Buffer.from('full')]));
    });
    await up(client);
    await expect(client.query('*IDN?')).rejects.toMatchObject({ kind: 'down' });
    await up(client);
    expect(await client.query('*IDN?')).toBe('said *IDN?');
    expect(client.traffic.map(({ text }) => text)).toContain('HiSLIP ended with error 3: full');

    const plain = createServer((socket) => {
      sockets.push(socket);
      socket.on('error', () => undefined);
      socket.write('welcome to a plain socket\n');
    });
    servers.push(plain);
    await new Promise<void>((resolve) => plain.listen(0, '127.0.0.1', resolve));
    const way = overHislip('127.0.0.1', (plain.address() as AddressInfo).port, 'hislip0');
    const other = new ScpiClient({ way, firstPause: 10_000 });
    clients.push(other);
    other.open();
    await new Promise<void>((resolve) => other.onState((state) => state === 'down' && resolve()));
    expect(other.traffic.map(({ text }) => text)).toContain('It does not speak HiSLIP.');
  });
});
