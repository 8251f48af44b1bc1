// Traces as scripts and pages meet them: taken in, half written, read by window, by frequency, and out again.
import { readdirSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { CaptureInput, TraceSpectrum, TraceWindow } from '@lastmark/contract';
import type { Capture } from '@lastmark/core/capture';
import { packTrace, readTrace as readText } from '@lastmark/core/trace';
import { eq } from 'drizzle-orm';
import request from 'supertest';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { newId } from '../src/db/ids.ts';
import { tracePieces, traces } from '../src/db/schema.ts';
import { sweepTraces, writeTrace } from '../src/traces/store.ts';
import { EU, type Harness, makers, sendForm, startHarness } from '../testing/harness.ts';

let harness: Harness;
let make: ReturnType<typeof makers>;
let sampleId: string;
let rigId: string;
beforeAll(async () => {
  harness = await startHarness('traces');
  make = makers(harness);
  sampleId = (await make.sample()).id;
  rigId = (await make.rig()).id;
});
afterAll(() => harness.stop());

const head = (part: Partial<CaptureInput['capture']> = {}): CaptureInput => ({
  capture: {
    id: newId(),
    kind: 'ripple',
    mains: EU,
    setupId: null,
    load: 1,
    port: 'C1',
    attached: 'nothing',
    rigId,
    takenAt: '2026-05-01T10:00:00.000Z',
    source: 'scope.csv',
    note: '',
    supersedes: null,
    withdrawn: false,
    outputs: [{ port: 'C1', volts: 20, amps: 2.25 }],
    ...part,
  },
  scopeId: null,
});
const post = (input: CaptureInput, file: string | Buffer | null) =>
  sendForm(harness.app, `/samples/${sampleId}/captures`, input, file);
const get = async <T>(path: string): Promise<T> => (await request(harness.app).get(path).expect(200)).body as T;

const RATE = 1e6;
const wave = (count: number): number[] =>
  Array.from(
    { length: count },
    (_, at) => 0.01 * Math.sin((2 * Math.PI * 100 * at) / RATE) + 0.004 * Math.sin((2 * Math.PI * 80e3 * at) / RATE),
  );
const csv = (values: readonly number[]): string =>
  `time [s],out [mV]\n${values.map((value, at) => `${(at / RATE).toFixed(6)},${(value * 1000).toFixed(4)}`).join('\n')}\n`;

describe('ripple', () => {
  it('is taken in from a file, with its lines, and read by window and by frequency', async () => {
    const values = wave(100_000);
    values[54_321] = 0.2;
    const { body } = await post(head(), csv(values)).expect(201);
    const capture = body as Capture;
    expect(capture).toMatchObject({ samples: 100_000, figures: { kind: 'ripple' } });
    if (capture.figures.kind !== 'ripple') return;
    expect(capture.figures.peakToPeak).toBeCloseTo(0.214, 3);
    expect(capture.figures.lines.slice(0, 2).map(({ kind }) => kind)).toEqual(['mains', 'switching']);

    const whole = await get<TraceWindow>(`/api/captures/${capture.id}/trace?buckets=100`);
    expect(whole.length).toBeCloseTo(0.099_999, 9);
    expect(whole.columns[0]?.points.length).toBeLessThanOrEqual(400);
    // No spike is lost, whatever is drawn.
    expect(Math.max(...(whole.columns[0]?.points.map(({ y }) => y) ?? []))).toBeCloseTo(0.2, 4);
    const near = await get<TraceWindow>(`/api/captures/${capture.id}/trace?buckets=1000&from=0.0543&to=0.05434`);
    const spike = near.columns[0]?.points.find(({ y }) => y > 0.1);
    expect(spike?.x).toBeCloseTo(0.054_321, 9);
    expect(near.columns[0]?.points.length).toBeLessThan(50);

    const spectrum = await get<TraceSpectrum>(`/api/captures/${capture.id}/spectrum?from=0&to=0.05`);
    expect(spectrum.lines.map(({ kind }) => kind)).toEqual(['mains', 'switching']);
    // A picture may miss the top of a line by what lies between two of its values: 0.8 dB at most.
    const top = Math.max(...spectrum.points.map(({ y }) => y));
    expect(top).toBeGreaterThan(0.018);
    expect(top).toBeLessThan(0.0202);

    const few = await request(harness.app).get(`/api/captures/${capture.id}/spectrum?from=0.01&to=0.01006`);
    expect([few.status, few.body.detail]).toEqual([422, expect.stringMatching(/^Fewer than 64 samples.*Go wider/)]);

    const { text } = await request(harness.app).get(`/api/captures/${capture.id}/trace.csv`).expect(200);
    const lines = text.split('\r\n');
    expect([lines[0], lines.length]).toEqual(['time [s],volts [V]', 100_002]);
    expect(lines[54_322]).toBe('0.054321,0.2');
  });

  it('comes packed as well, the same id once', async () => {
    const read = readText(csv(wave(20_000)));
    if (!read.ok) throw new Error(read.reason);
    const input = head();
    const first = await post(input, Buffer.from(packTrace(read.trace))).expect(201);
    const again = await post(input, Buffer.from(packTrace(read.trace))).expect(201);
    expect(again.body).toEqual(first.body);
    const { samples, figures } = first.body as Capture;
    expect([samples, figures.kind]).toEqual([20_000, 'ripple']);
    // Every sample came over as it was, and nothing beside them.
    const [low, high] = [Math.min(...wave(20_000)), Math.max(...wave(20_000))];
    if (figures.kind === 'ripple') expect(figures.peakToPeak).toBeCloseTo(high - low, 6);
    const cut = await post(head(), Buffer.from(packTrace(read.trace)).subarray(0, 9000));
    expect([cut.status, cut.body.detail]).toEqual([422, 'The packed trace is cut off.']);
    // What was sent stands nowhere any more, taken or refused.
    const folders = readdirSync(tmpdir()).filter((name) => name.startsWith(`lastmark-incoming-${process.pid}-`));
    expect(folders.length).toBeGreaterThan(0);
    expect(folders.flatMap((name) => readdirSync(join(tmpdir(), name)))).toEqual([]);
  });

  it('read off by eye claims its peak to peak and nothing more', async () => {
    const { body } = await post(head({ typed: 0.045 }), null).expect(201);
    expect((body as Capture).figures).toMatchObject({ peakToPeak: 0.045, rms: null, lines: [], peakToPeak9999: null });
    await request(harness.app)
      .get(`/api/captures/${(body as Capture).id}/trace`)
      .expect(404);
  });

  it.each([
    [{ outputs: [] }, 'Say which port was at which level'],
    [{ outputs: [{ port: 'C9', volts: 5, amps: 1 }] }, 'There is no port "C9"'],
    [{ outputs: [{ port: 'A1', volts: 5, amps: 1 }] }, 'Say at which level C1 was'],
    [{ port: null }, 'Say which port'],
  ])('%j is refused before anything is written', async (part, says) => {
    const input = head(part as Partial<CaptureInput['capture']>);
    const answer = await post(input, csv(wave(1000)));
    expect([answer.status, answer.body.detail]).toEqual([422, expect.stringContaining(says)]);
    expect(await harness.db.select().from(traces).where(eq(traces.id, input.capture.id))).toEqual([]);
  });

  it('a file that cannot be read says the line', async () => {
    const answer = await post(head(), 'time,v\n0,1\n1,x\n2,3\n');
    expect([answer.status, answer.body.detail]).toEqual([
      422,
      expect.stringContaining('Line 3: "x" under "v" is no number'),
    ]);
  });
});

describe('a soak', () => {
  it('keeps every column and its own times, and says where it leads', async () => {
    const rows = Array.from({ length: 241 }, (_, at) => {
      // Every tenth reading comes late: the times are uneven.
      const t = at * 15 + (at % 10 === 0 ? 9 : 0);
      return `${t},${(25 + 40 * (1 - Math.exp(-t / 900))).toFixed(2)},25.0,65.1`;
    });
    const input = head({
      kind: 'soak',
      port: null,
      soak: { place: 'open room', ambient: null, surface: 'wood', adapter: '', touched: 'plastic', sensors: [] },
    });
    const { body } = await post(input, `time [s],front [°C],ambient [°C],out [W]\n${rows.join('\n')}\n`).expect(201);
    const capture = body as Capture;
    if (capture.figures.kind !== 'soak') throw new Error('It is a soak.');
    expect(capture.figures.ambient).toBeCloseTo(25, 6);
    expect(capture.figures.sensors[0]?.steady).toBeCloseTo(65, 0);
    const shown = await get<TraceWindow>(`/api/captures/${capture.id}/trace`);
    expect(shown.columns.map(({ name }) => name)).toEqual(['front', 'ambient', 'out']);
    expect(shown.columns[0]?.points[10]?.x).toBe(159 - 9);
    const refused = await request(harness.app).get(`/api/captures/${capture.id}/spectrum`);
    expect([refused.status, refused.body.detail]).toEqual([422, expect.stringContaining('not evenly spaced')]);
  });
});

describe('a charge', () => {
  // 18 W for 30 min, then 0.1 W: 9 Wh.
  const log = `t (s);W\n${Array.from({ length: 500 }, (_, at) => `${at * 5};${at < 360 ? 18 : 0.1}`).join('\n')}\n`;
  const device = () =>
    make.post<{ id: string }>('/devices', {
      name: 'Hut tablet',
      kind: 'tablet',
      ceilings: [],
      baseline: null,
      battery: null,
      note: '',
    });
  const taken = (charge: object | undefined, port: string | null = 'C1') =>
    head({ kind: 'charge', port, outputs: undefined, charge } as Partial<CaptureInput['capture']>);

  it('is taken in with its device, is told by the verdict, and taken back', async () => {
    const { id } = await device();
    const answer = await post(taken({ deviceId: id, lead: '1 m', startLevel: 0.4, end: null }), log);
    expect([answer.status, answer.status < 300 ? '' : JSON.stringify(answer.body)]).toEqual([201, '']);
    const { body } = answer;
    const { figures, ...own } = body as Capture;
    expect(figures).toMatchObject({
      kind: 'charge',
      energy: expect.closeTo(9, 1),
      level: 'energy',
      startLevel: 0.4,
      end: { by: 'tail' },
      stages: [{ kind: 'constant' }],
    });
    const says = async () =>
      (await get<{ stations: { id: string; says: string[] }[] }>(`/api/samples/${sampleId}/verdict`)).stations.find(
        (one) => one.id === 'devices',
      )?.says;
    expect((await says())?.[0]).toMatch(
      /^Hut tablet on C1, 1 m, 230 V 50 Hz, 2026-05-01: 50 % after 5 min, 80 % after 20 min/,
    );
    const { interval: _, samples: __, ...was } = own;
    await post({ capture: { ...was, id: newId(), supersedes: was.id, withdrawn: true }, scopeId: null }, null).expect(
      201,
    );
    expect(await says()).toEqual([]);
  });

  it.each([
    ['no device', undefined, 'C1', 'Say which device was charged.'],
    ['a device gone', { deviceId: newId(), lead: '', startLevel: null, end: null }, 'C1', 'not on the bench any more'],
    ['no port', 'known', null, 'Say at which port it was charged.'],
    ['a level above full', { deviceId: newId(), lead: '', startLevel: 1.2, end: null }, 'C1', 'at most 100 %'],
  ] as const)('with %s is refused', async (_name, charge, port, says) => {
    const known = { deviceId: (await device()).id, lead: '', startLevel: null, end: null };
    const answer = await post(taken(charge === 'known' ? known : charge, port), log);
    expect([answer.status, JSON.stringify(answer.body)]).toEqual([422, expect.stringContaining(says)]);
  });
});

describe('a trace half written', () => {
  it('is invisible, and swept once it is old', async () => {
    const read = readText(csv(wave(500)));
    if (!read.ok) throw new Error(read.reason);
    const id = newId();
    await writeTrace(harness.db, id, read.trace);
    await request(harness.app).get(`/api/captures/${id}/trace`).expect(404);
    expect(await sweepTraces(harness.db)).toBe(0);
    await harness.db
      .update(traces)
      .set({ startedAt: new Date(Date.now() - 7 * 3_600_000) })
      .where(eq(traces.id, id));
    expect(await sweepTraces(harness.db)).toBe(1);
    expect(await harness.db.select().from(tracePieces).where(eq(tracePieces.traceId, id))).toEqual([]);
  });
});
