import { SerialPortMock } from 'serialport';
import { afterEach, describe, expect, it } from 'vitest';
import { ScpiClient } from '../scpi/index.ts';
import { overSerial } from './index.ts';

const FRAME = { baud: 19_200, dataBits: 7, parity: 'even', stopBits: 1 } as const;
const clients: ScpiClient[] = [];
afterEach(() => {
  for (const client of clients.splice(0)) client.close();
  SerialPortMock.binding.reset();
});

const became = (client: ScpiClient, wanted: string) =>
  new Promise<void>((resolve) => {
    if (client.state === wanted) resolve();
    else client.onState((state) => state === wanted && resolve());
  });

describe('a serial port', () => {
  it('is opened with its frame, asked line by line, and believed line by line', async () => {
    const path = '/dev/ttyUSB0';
    SerialPortMock.binding.createPort(path, { echo: false, record: true });
    let port: SerialPortMock | null = null;
    let asked: object = {};
    const way = overSerial(path, FRAME, (settings) => {
      asked = settings;
      port = new SerialPortMock(settings);
      return port;
    });
    const client = new ScpiClient({ way, timeout: 2000, end: '\r\n' });
    clients.push(client);
    client.open();
    await became(client, 'up');
    expect(asked).toMatchObject({ path, baudRate: 19_200, dataBits: 7, parity: 'even', stopBits: 1 });
    const answer = client.query('VOLT?');
    const wire = (port as SerialPortMock | null)?.port;
    // The answer comes in pieces, as a slow wire brings it.
    for (const piece of ['20', '.01', '\r\n']) wire?.emitData(piece);
    expect(await answer).toBe('20.01');
    expect(String(wire?.recording)).toBe('VOLT?\r\n');
  });

  it('that is not there is away, and asked for again', async () => {
    const client = new ScpiClient({
      way: overSerial('/dev/ttyUSB99', FRAME, (s) => new SerialPortMock(s)),
      firstPause: 5,
    });
    clients.push(client);
    client.open();
    await became(client, 'down');
    SerialPortMock.binding.createPort('/dev/ttyUSB99', { echo: false });
    await became(client, 'up');
    expect(client.state).toBe('up');
  });
});
