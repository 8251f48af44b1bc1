// What was read out, proved and held on each unit of the Fernwall shelf.
import { level } from './proof-steps.ts';
import type { DemoWork } from './proof-world.ts';
import { DESKTOP_WORK } from './work-desktop.ts';
import { WALL_WORK } from './work-wall.ts';

/** Work done on each sample, by serial. */
export const WORK: Readonly<Record<string, DemoWork>> = {
  ...WALL_WORK,
  ...DESKTOP_WORK,
  'SH-0441': {
    readOuts: [
      {
        port: 'C1',
        analyser: 'analyserNew',
        offers: ['5 V 3 A', '9 V 3 A', '12 V 3 A', '15 V 3 A', '20 V 3 A', 'PPS 3.3–16 V 3 A'],
        marker: '3 A',
        askedWith: '3.2',
        declared: '3.0',
        celsius: 22.7,
        elapsed: 30,
        unreachable: [{ position: 6, reason: 'Every request is refused, at 12 V and at 24 V input.' }],
        signals: { dcp: 'seen', 'stepped-high': 'seen' },
      },
      {
        port: 'A1',
        analyser: 'analyserNew',
        offers: [],
        marker: 'none',
        signals: { dcp: 'seen', 'stepped-high': 'seen' },
      },
    ],
    proof: [
      {
        rig: 'desk',
        mains: 13.8,
        display: null,
        steps: [level('C1', 5, 3), level('C1', 9, 3), level('C1', 15, 3), level('C1', 20, 3), level('A1', 9, 2)],
      },
    ],
    runs: [
      {
        rig: 'desk',
        kind: 'device',
        device: 'Loan phone',
        deviceId: '',
        port: 'C1',
        connector: 'C',
        lead: 'desk cable, 2 m',
        workload: 'screen on',
        charge: 0.24,
        settled: 200,
        place: 'port',
        volts: 9,
        watts: 20.6,
        outcome: 'charging',
        message: 'Fast charging',
        note: 'Valley van 3, engine running.',
      },
    ],
  },
};
