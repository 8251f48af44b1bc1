import type { SampleDossier, StoredDevice, StoredReadOut, StoredRig, StoredRun } from '@lastmark/contract';
import { interpret } from '@lastmark/core/read-out';
import type { Point } from '@lastmark/core/reading';
import { judgeSample } from '@lastmark/core/verdict';
import { eq, sql } from 'drizzle-orm';
import request from 'supertest';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { newId } from '../src/db/ids.ts';
import { readOuts } from '../src/db/schema.ts';
import { toJudge } from '../src/dossier/judged.ts';
import { EU, type Harness, makers, startHarness } from '../testing/harness.ts';

let harness: Harness;
let make: ReturnType<typeof makers>;
let analyser: string;
let rig: StoredRig;
let sampleId: string;
beforeAll(async () => {
  harness = await startHarness('proof');
  make = makers(harness);
  const one = await make.post<{ id: string }>('/instruments', {
    name: 'Analyser',
    class: 'PD analyser',
    firmware: '1.1',
    calibrationDue: null,
    address: null,
    profileId: null,
    sees: { supplies: ['fixed', 'pps'], signals: ['dcp'] },
    specs: {},
  });
  analyser = one.id;
  const far = await make.post<{ id: string }>('/instruments', {
    name: 'Load',
    class: 'DC load',
    firmware: '',
    calibrationDue: null,
    address: null,
    profileId: null,
    sees: null,
    specs: {
      voltage: {
        readingPercent: 0.05,
        rangePercent: 0,
        range: 0,
        offset: 0.004,
        resolution: 0,
        floor: 0,
        coverage: 'not stated',
      },
      current: {
        readingPercent: 0.1,
        rangePercent: 0,
        range: 0,
        offset: 0.003,
        resolution: 0,
        floor: 0,
        coverage: 'not stated',
      },
    },
  });
  const plain = await make.rig();
  rig = await make.post<StoredRig>('/rigs', {
    name: 'Proof bench',
    meters: { ...plain.meters, loadEnd: far.id },
    outputPlace: 'port',
    leadOhms: 0,
    leadUOhms: 0,
    elements: [{ kind: 'cable', name: 'bench cable', amps: 3, volts: 20, basis: 'certified' }],
    note: '',
  });
});
beforeEach(async () => {
  sampleId = (await make.sample()).id;
});
afterAll(() => harness.stop());

const send = (path: string, body: object) => request(harness.app).post(`/api/samples/${sampleId}${path}`).send(body);
const dossier = async () => (await request(harness.app).get(`/api/samples/${sampleId}/dossier`)).body as SampleDossier;
const aReadOut = (part: object = {}) => ({
  id: newId(),
  port: 'C1',
  instrumentId: analyser,
  takenAt: '2026-03-02T09:00:00.000Z',
  occupied: [],
  marker: '5 A',
  askedWith: '3.1',
  temperature: 297.15,
  elapsed: 20,
  words: ['0801912C', '0002D12C', '00064145'],
  epr: false,
  declared: '3.0',
  cableWords: [],
  signals: [{ mode: 'dcp', result: 'seen' }],
  unreachable: [],
  note: '',
  source: 'keypad',
  supersedes: null,
  withdrawn: false,
  ...part,
});
const twenty = [{ port: 'C1', volts: 20, amps: 3 }];
const reading = (quantity: string, place: string, typed: string, port: string | null = 'C1') => ({
  id: newId(),
  quantity,
  place,
  port,
  typed,
});
const aStep = (readings: object[], part: object = {}) => ({
  id: newId(),
  outputs: twenty,
  mains: EU,
  load: 1,
  attached: 'nothing',
  rigId: rig.id,
  takenAt: '2026-03-02T10:00:00.000Z',
  readings,
  ...part,
});
const addPoints = (...points: object[]) => send('/readings', { points });

describe('read-outs', () => {
  it('are kept as they came, and once when sent twice', async () => {
    const body = aReadOut();
    for (const _ of ['first', 'again']) expect((await send('/read-outs', body)).status).toBe(201);
    // A source nobody asked states nothing.
    expect((await dossier()).readOuts).toEqual([{ ...body, info: null, extended: null }]);
  });

  it('keep what the source states of its power; those kept before it was asked state nothing', async () => {
    const body = aReadOut({ info: '00412D2D', extended: `${'00'.repeat(23)}4100` });
    await send('/read-outs', body);
    expect((await dossier()).readOuts).toEqual([body]);
    const said = judgeSample(toJudge(await dossier())).results['read-out'].findings.map(({ sentence }) => sentence);
    expect(said).toContain('The source says it advertises 45 W; its offers come to 65 W.');
    const older = sql`JSON_REMOVE(${readOuts.body}, '$.info', '$.extended')`;
    await harness.db.update(readOuts).set({ body: older }).where(eq(readOuts.id, body.id));
    expect((await dossier()).readOuts).toEqual([{ ...body, info: null, extended: null }]);
  });

  it('are corrected by another and taken back without one', async () => {
    const first = (await send('/read-outs', aReadOut())).body as StoredReadOut;
    const again = (part: object) => send('/read-outs', aReadOut(part));
    const better = (await again({ supersedes: first.id, note: 'again' })).body as StoredReadOut;
    expect((await again({ supersedes: first.id })).status).toBe(409);
    expect((await again({ supersedes: better.id, withdrawn: true })).status).toBe(201);
    expect((await dossier()).readOuts).toHaveLength(3);
    expect((await send('/read-outs', aReadOut({ withdrawn: true }))).body.detail).toContain('Say which read-out');
  });

  it.each([
    ['a port that is not there', { port: 'C9' }, 'There is no port "C9"'],
    ['the port itself as occupied', { occupied: ['C1'] }, 'C1 is the port read out'],
    ['an analyser nobody has', { instrumentId: '01JZZZZZZZZZZZZZZZZZZZZZZZ' }, 'not on the bench any more'],
    ['a word that is none', { words: ['0801912'] }, 'eight hexadecimal digits'],
    ['source info that is no word', { info: '412D' }, 'eight hexadecimal digits'],
    ['half a byte of extended capabilities', { extended: '00F' }, 'two hexadecimal digits each'],
    ['a position past the list', { unreachable: [{ position: 9, reason: 'x' }] }, 'no position 9'],
    ['nothing at all', { words: [], signals: [] }, 'Nothing read out'],
  ])('with %s are refused', async (_what, part, sentence) => {
    const answer = await send('/read-outs', aReadOut(part));
    expect(answer.status).toBe(422);
    expect(JSON.stringify(answer.body)).toContain(sentence.replaceAll('"', '\\"'));
    expect((await dossier()).readOuts).toEqual([]);
  });

  it('come back out of the sample export through the door a person pastes into', async () => {
    const body = aReadOut({
      cableWords: ['000A2640'],
      info: '00412D2D',
      extended: '00FF0201',
      unreachable: [{ position: 2, reason: 'Refused.' }],
    });
    await send('/read-outs', body);
    const text = (await request(harness.app).get(`/api/samples/${sampleId}/export.json`)).text;
    const { form, offers, readOut } = interpret(text, 'value', 'offers');
    expect(form).toBe('open form');
    expect(offers).toEqual([0x0801912c, 0x0002d12c, 0x00064145]);
    await send('/read-outs', { ...readOut, id: newId(), supersedes: body.id });
    const [before, after] = (await dossier()).readOuts;
    expect({ ...after, id: before?.id, supersedes: null }).toEqual(before);
  });
});

describe('proof steps', () => {
  it('are made by their first reading and found again by the next', async () => {
    const one = aStep([reading('voltage', 'port', '20.02')]);
    expect((await addPoints(one)).status).toBe(201);
    const more = { ...one, readings: [reading('current', 'port', '3,001'), reading('voltage', 'load-end', '19.67')] };
    expect((await addPoints(more)).status).toBe(201);
    const { setups, points } = await dossier();
    expect(setups.filter(({ purpose }) => purpose === 'proof').map(({ name }) => name)).toEqual(['C1 20 V 3 A']);
    expect(points[0]?.readings).toHaveLength(3);
  });

  it('are made once, however many start together', async () => {
    const answers = await Promise.all(
      Array.from({ length: 6 }, () => addPoints(aStep([reading('voltage', 'port', '20.02')]))),
    );
    expect(answers.map(({ status }) => status)).toEqual(Array(6).fill(201));
    expect((await dossier()).setups).toHaveLength(1);
  });

  it('tell a range from a fixed level', async () => {
    await addPoints(aStep([reading('voltage', 'port', '20.02')]));
    await addPoints(aStep([reading('voltage', 'port', '20.02')], { outputs: [{ ...twenty[0], supply: 'pps' }] }));
    expect((await dossier()).setups.map(({ name }) => name)).toEqual(['C1 20 V 3 A', 'C1 PPS 20 V 3 A']);
  });

  it('give the display the rounding of its last digit, and the load its own meter', async () => {
    await addPoints(
      aStep([
        reading('voltage', 'port', '20.02'),
        reading('voltage', 'display', '20.1'),
        reading('voltage', 'load-end', '19.67'),
      ]),
    );
    const at = (place: string) => points[0]?.readings.find((one) => one.place === place);
    const { points } = await dossier();
    expect(at('display')).toMatchObject({ instrumentId: null });
    expect(at('display')?.u).toBeCloseTo(0.1 / Math.sqrt(12), 9);
    expect(at('load-end')).toMatchObject({ instrumentId: rig.meters.loadEnd });
  });

  it('beyond the line are refused with the reason, and taken with a reasoned override that stays', async () => {
    const outputs = [{ port: 'C1', volts: 20, amps: 3.25 }];
    const beyond = aStep([reading('current', 'port', '3.25')], { outputs });
    const refused = await addPoints(beyond);
    expect(refused.status).toBe(422);
    expect(refused.body.detail).toContain('more than the cable "bench cable" carries: 3 A, by its certified rating');
    expect((await dossier()).points).toEqual([]);
    expect((await addPoints({ ...beyond, override: 'Ten seconds, cable laid open.' })).status).toBe(201);
    // A later reading of the same point needs no second reason.
    expect((await addPoints({ ...beyond, readings: [reading('voltage', 'port', '19.9')] })).status).toBe(201);
    expect((await dossier()).points[0]?.override).toBe('Ten seconds, cable laid open.');
  });

  it('without load ask nothing of the line', async () => {
    const unloaded = aStep([reading('voltage', 'port', '20.1')], {
      outputs: [{ port: 'C1', volts: 20, amps: 5 }],
      load: 0,
    });
    expect((await addPoints(unloaded)).status).toBe(201);
  });

  it.each([
    ['no load beside amps', { load: 0 }, [reading('current', 'port', '3')], 'No load, yet 3 A flows'],
    [
      'more out than in',
      {},
      [reading('voltage', 'port', '20'), reading('current', 'port', '3'), reading('power', 'mains', '40', null)],
      'is above input 40 W',
    ],
    [
      'watts that are not volts × amps',
      {},
      [reading('voltage', 'port', '20'), reading('current', 'port', '3'), reading('power', 'port', '45')],
      'is not volts × amps',
    ],
    [
      'a port that is not there',
      { outputs: [{ port: 'C9', volts: 20, amps: 3 }] },
      [reading('voltage', 'port', '20', 'C9')],
      'no port "C9"',
    ],
  ])('%s is refused, and nothing is kept', async (_what, part, readings, sentence) => {
    const answer = await addPoints(aStep(readings, part));
    expect(answer.status).toBe(422);
    expect(answer.body.detail).toContain(sentence);
    const after = await dossier();
    expect([after.points, after.setups]).toEqual([[], []]);
  });

  it('settle the claims at once', async () => {
    await make.claim(sampleId, { kind: 'port-line', port: 'C1', volts: 20, amps: 3 });
    await send('/read-outs', aReadOut({ words: ['0801912C', '0006412C'] }));
    const state = async () => judgeSample(toJudge(await dossier())).claims[0]?.state;
    expect(await state()).toBe('advertised only');
    await addPoints(aStep([reading('voltage', 'port', '20.02'), reading('current', 'port', '3')]));
    expect(await state()).toBe('proven');
  });
});

describe('runs', () => {
  const head = { port: 'C1', takenAt: '2026-03-02T12:00:00.000Z', note: '', supersedes: null, withdrawn: false };
  const hold = (part: object = {}) => ({
    ...head,
    id: newId(),
    rigId: rig.id,
    kind: 'hold',
    volts: 20,
    amps: 3,
    others: [],
    planned: 3600,
    held: 3600,
    end: 'held to the end',
    hottest: null,
    ambient: null,
    after: null,
    ...part,
  });
  const over = (part: object = {}) => ({
    ...head,
    id: newId(),
    rigId: rig.id,
    kind: 'over',
    volts: 20,
    rated: 3,
    steps: [{ asked: 3, amps: 3, volts: 20, seconds: 3 }],
    attached: 'electronic load',
    latched: null,
    recovery: null,
    ...part,
  });
  const add = (run: object) => send('/runs', { run });

  it('are kept with the uncertainty of their rig, and once when sent twice', async () => {
    const run = hold();
    expect((await add(run)).status).toBe(201);
    expect((await add(run)).status).toBe(201);
    const { runs } = await dossier();
    expect(runs).toHaveLength(1);
    expect(runs[0]?.u).toBeGreaterThan(0.01);
  });

  it('are taken back, never deleted', async () => {
    const first = (await add(hold())).body as StoredRun;
    expect((await add(hold({ supersedes: first.id, withdrawn: true }))).status).toBe(201);
    expect((await add(hold({ supersedes: first.id }))).status).toBe(409);
    expect((await dossier()).runs).toHaveLength(2);
  });

  it('over the rating are refused until the rules turn them on, and with a device always', async () => {
    expect((await add(over())).body.detail).toContain('are off');
    const { version, ...profile } = (await request(harness.app).get('/api/profile')).body;
    const turned = await request(harness.app)
      .put('/api/profile')
      .set('If-Match', `"v${version}"`)
      .send({ ...profile, overRating: { ...profile.overRating, on: true } });
    expect(turned.status).toBe(200);
    expect((await add(over())).status).toBe(201);
    expect((await add(over({ attached: 'device' }))).body.detail).toContain('A real device is attached');
  });

  it('of a device belong to one on the bench', async () => {
    const device = await make.post<StoredDevice>('/devices', {
      name: 'Laptop',
      kind: 'laptop',
      battery: 230_400,
      ceilings: [{ connector: 'C', lead: 'long lead', volts: 20, watts: 60 }],
      baseline: 58,
      note: '',
    });
    const run = {
      ...head,
      id: newId(),
      rigId: rig.id,
      kind: 'device',
      deviceId: device.id,
      connector: 'C',
      lead: 'long lead',
      workload: 'screen on',
      charge: 0.4,
      settled: 240,
      place: 'port',
      volts: 20,
      watts: 53,
      outcome: 'charging',
      message: '',
    };
    await make.claim(sampleId, { kind: 'total', watts: 65 });
    expect((await add(run)).status).toBe(201);
    expect((await add({ ...run, id: newId(), deviceId: '01JZZZZZZZZZZZZZZZZZZZZZZZ' })).status).toBe(422);
    expect(judgeSample(toJudge(await dossier())).claims[0]?.state).toBe('at least');
    const changed = await request(harness.app)
      .put(`/api/devices/${device.id}`)
      .set('If-Match', '"v1"')
      .send({ name: 'Work laptop', kind: 'laptop', battery: null, ceilings: [], baseline: null, note: '' });
    expect(changed.body).toMatchObject({ name: 'Work laptop', version: 2 });
  });

  it.each([
    ['a port that is not there', { port: 'C9' }, 'no port "C9"'],
    ['a hold that contradicts itself', { held: 60 }, 'How did it end?'],
    ['°F in a °C field', { ambient: 349.15 }, 'If the meter shows °F'],
    ['a kind nobody knows', { kind: 'guess' }, ''],
  ])('with %s are refused', async (_what, part, sentence) => {
    const answer = await add(hold(part));
    expect(answer.status).toBe(422);
    expect(JSON.stringify(answer.body)).toContain(sentence.replaceAll('"', '\\"'));
    expect((await dossier()).runs).toEqual([]);
  });
});

it('points keep their readings in one piece when one of a list is bad', async () => {
  const good = aStep([reading('voltage', 'port', '20.02')]);
  const bad = aStep([reading('voltage', 'port', 'twenty')]);
  expect((await addPoints(good, bad)).status).toBe(422);
  expect((await dossier()).points as Point[]).toEqual([]);
});
