import { type Method, methodOf, STEP_KINDS } from '@lastmark/core/plan';
import { describe, expect, it } from 'vitest';
import { fieldsOf, loadFrom, NEW_KINDS, newStep, orderOf, type StepForm } from './newStep.ts';

const WORLD = {
  method: methodOf('regulatory-pair') as Method,
  mains: { kind: 'ac', volts: 230, hertz: 50 },
  ports: ['C1', 'C2', 'A1'],
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
  text: 'Look at the fan',
};

describe('a step of one’s own', () => {
  it('may be of every kind there is', () => {
    expect(NEW_KINDS.map(({ value }) => value)).toEqual([...STEP_KINDS]);
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
