import { describe, expect, it, vi } from 'vitest';
import type { Delivered } from '../evidence/index.ts';
import { formatPlain } from '../quantity/index.ts';
import { type AnyStation, STATIONS_ABOUT, type Station, stationsOf } from '../station/index.ts';
import { dossierFor } from '../testing/verdict.ts';
import { measured } from '../uncertainty/index.ts';
import { createJudge, type Dossier, judgeSample, STATIONS } from './index.ts';

/** Counts ripple captures, and has once seen C1 carry what the first setup asks for. */
const toy: Station<'hum', Pick<Dossier, 'captures' | 'setups'>, object, { count: number; delivered: Delivered[] }> = {
  id: 'hum',
  title: 'Hum',
  kinds: ['wall', 'desktop'],
  touches: ['port-line'],
  settles: ['port-line'],
  reads: ['captures', 'setups'],
  needs: [],
  conclude: ({ captures, setups }) => ({
    count: captures.length,
    delivered: setups.map(({ outputs }) => {
      const read = outputs.map(({ port, volts, amps }) => ({
        port,
        volts: measured(volts, 0.001),
        amps: measured(amps, 0.001),
        watts: measured(volts * amps, 0.01),
        corrected: false,
        spread: null,
      }));
      return {
        sourceIds: ['hum'],
        asked: outputs,
        load: 1,
        evidence: 'load' as const,
        mains: null,
        takenAt: '2026-03-02T10:00:00.000Z',
        outputs: read,
        watts: measured(45, 0.01),
        wall: null,
        conditions: 'heard humming',
        epoch: 0,
        runs: 1,
        notes: [],
      } as unknown as Delivered;
    }),
  }),
  evidence: ({ delivered }) => ({ delivered }),
  progress: ({ count }, _slice, settles) => ({ done: count, total: 2, worst: settles[0] ?? null }),
  says: ({ count }) => [`${count} hums of ${formatPlain(50, 'frequency')}.`],
};

const promised = dossierFor({
  claims: [
    {
      id: 'c',
      promise: { kind: 'port-line', port: 'C1', volts: 20, amps: 2.25 },
      duration: { kind: 'unstated' },
      printed: '20 V 2.25 A',
    },
  ],
});

describe('the list of stations', () => {
  it('has the stations and the order of what is said about them', () =>
    expect(STATIONS.map(({ id, title }) => ({ id, title }))).toEqual(
      STATIONS_ABOUT.map(({ id, title }) => ({ id, title })),
    ));

  it('lets each station settle no claim it does not touch, and no two settle the same', () => {
    for (const { touches, settles } of STATIONS)
      if (touches) expect(touches).toEqual(expect.arrayContaining([...settles]));
    const settled = STATIONS.flatMap(({ settles }) => settles);
    expect(new Set(settled).size).toBe(settled.length);
  });

  it('needs only what is in it, and says so', () => {
    const lost = { ...toy, needs: ['nowhere'] } as AnyStation;
    expect(() => judgeSample(promised, [...STATIONS, lost])).toThrow('hum');
  });
});

describe('a station put into the list for a while', () => {
  const among = [...STATIONS, toy];

  it('is judged, and its evidence settles claims in the ledger', () => {
    expect(judgeSample(promised).claims[0]?.state).toBe('not tested');
    const { claims, results } = judgeSample(promised, among);
    expect(new Map<string, unknown>(Object.entries(results)).get('hum')).toMatchObject({ count: 0 });
    expect(claims[0]?.state).toBe('proven');
    for (const { evidence } of claims[0]?.tests ?? []) expect(evidence.conditions).toBe('heard humming');
    expect(claims[0]?.tests).toHaveLength(2);
  });

  it('tells how far it is, its worst, and what it has to say', () => {
    const { stations } = judgeSample(promised, among);
    expect(stations.at(-1)).toEqual({
      id: 'hum',
      title: 'Hum',
      done: 0,
      total: 2,
      worst: 'proven',
      look: 'untouched',
      says: ['0 hums of 50 Hz.'],
    });
    expect(stations.map(({ id }) => id)).toEqual([...stationsOf(STATIONS_ABOUT, 'wall').map(({ id }) => id), 'hum']);
  });

  it('is left out of samples of kinds that do not have it', () => {
    const car = dossierFor({ sample: { ...promised.sample, kind: 'car' } });
    expect(judgeSample(car, among).stations.map(({ id }) => id)).not.toContain('hum');
  });
});

describe('a judge that remembers', () => {
  const counted = () => {
    const conclude = vi.fn((slice: object) => slice);
    const needing = vi.fn(() => null);
    const one = {
      ...toy,
      id: 'one',
      reads: ['captures'],
      conclude,
      evidence: undefined,
      says: undefined,
    } as AnyStation;
    const two = { ...one, id: 'two', reads: ['runs'], needs: ['one'], conclude: needing } as AnyStation;
    const progress = { progress: () => ({ done: 0, total: 1, worst: null }) };
    return { conclude, needing, judge: createJudge([...STATIONS, { ...one, ...progress }, { ...two, ...progress }]) };
  };

  it('concludes only those again that read what changed, or need what did', () => {
    const { conclude, needing, judge } = counted();
    judge(promised);
    judge({ ...promised });
    expect([conclude.mock.calls.length, needing.mock.calls.length]).toEqual([1, 1]);
    judge({ ...promised, runs: [] });
    expect([conclude.mock.calls.length, needing.mock.calls.length]).toEqual([1, 2]);
    judge({ ...promised, captures: [] });
    expect([conclude.mock.calls.length, needing.mock.calls.length]).toEqual([2, 3]);
  });

  it('gives a station the parts it declares and nothing else', () => {
    const { conclude, judge } = counted();
    judge(promised);
    expect(Object.keys(conclude.mock.calls[0]?.[0] ?? {})).toEqual(['captures']);
  });

  it('says the same as a judge that knows nothing yet', () => {
    const judge = createJudge();
    judge(dossierFor({}));
    expect(judge(promised)).toEqual(judgeSample(promised));
  });
});
