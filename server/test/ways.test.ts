// Instruments that are no socket: a growing file feeds live numbers, where the folders allow it; a serial port by its name.
import { appendFile, mkdir, mkdtemp, rm, symlink, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { InstrumentInput, LiveEvent, StoredInstrument } from '@lastmark/contract';
import request from 'supertest';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { Places } from '../src/links/places.ts';
import { type Harness, makers, startHarness } from '../testing/harness.ts';

let harness: Harness;
let make: ReturnType<typeof makers>;
let folder: string;
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'lastmark-ways-'));
  await mkdir(join(folder, 'logs'));
  harness = await startHarness('ways', { liveEvery: 10, places: new Places(undefined, [join(folder, 'logs')]) });
  make = makers(harness);
});
afterAll(async () => {
  await harness.stop();
  await rm(folder, { recursive: true });
});

const anInstrument = (part: Partial<InstrumentInput>): InstrumentInput => ({
  name: 'log of the inline meter',
  class: 'inline USB meter',
  firmware: '',
  calibrationDue: null,
  address: null,
  profileId: null,
  sees: null,
  specs: {},
  ...part,
});
const inline = (address: string) => anInstrument({ address, profileId: 'file-inline-usb-meter' });

/** Live numbers of an instrument until some of them are as wanted. */
async function heard(
  id: string,
  wanted: (values: readonly (number | null)[]) => boolean,
): Promise<readonly (number | null)[]> {
  return new Promise((resolve) => {
    const stop = harness.working.live.listen(
      (event: LiveEvent) => {
        if (event.instrumentId !== id || !wanted(event.values)) return;
        stop();
        resolve(event.values);
      },
      null,
      () => undefined,
    );
  });
}

describe('a growing file', () => {
  it('feeds live numbers, line by line', async () => {
    const path = join(folder, 'logs', 'inline.csv');
    await writeFile(path, 'time [s],Vbus [V],Ibus [mA]\n0,20.01,2250\n');
    const meter = await make.post<StoredInstrument>('/instruments', inline(`file:${path}`));
    await harness.working.roster.refresh();
    expect((await heard(meter.id, ([, volts]) => volts === 20.01))[2]).toBeCloseTo(2.25, 9);
    await appendFile(path, '1,19.5,2251\n');
    expect((await heard(meter.id, ([, volts]) => volts === 19.5))[2]).toBeCloseTo(2.251, 9);
  });

  it('outside the folders is refused when entered, however it is written; a link that leads outside when read', async () => {
    for (const path of ['/etc/passwd', join(folder, 'logs', '..', 'secret.csv'), join(folder, 'logs')]) {
      const answer = await request(harness.app)
        .post('/api/instruments')
        .send(inline(`file:${path}`));
      expect([path, answer.status, answer.body.detail]).toEqual([path, 422, expect.stringContaining('LASTMARK_LOGS')]);
    }
    const secret = join(folder, 'secret.csv');
    await writeFile(secret, 'V [V],I [A]\n1,2\n');
    await symlink(secret, join(folder, 'logs', 'link.csv'));
    const linked = await make.post<StoredInstrument>(
      '/instruments',
      inline(`file:${join(folder, 'logs', 'link.csv')}`),
    );
    const client = harness.working.links.of(linked);
    await expect.poll(() => client.traffic.map(({ text }) => text).join()).toContain('outside the folders');
    expect(client.state).not.toBe('up');
  });
});

describe('a serial port', () => {
  it('is known by its name; any other path of the machine is no address', async () => {
    await make.post<StoredInstrument>('/instruments', anInstrument({ address: 'serial:/dev/ttyUSB7@19200,7E1' }));
    const answer = await request(harness.app)
      .post('/api/instruments')
      .send(anInstrument({ address: 'serial:/dev/sda' }));
    expect([answer.status, answer.body.detail]).toEqual([422, expect.stringContaining('write it as')]);
  });
});
