import { describe, expect, it } from 'vitest';
import { describePromise, parseLabel } from './index.ts';

const PORTS = ['C1', 'C2', 'A1'];
const read = (text: string, ports = PORTS) =>
  parseLabel(text, ports).map((one) =>
    'promises' in one ? one.promises.map(describePromise).join(' · ') : `? ${one.line}`,
  );

describe('a label of several lines', () => {
  it('has a port hold for the lines below it', () =>
    expect(read('C1: 5V⎓3A, 9V⎓3A,\n20V⎓2.25A\r\nA1: 5V⎓2.4A\n\n12V 1.5A')).toEqual([
      'C1: 5 V 3 A · C1: 9 V 3 A',
      'C1: 20 V 2.25 A',
      'A1: 5 V 2.4 A',
      'A1: 12 V 1.5 A',
    ]));

  it('has a head on a line of its own, for several ports', () =>
    expect(read('Output:\nC1/C2:\n5V⎓3A\nTotal: 75W Max')).toEqual(['C1: 5 V 3 A · C2: 5 V 3 A', 'Total 75 W']));

  it('does not carry a port past what is about something else', () =>
    expect(read('C1: 5V 3A\nC1+A1: 45W+18W\n9V 3A')).toEqual(['C1: 5 V 3 A', 'C1 + A1: 45 + 18 W', '? 9V 3A']));

  it('keeps what it does not understand, with why', () => {
    const [input, model] = parseLabel('Input: 100-240V~ 50/60Hz 2A\nModel: PT-75', PORTS);
    expect(input).toMatchObject({ line: 'Input: 100-240V~ 50/60Hz 2A', reason: expect.stringContaining('Intake') });
    expect(model).toMatchObject({ line: 'Model: PT-75', reason: expect.stringContaining('Start with a port') });
  });

  it('names what of a line nothing was made of', () =>
    expect(parseLabel('C1: 5V 3A (turbo)', PORTS)).toMatchObject([{ unused: ['turbo'] }]));

  it('of one port needs no name for it', () =>
    expect(read('5V 3A / 9V 3A', ['C1'])).toEqual(['C1: 5 V 3 A · C1: 9 V 3 A']));

  it('without words has no lines', () => {
    expect(read('')).toEqual([]);
    expect(read(' \n\n ')).toEqual([]);
    expect(read('Output:')).toEqual([]);
  });
});
