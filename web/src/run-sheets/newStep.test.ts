import { USUAL_BENDS } from '@lastmark/core/bends';
import { type Method, methodOf, STEP_KINDS } from '@lastmark/core/plan';
import { describe, expect, it } from 'vitest';
import { fieldsOf, loadFrom, newKinds, newStep, orderOf, type StepForm } from './newStep.ts';

const WORLD = {
  method: methodOf('regulatory-pair') as Method,
  mains: { kind: 'ac', volts: 230, hertz: 50 },
  ports: ['C1', 'C2', 'A1'],
  bending: USUAL_BENDS,
  devices: [{ id: 'd1', name: 'Warden’s laptop' }],
} as const;
const FORM: StepForm = {
  kind: 'point',
  port: 'C1',
  supply: '230 V 50 Hz',
  volts: '20',
  amps: '2.25',
  load: '100',
  station: 'proof',
  order: 'C1 + A1',
  attached: 'nothing',
  capture: 'waveform',
  device: 'Warden’s laptop',
  lead: 'desk cable',
  level: '0 %',
  time: '10 min',
  count: '2000',
  text: 'Look at the fan',
};

describe('a step of one’s own', () => {
  it('may be of every kind there is, as it fits a charger or what sits in the line', () => {
    const kindsOf = (id: string) => newKinds(methodOf(id) as Method).map(({ value }) => value);
    expect(kindsOf('car')).toEqual(STEP_KINDS.filter((kind) => kind !== 'resistance' && kind !== 'bend'));
    expect(kindsOf('bends')).toEqual(['rig', 'read-out', 'cool', 'resistance', 'bend', 'by hand']);
    for (const kind of STEP_KINDS) expect(newStep({ ...FORM, kind }, WORLD), kind).toMatchObject({ kind, skip: null });
  });

  it('asks for what its kind needs: empty, each of these holds it back', () => {
    for (const kind of STEP_KINDS)
      for (const field of fieldsOf({ ...FORM, kind })) {
        if (['port', 'supply', 'attached', 'capture', 'station', 'lead', 'level'].includes(field)) continue;
        expect(newStep({ ...FORM, kind, [field]: '' }, WORLD), `${kind} without ${field}`).toBeNull();
      }
    expect(newStep({ ...FORM, kind: 'idle' }, { ...WORLD, mains: undefined })).toBeNull();
  });

  it('takes a load point at any load for the series, and at none or all for Proof', () => {
    expect(newStep({ ...FORM, load: '50' }, WORLD)).toBeNull();
    expect(newStep({ ...FORM, load: '0' }, WORLD)).toMatchObject({ load: 0, station: 'proof' });
    const step = newStep({ ...FORM, station: 'efficiency', load: '50 %' }, WORLD);
    expect(step).toMatchObject({ load: 0.5, station: 'efficiency', outputs: [{ port: 'C1', volts: 20, amps: 2.25 }] });
  });

  it('bends to a whole count, and reads drops at whole amperes up to the one typed', () => {
    for (const count of ['0', '-3', '2.5', 'many', '99999999'])
      expect(newStep({ ...FORM, kind: 'bend', count }, WORLD), count).toBeNull();
    expect(newStep({ ...FORM, kind: 'bend' }, WORLD)).toMatchObject({ count: 2000, dwell: 4000, rate: 30 });
    expect(newStep({ ...FORM, kind: 'resistance' }, WORLD)).toMatchObject({
      currents: [0, 1, 2, 2.25],
      outputs: [{ port: 'near', volts: 20, amps: 2.25 }],
    });
  });

  it('asks of a capture only what it uses', () => {
    expect(fieldsOf({ kind: 'capture', capture: 'inrush' })).toEqual(['capture', 'supply']);
    expect(fieldsOf({ kind: 'capture', capture: 'fading' })).toEqual(['capture', 'supply', 'port']);
    expect(newStep({ ...FORM, kind: 'capture', capture: 'sweep', load: '' }, WORLD)).toMatchObject({
      capture: 'sweep',
    });
  });

  it.each([
    ['c1 + A1', ['C1', 'A1']],
    ['A1, C2 C1', ['A1', 'C2', 'C1']],
    ['C1 C1', null],
    ['C1 + C9', null],
    ['', null],
  ])('reads the ports "%s" as %j', (typed, ports) => expect(orderOf(typed, WORLD.ports)).toEqual(ports));

  it.each([
    ['50', 0.5],
    ['12,5 %', 0.125],
    ['0', 0],
    ['', null],
    ['111', null],
    ['half', null],
  ])('reads the load "%s" as %j', (typed, load) => expect(loadFrom(typed)).toBe(load));
});
