import { describe, expect, it } from 'vitest';
import { meanOfCommon, measured, NO_SPEC, product, ratio } from '../uncertainty/index.ts';
import { averageBudget, efficiencyBudget, finerMeter, powerBudget } from './index.ts';

const volts = measured(20.043, 0.008_095);
const amps = measured(3.248, 0.003_607);
const input = measured(71.62, 0.119_76);
const watts = product(volts, amps);
const point = { efficiency: ratio(watts, input), input, outputs: [{ port: 'C1', volts, amps, watts }] };

describe('an uncertainty budget', () => {
  it('adds up to the whole, the largest source first', () => {
    const { lines, u, expanded } = efficiencyBudget(point);
    expect(expanded).toBeCloseTo(0.0037, 4);
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

describe('budgets of other results', () => {
  it('an average keeps what its meters share, and averages repeats out', () => {
    const scattered = {
      ...point,
      efficiency: measured(point.efficiency.value, point.efficiency.uInstrument, 0.002, 4),
    };
    const four = [scattered, scattered, scattered, scattered];
    const average = meanOfCommon(four.map(({ efficiency }) => efficiency));
    const { lines, u } = averageBudget(four, average);
    expect(u).toBeCloseTo(Math.hypot(point.efficiency.uInstrument, 0.001), 9);
    expect(lines.find(({ source }) => source === 'repeats')?.u).toBeCloseTo(0.001, 12);
    expect(lines.find(({ source }) => source === 'input watts')?.u).toBeCloseTo(
      efficiencyBudget(point).lines[0]?.u ?? 0,
      12,
    );
    expect(lines.reduce((sum, { share }) => sum + share, 0)).toBeCloseTo(1, 2);
  });

  it('a power read directly is its meter and its repeats', () => {
    const { lines } = powerBudget(measured(0.042, 0.0008, 0.0006, 3));
    expect(lines.map(({ source, share }) => [source, share])).toEqual([
      ['input watts', expect.closeTo(0.64, 9)],
      ['repeats', expect.closeTo(0.36, 9)],
    ]);
  });
});

describe('a better meter on the bench', () => {
  const meter = (name: string, readingPercent: number, offset: number) => ({
    id: name,
    name,
    sees: null,
    specs: { power: { ...NO_SPEC, readingPercent, offset } },
  });

  it('is named for the largest source, where it is clearly better', () => {
    const finer = finerMeter(efficiencyBudget(point), [meter('Coarse', 1, 0.1), meter('Low range', 0.05, 0.01)]);
    expect(finer).toMatchObject({
      name: 'Low range',
      quantity: 'power',
      u: expect.closeTo((71.62 * 0.0005 + 0.01) / Math.sqrt(3), 9),
    });
  });

  it('is not named where none would help, or where repeats alone scatter', () => {
    expect(finerMeter(efficiencyBudget(point), [meter('The same', 0.15, 0.1)])).toBeNull();
    expect(finerMeter(efficiencyBudget(point), [])).toBeNull();
    expect(finerMeter(powerBudget(measured(0.04, 0, 0.001, 3)), [meter('Low range', 0.05, 0.01)])).toBeNull();
  });
});
