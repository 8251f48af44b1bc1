// The instruments of the simulated bench, each at the port it answers on.
import { CLASSES, type InstrumentClass } from '@lastmark/bench/sim';
import type { InstrumentInput } from '@lastmark/contract';
import { BUILT_IN, type ProfileClass } from '@lastmark/core/instrument';
import { NO_SPEC } from '@lastmark/core/uncertainty';
import { createInstrument, createRig } from '../bench/store.ts';
import type { Database } from '../db/database.ts';
import { listProfiles } from '../links/profiles.ts';

export const SIMULATED_RIG = 'Simulated bench';
/** The same bench without a load: real devices take its place. */
export const SIMULATED_DESK = 'Simulated desk';
/** The cable that lies on it, by the name the bench knows. */
export const SIMULATED_CABLE = '240 W, 1 m';

/** What each class states about its accuracy; the simulated meters stay within it. */
const SPECS: Readonly<Partial<Record<ProfileClass, InstrumentInput['specs']>>> = {
  'power analyser': { power: { ...NO_SPEC, readingPercent: 0.06, offset: 0.007, resolution: 0.0001 } },
  'DC load': {
    voltage: { ...NO_SPEC, readingPercent: 0.04, offset: 0.005, resolution: 0.0001 },
    current: { ...NO_SPEC, readingPercent: 0.07, offset: 0.004, resolution: 0.0001 },
  },
  'bench multimeter': { voltage: { ...NO_SPEC, readingPercent: 0.015, offset: 0.002, resolution: 0.0001 } },
  'plug-in wall meter': { power: { ...NO_SPEC, readingPercent: 0.8, offset: 0.15, resolution: 0.1, floor: 0.2 } },
  'inline USB meter': {
    voltage: { ...NO_SPEC, readingPercent: 0.04, offset: 0.006, resolution: 0.001 },
    current: { ...NO_SPEC, readingPercent: 0.12, offset: 0.005, resolution: 0.001 },
  },
};

/** What the simulated load takes on one channel. */
const LOAD_RATINGS = { volts: 60, amps: 6, watts: 300 };

/**
 * Add one instrument of every class, and the rig made of them.
 * @param firstPort port of the bench's control; the instruments follow it
 */
export const createSimulatedInstruments = (db: Database, firstPort: number): Promise<void> =>
  createSimulatedInstrumentsAt(db, (kind) => firstPort + CLASSES.indexOf(kind) + 1);

/** The same on any ports. */
export async function createSimulatedInstrumentsAt(
  db: Database,
  portOf: (kind: InstrumentClass) => number,
): Promise<void> {
  const profiles = await listProfiles(db);
  const ids = new Map<ProfileClass, string>();
  for (const [index, { title, class: kind }] of BUILT_IN.entries()) {
    const { id } = await createInstrument(db, {
      name: title,
      class: kind,
      firmware: '1.0',
      calibrationDue: null,
      address: `127.0.0.1:${portOf(CLASSES[index] ?? 'ac-source')}`,
      profileId: profiles.find((one) => one.builtIn && one.class === kind)?.id ?? null,
      sees:
        kind === 'PD analyser'
          ? {
              supplies: ['fixed', 'variable', 'battery', 'pps', 'spr-avs', 'epr-avs'],
              signals: ['dcp', 'divider', 'stepped-high'],
            }
          : null,
      specs: SPECS[kind] ?? {},
      ratings: kind === 'DC load' ? LOAD_RATINGS : null,
    });
    ids.set(kind, id);
  }
  const idOf = (kind: ProfileClass): string => ids.get(kind) ?? '';
  await createRig(db, {
    name: SIMULATED_DESK,
    meters: {
      mains: idOf('plug-in wall meter'),
      outputVolts: idOf('inline USB meter'),
      outputAmps: idOf('inline USB meter'),
      loadEnd: null,
    },
    outputPlace: 'port',
    leadOhms: 0,
    leadUOhms: 0,
    elements: [{ kind: 'cable', name: SIMULATED_CABLE, amps: 5, volts: 48, basis: 'marker' }],
    drives: {
      source: idOf('AC source'),
      load: null,
      thermometer: idOf('thermometer'),
      analyser: null,
      scope: null,
    },
    note: 'Wall meter and inline meter: for devices plugged in by a person.',
  });
  await createRig(db, {
    name: SIMULATED_RIG,
    meters: {
      mains: idOf('power analyser'),
      outputVolts: idOf('bench multimeter'),
      outputAmps: idOf('DC load'),
      loadEnd: idOf('DC load'),
    },
    outputPlace: 'port',
    leadOhms: 0.1155,
    leadUOhms: 0.002,
    elements: [{ kind: 'cable', name: SIMULATED_CABLE, amps: 5, volts: 48, basis: 'marker' }],
    drives: {
      source: idOf('AC source'),
      load: idOf('DC load'),
      thermometer: idOf('thermometer'),
      analyser: idOf('PD analyser'),
      scope: idOf('oscilloscope'),
    },
    note: 'Runs by itself; sensed at the receptacle and at the load.',
  });
}
