import { appendFile, mkdtemp, rename, rm, utimes, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { ScpiClient } from '../scpi/index.ts';
import { followFile } from './index.ts';

let folder: string;
const clients: ScpiClient[] = [];
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'lastmark-follow-'));
});
afterAll(async () => {
  for (const client of clients) client.close();
  await rm(folder, { recursive: true });
});

const became = (client: ScpiClient, wanted: string) =>
  new Promise<void>((resolve) => {
    if (client.state === wanted) resolve();
    else client.onState((state) => state === wanted && resolve());
  });

async function follow(name: string, text: string, now?: () => number, allowed = async () => true) {
  const path = join(folder, name);
  await writeFile(path, text);
  const client = new ScpiClient({ way: followFile(path, allowed, now), firstPause: 5 });
  clients.push(client);
  client.open();
  return { path, client };
}

const numbers = async (client: ScpiClient, question: string) => (await client.query(question)).split(',').map(Number);

describe('a growing file', () => {
  it('tells its newest whole line; one that is half written waits', async () => {
    const { path, client } = await follow('inline.csv', 'time;Vbus [mV];Ibus [mA]\n0,0;20010;2250,5\n');
    await became(client, 'up');
    const first = await numbers(client, 'LAST:OUT?');
    expect(first[1]).toBeCloseTo(20.01, 9);
    expect(first[2]).toBeCloseTo(2.2505, 9);
    await appendFile(path, '0,1;19980;2251\n0,2;15');
    expect((await numbers(client, 'LAST:OUT?')).slice(1)).toEqual([19.98, 2.251]);
    await appendFile(path, '000;2252\n');
    expect((await numbers(client, 'LAST:OUT?')).slice(1)).toEqual([15, 2.252]);
  });

  it('of a wall meter and of a thermometer is understood by names and units; any column can be asked by name', async () => {
    const wall = await follow('wall.csv', 'Time,Voltage (V),Current (A),Power (W),PF\n1,229.8,0.21,24.6,0.51\n');
    await became(wall.client, 'up');
    expect((await numbers(wall.client, 'LAST:IN?')).slice(1)).toEqual([24.6, 229.8, 0.21, 0.51]);
    const heat = await follow('heat.csv', 't\tFront\tBack\tRoom\ns\t°C\t°F\tK\n0\t41.5\t104\t298.15\n');
    await became(heat.client, 'up');
    expect((await numbers(heat.client, 'LAST:TEMP?')).map((one) => Math.round(one * 100) / 100)).toEqual([
      41.5, 40, 25,
    ]);
    expect(await heat.client.query('LAST:COL? Front')).toBe('41.5');
    expect(await heat.client.query('LAST:COL? Nowhere')).toBe('9.91E37');
  });

  it('that stopped growing tells nothing of now, and one begun anew is read anew', async () => {
    let clock = Date.now();
    const { path, client } = await follow('rests.csv', 'V [V],I [A]\n9.0,1.5\n', () => clock);
    await became(client, 'up');
    expect((await numbers(client, 'LAST:OUT?')).slice(1)).toEqual([9, 1.5]);
    clock += 20_000;
    expect((await numbers(client, 'LAST:OUT?')).slice(1)).toEqual([9.91e37, 9.91e37]);
    await writeFile(`${path}.new`, 'I [mA],V [V]\n500,5.1\n');
    await utimes(`${path}.new`, clock / 1000, clock / 1000);
    await rename(`${path}.new`, path);
    expect((await numbers(client, 'LAST:OUT?')).slice(1)).toEqual([5.1, 0.5]);
  });

  it('is never written to: a command is refused into its error queue', async () => {
    const { client } = await follow('commands.csv', 'V [V],I [A]\n9.0,1.5\n');
    await became(client, 'up');
    await expect(client.confirm('INP ON')).rejects.toMatchObject({ kind: 'instrument' });
  });

  it('that may not be read, or holds no table, does not come up, with the reason in its traffic', async () => {
    const barred = await follow('barred.csv', 'V [V],I [A]\n9.0,1.5\n', undefined, async () => false);
    await became(barred.client, 'down');
    expect(barred.client.traffic.at(-1)?.text).toContain('outside the folders');
    const empty = await follow('empty.csv', '');
    await became(empty.client, 'down');
    expect(empty.client.traffic.at(-1)?.text).toContain('empty.csv: The file is empty.');
  });
});
