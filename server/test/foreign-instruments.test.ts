// Instruments of another dialect than ours: a small analyser and a load played here, driven by profiles that are data.
import { type AddressInfo, createServer, type Server, type Socket } from 'node:net';
import type { InstrumentProfileInput, LiveEvent, StoredInstrument, StoredInstrumentProfile } from '@lastmark/contract';
import request from 'supertest';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Harness, makers, startHarness } from '../testing/harness.ts';

interface Played {
  readonly server: Server;
  readonly port: number;
  /** Lines as they came, without their ends. */
  readonly lines: string[];
  readonly close: () => Promise<void>;
}

/** A device that knows these lines; what it does not know it passes over in silence, as some do. */
async function play(end: string, answers: (line: string) => string | null): Promise<Played> {
  const lines: string[] = [];
  const sockets = new Set<Socket>();
  const server = createServer((socket) => {
    sockets.add(socket);
    let text = '';
    socket.on('error', () => undefined);
    socket.on('data', (piece) => {
      text += piece.toString('latin1');
      const parts = text.split(end);
      text = parts.pop() ?? '';
      for (const line of parts) {
        lines.push(line);
        const answer = answers(line);
        if (answer !== null) socket.write(`${answer}${end}`);
      }
    });
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  return {
    server,
    port: (server.address() as AddressInfo).port,
    lines,
    close: async () => {
      for (const socket of sockets) socket.destroy();
      await new Promise((resolve) => server.close(resolve));
    },
  };
}

let harness: Harness;
let make: ReturnType<typeof makers>;
let analyser: Played;
let load: Played;
/** What the analyser shows in place of its watts. */
let watts = '49.60W';
let on = false;
beforeAll(async () => {
  harness = await startHarness('foreign_instruments', { liveEvery: 25 });
  make = makers(harness);
  analyser = await play('\r', (line) => (line === 'READ' ? `PF=58.0%;P=${watts};U=0.2301kV;I=371.6mA` : null));
  load = await play('\r\n', (line) => {
    if (line === 'LOAD TOP START') on = true;
    if (line === 'LOAD ALL STOP') on = false;
    if (line === 'STATE') return on ? 'RUN' : 'IDLE';
    return line === 'ALL' ? `20.02 V  ${on ? '2.25' : '0.00'} A` : null;
  });
});
afterAll(async () => {
  await harness.stop();
  await analyser.close();
  await load.close();
});

const ANALYSER: InstrumentProfileInput = {
  title: 'Mill analyser',
  class: 'power analyser',
  commands: [{ action: 'all', command: 'READ', reply: 'U={volts}; I={amps}; P={watts}; PF={powerFactor}' }],
  examples: [
    {
      action: 'all',
      reply: 'PF=0.58;P=49.60W;U=230.1V;I=371.6mA',
      reads: 'volts 230.1, amps 0.3716, watts 49.6, powerFactor 0.58',
    },
  ],
  wire: { end: 'CR', errors: null, patience: 3, pause: 0, hello: ['REMOTE', 'RATE FAST'] },
};
const LOAD: InstrumentProfileInput = {
  title: 'Mill load',
  class: 'DC load',
  commands: [
    { action: 'channel', command: 'SELECT {channel}' },
    { action: 'amps', command: 'MODE CC\nSETPOINT {amps}' },
    { action: 'on', command: 'LOAD TOP START' },
    { action: 'off', command: 'LOAD ALL STOP' },
    { action: 'isOn', command: 'STATE', reply: '{on:RUN=1|IDLE=0}' },
    { action: 'all', command: 'ALL', reply: '{volts} {amps}' },
  ],
  channels: ['TOP', 'BOTTOM'],
  wire: { end: 'CR LF', errors: null, patience: 3, pause: 0.02, hello: [] },
};

async function add(profile: InstrumentProfileInput, port: number): Promise<StoredInstrument> {
  const { id } = await make.post<StoredInstrumentProfile>('/instrument-profiles', profile);
  return make.post<StoredInstrument>('/instruments', {
    name: profile.title,
    class: profile.class,
    firmware: '',
    calibrationDue: null,
    address: `127.0.0.1:${port}`,
    profileId: id,
    sees: null,
    specs: {},
  });
}

/** The newest event of an instrument that is as wanted. */
async function told(id: string, wanted: (event: LiveEvent) => boolean): Promise<LiveEvent> {
  return new Promise((resolve) => {
    const stop = harness.working.live.listen(
      (event) => {
        if (event.instrumentId !== id || !wanted(event)) return;
        stop();
        resolve(event);
      },
      null,
      () => undefined,
    );
  });
}

describe('an analyser that answers key=value with units, ends lines by a return, and has no clock', () => {
  let id: string;
  it('tells live numbers in our order, in SI', async () => {
    ({ id } = await add(ANALYSER, analyser.port));
    const { values } = await told(id, (event) => event.values.length > 0);
    expect(values).toEqual([null, 49.6, 230.1, 0.3716, 0.58]);
  });

  it('was greeted once, before anything was asked', () => {
    expect(analyser.lines.slice(0, 2)).toEqual(['REMOTE', 'RATE FAST']);
    expect(analyser.lines.filter((line) => line === 'REMOTE')).toHaveLength(1);
    expect(analyser.lines).not.toContain('SYST:ERR?');
  });

  it('that is over its range tells no number', async () => {
    watts = 'OVLD';
    const { values } = await told(id, (event) => event.values[1] === null);
    expect(values).toEqual([null, null, 230.1, 0.3716, 0.58]);
    watts = '49.60W';
  });

  it('that answers something else says what was not understood', async () => {
    watts = '49.60VA';
    const before = await told(id, (event) => event.values[1] === null);
    expect(before.values[2]).toBe(230.1);
    watts = '49.60W';
  });
});

describe('a load that knows its channels by name and says in words whether it is on', () => {
  it('is switched on, and off by Loads off, and believed only when it says IDLE', async () => {
    const { id } = await add(LOAD, load.port);
    const send = (command: string) => request(harness.app).post(`/api/instruments/${id}/commands`).send({ command });
    await send('LOAD TOP START').expect(201);
    expect(on).toBe(true);
    const { values } = await told(id, (event) => event.values[2] === 2.25);
    expect(values).toEqual([null, 20.02, 2.25]);
    const { body } = await request(harness.app).post('/api/loads-off').send({}).expect(201);
    expect(JSON.stringify(body)).not.toContain('Nobody knows');
    expect(on).toBe(false);
    expect(load.lines).toContain('STATE');
  });
});

describe('a load with a port for each channel', () => {
  it('is one instrument: live by channel, switched on at one, and off at all', async () => {
    const currents = [0, 0];
    const channels = await Promise.all(
      [20.02, 9.01].map((volts, index) =>
        play('\n', (line) => {
          if (line === 'INP ON') currents[index] = index + 1;
          if (line === 'INP OFF') currents[index] = 0;
          if (line === 'INP?') return currents[index] ? '1' : '0';
          return line === 'MEAS?' ? `${volts},${currents[index]}` : null;
        }),
      ),
    );
    const { id: profileId } = await make.post<StoredInstrumentProfile>('/instrument-profiles', {
      title: 'Twin load',
      class: 'DC load',
      commands: [
        { action: 'channel', command: '@{channel}' },
        { action: 'amps', command: 'CURR {amps}' },
        { action: 'on', command: 'INP ON' },
        { action: 'off', command: '@* INP OFF' },
        { action: 'isOn', command: '@+ INP?' },
        { action: 'all', command: '@* MEAS?', reply: '{volts1},{amps1},{volts2},{amps2}' },
      ],
      examples: [{ action: 'all', reply: '20.02,0,9.01,2', reads: 'volts1 20.02, amps1 0, volts2 9.01, amps2 2' }],
      wire: { end: 'LF', errors: null, patience: 3, pause: 0, hello: [] },
    } satisfies InstrumentProfileInput);
    const { id } = await make.post<StoredInstrument>('/instruments', {
      name: 'Twin load',
      class: 'DC load',
      firmware: '',
      calibrationDue: null,
      address: `127.0.0.1:${channels.map(({ port }) => port).join('+')}`,
      profileId,
      sees: null,
      specs: {},
    });
    const send = (command: string) => request(harness.app).post(`/api/instruments/${id}/commands`).send({ command });
    await send('@2').expect(201);
    await send('INP ON').expect(201);
    expect(currents).toEqual([0, 2]);
    const { values } = await told(id, (event) => event.values[4] === 2);
    expect(values).toEqual([null, 20.02, 0, 9.01, 2]);
    const { body } = await request(harness.app).post('/api/loads-off').send({}).expect(201);
    expect(JSON.stringify(body)).not.toContain('Nobody knows');
    expect(currents).toEqual([0, 0]);
    for (const { lines } of channels) expect(lines).toContain('INP OFF');
    await request(harness.app).delete(`/api/instruments/${id}`);
    await Promise.all(channels.map((one) => one.close()));
  });
});

describe('a profile', () => {
  it.each<[string, Partial<InstrumentProfileInput>, string]>([
    ['whose example reads otherwise', { examples: [{ action: 'all', reply: 'P=1 W', reads: 'watts 2' }] }, 'reads'],
    [
      'with a pattern that names what its action does not tell',
      { commands: [{ action: 'all', command: 'READ', reply: 'T={celsius}' }], examples: [] },
      '{celsius} is not asked of it',
    ],
    ['that greets with an empty line', { wire: { ...(ANALYSER.wire as object), hello: [''] } as never }, 'hello'],
  ])('%s is refused, and says why', async (_, part, says) => {
    const answer = await request(harness.app)
      .post('/api/instrument-profiles')
      .send({ ...ANALYSER, ...part })
      .expect(422);
    expect(JSON.stringify(answer.body)).toContain(says);
  });

  it('goes out and comes in as one file, and taking it in sends nothing anywhere', async () => {
    const { body } = await request(harness.app).get('/api/instrument-profiles').expect(200);
    const {
      id: _,
      version: __,
      builtIn: ___,
      ...file
    } = body.items.find(({ title }: StoredInstrumentProfile) => title === 'Mill load');
    const lines = load.lines.filter((line) => line !== 'ALL').length;
    const again = await make.post<StoredInstrumentProfile>('/instrument-profiles', {
      ...file,
      title: 'Mill load, again',
    });
    expect(again).toMatchObject({ ...LOAD, title: 'Mill load, again', builtIn: false });
    expect(load.lines.filter((line) => line !== 'ALL')).toHaveLength(lines);
  });
});
