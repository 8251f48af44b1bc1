import { describe, expect, it } from 'vitest';
import { hottestSpot, readThermalImage, type ThermalImage, warmColour } from './index.ts';

const matrix = (cell: (x: number, y: number) => string, delimiter: string, width = 6, height = 5) =>
  Array.from({ length: height }, (_, y) => Array.from({ length: width }, (_, x) => cell(x, y)).join(delimiter)).join(
    '\n',
  );
const read = (text: string): ThermalImage => {
  const found = readThermalImage(text);
  if ('reason' in found) throw new Error(found.reason);
  return found;
};
const at = (x: number, y: number) => 20 + x + 10 * y;

describe('a thermal image', () => {
  it.each([
    ['commas and points', matrix((x, y) => at(x, y).toFixed(1), ',')],
    [
      'semicolons and decimal commas, words above',
      `Emissivity;0,95\nCamera;K4\n\n${matrix((x, y) => at(x, y).toFixed(1).replace('.', ','), ';')}`,
    ],
    ['tabs, ended by one more', `${matrix((x, y) => at(x, y).toFixed(2), '\t').replaceAll('\n', '\t\n')}\t`],
    ['blanks', matrix((x, y) => at(x, y).toFixed(2), '  ')],
    [
      'numbers of its rows and columns',
      `y\\x;0;1;2;3;4;5\n${matrix((x, y) => at(x, y).toFixed(1), ';')
        .split('\n')
        .map((row, y) => `${y};${row}`)
        .join('\n')}`,
    ],
    ['numbers of its rows alone', matrix((x, y) => (x === 0 ? `${y + 1};` : '') + at(x, y).toFixed(1), ';')],
    ['cells in quotes', matrix((x, y) => `"${at(x, y).toFixed(1).replace('.', ',')}"`, ',')],
    ['words below', `${matrix((x, y) => at(x, y).toFixed(1), ',')}\nMax,65.0\nPalette: grey`],
    ['strokes and decimal commas', matrix((x, y) => at(x, y).toFixed(1).replace('.', ','), '|')],
    ['powers of ten', matrix((x, y) => at(x, y).toExponential(4), ';')],
    ['°C in its cells', matrix((x, y) => `${at(x, y).toFixed(1)} °C`, ';')],
    ['°F in its cells', matrix((x, y) => `${((at(x, y) * 9) / 5 + 32).toFixed(2)}℉`, '\t')],
    ['K in its cells', matrix((x, y) => `${(at(x, y) + 273.15).toFixed(2)} K`, ',')],
    ['kelvin', `Unit: K\n${matrix((x, y) => (at(x, y) + 273.15).toFixed(2), ',')}`],
    ['degrees Fahrenheit', `Unit: °F\n${matrix((x, y) => ((at(x, y) * 9) / 5 + 32).toFixed(2), ',')}`],
  ])('is read with %s', (_, text) => {
    const image = read(text);
    expect([image.width, image.height]).toEqual([6, 5]);
    expect(image.values[6 * 2 + 3]).toBeCloseTo(43, 1);
    expect(hottestSpot(image)).toMatchObject({ x: 5, y: 4, shown: expect.closeTo(65, 1), low: expect.closeTo(20, 1) });
  });

  it('is corrected for emissivity; bare metal is not', () => {
    const image = read(matrix((x, y) => (x === 1 && y === 1 ? '45' : '23'), ','));
    expect(hottestSpot(image, 0.9, 23)?.celsius).toBeCloseTo(47.18, 2);
    expect(hottestSpot(image, 0.2, 23)?.celsius).toBeNull();
  });

  it.each([
    ['', 'No matrix'],
    ['hello, this, is, not, one', 'No matrix'],
    [`${matrix(() => '20', ',')}\n1,2,3,4,5`, 'Row 6 has 5 temperatures'],
    ['21,22,23,24,25\n21,22,23,24,25', '2 rows'],
    [matrix((x, y) => (at(x, y) + 273.15).toFixed(2), ','), 'Its middle would be 316 °C'],
    [matrix((x, y) => String(Math.round((at(x, y) + 273.15) * 100)), ','), 'is it in another unit, or raw?'],
  ])('%j says what is wrong', (text, says) => {
    expect(readThermalImage(text)).toMatchObject({ reason: expect.stringContaining(says) });
  });

  it('is drawn in one hue, darker the hotter', () => {
    const light = (part: number) => warmColour(part).reduce((sum, one) => sum + one, 0);
    const steps = Array.from({ length: 11 }, (_, step) => light(step / 10));
    expect(steps.every((value, step) => step === 0 || value < (steps[step - 1] as number))).toBe(true);
    expect(warmColour(-1)).toEqual(warmColour(0));
    expect(warmColour(Number.NaN)).toEqual(warmColour(0));
  });
});
