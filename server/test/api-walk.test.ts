// The walk of docs/api.md, run as it stands there.
import { readFileSync } from 'node:fs';
import request from 'supertest';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { aPoint, type Harness, makers, startHarness } from '../testing/harness.ts';

let harness: Harness;
beforeAll(async () => {
  harness = await startHarness('api_walk');
});
afterAll(() => harness.stop());

interface Command {
  readonly sets: string | null;
  readonly method: string;
  readonly path: string;
  readonly body: string | null;
}

const BLOCK = /```sh\n([\s\S]*?)```/g;
const CURL = /^(?:(\w+)=\$\()?curl -s (?:-X (\w+) )?\$URL(\S+?)(?: -d '([\s\S]*?)')?\)?\s*$/;

/** Every command of the page, in order. */
function commandsOf(page: string): Command[] {
  return [...page.matchAll(BLOCK)].map(([, block = '']) => {
    const [found, sets, method, path = '', body] = CURL.exec(block.trim()) ?? [];
    if (found === undefined) throw new Error(`Not understood: ${block}`);
    return { sets: sets ?? null, method: method ?? 'GET', path, body: body ?? null };
  });
}

describe('the walk of the page for scripts', () => {
  it('goes from intake to verdict and sheet', async () => {
    const commands = commandsOf(readFileSync(new URL('../../docs/api.md', import.meta.url), 'utf8'));
    expect(commands.length).toBeGreaterThan(8);
    const names = new Map<string, string>();
    const filled = (text: string) => text.replace(/\$([A-Z]+)/g, (_, name: string) => names.get(name) ?? `$${name}`);
    let last: request.Response | null = null;
    let verdict: request.Response | null = null;
    for (const { sets, method, path, body } of commands) {
      const call = method === 'POST' ? request(harness.app).post(filled(path)) : request(harness.app).get(filled(path));
      last = body === null ? await call.buffer(true) : await call.send(JSON.parse(filled(body)));
      expect([path, last.status, last.status < 300 ? '' : last.text]).toEqual([
        path,
        method === 'POST' ? 201 : 200,
        '',
      ]);
      if (sets) names.set(sets, last.body.id);
      if (path.endsWith('/verdict')) verdict = last;
    }
    expect(last?.headers['content-type']).toContain('application/zip');
    expect(verdict?.body).toMatchObject({
      sampleId: names.get('SAMPLE'),
      units: 'SI',
      claims: [
        {
          id: names.get('CLAIM'),
          says: 'C1: 20 V 2.25 A',
          state: 'proven',
          sentence: expect.stringContaining('20.03'),
          tests: expect.arrayContaining([
            expect.objectContaining({
              quantity: 'voltage',
              unit: 'V',
              value: 20.03,
              low: 19,
              high: 21,
              state: 'proven',
            }),
          ]),
        },
      ],
      stations: expect.arrayContaining([expect.objectContaining({ id: 'efficiency', look: expect.any(String) })]),
    });
  });
});

describe('the verdict', () => {
  it('of a sample nobody has is a problem, of an empty one is empty', async () => {
    const none = await request(harness.app).get('/api/samples/01JZZZZZZZZZZZZZZZZZZZZZZZ/verdict');
    expect([none.status, none.headers['content-type']]).toEqual([404, expect.stringContaining('problem+json')]);
    const sample = await makers(harness).sample();
    const { body } = await request(harness.app).get(`/api/samples/${sample.id}/verdict`);
    expect(body.claims).toEqual([]);
    expect(body.figures).toMatchObject({ watts: null, efficiency: null });
  });

  it('has finite numbers only, and null for what has none', async () => {
    const make = makers(harness);
    const sample = await make.sample();
    const rig = await make.rig();
    await make.claim(sample.id, { kind: 'port-line', port: 'C1', volts: 20, amps: 3.25 });
    const setup = await make.setup(sample.id, rig.id);
    await make.post(`/samples/${sample.id}/readings`, {
      points: [aPoint(setup.id, rig.id, { watts: '71.6', volts: '20.04', amps: '3.25' })],
    });
    const { body } = await request(harness.app).get(`/api/samples/${sample.id}/verdict`);
    const numbers = body.claims[0].tests.flatMap(({ value, expanded, low, high }: Record<string, number | null>) => [
      value,
      expanded,
      low,
      high,
    ]);
    expect(numbers.length).toBeGreaterThan(0);
    for (const one of numbers) expect(one === null || Number.isFinite(one)).toBe(true);
  });
});
