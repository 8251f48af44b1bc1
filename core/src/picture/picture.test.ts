import { describe, expect, it } from 'vitest';
import { type Bars, barsHeight, type Plot, ticksOf, tickWords, toSvg } from './index.ts';

describe('ticks of an axis', () => {
  it.each([
    [0, 65, 6, [0, 20, 40, 60]],
    [0.42, 0.58, 6, [0.45, 0.5, 0.55]],
    [-3, 7, 6, [-2, 0, 2, 4, 6]],
    [0, 1, 6, [0, 0.2, 0.4, 0.6, 0.8, 1]],
    [5, 5, 6, [5]],
    [2, 1, 6, []],
    [Number.NaN, 1, 6, []],
  ])('from %d to %d are round', (low, high, most, is) => expect(ticksOf(low, high, most)).toEqual(is));
  it('have the decimals their step needs', () => {
    expect(tickWords([0.45, 0.5, 0.55])).toEqual(['0.45', '0.50', '0.55']);
    expect(tickWords([-20, 0, 20])).toEqual(['\u221220', '0', '20']);
    expect(tickWords([0])).toEqual(['0']);
  });
});

const plot: Plot = {
  kind: 'plot',
  id: 'p',
  title: 'Efficiency <C1>',
  caption: '',
  table: [],
  x: 'Load, %',
  y: 'Efficiency, %',
  series: [
    {
      name: '115 V',
      points: [
        [25, 90],
        [50, 91],
        [75, Number.NaN],
        [100, 90.5],
      ],
      whiskers: [0.2, 0.2, 0.2, 0.2],
      as: 'both',
    },
    {
      name: '230 V',
      points: [
        [25, 91],
        [100, 92],
      ],
      as: 'line',
    },
  ],
  limits: [{ name: 'at least 89 %', at: 89, along: 'y' }],
  fromZero: false,
};
const bars: Bars = {
  kind: 'bars',
  id: 'b',
  title: 'Splits',
  caption: '',
  table: [],
  x: 'Power, W',
  bars: [
    { name: 'C1+C2', value: 56, whisker: 0.1, outline: 65, words: '56.0 W', exception: true },
    { name: 'C3', value: null, outline: 20, words: 'not tested' },
  ],
};

describe('a picture as SVG', () => {
  it('has its text as text, escaped, and no number that is none', () => {
    const svg = toSvg(plot);
    expect(svg).toContain('aria-label="Efficiency &lt;C1&gt;"');
    expect(svg).toContain('>at least 89 %</text>');
    expect(svg).not.toMatch(/NaN|Infinity|undefined/);
    expect(svg.match(/<circle/g)).toHaveLength(4);
  });
  it('breaks a line where a value is missing', () => {
    const [, d = ''] = /<path d="([^"]*)" fill="none"/.exec(toSvg(plot)) ?? [];
    expect(d.match(/M/g)).toHaveLength(2);
  });
  it('tells series apart without colour: by dash and by mark', () => {
    const svg = toSvg({ ...plot, series: plot.series.map((one) => ({ ...one, as: 'both' as const })) });
    expect(svg).toContain('stroke-dasharray="7 4"');
    expect(svg).toContain('<rect');
  });
  it('writes numbers as it is told', () =>
    expect(toSvg(plot, { words: (text) => text.replace('at least', 'mindestens') })).toContain('mindestens 89 %'));
  it('of bars has what was promised as an outline, and the exception louder', () => {
    const svg = toSvg(bars);
    expect(svg).toContain('▼ 56.0 W');
    expect(svg).toContain('stroke-dasharray="3 2"');
    expect(svg).toContain(`height="${barsHeight(bars)}"`);
  });
  it('of nothing is an empty one', () => {
    for (const svg of [toSvg({ ...plot, series: [], limits: [] }), toSvg({ ...bars, bars: [] })]) {
      expect(svg).not.toMatch(/NaN|Infinity/);
      expect(svg.startsWith('<svg')).toBe(true);
    }
  });
});
