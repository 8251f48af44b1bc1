import { describe, expect, it } from 'vitest';
import type { Device } from '../run/index.ts';
import { stateKey } from '../split/index.ts';
import { servedBy } from './served.ts';

const device = (name: string, watts: number): Device => ({
  id: name,
  name,
  kind: 'phone',
  battery: 36_000,
  ceilings: [{ connector: 'C', lead: '', mode: '', watts, volts: null }] as unknown as Device['ceilings'],
  baseline: null,
  note: '',
});
const port = (label: string) => ({ label, connector: 'C' as const, twin: null });
const dossier = (devices: readonly Device[], labels = ['C1', 'C2']) => ({
  sample: { kind: 'wall' as const, ports: labels.map(port), mass: null, prices: [] },
  claims: [],
  readOuts: [],
  devices,
});
const measured = (states: Readonly<Record<string, Readonly<Record<string, number>>>>) => ({
  rule: {
    budgets: [{ ports: ['C1', 'C2'], sharing: { kind: 'table' as const }, states, most: 65 }],
    sentences: [],
    demand: 'not tested' as const,
    reserves: [],
    unexplained: [],
    open: [],
  },
  drops: [],
});
const both = stateKey(['C1', 'C2']);

describe('how a charger serves the devices of the bench', () => {
  it('is what they get of what they want, each in the port that serves all best', () => {
    const told = servedBy(
      dossier([device('phone', 20), device('laptop', 60)]),
      measured({ [both]: { C1: 45, C2: 18 } }),
    );
    // Laptop 45 of 60, phone 18 of 20.
    expect(told?.part).toBeCloseTo(63 / 80, 9);
    expect(told?.condition).toBe('laptop + phone');
  });
  it('a device without a port gets nothing', () => {
    const three = [device('a', 20), device('b', 20), device('c', 20)];
    expect(servedBy(dossier(three), measured({ [both]: { C1: 20, C2: 20 } }))?.part).toBeCloseTo(40 / 60, 9);
  });
  it('is no value where nothing was read, for one port, or for fewer than two devices', () => {
    const two = [device('a', 20), device('b', 20)];
    expect(servedBy(dossier(two), measured({}))).toBeNull();
    expect(servedBy(dossier(two, ['C1']), measured({ C1: { C1: 45 } }))).toBeNull();
    expect(servedBy(dossier(two.slice(1)), measured({ [both]: { C1: 20, C2: 20 } }))).toBeNull();
    expect(servedBy(dossier([]), measured({ [both]: { C1: 20, C2: 20 } }))).toBeNull();
    const nine = Array.from({ length: 9 }, (_one, at) => device(`d${at}`, 10));
    expect(servedBy(dossier(nine), measured({ [both]: { C1: 20, C2: 20 } }))).toBeNull();
  });
});
