import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { type Rack, startRack } from '@lastmark/bench/sim';
import type { LiveEvent } from '@lastmark/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Harness, makers, startHarness } from '../testing/harness.ts';

let harness: Harness;
let rack: Rack;
let server: Server;
let url: string;
beforeAll(async () => {
  harness = await startHarness('live');
  rack = await startRack({ firstPort: 0, speed: 1, seed: 4 });
  const make = makers(harness);
  const add = (kind: string, on: keyof Rack['ports']) =>
    make.post('/instruments', {
      name: kind,
      class: kind,
      firmware: '',
      calibrationDue: null,
      address: `127.0.0.1:${rack.ports[on]}`,
      profileId: `built-in-${kind.toLowerCase().replaceAll(' ', '-')}`,
      sees: null,
      specs: {},
    });
  await add('power analyser', 'power-analyser');
  await add('DC load', 'dc-load');
  server = createServer(harness.app);
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  url = `http://127.0.0.1:${(server.address() as AddressInfo).port}/api/live`;
});
afterAll(async () => {
  await harness.stop();
  server.closeAllConnections();
  await new Promise((resolve) => server.close(resolve));
  await rack.close();
});

/** Read events until enough came, then hang up as a browser does. */
async function take(enough: (events: readonly LiveEvent[]) => boolean, lastId?: number): Promise<LiveEvent[]> {
  const stop = new AbortController();
  const answer = await fetch(url, {
    signal: stop.signal,
    headers: lastId === undefined ? {} : { 'Last-Event-ID': String(lastId) },
  });
  expect(answer.headers.get('content-type')).toContain('text/event-stream');
  const events: LiveEvent[] = [];
  let text = '';
  try {
    for await (const piece of answer.body as unknown as AsyncIterable<Uint8Array>) {
      text += new TextDecoder().decode(piece);
      const blocks = text.split('\n\n');
      text = blocks.pop() ?? '';
      for (const block of blocks) {
        const data = /^data: (.*)$/m.exec(block)?.[1];
        if (data) events.push(JSON.parse(data) as LiveEvent);
      }
      if (enough(events)) return events;
    }
  } finally {
    stop.abort();
  }
  return events;
}

const of = (events: readonly LiveEvent[], kind: string) => events.filter((event) => event.class === kind);

describe('the live stream', () => {
  it('tells every connected instrument’s numbers, several times a second', async () => {
    rack.bench.setSupply({ on: true });
    const events = await take(
      (all) =>
        of(all, 'DC load').length >= 8 &&
        of(all, 'power analyser').filter(({ values }) => values.length > 0).length >= 8,
    );
    const [time, watts, volts] = of(events, 'power analyser').findLast(({ values }) => values.length > 0)?.values ?? [];
    expect(time).toBeGreaterThan(0);
    expect(watts).toBeGreaterThan(-0.1);
    expect(volts).toBeCloseTo(230, 0);
    const span = (Date.parse(events.at(-1)?.at ?? '') - Date.parse(events[0]?.at ?? '')) / 1000;
    expect(events.length / Math.max(span, 0.1)).toBeGreaterThan(4);
  });

  it('gives a browser that comes back what it missed, in order and without a gap', async () => {
    const before = await take((all) => all.length >= 5);
    const last = before.at(-1)?.id ?? 0;
    // Someone else keeps looking, so that the instruments go on being asked.
    await take((all) => all.length >= 12);
    const after = await take((all) => all.length >= 10, last);
    expect(after.map(({ id }) => id)).toEqual(after.map((_, index) => last + 1 + index));
  });

  it('says that a meter stands still while the load is moved', async () => {
    rack.bench.plug('C1', true);
    rack.bench.setLoad('C1', { amps: 0.2, on: true });
    const drawn = (all: readonly LiveEvent[]) => of(all, 'DC load').at(-1)?.values[2] ?? 0;
    await take((all) => drawn(all) > 0.1);
    rack.fault('power-analyser', 'freeze');
    try {
      const told = (all: readonly LiveEvent[]) => of(all, 'power analyser').filter(({ values }) => values.length > 0);
      // For seconds the load stays where it is, and there is nothing to be said.
      const calm = await take((all) => {
        const since = told(all).find(({ values }) => values[0] === told(all).at(-1)?.values[0])?.at ?? '';
        return Date.parse(all.at(-1)?.at ?? '') - Date.parse(since) > 3500;
      });
      expect(calm.some(({ problem }) => problem?.includes('stands still'))).toBe(false);
      rack.bench.setLoad('C1', { amps: 2 });
      const events = await take(
        (all) => all.some(({ problem }) => problem?.includes('stands still')) || all.length > 400,
      );
      const problem = events.find((one) => one.problem?.includes('stands still'));
      expect(problem?.class).toBe('power analyser');
      expect(problem?.problem).toMatch(
        /^The same reading for \d+ s while the load went from [01]\.\d+ W to \d+(\.\d+)? W: the meter stands still/,
      );
    } finally {
      rack.fault('power-analyser', 'none');
    }
  });

  it('says when an instrument has gone, and goes on with the others', async () => {
    rack.fault('dc-load', 'hang');
    try {
      const events = await take(
        (all) => of(all, 'DC load').some(({ problem }) => problem !== null) || all.length > 400,
      );
      expect(of(events, 'DC load').find(({ problem }) => problem)?.problem).toMatch(
        /not answered within|does not answer/,
      );
      expect(of(events, 'power analyser').some(({ values }) => values.length > 0)).toBe(true);
    } finally {
      rack.fault('dc-load', 'none');
    }
  });
});
