import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { differences, EMPTY_FORM, formMessage, fromForm, type IntakeForm, portKey, toForm } from './form.ts';

const form: IntakeForm = {
  model: {
    ...EMPTY_FORM.model,
    maker: ' Tarnhook ',
    model: 'Ember 45',
    ports: [
      { key: 'a', label: 'C1', connector: 'C', twin: null },
      { key: 'b', label: 'C2 ', connector: 'C', twin: 'C1' },
    ],
    length: '5,2 cm',
    width: '39',
    mass: '0.083 kg',
    prices: [{ kind: 'paid', amount: '24,50', currency: 'EUR', date: '2026-03-01' }],
  },
  unit: { ...EMPTY_FORM.unit, serial: 'T-1' },
};
const accepted = (typed: IntakeForm) => {
  const result = fromForm(typed);
  if ('errors' in result) throw new Error(result.errors.map(({ path, message }) => `${path}: ${message}`).join());
  return result.input;
};
const refused = (typed: IntakeForm) => {
  const result = fromForm(typed);
  return 'errors' in result ? result.errors : [];
};

describe('what was typed', () => {
  it('becomes SI, without spaces around names', () => {
    const { model } = accepted(form);
    expect(model).toMatchObject({
      maker: 'Tarnhook',
      length: expect.closeTo(0.052, 12),
      width: 0.039,
      height: null,
      mass: 0.083,
    });
    expect(model.prices[0]?.amount).toBe(24.5);
    expect(model.ports).toEqual([
      { label: 'C1', connector: 'C', twin: null },
      { label: 'C2', connector: 'C', twin: 'C1' },
    ]);
  });

  it('forgets a twin that is gone or is the port itself', () => {
    const ports = [
      { key: 'a', label: 'C1', connector: 'C' as const, twin: 'C1' },
      { key: 'b', label: 'A1', connector: 'A' as const, twin: 'C9' },
    ];
    expect(accepted({ ...form, model: { ...form.model, ports } }).model.ports.map(({ twin }) => twin)).toEqual([
      null,
      null,
    ]);
  });

  it.each([
    ['maker', '  ', 'Maker is empty'],
    ['mass', 'heavy', 'Mass'],
    ['length', '5 kg', 'Length'],
    ['height', '0', 'Height must be at least'],
  ])('with a wrong %s is refused by the name of the field', (field, typed, message) => {
    const errors = refused({ ...form, model: { ...form.model, [field]: typed } });
    expect(errors.map(({ path }) => path)).toContain(`model.${field}`);
    expect(errors.map(formMessage).join()).toContain(message);
  });

  it('with a price nobody can read is refused at that price', () => {
    const prices = [
      ...form.model.prices,
      { kind: 'list' as const, amount: 'cheap', currency: 'euro', date: '2026-02-31' },
    ];
    const paths = refused({ ...form, model: { ...form.model, prices } }).map(({ path }) => path);
    expect(new Set(paths)).toEqual(
      new Set(['model.prices[1].amount', 'model.prices[1].currency', 'model.prices[1].date']),
    );
  });

  it('with nothing in it names maker and model', () => {
    expect(
      refused(EMPTY_FORM)
        .map(({ path }) => path)
        .sort(),
    ).toEqual(['model.maker', 'model.model']);
  });
});

describe('what is stored', () => {
  it('comes back unchanged through the form', () => {
    const input = accepted(form);
    expect(accepted(toForm(input))).toEqual(input);
  });

  it('keeps every length and mass to four digits', () => {
    const side = fc.double({ noNaN: true, min: 0.001, max: 2 });
    fc.assert(
      fc.property(side, fc.double({ noNaN: true, min: 0.001, max: 50 }), (length, mass) => {
        const again = accepted(toForm({ ...accepted(form), model: { ...accepted(form).model, length, mass } })).model;
        expect((again.length ?? 0) / length).toBeCloseTo(1, 3);
        expect((again.mass ?? 0) / mass).toBeCloseTo(1, 3);
      }),
    );
  });
});

describe('two versions', () => {
  it('that mean the same do not differ, however they were typed', () => {
    const other = { ...form, model: { ...form.model, length: '52 mm', maker: 'Tarnhook' } };
    expect(differences(form, other)).toEqual([]);
  });

  it('are compared field by field', () => {
    const other = { model: { ...form.model, inputRating: '230 V' }, unit: { ...form.unit, notes: 'warm' } };
    expect(differences(form, other)).toEqual([
      { field: 'inputRating', mine: '(empty)', theirs: '230 V' },
      { field: 'notes', mine: '(empty)', theirs: 'warm' },
    ]);
  });
});

it('every port of a form has a key of its own', () => {
  const keys = Array.from({ length: 50 }, portKey);
  expect(new Set(keys).size).toBe(50);
});
