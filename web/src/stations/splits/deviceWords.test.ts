import { expect, it } from 'vitest';
import { deviceWords } from './deviceWords.ts';
import { BLANK, deviceOf } from './SplitPort.tsx';

const DEVICES = [{ id: 'd', name: 'Loan phone' }];

it.each([
  [{ deviceId: 'd', charge: 0.4, tries: 3 }, ['C1: Loan phone at 40 %, started after 3 tries']],
  [{ deviceId: 'd', charge: null, tries: 1 }, ['C1: Loan phone, started at once']],
  [{ deviceId: 'gone', charge: null, tries: null }, ['C1: a device gone from the bench']],
  [null, []],
])('%j is said', (device, words) => expect(deviceWords({ port: 'C1', device }, DEVICES)).toEqual(words));

it.each([
  [
    { deviceId: 'd', charge: '40', tries: '2' },
    { deviceId: 'd', charge: 0.4, tries: 2 },
  ],
  [
    { deviceId: 'd', charge: '', tries: '' },
    { deviceId: 'd', charge: null, tries: null },
  ],
  [
    { deviceId: 'd', charge: '', tries: 'often' },
    { deviceId: 'd', charge: null, tries: Number.NaN },
  ],
  [
    { deviceId: 'd', charge: '', tries: '0' },
    { deviceId: 'd', charge: null, tries: Number.NaN },
  ],
  [{ deviceId: '', charge: '40', tries: '2' }, null],
])('%j as typed', (text, device) => expect(deviceOf({ ...BLANK, ...text })).toEqual(device));
