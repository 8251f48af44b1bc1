import { BUILT_IN, commandFor, readReply, replyOf } from '@lastmark/core/instrument';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type InstrumentClass, type Rack, startRack } from '../sim/index.ts';
import { overSocket } from '../ways/index.ts';
import { ScpiClient } from './index.ts';

describe('the profiles that ship, against the simulated bench', () => {
  let rack: Rack;
  beforeAll(async () => {
    rack = await startRack({ firstPort: 0, speed: 60, seed: 5 });
  });
  afterAll(() => rack.close());
  const VALUES = {
    volts: 9,
    hertz: 50,
    channel: 1,
    amps: 0.5,
    position: 2,
    rate: 1e6,
    points: 100,
    face: 'FRONT',
    celsius: 25,
    seconds: 0,
  };
  const KIND_OF: Readonly<Record<string, InstrumentClass>> = {
    'AC source': 'ac-source',
    'power analyser': 'power-analyser',
    'DC load': 'dc-load',
    oscilloscope: 'oscilloscope',
    thermometer: 'thermometer',
    'thermal imager': 'thermal-imager',
    'climate chamber': 'chamber',
    'PD analyser': 'pd-analyser',
    'bench multimeter': 'multimeter',
    'plug-in wall meter': 'wall-meter',
    'inline USB meter': 'inline-meter',
  };

  it.each(BUILT_IN.map((profile) => [profile.title, profile] as const))(
    '%s: every action is taken',
    async (_title, profile) => {
      rack.bench.setSupply({ on: true });
      rack.bench.plug('C1', true);
      const client = new ScpiClient({ way: overSocket('127.0.0.1', rack.ports[KIND_OF[profile.class] ?? 'control']) });
      client.open();
      try {
        for (const action of Object.keys(profile.commands)) {
          // A range is asked for at a position that is one.
          const values = action === 'requestVolts' ? { ...VALUES, position: 5 } : VALUES;
          const command = commandFor(profile, action, values);
          const format = replyOf(profile, action);
          if (format === 'none') await client.write(command);
          else if (format === 'block') expect((await client.queryBlock(command)).length).toBe(200);
          else readReply(format, await client.query(command));
          // Without its plug a sink has nothing to ask.
          if (action === 'disconnect') await client.write('SINK:CONN ON');
        }
        expect(await client.drainErrors()).toEqual([]);
      } finally {
        client.close();
      }
    },
  );
});
