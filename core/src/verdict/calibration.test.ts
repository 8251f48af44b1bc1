// What decides a claim says whether its meters were calibrated.
import { expect, it } from 'vitest';
import { aPoint } from '../testing/reading.ts';
import { dossierFor, EU } from '../testing/verdict.ts';
import { type Dossier, judgeSample } from './index.ts';

const CLAIM = {
  id: 'total',
  promise: { kind: 'total', watts: 45 },
  duration: { kind: 'unstated' },
  printed: 'label',
} as const;
const full = aPoint({ mains: EU, watts: 50, u: 0.001, out: { C1: [20, 2.26] } });
const readBy = (instrumentId: string) => ({
  ...full,
  readings: full.readings.map((one) => ({ ...one, instrumentId, takenAt: '2026-05-01T09:00:00.000Z' })),
});
const meter = (id: string, name: string, calibrationDue: string | null) => ({
  id,
  name,
  sees: null,
  specs: {},
  calibrationDue,
});
const INSTRUMENTS = [
  meter('good', 'Bench meter', '2027-01-31'),
  meter('late', 'Old meter', '2026-04-30'),
  meter('unsaid', 'Wall meter', null),
];
const notesOf = (points: Dossier['points']) =>
  judgeSample(dossierFor({ claims: [CLAIM], points, instruments: INSTRUMENTS })).claims[0]?.notes ?? [];

it.each([
  ['good', []],
  ['late', ['Overdue for calibration on the day it was read: Old meter.']],
  ['unsaid', ['Calibration not stated: Wall meter.']],
  ['gone from the bench', []],
])('a claim read by the %s meter says %j', (id, notes) => {
  const said = notesOf([readBy(id)]);
  expect(said.filter((note) => /alibration/.test(note))).toEqual(notes);
});

it('on the last day it is good for, a calibration still is', () => {
  const [first] = [readBy('late')];
  const onTheDay = first.readings.map((one) => ({ ...one, takenAt: '2026-04-30T23:00:00.000Z' }));
  expect(notesOf([{ ...first, readings: onTheDay }]).join()).not.toContain('Overdue');
});

it('a claim nobody tested says nothing of meters', () => expect(notesOf([]).join()).not.toContain('alibration'));
