import { monitorEventLoopDelay } from 'node:perf_hooks';
import { CHARGERS, named } from '@lastmark/bench/sim';
import type { SampleDossier, StoredInstrument } from '@lastmark/contract';
import type { Capture, CaptureFigures, CaptureKind } from '@lastmark/core/capture';
import { ofKind, type SheetStep } from '@lastmark/core/plan';
import { judgeSample } from '@lastmark/core/verdict';
import request from 'supertest';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { newId } from '../src/db/ids.ts';
import { toJudge } from '../src/dossier/judged.ts';
import { EU, type Harness, sendForm, startHarness } from '../testing/harness.ts';
import { AGAIN_WHERE_VOID, startRig, type TestRig } from '../testing/rig.ts';

let harness: Harness;
let bench: TestRig;
beforeAll(async () => {
  harness = await startHarness('captures');
  bench = await startRig(harness, 20);
});
afterAll(async () => {
  await harness.stop();
  await bench.close();
});

const headOf = (kind: CaptureKind, part: object = {}) => ({
  id: newId(),
  kind,
  mains: EU,
  setupId: null,
  load: 0,
  port: null,
  attached: 'nothing',
  rigId: bench.rig.id,
  takenAt: '2026-11-02T10:00:00.000Z',
  source: 'logger.csv',
  note: '',
  supersedes: null,
  withdrawn: false,
  ...part,
});
const send = (capture: object, text: string | null, scopeId: string | null = null, sampleId = bench.sample.id) =>
  sendForm(harness.app, `/samples/${sampleId}/captures`, { capture, scopeId }, text);
const dossier = (sampleId = bench.sample.id) => bench.call<SampleDossier>('get', `/samples/${sampleId}/dossier`);
const idleText = [
  'time [s];power [mW]',
  ...Array.from({ length: 1200 }, (_, at) => `${at * 0.5};${at % 40 < 2 ? 600 : 30}`),
].join('\n');

describe('an idle record from a file', () => {
  const head = () => headOf('idle');

  it('keeps every sample, tells its bursts, and counts as an idle reading; the same id twice is kept once', async () => {
    const capture = head();
    const answer = await send(capture, idleText);
    expect(answer.status, JSON.stringify(answer.body)).toBe(201);
    const stored = answer.body as Capture;
    expect(stored).toMatchObject({ samples: 1200, interval: 0.5, figures: { kind: 'idle', bursts: 30, period: 20 } });
    expect((await send(capture, idleText)).body.id).toBe(stored.id);
    const found = await dossier();
    expect(found.captures).toHaveLength(1);
    const [idle] = judgeSample(toJudge(found)).results.idle.draws;
    expect(idle?.watts.value).toBeCloseTo(0.03 + 0.57 * 0.05, 6);
    expect(idle?.runs).toBe(1);
    const csv = await request(harness.app).get(`/api/captures/${stored.id}/trace.csv`);
    expect(csv.text.trim().split('\r\n')).toHaveLength(1201);
    expect(csv.text).toContain('time [s],watts [W]');
    const drawn = await request(harness.app).get(`/api/captures/${stored.id}/trace?buckets=50`);
    expect(drawn.body.columns[0].points).toHaveLength(100);
    expect(Math.max(...drawn.body.columns[0].points.map(({ y }: { y: number }) => y))).toBeCloseTo(0.6, 6);
  });

  it('taken back stands no longer, and neither does its reading', async () => {
    const [first] = (await dossier()).captures;
    const back = headOf('idle', { supersedes: first?.id, withdrawn: true });
    const answer = await send(back, null);
    expect(answer.status, JSON.stringify(answer.body)).toBe(201);
    expect(judgeSample(toJudge(await dossier())).results.idle.draws).toEqual([]);
    expect((await send(headOf('idle', { supersedes: first?.id, withdrawn: true }), null)).status).toBe(409);
  });

  it('with lines left out is kept at its pace, says so, and is taken back as any other', async () => {
    const lines = idleText.trimEnd().split('\n');
    const text = lines.filter((_, at) => at < 2 || at % 57 !== 5).join('\n');
    const answer = await send(head(), text);
    expect(answer.status, JSON.stringify(answer.body)).toBe(201);
    const stored = answer.body as Capture;
    expect(stored).toMatchObject({ samples: 1200, figures: { kind: 'idle', bursts: 30 } });
    expect(stored.interval).toBeCloseTo(0.5, 9);
    expect(stored.figures.findings.join(' ')).toContain('Lines are left out in it');
    const back = await send(headOf('idle', { supersedes: stored.id, withdrawn: true }), null);
    expect(back.status).toBe(201);
  });

  it.each([
    ['a line that is no number', idleText.replace(';600', ';lots'), {}, 'is no number'],
    ['no samples', null, {}, 'no samples'],
    ['too few', 'time [s],power [W]\n0,1\n1,1\n2,1', {}, '16 or more'],
    ['a port nobody has', idleText, { port: 'C9' }, 'There is no port'],
  ])('with %s is refused whole', async (_, text, part, says) => {
    const before = (await dossier()).captures.length;
    const answer = await send(headOf('idle', part), text);
    expect([answer.status, JSON.stringify(answer.body)]).toEqual([422, expect.stringContaining(says)]);
    expect((await dossier()).captures).toHaveLength(before);
  });

  it('a waveform of DC and a dip without a port are refused', async () => {
    const dc = await send(headOf('waveform', { mains: { kind: 'dc', volts: 13.8 } }), idleText);
    expect(dc.status).toBe(422);
    const dip = await send(
      headOf('dip', { mains: { kind: 'dc', volts: 13.8 } }),
      `time,volts\n${Array.from({ length: 20 }, (_, at) => `${at},9`).join('\n')}`,
    );
    expect(dip.body.errors[0].message).toContain('which port');
  });
});

describe('from the scope', () => {
  const scopeId = async () => {
    const { items } = await bench.call<{ items: StoredInstrument[] }>('get', '/instruments');
    return items.find(({ class: kind }) => kind === 'oscilloscope')?.id ?? '';
  };

  it('takes the mains current as it is now, true to the charger', async () => {
    const { bench: physics } = bench.rack;
    physics.setSupply({ on: true, volts: 230, hertz: 50 });
    physics.plug('C1', true);
    physics.request('C1', 4, null);
    physics.setLoad('C1', { amps: 2.25, on: true });
    await new Promise((resolve) => setTimeout(resolve, 50));
    const truth = physics.input();
    const answer = await send(headOf('waveform', { load: 1, source: 'scope' }), null, await scopeId());
    expect(answer.status, JSON.stringify(answer.body)).toBe(201);
    const { figures } = answer.body as Capture;
    if (figures.kind !== 'waveform') throw new Error(figures.kind);
    expect(figures.powerFactor).toBeCloseTo(truth.powerFactor, 2);
    expect(figures.watts).toBeCloseTo(truth.watts, 0);
    expect(figures.currentDistortion).toBeGreaterThan(1);
    expect(figures.hertz).toBeCloseTo(50, 1);
    physics.loadsOff();
  });

  it('takes ripple of an output as it is now, and asks which', async () => {
    const { bench: physics } = bench.rack;
    physics.setSupply({ on: true, volts: 230, hertz: 50 });
    physics.plug('C1', true);
    physics.request('C1', 4, null);
    physics.setLoad('C1', { amps: 2.25, on: true });
    const outputs = [{ port: 'C1', volts: 20, amps: 2.25 }];
    const answer = await send(headOf('ripple', { load: 1, port: 'C1', outputs }), null, await scopeId());
    expect(answer.status, JSON.stringify(answer.body)).toBe(201);
    const { figures } = answer.body as Capture;
    if (figures.kind !== 'ripple') throw new Error(figures.kind);
    const truth = physics.charger.ripple;
    expect(figures.lines.find(({ kind }) => kind === 'switching')?.hertz).toBeCloseTo(truth.switchingHertz, -2);
    expect(figures.lines.find(({ kind }) => kind === 'mains')?.hertz).toBeCloseTo(100, 0);
    const nowhere = await send(headOf('ripple', { load: 1, port: null, outputs }), null, await scopeId());
    expect([nowhere.status, nowhere.body.detail]).toEqual([422, expect.stringContaining('Say which port')]);
    physics.loadsOff();
  });

  it('a sample or loading with captures stays', async () => {
    const sample = await bench.make.sample();
    const setup = await bench.make.setup(sample.id, bench.rig.id);
    const wave = [
      'time,volts,amps',
      ...Array.from(
        { length: 2000 },
        (_, at) => `${at * 1e-4},${(325 * Math.sin(at * 0.0314159)).toFixed(3)},${Math.sin(at * 0.0314159).toFixed(4)}`,
      ),
    ].join('\n');
    const kept = await send(headOf('waveform', { setupId: setup.id, load: 1 }), wave, null, sample.id);
    expect(kept.status, JSON.stringify(kept.body)).toBe(201);
    const other = await send(
      headOf('waveform', { mains: { kind: 'ac', volts: 115, hertz: 60 } }),
      wave,
      null,
      sample.id,
    );
    expect([other.status, other.body.errors[0].message]).toEqual([422, expect.stringContaining('not 115 V 60 Hz')]);
    const loading = await request(harness.app).delete(`/api/setups/${setup.id}`).set('If-Match', '"v1"');
    expect([loading.status, loading.body.detail]).toEqual([409, expect.stringContaining('Captures were taken')]);
    const { headers } = await request(harness.app).get(`/api/samples/${sample.id}`);
    const whole = await request(harness.app)
      .delete(`/api/samples/${sample.id}`)
      .set('If-Match', headers.etag ?? '');
    expect([whole.status, whole.body.detail]).toEqual([
      409,
      expect.stringContaining('Captures were taken of this sample'),
    ]);
  });

  it('another instrument is refused with what to do', async () => {
    const { items } = await bench.call<{ items: StoredInstrument[] }>('get', '/instruments');
    const meter = items.find(({ class: kind }) => kind === 'bench multimeter');
    const answer = await send(headOf('waveform'), null, meter?.id ?? '');
    expect([answer.status, answer.body.errors[0].message]).toEqual([
      422,
      expect.stringContaining('is no oscilloscope'),
    ]);
  });
});

const QUICK: readonly CaptureKind[] = ['waveform', 'inrush', 'fading', 'dip', 'sweep'];

/** Run only the capture steps of a method's sheet, of some kinds, with what is changed about them. */
async function runCaptures(
  sampleId: string,
  tag: string,
  methodId: string,
  kinds = QUICK,
  change: (step: SheetStep<'capture'>) => SheetStep<'capture'> = (step) => step,
): Promise<Map<CaptureKind, CaptureFigures[]>> {
  const sheet = await bench.call<{ id: string; title: string; steps: SheetStep[] }>(
    'post',
    `/samples/${sampleId}/run-sheets`,
    {
      methodId,
      rigId: bench.rig.id,
    },
  );
  const steps = ofKind(sheet.steps, 'capture')
    .filter(({ capture }) => kinds.includes(capture))
    .map(change);
  await request(harness.app)
    .put(`/api/run-sheets/${sheet.id}`)
    .set('If-Match', '"v1"')
    .send({ title: sheet.title, rigId: bench.rig.id, steps })
    .expect(200);
  const { id } = await bench.start(sheet.id, { tag });
  const run = await bench.toItsEnd(id, 'the captures');
  expect([run.state, run.says]).toEqual(['done', expect.any(String)]);
  const failed = Object.values(run.outcomes).filter(({ state }) => state !== 'done');
  expect(failed).toEqual([]);
  const found = new Map<CaptureKind, CaptureFigures[]>();
  const made = new Set(Object.values(run.outcomes).flatMap(({ madeIds }) => madeIds));
  for (const { id: own, kind, figures } of (await dossier(sampleId)).captures) {
    if (!made.has(own)) continue;
    if (figures.unread) throw new Error(`void: nobody read ${figures.unread} s of its ${kind}`);
    found.set(kind, [...(found.get(kind) ?? []), figures]);
  }
  return found;
}

describe('on the bench by itself', AGAIN_WHERE_VOID, () => {
  afterEach(() => bench.release());

  it('records inrush, the fading output and the mains current of a wall charger', async () => {
    for (const [volts, amps] of [
      [5, 3],
      [20, 2.25],
    ] as const)
      await bench.make.claim(bench.sample.id, { kind: 'port-line', port: 'C1', volts, amps });
    const truth = named(CHARGERS, 'Ember 45');
    if (!truth) throw new Error('Ember 45');
    const held = monitorEventLoopDelay({ resolution: 5 });
    held.enable();
    const found = await runCaptures(bench.sample.id, bench.sample.tag, 'local-mains');
    held.disable();
    const [inrush] = found.get('inrush') ?? [];
    if (inrush?.kind !== 'inrush') throw new Error('no inrush');
    const most = (230 * Math.SQRT2) / truth.supply.inrushOhms;
    expect(inrush.peak).toBeGreaterThan(0.6 * most);
    expect(inrush.peak).toBeLessThan(1.05 * most);
    const [fading] = found.get('fading') ?? [];
    if (fading?.kind !== 'fading') throw new Error('no fading');
    // Looks come every two seconds of the bench's time, and later where this process was held up.
    if (fading.empty === null) throw new Error('it stayed charged');
    expect(
      Math.abs(fading.empty - truth.supply.bleedSeconds * (Math.log(fading.from / 0.8) + Math.log(0.95))),
    ).toBeLessThan(4 + (held.max / 1e9) * bench.rack.clock.speed);
    const waves = (found.get('waveform') ?? []).flatMap((one) => (one.kind === 'waveform' ? [one] : []));
    expect(waves).toHaveLength(2);
    expect(waves[0]?.powerFactor).toBeGreaterThan(waves[1]?.powerFactor ?? 1);
  });

  it('records ripple by the scope, and a soak by thermometer and load', async () => {
    bench.rack.clock.speed = 100;
    const soaked = 1500;
    const sample = await bench.make.sample({
      model: { model: 'Ember 45', ports: [{ label: 'C1', connector: 'C', twin: null }] },
      unit: { serial: 'soaked' },
    });
    for (const [volts, amps] of [
      [5, 3],
      [20, 2.25],
    ] as const)
      await bench.make.claim(sample.id, { kind: 'port-line', port: 'C1', volts, amps });
    // The rig says that its thermometer's second point is on the back, and its third on the front.
    const { id: rigId, version, ...rig } = bench.rig;
    await request(harness.app)
      .put(`/api/rigs/${rigId}`)
      .set('If-Match', `"v${version}"`)
      .send({ ...rig, spots: ['room', 'back', 'front', 'side'] })
      .expect(200);
    // It only warms while it is soaked, and only cools afterwards.
    let warmest = 0;
    const look = setInterval(() => {
      warmest = Math.max(warmest, bench.rack.bench.faces().front);
    }, 20);
    const found = await runCaptures(sample.id, sample.tag, 'local-mains', ['ripple', 'soak'], (step) =>
      step.capture === 'soak' ? { ...step, dwell: soaked, attended: false } : step,
    ).finally(() => clearInterval(look));
    bench.rack.clock.speed = 20;
    const truth = named(CHARGERS, 'Ember 45');
    if (!truth) throw new Error('Ember 45');
    const ripple = (found.get('ripple') ?? []).flatMap((one) => (one.kind === 'ripple' ? [one] : []));
    // 5 V and 20 V of the claims, without load and with it.
    expect(ripple).toHaveLength(4);
    const rated = ripple.at(-1);
    expect(rated?.samples).toBe(240_000);
    expect(rated?.lines.map(({ kind }) => kind)).toEqual(expect.arrayContaining(['mains', 'switching']));
    const switching = rated?.lines.find(({ kind }) => kind === 'switching');
    expect(Math.abs((switching?.hertz ?? 0) / truth.ripple.switchingHertz - 1)).toBeLessThan(0.001);
    const [soak] = found.get('soak') ?? [];
    if (soak?.kind !== 'soak') throw new Error('no soak');
    expect(soak.sensors.map(({ name }) => name)).toEqual(['back', 'front', 'side']);
    expect(soak.watts).toBeCloseTo(45, -1);
    expect(soak.ambient).toBeCloseTo(25, 0);
    expect(soak.events).toEqual([]);
    // The thermometer is right to 0.4 K.
    const [hot] = soak.sensors;
    expect(Math.abs((hot?.atEnd ?? 0) - (warmest - 273.15))).toBeLessThan(1);
    expect(hot?.highest).toBeGreaterThan(40);
  });

  it('lowers and raises the supply of a car charger, and dips it', async () => {
    const truth = named(CHARGERS, 'Shuttle 75');
    if (!truth) throw new Error('Shuttle 75');
    bench.rack.clock.speed = 2;
    bench.rack.bench.load(truth);
    const sample = await bench.make.sample({
      model: {
        model: 'Shuttle 75',
        kind: 'car',
        ports: truth.ports.map(({ label }) => ({ label, connector: label.startsWith('A') ? 'A' : 'C', twin: null })),
      },
    });
    for (const [volts, amps] of [
      [5, 3],
      [20, 3],
    ] as const)
      await bench.make.claim(sample.id, { kind: 'port-line', port: 'C1', volts, amps });
    const found = await runCaptures(sample.id, sample.tag, 'car');
    const [sweep] = found.get('sweep') ?? [];
    if (sweep?.kind !== 'sweep') throw new Error('no sweep');
    expect(Math.abs((sweep.cutOut ?? 0) - (truth.supply.cutOut ?? 0))).toBeLessThan(0.35);
    expect(Math.abs((sweep.restart ?? 0) - (truth.supply.restart ?? 0))).toBeLessThan(0.35);
    const [dip] = found.get('dip') ?? [];
    if (dip?.kind !== 'dip') throw new Error('no dip');
    expect(dip).toMatchObject({ lost: false, recovered: true });
    expect(dip.lowest / dip.from).toBeCloseTo(1 - truth.supply.droopBelow12 * 2.2, 2);
  });
});
