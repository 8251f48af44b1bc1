// A judge that remembers must say what one says that has never seen anything: every edit is judged twice, the second
// time as copies of everything, which nothing remembered can fit.
import { describe, expect, it } from 'vitest';
import { LIMIT_SETS } from '../limits/index.ts';
import { seededRandom } from '../random/index.ts';
import type { Point } from '../reading/index.ts';
import type { SplitRun } from '../run/index.ts';
import { aHold, aStep } from '../testing/proof.ts';
import { aPoint, aReading, aRig, byTheBook } from '../testing/reading.ts';
import { dossierFor, EU, US } from '../testing/verdict.ts';
import { NO_SPEC } from '../uncertainty/index.ts';
import { createJudge, type Dossier, judgeSample } from './index.ts';

const random = seededRandom(131);
const pick = <T>(items: readonly T[]): T => items[Math.floor(random() * items.length)] as T;
const near = (value: number) => value * (1 + 0.01 * (random() - 0.5));
let serial = 0;
const moment = () => {
  serial += 1;
  return new Date(Date.UTC(2026, 2, 2) + serial * 60_000).toISOString();
};
const spec = { ...NO_SPEC, readingPercent: 0.2, resolution: 0.001 };
const meter = (id: string, part = {}) => ({
  id,
  name: id,
  sees: null,
  specs: { power: spec, voltage: spec, current: spec },
  ...part,
});
const setup = (
  id: string,
  purpose: 'efficiency' | 'proof',
  volts: number,
  amps: number,
): Dossier['setups'][number] => ({
  id,
  name: id,
  outputs: [{ port: 'C1', volts, amps }],
  evidence: 'load',
  purpose,
  rigId: 'rig',
  nameplateClass: null,
});
const split = (): SplitRun => ({
  id: `split ${moment()}`,
  kind: 'split',
  port: 'C1',
  order: ['C1', 'C2'],
  rigId: 'rig',
  takenAt: moment(),
  u: 0,
  note: '',
  supersedes: null,
  withdrawn: false,
  mains: EU,
  shares: [
    { port: 'C1', volts: near(20), amps: near(1.5), light: false },
    { port: 'C2', volts: random() < 0.5 ? near(9) : null, amps: near(1), light: random() < 0.2 },
  ],
  mainsWatts: random() < 0.5 ? near(50) : null,
  evidence: 'load',
  drops: [],
});
const loaded = (load: number): Point =>
  aPoint({
    load,
    u: 0.002,
    mains: pick([EU, US]),
    watts: near(load === 0 ? 0.06 : 50 * load),
    out: load === 0 ? {} : { C1: [near(20), near(2.25 * load)] },
    takenAt: moment(),
  });
const unstated = (): Point => {
  const point = loaded(1);
  return { ...point, readings: point.readings.map((reading) => ({ ...reading, u: null, instrumentId: 'wattmeter' })) };
};
const proofSetup = setup('p1', 'proof', 20, 3);
const proof = (): Point => {
  const amps = near(pick([1, 2, 3]));
  return aStep(
    proofSetup,
    { port: [near(20), amps], ...(random() < 0.5 ? { end: [19.7, near(amps)] } : {}) },
    { takenAt: moment(), mains: EU },
  );
};

const start = dossierFor({
  sample: {
    kind: 'wall',
    ports: ['C1', 'C2'].map((label) => ({ label, connector: 'C', twin: null })),
    mass: 0.1,
    prices: [],
  },
  claims: [
    {
      id: 'line',
      promise: { kind: 'port-line', port: 'C1', volts: 20, amps: 2.25 },
      duration: { kind: 'unstated' },
      printed: 'x',
    },
    {
      id: 'both',
      promise: {
        kind: 'combination',
        shares: [
          { port: 'C1', watts: 30 },
          { port: 'C2', watts: 9 },
        ],
      },
      duration: { kind: 'unstated' },
      printed: 'y',
    },
    { id: 'idle', promise: { kind: 'idle', watts: 0.075 }, duration: { kind: 'unstated' }, printed: 'z' },
  ] as Dossier['claims'],
  setups: [setup('s1', 'efficiency', 20, 2.25), proofSetup],
  limitSets: LIMIT_SETS,
  instruments: [meter('wattmeter'), meter('voltmeter'), meter('ammeter')],
});

type Edit = (dossier: Dossier) => Dossier;
const corrected: Edit = (dossier) => {
  const at = Math.floor(random() * dossier.points.length);
  const point = dossier.points[at];
  const old = point?.readings.find(({ value }) => value !== null);
  if (!point || !old) return dossier;
  const value = random() < 0.3 ? null : near(old.value ?? 1);
  const newer = aReading({ ...old, id: `again ${moment()}`, value: value as number, supersedes: old.id });
  return { ...dossier, points: dossier.points.with(at, { ...point, readings: [...point.readings, newer] }) };
};
const EDITS: Readonly<Record<string, Edit>> = {
  'a load point': (d) => ({ ...d, points: [...d.points, loaded(pick([1, 0.75, 0.5, 0.25, 0.1]))] }),
  'an idle point': (d) => ({ ...d, points: [...d.points, loaded(0)] }),
  'a point of unknown accuracy': (d) => ({ ...d, points: [...d.points, unstated()] }),
  'a proof step': (d) => ({ ...d, points: [...d.points, proof()] }),
  'a correction': corrected,
  'a combination': (d) => ({ ...d, runs: [...d.runs, split()] }),
  'a hold': (d) => ({ ...d, runs: [...d.runs, aHold({ takenAt: moment(), amps: 2.25 })] }),
  'another accuracy': (d) => ({
    ...d,
    instruments: d.instruments.map((one) =>
      random() < 0.5 ? one : meter(one.id, { specs: random() < 0.3 ? {} : { power: spec, voltage: spec } }),
    ),
  }),
  'another rig': (d) => ({ ...d, rigs: [aRig({ leadOhms: near(0.1), outputPlace: pick(['port', 'load-end']) })] }),
  'another class': (d) => ({
    ...d,
    setups: d.setups.map((one) => ({ ...one, nameplateClass: pick([null, 'basic', 'low'] as const) })) as never,
  }),
  'a statement': (d) => ({ ...d, stated: [...d.stated, byTheBook(pick(['s1', null]), pick([EU, US]))] }),
  'other limit sets': (d) => ({
    ...d,
    profile: { ...d.profile, limitSetIds: LIMIT_SETS.filter(() => random() < 0.6).map(({ id }) => id) },
  }),
  'another rule': (d) => ({ ...d, profile: { ...d.profile, rule: pick(['guarded', 'simple'] as const) } }),
  'another order of loadings': (d) => ({ ...d, setups: d.setups.toReversed() }),
};

describe('a judge that remembers', () => {
  it('says what one says that has never seen anything, whatever was changed', () => {
    const judge = createJudge();
    let dossier = start;
    const states = new Set<string>();
    for (let turn = 0; turn < 120; turn += 1) {
      const [name, edit] = pick(Object.entries(EDITS));
      dossier = edit(dossier);
      const verdict = judge(dossier);
      expect(verdict, `after ${name}, turn ${turn}`).toEqual(judgeSample(structuredClone(dossier)));
      for (const { state } of verdict.claims) states.add(state);
    }
    // The way led through more than one state, or it would prove little.
    expect(states.size).toBeGreaterThan(3);
  });
});
