import { METHODS, type Method, methodDifferences } from '@lastmark/core/plan';
import { describe, expect, it } from 'vitest';
import { fromMethodText, toMethodText } from './methodText.ts';

const body = ({ id: _id, ...method }: Method) => method;
const publication = METHODS.find(({ id }) => id === 'publication') as Method;
const typed = (part: object) => fromMethodText({ ...toMethodText(body(publication)), ...part });
const problems = (part: object) => {
  const read = typed(part);
  return read.ok ? [] : read.problems;
};

describe('a method as text', () => {
  it.each(METHODS.map((method) => [method.title, method] as const))('%s comes back as it went', (_title, method) => {
    const read = fromMethodText(toMethodText(body(method)));
    expect(read.ok && methodDifferences(read.method, body(method))).toEqual([]);
    const { captures, idleAttached, ...rest } = body(method);
    expect(read.ok && read.method).toMatchObject(rest);
    // In one order, whatever order they were chosen in.
    expect(read.ok && [...read.method.captures].sort()).toEqual([...captures].sort());
    expect(read.ok && read.method.idleAttached).toEqual(method.line ? [] : idleAttached);
  });
  it('takes supplies with either decimal sign, and names what is none', () => {
    const read = typed({ mains: '120 V 60 Hz; 13,8 V DC' });
    expect(read.ok && read.method.mains).toEqual([
      { kind: 'ac', volts: 120, hertz: 60 },
      { kind: 'dc', volts: 13.8 },
    ]);
    expect(problems({ mains: '230 V' })).toEqual(['Mains: “230 V” is no supply. Write 230 V 50 Hz, or 13.8 V DC.']);
    expect(problems({ mains: '' })).toEqual(['Say at which mains.']);
  });
  it('takes loads with or without the sign, one after the other', () => {
    const loads = (text: string) => {
      const read = typed({ loads: text });
      return read.ok ? read.method.loads : read.problems;
    };
    expect(loads('100 %, 75 %, 12.5 %')).toEqual([1, 0.75, 0.125]);
    expect(loads('100 75 12,5')).toEqual([1, 0.75, 0.125]);
    expect(loads('120')).toEqual(['Load points: “120” is no load between 0 and 100 %.']);
    expect(loads('50, 50')).toEqual(['A load point stands twice.']);
    expect(loads('')).toEqual([]);
  });
  it('takes minutes where no unit is typed, and says what is no time', () => {
    const read = typed({ soak: '90', hold: '45 s' });
    expect(read.ok && [read.method.soak, read.method.hold]).toEqual([5400, 45]);
    expect(problems({ soak: 'long' })).toEqual(['Soak: “long” is no time. Write 30 min, or leave it empty for none.']);
    expect(problems({ warmUp: '' })[0]).toContain('without a warm-up');
  });
});
