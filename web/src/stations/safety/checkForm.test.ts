import { describe, expect, it } from 'vitest';
import { type CheckForm, fieldsOf, formOf, isNamed, touchSupplies } from './checkForm.ts';

const EU = { kind: 'ac', volts: 230, hertz: 50 } as const;
const start = { earthed: false, mains: [EU], ports: ['C1', 'A1'] };
const form = (part: Partial<CheckForm> = {}): CheckForm => ({
  ...formOf('touch', null, [], start),
  person: 'Workshop electrician',
  standing: 'licensed',
  ...part,
});

describe('a touch current typed', () => {
  it('is microamperes without a unit, and says all it was read with', () =>
    expect(fieldsOf('touch', form({ amps: '62' }), [EU], null)).toMatchObject({
      kind: 'touch',
      amps: 62e-6,
      form: 'rms',
      network: 'perception',
      mains: EU,
      earth: 'none',
      from: 'shell of C1',
      by: { person: 'Workshop electrician', standing: 'licensed' },
      accuracy: null,
    }));
  it('is nothing before somebody is named, or while something cannot be read', () => {
    for (const part of [
      { person: ' ' },
      { standing: '' as const },
      { amps: 'few' },
      { from: '' },
      { accuracy: 'good' },
    ])
      expect(fieldsOf('touch', form({ amps: '62', ...part }), [EU], null)).toBeNull();
    expect(isNamed(form({ person: '' }))).toBe(false);
  });
  it('takes the accuracy as printed; left empty it keeps the one it had with the same meter', () => {
    const typed = fieldsOf('touch', form({ amps: '62', accuracy: '±(2 % + 2 µA)' }), [EU], null);
    expect(typed).toMatchObject({ accuracy: { readingPercent: 2, offset: 2e-6 } });
    const before = { ...typed, id: 't', takenAt: '', supersedes: null, withdrawn: false } as never;
    expect(fieldsOf('touch', form({ amps: '71' }), [EU], before)).toMatchObject({ accuracy: { readingPercent: 2 } });
    const other = form({ amps: '71', instrumentId: '01M8ERKDWEFWYNVKHJKZTEDBEW' });
    expect(fieldsOf('touch', other, [EU], before)).toMatchObject({ accuracy: null });
  });
  it('may be read above the usual mains too', () =>
    expect(touchSupplies('wall', [EU]).map((one) => one.volts)).toEqual([230, 240, 264]));
});

describe('other checks typed', () => {
  it('earth is milliohms, output to earth megohms, where no unit stands', () => {
    expect(fieldsOf('earth', form({ ohms: '62', testAmps: '25', to: 'shell' }), [], null)).toMatchObject({
      ohms: 0.062,
    });
    expect(fieldsOf('bond', form({ ohms: '1', range: 'over the range' }), [], null)).toMatchObject({
      ohms: 1e6,
      overRange: true,
      port: 'C1',
    });
  });
  it('fit and marks need nobody named', () => {
    const nobody = form({ person: '', standing: '', reach: '24', mark: 'rated ambient', ambient: '40' });
    expect(fieldsOf('fit', nobody, [], null)).toEqual({ kind: 'fit', note: '', hold: 'firm', reach: 0.024 });
    expect(fieldsOf('mark', nobody, [], null)).toMatchObject({
      mark: 'rated ambient',
      printed: 'label',
      ambient: 313.15,
    });
    expect(fieldsOf('mark', form({ mark: '' }), [], null)).toBeNull();
  });
});
