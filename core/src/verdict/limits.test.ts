import { describe, expect, it } from 'vitest';
import { efficiencySeries } from '../efficiency/index.ts';
import { idleResults } from '../idle/index.ts';
import { LIMIT_SETS } from '../limits/index.ts';
import { CAR_SUPPLIES, type Mains, REGULATORY_PAIR, suppliesFor } from '../reading/index.ts';
import { aPoint, aReading, aRig, byTheBook, takenByTheBook } from '../testing/reading.ts';
import { type Dossier, limitsOfIdle, limitsOfSetups, type SetupFacts } from './index.ts';

const EU: Mains = { kind: 'ac', volts: 230, hertz: 50 };
const CAR: Mains = { kind: 'dc', volts: 13.8 };

const setupOf = (volts: number, amps: number, part: Partial<SetupFacts> = {}): SetupFacts => ({
  id: 's1',
  name: `C1 ${volts} V`,
  outputs: [{ port: 'C1', volts, amps }],
  evidence: 'load',
  purpose: 'efficiency',
  rigId: 'rig',
  nameplateClass: null,
  ...part,
});

const minute = (count: number) => new Date(Date.UTC(2026, 10, 2, 9, count)).toISOString();
const four = (setup: SetupFacts, mains: Mains, eta: number) =>
  [1, 0.75, 0.5, 0.25].map((load, index) => {
    const [{ volts, amps } = { volts: 0, amps: 0 }] = setup.outputs;
    return aPoint({
      mains,
      load,
      u: 0.001,
      takenAt: minute(index),
      taken: takenByTheBook(mains),
      watts: (volts * amps * load) / eta,
      out: { C1: [volts, amps * load] },
    });
  });

const line = (volts: number, amps: number) =>
  ({
    id: `${volts}`,
    promise: { kind: 'port-line', port: 'C1', volts, amps },
    duration: { kind: 'unstated' },
    printed: 'label',
  }) as const;

function dossierOf(setup: SetupFacts, points: Dossier['points'], part: Partial<Dossier> = {}): Dossier {
  return {
    sample: { kind: 'wall', ports: [{ label: 'C1', connector: 'C', twin: null }], mass: null, prices: [] },
    claims: [line(5, 3), line(20, 2.25)],
    setups: [setup],
    points,
    stated: [],
    readOuts: [],
    captures: [],
    runs: [],
    cableRuns: [],
    checks: [],
    devices: [],
    rigs: [aRig()],
    instruments: [],
    limitSets: LIMIT_SETS,
    profile: {
      rule: 'guarded',
      limitSetIds: LIMIT_SETS.map(({ id }) => id),
      mains: REGULATORY_PAIR,
    } as unknown as Dossier['profile'],
    ...part,
  };
}

const linesOf = (dossier: Dossier) =>
  limitsOfSetups(
    dossier,
    dossier.setups.map((setup) => efficiencySeries(setup, dossier.points, dossier.rigs)),
    LIMIT_SETS,
  )[0]?.lines ?? [];

describe('a loading held against the sets', () => {
  it('is a verdict where everything was done as asked, and indicative at the other mains', () => {
    const setup = setupOf(20, 2.25);
    const lines = linesOf(dossierOf(setup, four(setup, EU, 0.9)));
    expect(lines.map(({ setId, standing }) => [setId, standing])).toEqual([
      ['us-level-6', 'indicative'],
      ['eu-2019-1782', 'verdict'],
      ['eu-coc-5-tier-2', 'verdict'],
    ]);
    expect(lines[0]?.bySet).toEqual(['Taken at 230 V 50 Hz; the set asks for 115 V 60 Hz.']);
  });

  it('lowest level at 5 V is low-voltage, with the nameplate current the EU text asks for', () => {
    const setup = setupOf(5, 3);
    const eu = linesOf(dossierOf(setup, four(setup, EU, 0.86))).find(({ setId }) => setId === 'eu-2019-1782');
    expect(eu).toMatchObject({ standing: 'verdict', limit: { low: expect.closeTo(0.81385, 5) } });
    const two = setupOf(5, 2);
    const short = linesOf(dossierOf(two, four(two, EU, 0.86))).find(({ setId }) => setId === 'eu-2019-1782');
    expect(short?.bySet).toEqual(['At 5 V 100 % is 3 A here; loaded with 2 A.']);
  });

  it('a load that was off, or a point out of order, keeps it from being a verdict', () => {
    const setup = setupOf(20, 2.25);
    const [full, ...rest] = four(setup, EU, 0.9);
    if (!full) throw new Error('no point');
    const { readings: _, ...conditions } = full;
    const off = aPoint({ ...conditions, id: 'off', watts: 48, out: { C1: [20, 2.1] }, u: 0.001 });
    const eu = linesOf(dossierOf(setup, [off, ...rest])).find(({ setId }) => setId === 'eu-2019-1782');
    expect(eu?.reasons).toEqual(['At 100 %: C1 carried 2.1 A; 100 % is 2.25 A ± 2 points.']);
    const mixed = [1, 2, 0, 3].flatMap((at, index) => {
      const point = four(setup, EU, 0.9)[at];
      return point ? [{ ...point, takenAt: minute(index) }] : [];
    });
    const found = linesOf(dossierOf(setup, mixed)).find(({ setId }) => setId === 'eu-2019-1782');
    expect(found?.standing).toBe('verdict');
    const climbing = [0, 2, 1, 3].flatMap((at, index) => {
      const point = four(setup, EU, 0.9)[at];
      return point ? [{ ...point, takenAt: minute(index) }] : [];
    });
    const out = linesOf(dossierOf(setup, climbing)).find(({ setId }) => setId === 'eu-2019-1782');
    expect(out?.reasons[0]).toContain('Out of order: 75 % was taken after 50 %');
  });

  it('a class of one’s own changes the formula, not the reading', () => {
    const setup = setupOf(20, 2.25, { nameplateClass: 'multiple-voltage', classReason: 'A second output.' });
    const [found] = limitsOfSetups(
      dossierOf(setup, four(setup, EU, 0.9)),
      [efficiencySeries(setup, four(setup, EU, 0.9), [aRig()])],
      LIMIT_SETS,
    );
    expect(found).toMatchObject({
      nameplateClass: 'multiple-voltage',
      overridden: true,
      derived: { nameplateClass: 'basic' },
    });
    expect(found?.lines.find(({ setId }) => setId === 'eu-2019-1782')?.limit).toMatchObject({
      low: expect.closeTo(0.075 * Math.log(45) + 0.561, 9),
    });
  });

  it('what is fed from a vehicle is not held against sets for the mains', () => {
    const setup = setupOf(20, 2.25);
    expect(linesOf(dossierOf(setup, four(setup, CAR, 0.9)))).toEqual([]);
  });
});

describe('idle held against the sets', () => {
  const idle = (watts: number, seconds: number) =>
    aPoint({
      setupId: null,
      load: 0,
      mains: EU,
      readings: [
        aReading({ quantity: 'energy', value: watts * seconds, u: 0.3 }),
        aReading({ quantity: 'duration', value: seconds, u: 0 }),
      ],
    });
  const held = (watts: number, seconds: number, stated: Dossier['stated']) => {
    const points = [idle(watts, seconds)];
    const dossier = dossierOf(setupOf(20, 2.25), points, { stated });
    return limitsOfIdle(
      dossier,
      idleResults(points, () => 0),
      45,
      LIMIT_SETS,
    );
  };

  it('is a verdict by energy over ten minutes from a known supply', () => {
    const eu = held(0.06, 600, [byTheBook(null, EU)]).find(({ setId }) => setId === 'eu-2019-1782');
    expect(eu).toMatchObject({ standing: 'verdict', decision: { outcome: 'proven' }, reasons: [] });
  });

  it('over five minutes only, or from a supply nobody looked at, it indicates', () => {
    const short = held(0.06, 300, [byTheBook(null, EU)]).find(({ setId }) => setId === 'eu-2019-1782');
    expect(short?.reasons).toEqual(['Averaged over 5 min; bursts need 10 min or more.']);
    const unknown = held(0.06, 600, []).find(({ setId }) => setId === 'eu-2019-1782');
    expect(unknown?.reasons).toEqual(['Supply voltage, frequency, distortion not recorded.']);
  });
});

describe('what a sample is fed with', () => {
  it('supplies are those of the method that fit the kind, else the usual ones', () => {
    expect(suppliesFor('wall', REGULATORY_PAIR)).toEqual(REGULATORY_PAIR);
    expect(suppliesFor('car', REGULATORY_PAIR)).toEqual(CAR_SUPPLIES);
    expect(suppliesFor('car', [EU, CAR])).toEqual([CAR]);
    expect(suppliesFor('desktop', [CAR])).toEqual(REGULATORY_PAIR);
  });
});
