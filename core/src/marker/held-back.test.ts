import { describe, expect, it } from 'vitest';
import { UNMARKED } from '../pd/index.ts';
import type { Promised } from '../promise/index.ts';
import { heldBack } from './index.ts';

const line = (port: string, volts: number, amps: number): Promised => ({ kind: 'port-line', port, volts, amps });
const PORTS = [
  { label: 'C1', connector: 'C' },
  { label: 'C2', connector: 'C' },
  { label: 'A1', connector: 'A' },
  { label: 'L', connector: 'captive C' },
];

describe('a cable without a marker', () => {
  it('holds back what gives more than 3 A, 60 W, the most first', () => {
    expect(
      heldBack(
        [line('C2', 20, 3.25), line('C1', 20, 5), line('C1', 9, 3), line('A1', 20, 5), line('L', 20, 5)],
        UNMARKED,
        PORTS,
      ),
    ).toEqual([
      { port: 'C1', promised: 100, through: 60 },
      { port: 'C2', promised: 65, through: 60 },
    ]);
  });
  it('holds EPR levels back to the best it lets through', () =>
    expect(heldBack([line('C1', 28, 5), line('C1', 15, 3)], UNMARKED, PORTS)).toEqual([
      { port: 'C1', promised: 140, through: 45 },
    ]));
  it('lets a range through as far as it reaches', () => {
    const range: Promised = { kind: 'range', port: 'C1', supply: 'pps', low: 3.3, high: 21, amps: 5 };
    expect(heldBack([range], UNMARKED, PORTS)[0]).toMatchObject({ promised: 105, through: 63 });
  });
  it('does not touch what it carries', () => expect(heldBack([line('C1', 20, 3)], UNMARKED, PORTS)).toEqual([]));
});
