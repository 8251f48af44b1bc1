// Instruments that lie: floods, endless numbers, a line nobody asked for, a drip that never ends.

import { type AddressInfo, createServer, type Server, type Socket } from 'node:net';
import { afterEach, describe, expect, it } from 'vitest';
import { overSocket } from '../ways/index.ts';
import { ScpiClient, ScpiError } from './index.ts';

const servers: Server[] = [];
const sockets = new Set<Socket>();
const clients: ScpiClient[] = [];
afterEach(async () => {
  for (const client of clients.splice(0)) client.close();
  for (const socket of sockets) socket.destroy();
  for (const server of servers.splice(0)) await new Promise((resolve) => server.close(resolve));
});

/** A small server of a lab's own, answering each line as it likes. */
async function instrument(
  answer: (line: string, say: (text: string) => void) => void,
  greet: (socket: Socket) => void = () => undefined,
): Promise<{ client: ScpiClient; heard: string[] }> {
  const heard: string[] = [];
  const server = createServer((socket) => {
    sockets.add(socket);
    socket.on('error', () => undefined);
    greet(socket);
    let text = '';
    socket.on('data', (piece) => {
      text += piece.toString('latin1');
      const lines = text.split('\n');
      text = lines.pop() ?? '';
      for (const line of lines) {
        heard.push(line);
        answer(line, (said) => void socket.write(said));
      }
    });
  });
  servers.push(server);
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const client = new ScpiClient({
    way: overSocket('127.0.0.1', (server.address() as AddressInfo).port),
    timeout: 400,
    firstPause: 20,
    longestBlock: 600,
  });
  clients.push(client);
  client.open();
  return { client, heard };
}

/** How a question ended: its answer, or the kind of error. */
const ends = (work: Promise<unknown>) =>
  work.catch((error: unknown) => (error instanceof ScpiError ? error.kind : 'other'));
const until = async (met: () => boolean) => {
  for (let turn = 0; turn < 400; turn += 1) {
    if (met()) return;
    await new Promise((resolve) => setTimeout(resolve, 10));
  }
  throw new Error('It did not come to that.');
};

describe('an instrument that lies', () => {
  it('by a line nobody asked for does not shift the answers of later questions', async () => {
    let asked = 0;
    const { client } = await instrument((line, say) => {
      asked += 1;
      // The first answer has a line too many with it.
      say(asked === 1 ? `${line} first\nextra\n` : `${line} ${asked}\n`);
    });
    const answers = await Promise.all(['A?', 'B?', 'C?'].map((question) => ends(client.query(question))));
    expect(answers).toEqual(['A? first', 'down', 'down']);
    await until(() => client.state === 'up');
    // Connected anew, each question has its own answer.
    expect(await client.query('D?')).toMatch(/^D\? \d$/);
    expect(client.traffic.some(({ text }) => text.includes('what nobody asked'))).toBe(true);
  });

  it('by a late line is noticed as soon as it comes, and by an answer that is no error where one was asked for', async () => {
    const { client } = await instrument((line, say) => {
      if (line === 'SYST:ERR?') say('20.04,3.25\n');
      else if (line === 'A?') {
        say('1\n');
        setTimeout(() => say('late\n'), 60);
      } else if (line.endsWith('?')) say('2\n');
    });
    expect(await client.query('A?')).toBe('1');
    await until(() => client.state !== 'up');
    await until(() => client.state === 'up');
    expect(await ends(client.confirm('SET 1'))).toBe('garbled');
    expect(client.state).not.toBe('up');
  });

  it('by endless short lines is let go, and comes back ever more slowly', async () => {
    let connections = 0;
    const flood = '1\n'.repeat(32_000);
    const { client } = await instrument(
      () => undefined,
      (socket) => {
        connections += 1;
        const pour = () => {
          while (!socket.destroyed && socket.write(flood)) {
            /* as fast as it goes */
          }
        };
        socket.on('drain', pour);
        pour();
      },
    );
    let longest = 0;
    let last = performance.now();
    const beat = setInterval(() => {
      longest = Math.max(longest, performance.now() - last);
      last = performance.now();
    }, 5);
    await until(() => connections >= 4);
    clearInterval(beat);
    // Each time the pause doubles, though connecting worked each time: 20, 40, 80 ms.
    expect(client.traffic.length).toBeLessThan(500);
    expect(longest).toBeLessThan(1000);
  });

  it('by a reply of a million numbers is cut short', async () => {
    const { client } = await instrument((_line, say) => say(`${'1,'.repeat(450_000)}1\n`));
    expect(await ends(client.query('ALL?'))).toBe('down');
    expect(client.traffic.some(({ text }) => text.includes('65536'))).toBe(true);
  });

  it('by a drip does not keep a question open: a line has its time once, a block its own', async () => {
    const { client } = await instrument((line, say) => {
      if (line === 'BLOCK?') say('#9000001000');
      const drip = setInterval(() => say('5'), 50);
      setTimeout(() => clearInterval(drip), 3000);
    });
    const began = performance.now();
    expect(await ends(client.query('SLOW?'))).toBe('timeout');
    await until(() => client.state === 'up');
    expect(await ends(client.queryBlock('BLOCK?'))).toBe('timeout');
    expect(performance.now() - began).toBeLessThan(2800);
  });

  it('is told an urgent command as soon as it is there, whatever pause the connection is in', async () => {
    const { client, heard } = await instrument(() => undefined);
    await until(() => client.state === 'up');
    for (const socket of sockets) socket.destroy();
    await until(() => client.state === 'down');
    client.open();
    await client.write('OFF', { urgent: true });
    await until(() => heard.includes('OFF'));
  });

  it('a port that is none, or a gate that is shut, refuses without an exception', async () => {
    const nobody = new ScpiClient({ way: overSocket('127.0.0.1', 70_000), firstPause: 10_000 });
    clients.push(nobody);
    expect(() => nobody.open()).not.toThrow();
    expect(nobody.state).toBe('down');
    const { client, heard } = await instrument(() => undefined);
    await until(() => client.state === 'up');
    expect(await ends(client.write('ON', { gate: () => 'Not now.' }))).toBe('barred');
    await client.write('OFF');
    await until(() => heard.length > 0);
    expect(heard).toEqual(['OFF']);
  });
});
