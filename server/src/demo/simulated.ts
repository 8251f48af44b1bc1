// The instruments of the simulated bench, each at the port it answers on.
import type { InstrumentInput } from '@lastmark/contract';
import { BUILT_IN, type ProfileClass } from '@lastmark/core/instrument';
import { NO_SPEC } from '@lastmark/core/uncertainty';
import { createInstrument } from '../bench/store.ts';
import type { Database } from '../db/database.ts';
import { listProfiles } from '../links/profiles.ts';

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

/** Add one instrument of every class. @param firstPort port of the bench's control; the instruments follow it */
export async function createSimulatedInstruments(db: Database, firstPort: number): Promise<void> {
  const profiles = await listProfiles(db);
  for (const [index, { title, class: kind }] of BUILT_IN.entries()) {
    await createInstrument(db, {
      name: title,
      class: kind,
      firmware: '1.0',
      calibrationDue: null,
      address: `127.0.0.1:${firstPort + index + 1}`,
      profileId: profiles.find((one) => one.builtIn && one.class === kind)?.id ?? null,
      sees:
        kind === 'PD analyser'
          ? {
              supplies: ['fixed', 'variable', 'battery', 'pps', 'spr-avs', 'epr-avs'],
              signals: ['dcp', 'divider', 'stepped-high'],
            }
          : null,
      specs: SPECS[kind] ?? {},
    });
  }
}
