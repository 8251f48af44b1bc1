// A server on a fresh database for a test file, spoken to over HTTP.

import { randomUUID } from 'node:crypto';
import { benchParts, startRack } from '@lastmark/bench/sim';
import type { AttachmentInfo, Sample, SampleInput, StoredClaim, StoredRig, StoredSetup } from '@lastmark/contract';
import type { Express } from 'express';
import { createPool } from 'mysql2/promise';
import { pino } from 'pino';
import request from 'supertest';
import { inject } from 'vitest';
import { scopesOf } from '../src/collections/guard.ts';
import { type Connection, connect, connectionsOf, VITAL_CONNECTIONS } from '../src/db/database.ts';
import { newId } from '../src/db/ids.ts';
import { migrate } from '../src/db/migrate.ts';
import { createHandlers } from '../src/handlers.ts';
import { createApp } from '../src/http/app.ts';
import { Door } from '../src/http/door.ts';
import { OPEN } from '../src/http/entrance.ts';
import { dropIncoming } from '../src/http/incoming.ts';
import { startThreads } from '../src/jobs/jobs.ts';
import { Places } from '../src/links/places.ts';
import { LIVE_EVERY } from '../src/live/stream.ts';
import { Journal } from '../src/log/journal.ts';
import { MIGRATIONS } from '../src/paths.ts';
import { PeopleEntrance } from '../src/people/entrance.ts';
import { Provider, type ProviderSettings } from '../src/people/provider.ts';
import type { StartBench } from '../src/practice/bench-process.ts';
import { PRACTICE_SPEED } from '../src/practice/bench-process.ts';
import { Practice } from '../src/practice/practice.ts';
import { CONFIRM } from '../src/runner/faults.ts';
import type { Runner } from '../src/runner/runner.ts';
import { Metrics } from '../src/watch/metrics.ts';
import { createWorking, type Working } from '../src/working.ts';
import { Answers } from './answers.ts';
import { copyDatabase, EMPTY } from './copy-database.ts';

export interface Harness extends Connection {
  readonly app: Express;
  readonly url: string;
  readonly log: string[];
  readonly runner: Runner;
  readonly working: Working;
  readonly practice: Practice;
  readonly stop: () => Promise<void>;
}

/** The simulated bench of a drill in this process. */
export const startBenchHere: StartBench = async (file) => {
  const { chargers, cables, rig } = benchParts(file);
  const { ports, close } = await startRack({
    firstPort: 0,
    speed: PRACTICE_SPEED,
    seed: 1,
    chargers: chargers.map(({ truth }) => truth),
    cables: cables.map(({ truth }) => truth),
    rig,
  });
  return { ports, close };
};

/** One set for all files of a process: what a thread is made of is read once. */
const THREADS = startThreads();

/**
 * A migrated database of its own and an application on it.
 * @param demo begins with the demo, figures and all
 */
export async function startHarness(
  name: string,
  {
    migrated = true,
    demo = false,
    confirm = CONFIRM,
    liveEvery = LIVE_EVERY,
    server = inject('databaseUrl'),
    places = new Places(),
    people = false,
    provider = null as ProviderSettings | null,
  } = {},
): Promise<Harness> {
  const url = server.replace(/\/lastmark$/, `/lastmark_${name}`);
  const admin = createPool(server);
  await admin.query(`DROP DATABASE IF EXISTS lastmark_${name}`);
  await admin.query(`CREATE DATABASE lastmark_${name} CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci`);
  await admin.end();
  const connection = connect(url);
  // There is nothing to copy on a host of a test's own.
  if (migrated && server !== inject('databaseUrl')) await migrate(connection.pool, MIGRATIONS);
  else if (migrated) await copyDatabase(connection.pool, demo ? 'lastmark' : EMPTY);
  const log: string[] = [];
  const logger = pino({ level: 'error' }, { write: (line: string) => log.push(line) });
  const door = new Door({ host: '127.0.0.1', hosts: [] });
  const journal = new Journal(connection.db, logger);
  const own = people ? await PeopleEntrance.open(connection.db) : null;
  const entrance = own ?? OPEN;
  const vital = connect(url, VITAL_CONNECTIONS);
  const working = createWorking({
    db: connection.db,
    vital: vital.db,
    log: logger,
    journal,
    databaseUrl: url,
    threads: THREADS,
    version: '9.9.9',
    confirm,
    liveEvery,
    places,
    // As the start command names a server.
    owner: randomUUID(),
  });
  const metrics = new Metrics({ ...working, connections: () => connectionsOf(connection.pool) });
  const practice = new Practice({
    db: connection.db,
    databaseUrl: url,
    log: logger,
    entrance,
    version: '9.9.9',
    startBench: startBenchHere,
    handlers: createHandlers,
    realOff: () => working.loadsOff.press(),
  });
  const answers = new Answers(name);
  const app = createApp({
    db: connection.db,
    handlers: answers.watch(
      createHandlers(working, {
        practice,
        metrics,
        people: own && { key: own.key, journal, provider: provider && new Provider(provider, own.key) },
      }),
    ),
    log: logger,
    web: '/nowhere',
    door,
    entrance,
    scopes: scopesOf(connection.db),
    journal,
    wrote: () => working.figures.nudge(),
    practice: practice.handle,
    metrics,
  });
  return {
    ...connection,
    app,
    url,
    log,
    runner: working.runner,
    working,
    practice,
    stop: async () => {
      await practice.close();
      await working.close();
      await journal.close();
      await vital.pool.end();
      await connection.pool.end();
      await dropIncoming();
      answers.end();
    },
  };
}

export const aSample = (
  part: { model?: Partial<SampleInput['model']>; unit?: Partial<SampleInput['unit']> } = {},
): SampleInput => ({
  model: {
    maker: 'Tarnhook',
    model: 'Ember 45',
    kind: 'wall',
    ports: [
      { label: 'C1', connector: 'C', twin: null },
      { label: 'A1', connector: 'A', twin: null },
    ],
    length: 0.052,
    width: 0.039,
    height: 0.028,
    mass: 0.083,
    withPlug: true,
    plugForm: 'folding',
    plugEarthed: false,
    plugBlocksNeighbour: false,
    inputRating: '100–240 V 50/60 Hz 1.2 A',
    marks: ['double insulation'],
    prices: [{ kind: 'paid', amount: 24.5, currency: 'EUR', date: '2026-03-01' }],
    ...part.model,
  },
  unit: { revision: 'A', serial: 'T-1', dateCode: '', obtained: 'bought', disclosure: '', notes: '', ...part.unit },
});

/** Send JSON and a file as a form, as the browser does. @param file null for a form without one */
export function sendForm(app: Express, path: string, input: object, file: string | Buffer | null) {
  const form = request(app).post(`/api${path}`).field('input', JSON.stringify(input));
  return file === null ? form : form.attach('file', Buffer.from(file), 'file');
}

const NO_SPEC = {
  readingPercent: 0,
  rangePercent: 0,
  range: 0,
  offset: 0,
  resolution: 0,
  floor: 0,
  coverage: 'not stated',
};

/** Create things the way the browser does; every call must succeed. */
/** Makes things over HTTP. @param by whose browser; nobody's where people are not told apart */
export function makers({ app }: Pick<Harness, 'app'>, by: ReturnType<typeof request> = request(app)) {
  const post = async <T>(path: string, body: object): Promise<T> => {
    const answer = await by.post(`/api${path}`).send(body);
    if (answer.status !== 201) throw new Error(`${path}: ${answer.status} ${JSON.stringify(answer.body)}`);
    return answer.body as T;
  };
  return {
    post,
    sample: (part?: Parameters<typeof aSample>[0]) => post<Sample>('/samples', aSample(part)),
    claim: (sampleId: string, promise: object) =>
      post<StoredClaim>(`/samples/${sampleId}/claims`, { promise, duration: { kind: 'unstated' }, printed: 'label' }),
    rig: async (part: object = {}) => {
      const instrument = (specs: object) =>
        post<{ id: string }>('/instruments', {
          name: 'Meter',
          class: 'bench multimeter',
          firmware: '',
          calibrationDue: '2099-12-31',
          address: null,
          profileId: null,
          sees: null,
          specs,
        });
      const watts = await instrument({ power: { ...NO_SPEC, readingPercent: 0.15, offset: 0.1, floor: 0.01 } });
      const volts = await instrument({ voltage: { ...NO_SPEC, readingPercent: 0.05, offset: 0.004 } });
      const amps = await instrument({ current: { ...NO_SPEC, readingPercent: 0.1, offset: 0.003 } });
      const meters = { mains: watts.id, outputVolts: volts.id, outputAmps: amps.id, loadEnd: null };
      return post<StoredRig>('/rigs', {
        name: 'Bench',
        meters,
        outputPlace: 'port',
        leadOhms: 0,
        leadUOhms: 0,
        elements: [],
        note: '',
        ...part,
      });
    },
    setup: (sampleId: string, rigId: string, part: object = {}) =>
      post<StoredSetup>(`/samples/${sampleId}/setups`, {
        name: 'C1 20 V',
        outputs: [{ port: 'C1', volts: 20, amps: 3.25 }],
        evidence: 'load',
        purpose: 'efficiency',
        rigId,
        nameplateClass: null,
        ...part,
      }),
    attach: async (owner: string, ownerId: string, name: string, bytes: Buffer) => {
      const answer = await by
        .post('/api/attachments')
        .query({ owner, ownerId, name })
        .set('Content-Type', 'application/octet-stream')
        .send(bytes);
      return { status: answer.status, body: answer.body as AttachmentInfo };
    },
  };
}

export const EU = { kind: 'ac', volts: 230, hertz: 50 } as const;

/** A loaded point as the keypad sends it. */
export const aPoint = (
  setupId: string,
  rigId: string,
  typed: Partial<Record<'watts' | 'volts' | 'amps', string>>,
  part: object = {},
) => ({
  id: newId(),
  setupId,
  mains: EU,
  load: 1,
  attached: 'nothing',
  rigId,
  takenAt: '2026-03-02T09:00:00.000Z',
  readings: [
    ...(typed.watts === undefined
      ? []
      : [{ id: newId(), quantity: 'power', place: 'mains', port: null, typed: typed.watts }]),
    ...(typed.volts === undefined
      ? []
      : [{ id: newId(), quantity: 'voltage', place: 'port', port: 'C1', typed: typed.volts }]),
    ...(typed.amps === undefined
      ? []
      : [{ id: newId(), quantity: 'current', place: 'port', port: 'C1', typed: typed.amps }]),
  ],
  ...part,
});
