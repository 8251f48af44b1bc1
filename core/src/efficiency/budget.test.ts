import { describe, expect, it } from 'vitest';
import { measured, product, ratio } from '../uncertainty/index.ts';
import { efficiencyBudget } from './index.ts';

const volts = measured(20.043, 0.008_095);
const amps = measured(3.248, 0.003_607);
const input = measured(71.62, 0.119_76);
const watts = product(volts, amps);
const point = { efficiency: ratio(watts, input), input, outputs: [{ port: 'C1', volts, amps, watts }] };

describe('an uncertainty budget', () => {
  it('adds up to the whole, the largest source first', () => {
    const { lines, u } = efficiencyBudget(point);
    expect(lines.map(({ source }) => source)).toEqual(['input watts', 'C1 amps', 'C1 volts']);
    expect(lines.reduce((sum, { share }) => sum + share, 0)).toBeCloseTo(1, 3);
    expect(Math.hypot(...lines.map((line) => line.u))).toBeCloseTo(u, 6);
    // The published vector: u = 0.001861.
    expect(u).toBeCloseTo(0.001_861, 6);
  });
  it('says what a better meter would bring', () => {
    expect(efficiencyBudget(point).advice).toMatch(
      /^A meter twice as good for input watts would make it \d+ % smaller\.$/,
    );
  });
  it('counts scatter of repeats as a source, and a lead beside volts and amps', () => {
    const scattered = { ...point, efficiency: measured(point.efficiency.value, point.efficiency.uInstrument, 0.01, 4) };
    expect(efficiencyBudget(scattered).lines[0]?.source).toBe('repeats');
    const lead = { ...point, outputs: [{ port: 'C1', volts, amps, watts: measured(watts.value, 0.5) }] };
    expect(efficiencyBudget(lead).lines.map(({ source }) => source)).toContain('C1 lead');
  });
  it('of meters nobody stated is empty, and says so', () => {
    const bare = { efficiency: measured(0.9, 0), input: measured(50, 0), outputs: [] };
    expect(efficiencyBudget(bare)).toMatchObject({ lines: [], u: 0 });
    expect(efficiencyBudget(bare).advice).toContain('state the accuracy');
  });
});
