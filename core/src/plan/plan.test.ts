import { describe, expect, it } from 'vitest';
import { encodeSource, parseOffer, type SourceObject, wordText } from '../pd/index.ts';
import type { Mains } from '../reading/index.ts';
import { aReadOut } from '../testing/read-out.ts';
import {
  efficiencyPoint,
  handWork,
  METHODS,
  type Method,
  mainsOf,
  makeSheet,
  methodOf,
  methodsFor,
  ofKind,
  orderFindings,
  requestFor,
  type SheetSource,
  type SheetStep,
  sheetGaps,
  sheetSeconds,
  stepSeconds,
  warmUpBefore,
} from './index.ts';

const words = (...lines: string[]) =>
  lines.map((line) => {
    const parsed = parseOffer(line);
    if (!parsed.ok) throw new Error(parsed.reason);
    return wordText(encodeSource(parsed.object as SourceObject));
  });
const method = (id: string) => methodOf(id) as Method;
const line = (port: string, volts: number, amps: number) => ({
  promise: { kind: 'port-line', port, volts, amps } as const,
});
const source = (part: Partial<SheetSource> = {}): SheetSource => ({
  ports: ['C1'],
  claims: [line('C1', 5, 3), line('C1', 9, 3), line('C1', 20, 2.25), { promise: { kind: 'total', watts: 45 } }],
  readOuts: [],
  loadings: [],
  devices: [{ id: 'laptop', name: 'Warden’s laptop' }],
  wanted: [],
  ...part,
});
const kinds = (steps: readonly SheetStep[]) => [...new Set(steps.map(({ kind }) => kind))];
const series = (steps: readonly SheetStep[]) =>
  ofKind(steps, 'point').filter(({ station }) => station === 'efficiency');
const titles = (steps: readonly SheetStep[]) => steps.map(({ title }) => title);

describe('a sheet by the regulatory pair', () => {
  const steps = makeSheet(method('regulatory-pair'), source());

  it('comes in the order that disturbs least: rig, read-out, proof, warm-up, series, no load, cool-down', () => {
    expect(kinds(steps)).toEqual(['rig', 'capture', 'read-out', 'point', 'warm-up', 'idle', 'cool']);
    expect(orderFindings(steps)).toEqual([]);
  });

  it('reads no load last at each mains, as loading condition 5', () => {
    const order = steps.filter(
      (step) => step.kind === 'idle' || (step.kind === 'point' && step.station === 'efficiency'),
    );
    const at = (volts: number) => order.filter((step) => mainsOf(step)?.volts === volts).map(({ kind }) => kind);
    for (const volts of [115, 230]) {
      expect(at(volts).indexOf('idle')).toBe(at(volts).length - 1);
      expect(at(volts).filter((kind) => kind === 'idle')).toHaveLength(1);
    }
  });

  it('plans what a complete result needs, a text’s own current only at its mains, and nothing that is not offered', () => {
    const us = { kind: 'ac', volts: 115, hertz: 60 } as const;
    const two = [{ port: 'C1', volts: 5, amps: 2 }];
    const planned = makeSheet(
      method('regulatory-pair'),
      source({
        readOuts: [aReadOut(['5 V 3 A', '9 V 3 A', '20 V 2.25 A'])],
        wanted: [
          { outputs: [{ port: 'C1', volts: 20, amps: 2.25 }], mains: null },
          { outputs: two, mains: us },
        ],
        loadings: [[{ port: 'C1', volts: 20, amps: 3 }], [{ port: 'C1', volts: 9, amps: 3 }]],
      }),
    );
    const taken = (volts: number) => [
      ...new Set(
        series(planned)
          .filter(({ mains }) => mains.volts === volts)
          .map(({ outputs: [only] }) => `${only?.volts} V ${only?.amps} A`),
      ),
    ];
    expect(taken(115)).toEqual(['20 V 2.25 A', '9 V 3 A', '5 V 2 A']);
    expect(taken(230)).toEqual(['20 V 2.25 A', '9 V 3 A']);
  });

  it('says what a complete result will still lack, and why', () => {
    const mains = [
      { kind: 'ac', volts: 115, hertz: 60 },
      { kind: 'ac', volts: 230, hertz: 50 },
    ] as const;
    const wanted = [{ outputs: [{ port: 'C1', volts: 20, amps: 2.25 }], mains: null, measuredAt: [] }];
    const asked = { wanted, mains, loadings: [], readOuts: [] };
    expect(sheetGaps({ ...asked, steps })).toEqual([]);
    expect(sheetGaps({ ...asked, steps: makeSheet(method('local-mains'), source()) })).toEqual([
      'Efficiency at 115 V 60 Hz: the sheet has no points there.',
      'Idle at 115 V 60 Hz: the sheet does not read it.',
    ]);
    const half = steps.map((step) =>
      step.kind === 'point' && step.load === 0.5 && step.mains.volts === 230 ? { ...step, skip: 'no time' } : step,
    );
    const five = { outputs: [{ port: 'C1', volts: 5, amps: 3 }], mains: null, measuredAt: ['230 V 50 Hz'] };
    expect(sheetGaps({ ...asked, wanted: [...wanted, five], steps: half })).toEqual([
      'C1 20 V 2.25 A at 230 V 50 Hz: the sheet has not all four loads.',
    ]);
    const readOuts = [aReadOut(['5 V 3 A', '20 V 2.25 A'])];
    expect(sheetGaps({ ...asked, steps, readOuts, loadings: [[{ port: 'C1', volts: 20, amps: 3.25 }]] })).toEqual([
      'C1 20 V 3.25 A: the read-out of C1 does not offer that current.',
    ]);
  });

  it('says before it starts what a rig cannot do by itself', () => {
    const all = { setsMains: true, plugs: true, asksLevels: true, readsOut: true, manyChannels: true };
    expect(handWork(steps, all)).toEqual([]);
    const few = [0, 1].map((at) =>
      efficiencyPoint(
        method('local-mains'),
        { kind: 'ac', volts: 230, hertz: 50 },
        [{ port: 'C1', volts: 5 + 4 * at, amps: 3 }],
        1,
      ),
    );
    const named = few.map((step, at) => ({ ...step, id: `p${at}` }));
    expect(handWork(named, { ...all, setsMains: false, plugs: false, asksLevels: false, readsOut: false })).toEqual([
      'The supply is set by hand, once.',
      'Plugs are moved by hand, once.',
      'Levels are set at the trigger by hand, 2 times.',
    ]);
    const trio = makeSheet(method('local-mains'), source({ ports: ['C1', 'C2'] }));
    const said = handWork(trio, { ...all, readsOut: false, manyChannels: false });
    expect(said).toHaveLength(2);
    expect(said[0]).toMatch(/^Without a PD analyser \d+ steps cannot be done/);
    expect(
      handWork(
        trio.map((step) => ({ ...step, skip: 'no' })),
        { ...all, readsOut: false },
      ),
    ).toEqual([]);
  });

  it('has warm-up and settling as steps, not as notes', () => {
    const warm = ofKind(steps, 'warm-up');
    expect(warm.map(({ dwell, mains }) => [dwell, mains.volts])).toEqual([
      [1800, 115],
      [1800, 230],
    ]);
    expect(series(steps).every(({ settle }) => settle?.fraction === 0.01 && settle.over === 300)).toBe(true);
  });

  it('takes the lowest and highest level at five loads and both mains', () => {
    const points = series(steps);
    expect(points).toHaveLength(2 * 2 * 5);
    expect(new Set(points.map(({ outputs }) => outputs[0]?.volts))).toEqual(new Set([5, 20]));
    expect(titles(points)[0]).toBe('C1 20 V 2.25 A, 100 % at 115 V 60 Hz');
  });

  it('records what a laboratory wants besides: inrush from cold, the fading output, mains current warm at two loads', () => {
    const captures = ofKind(steps, 'capture').filter(({ capture }) => capture !== 'ripple' && capture !== 'soak');
    expect(captures.map(({ capture, mains, load }) => [capture, mains.volts, load])).toEqual([
      ['inrush', 115, 0],
      ['inrush', 230, 0],
      ['fading', 230, 0],
      ['waveform', 115, 1],
      ['waveform', 115, 0.25],
      ['waveform', 230, 1],
      ['waveform', 230, 0.25],
    ]);
    expect(captures.filter(({ needs }) => needs.includes('oscilloscope'))).toHaveLength(6);
  });

  it('records ripple warm, each level of the strongest port without load and with it, at each mains', () => {
    const ripple = ofKind(steps, 'capture').filter(({ capture }) => capture === 'ripple');
    expect(
      ripple.filter(({ mains }) => mains.volts === 115).map(({ outputs, load }) => [outputs[0]?.volts, load]),
    ).toEqual([
      [5, 0],
      [5, 1],
      [9, 0],
      [9, 1],
      [20, 0],
      [20, 1],
    ]);
    const first = steps.findIndex((step) => step.kind === 'capture' && step.capture === 'ripple');
    expect(steps.slice(0, first).some(({ kind }) => kind === 'warm-up')).toBe(true);
  });

  it('soaks an hour at each mains, from cold, and lets it cool behind', () => {
    const at = steps.flatMap((step, index) => (step.kind === 'capture' && step.capture === 'soak' ? [index] : []));
    expect(at.map((index) => [steps[index - 1]?.kind, steps[index]?.dwell, steps[index + 1]?.kind])).toEqual([
      ['cool', 3600, 'cool'],
      ['cool', 3600, 'cool'],
    ]);
  });

  it('has ids of its own for every step, and names what it needs', () => {
    expect(new Set(steps.map(({ id }) => id)).size).toBe(steps.length);
    expect(steps.find(({ kind }) => kind === 'read-out')?.needs).toContain('PD analyser');
  });

  it('takes the loadings there are already instead of its own', () => {
    const own = [[{ port: 'C1', volts: 9, amps: 3 }]];
    const points = series(makeSheet(method('local-mains'), source({ loadings: own })));
    expect(points.map(({ outputs }) => outputs[0]?.volts)).toEqual([9, 9, 9, 9, 9]);
  });

  it('adds the total of several ports, heaviest first', () => {
    const two = source({
      ports: ['C1', 'C2'],
      claims: [line('C1', 20, 3), line('C2', 9, 2), { promise: { kind: 'total', watts: 78 } }],
    });
    const points = series(makeSheet(method('local-mains'), two));
    expect(points[0]?.outputs.map(({ port }) => port)).toEqual(['C1', 'C2']);
  });

  it('estimates its length; a step left out takes no time', () => {
    const [first] = steps;
    expect(sheetSeconds(steps)).toBeGreaterThan(2 * 1800 + 20 * 300);
    expect(first && stepSeconds({ ...first, skip: 'no rig' })).toBe(0);
  });
});

describe('other schools', () => {
  it('fit the kinds of charger they are for', () => {
    expect(methodsFor('car').map(({ id }) => id)).toEqual(['desk', 'charges', 'car']);
    expect(methodsFor('wall').map(({ id }) => id)).toEqual([
      'regulatory-pair',
      'local-mains',
      'publication',
      'desk',
      'charges',
    ]);
    expect(METHODS.every(({ mains }) => mains.length > 0)).toBe(true);
  });

  it('whole charges are one step a device at the first port, from empty, watched', () => {
    const steps = makeSheet(method('charges'), source());
    expect(kinds(steps)).toEqual(['rig', 'charge']);
    expect(steps.find(({ kind }) => kind === 'charge')).toMatchObject({
      port: 'C1',
      startLevel: 0,
      attended: true,
      by: 'instruments',
      title: 'Warden’s laptop on C1, charged to its end',
    });
  });

  it('the desk rig types everything and uses real devices', () => {
    const steps = makeSheet(method('desk'), source());
    expect(steps.every(({ by, attended, kind }) => by === 'keypad' && (attended || kind === 'cool'))).toBe(true);
    expect(titles(steps)).toContain('Warden’s laptop on C1, settled 3 min');
    expect(steps.some(({ kind }) => kind === 'warm-up' || kind === 'read-out')).toBe(false);
  });

  it('the publication bench takes every level, idle with a cable, and holds for an hour', () => {
    const steps = makeSheet(method('publication'), source());
    expect(new Set(series(steps).map(({ outputs }) => outputs[0]?.volts))).toEqual(new Set([5, 9, 20]));
    expect(ofKind(steps, 'idle').map(({ attached }) => attached)).toEqual(['nothing', 'cable', 'nothing', 'cable']);
    expect(steps.find(({ kind }) => kind === 'hold')).toMatchObject({ dwell: 3600, attended: true });
  });

  it('the car is fed with DC, and says to fuse the lead', () => {
    const idle = makeSheet(method('car'), source()).find(({ kind }) => kind === 'idle');
    expect(idle).toMatchObject({ mains: { kind: 'dc', volts: 13.8 } });
    expect(idle?.caution).toContain('fuse the lead');
  });

  it('the car is read over its whole supply, then lowered until it goes, and dipped', () => {
    const steps = makeSheet(method('car'), source());
    const stops = series(steps).filter(({ settle }) => settle === null);
    expect([...new Set(stops.map(({ mains }) => mains.volts))]).toEqual([10, 11, 12, 14.4, 16, 20, 22, 24, 28.8, 32]);
    expect(stops).toHaveLength(20);
    const captures = new Set(ofKind(steps, 'capture').map(({ capture }) => capture));
    expect([...captures]).toEqual(['fading', 'ripple', 'dip', 'sweep', 'soak']);
  });

  it('a level that arcs is watched, with its caution', () => {
    const step = efficiencyPoint(
      method('local-mains'),
      { kind: 'ac', volts: 230, hertz: 50 },
      [{ port: 'C1', volts: 36, amps: 5 }],
      1,
    );
    expect(step).toMatchObject({ attended: true });
    expect(step.caution).toContain('arcs');
  });

  it('of nothing known only the rig is checked', () => {
    expect(kinds(makeSheet(method('regulatory-pair'), source({ ports: [], claims: [] })))).toEqual(['rig', 'idle']);
  });
});

describe('an edited sheet', () => {
  const steps = makeSheet(method('local-mains'), source());
  const without = (kind: SheetStep['kind']) => steps.filter((step) => step.kind !== kind);

  it('is told when idle is no longer from cold', () => {
    const cold = makeSheet(method('publication'), source());
    expect(orderFindings(cold)).toEqual([]);
    const idle = cold.filter(({ kind }) => kind === 'idle');
    const moved = [...cold.filter(({ kind }) => kind !== 'idle'), ...idle];
    expect(orderFindings(moved).join()).toContain('idle is read from cold');
  });
  it('is told when the series has no warm-up, or the rig proves nothing', () => {
    expect(orderFindings(without('warm-up')).join()).toContain('no warm-up before it');
    expect(orderFindings(without('rig')).join()).toContain('does not prove itself first');
    const skipped = steps.map((step) => (step.kind === 'rig' ? { ...step, skip: 'checked yesterday' } : step));
    expect(orderFindings(skipped).join()).toContain('does not prove itself first');
  });
});

describe('the level a step asks for', () => {
  const list = words('5 V 3 A', '9 V 3 A', '20 V 2.25 A', 'PPS 3.3–16 V 3 A', 'SPR AVS 3 A / 2.25 A');
  it('is the fixed offer at its voltage, or the range of its kind that covers it', () => {
    expect(requestFor(list, { port: 'C1', volts: 20, amps: 2.25 })).toEqual({ position: 3, volts: null });
    expect(requestFor(list, { port: 'C1', volts: 9.5, amps: 3, supply: 'pps' })).toEqual({ position: 4, volts: 9.5 });
    expect(requestFor(list, { port: 'C1', volts: 17, amps: 2, supply: 'spr-avs' })).toEqual({ position: 5, volts: 17 });
  });
  it('is none where the list does not hold it', () => {
    expect(requestFor(list, { port: 'C1', volts: 12, amps: 2 })).toBeNull();
    expect(requestFor(list, { port: 'C1', volts: 18, amps: 2, supply: 'pps' })).toBeNull();
    expect(requestFor([], { port: 'C1', volts: 5, amps: 2 })).toBeNull();
    expect(requestFor(['00000000'], { port: 'C1', volts: 5, amps: 2 })).toBeNull();
  });
  it('positions count place holders too', () => {
    const epr: string[] = [...words('5 V 3 A'), ...Array<string>(6).fill('00000000'), ...words('28 V 5 A')];
    expect(requestFor(epr, { port: 'C1', volts: 28, amps: 5 })).toEqual({ position: 8, volts: null });
  });
});

it('a read-out makes the proof steps of a sheet', () => {
  const readOut = aReadOut(['5 V 3 A', '12 V 2 A', 'PPS 5–11 V 3 A'], { port: 'C1' });
  const points = ofKind(makeSheet(method('local-mains'), source({ claims: [], readOuts: [readOut] })), 'point').filter(
    ({ station }) => station === 'proof',
  );
  expect(titles(points)).toContain('C1 12 V 2 A');
  expect(titles(points)).toContain('C1 PPS 11 V 3 A');
});

describe('the warm-up before a point', () => {
  const EU_230 = { kind: 'ac', volts: 230, hertz: 50 } as const;
  const US_115 = { kind: 'ac', volts: 115, hertz: 60 } as const;
  const step = (id: string, kind: SheetStep['kind'], mains: Mains | null, dwell = 0) =>
    ({ id, kind, ...(mains && { mains }), dwell }) as SheetStep;
  const steps = [
    step('w1', 'warm-up', US_115, 1800),
    step('p1', 'point', US_115),
    step('w2', 'warm-up', EU_230, 1800),
    step('p2', 'point', EU_230),
    step('c', 'cool', null, 600),
    step('p3', 'point', EU_230),
  ];
  const done = (id: string, seconds?: number) => [id, { state: 'done' as const, seconds }];
  const before = (id: string, ...outcomes: (readonly [string, { state: 'done'; seconds?: number }])[]) =>
    warmUpBefore(steps, Object.fromEntries(outcomes), steps.find((one) => one.id === id) as SheetStep);

  it('is what was held at that supply, cut short where someone cut it short', () => {
    expect(before('p1', ['w1', { state: 'done' }])).toBe(1800);
    expect(before('p1', ['w1', { state: 'done', seconds: 240 }])).toBe(240);
    expect(before('p2', ['w1', { state: 'done' }], ['p1', { state: 'done' }])).toBe(0);
  });

  it('is gone after cooling down, and nothing without one', () => {
    const outcomes = Object.fromEntries([done('w2'), done('c')]);
    expect(warmUpBefore(steps, outcomes, steps[5] as SheetStep)).toBe(0);
    expect(before('p1')).toBe(0);
  });
});
