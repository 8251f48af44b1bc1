// The meters of the first stations at the Fernwall workshop.
import type { InstrumentInput } from '@lastmark/contract';
import { NO_SPEC } from '@lastmark/core/uncertainty';

/** Meters of the valley workshop. */
export const INSTRUMENTS: Readonly<
  Record<'analyser' | 'lowRange' | 'volts' | 'amps' | 'socket' | 'inline', InstrumentInput>
> = {
  analyser: {
    name: 'Workshop power analyser',
    class: 'power analyser',
    firmware: '3.2',
    calibrationDue: '2027-05-31',
    address: null,
    profileId: null,
    sees: null,
    specs: { power: { ...NO_SPEC, readingPercent: 0.1, offset: 0.03, floor: 0.05 } },
  },
  lowRange: {
    name: 'Workshop power analyser, 5 W range',
    class: 'power analyser',
    firmware: '3.2',
    calibrationDue: '2027-05-31',
    address: null,
    profileId: null,
    sees: null,
    specs: { power: { ...NO_SPEC, readingPercent: 0.2, offset: 0.0015, floor: 0.005 } },
  },
  volts: {
    name: 'Bench multimeter, volts',
    class: 'bench multimeter',
    firmware: '1.4',
    calibrationDue: '2027-02-28',
    address: null,
    profileId: null,
    sees: null,
    specs: { voltage: { ...NO_SPEC, readingPercent: 0.02, offset: 0.002 } },
  },
  amps: {
    name: 'Bench multimeter, amps',
    class: 'bench multimeter',
    firmware: '1.4',
    calibrationDue: '2027-02-28',
    address: null,
    profileId: null,
    sees: null,
    specs: { current: { ...NO_SPEC, readingPercent: 0.08, offset: 0.001 } },
  },
  socket: {
    name: 'Plug-in wall meter',
    class: 'plug-in wall meter',
    firmware: '',
    calibrationDue: null,
    address: null,
    profileId: null,
    sees: null,
    specs: { power: { ...NO_SPEC, readingPercent: 1, offset: 0.1, resolution: 0.1, floor: 0.2 } },
  },
  inline: {
    name: 'Inline USB meter',
    class: 'inline USB meter',
    firmware: '0.9',
    calibrationDue: null,
    address: null,
    profileId: null,
    sees: null,
    specs: {
      voltage: { ...NO_SPEC, readingPercent: 0.1, offset: 0.01, resolution: 0.01 },
      current: { ...NO_SPEC, readingPercent: 0.3, offset: 0.005, resolution: 0.001 },
    },
  },
};
