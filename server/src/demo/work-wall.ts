// Work done on the wall chargers of the Fernwall shelf.
import { celsius, hold, level, set } from './proof-steps.ts';
import type { DemoWork } from './proof-world.ts';

const EMBER = ['5 V 3 A', '9 V 3 A', '15 V 3 A', '20 V 2.25 A', 'PPS 3.3–16 V 3 A', 'SPR AVS 3 A / 2.25 A'];
const TRIO_FULL = ['5 V 3 A', '9 V 3 A', '15 V 3 A', '20 V 3.75 A', 'PPS 3.3–21 V 3.75 A'];

/** By serial. */
export const WALL_WORK: Readonly<Record<string, DemoWork>> = {
  'TE-45-0117': {
    readOuts: [
      {
        port: 'C1',
        analyser: 'analyserNew',
        offers: EMBER,
        askedWith: '3.2',
        declared: '3.2',
        celsius: 24.2,
        elapsed: 20,
        signals: { dcp: 'seen', divider: 'seen', 'stepped-high': 'not seen', 'type-c-current': 'seen' },
      },
      {
        port: 'C1',
        analyser: 'analyserOld',
        offers: EMBER.slice(0, 5),
        askedWith: '3.0',
        celsius: 24.6,
        elapsed: 30,
        signals: { dcp: 'seen', 'serial-high': 'cannot see', 'continuous-high': 'cannot see' },
        note: 'The same unit with the pocket analyser.',
      },
    ],
    proof: [
      {
        rig: 'proof',
        mains: 230,
        display: null,
        steps: [
          level('C1', 5, 3),
          level('C1', 9, 3),
          level('C1', 15, 3),
          level('C1', 20, 2.25),
          set('C1', 'pps', 3.3, 3),
          set('C1', 'pps', 9.65, 3),
          set('C1', 'pps', 16, 3),
          set('C1', 'spr-avs', 9, 3),
          set('C1', 'spr-avs', 15, 3),
          set('C1', 'spr-avs', 20, 2.25),
        ],
      },
    ],
    runs: [
      hold('C1', [20, 2.25], [60, 60], { hottest: celsius(58.4) }),
      {
        rig: 'desk',
        kind: 'device',
        device: 'Warden’s laptop',
        deviceId: '',
        port: 'C1',
        connector: 'C',
        lead: 'desk cable, 2 m',
        workload: 'heavy computing',
        charge: 0.31,
        settled: 240,
        place: 'mains',
        volts: 20,
        watts: 46.9,
        outcome: 'held',
        message: 'Slow charger',
        note: '',
      },
    ],
  },
  'PT-75-3310': {
    readOuts: [
      { port: 'C1', analyser: 'analyserOld', offers: TRIO_FULL, askedWith: '3.0', celsius: 24.1, elapsed: 25 },
      {
        port: 'C2',
        analyser: 'analyserOld',
        offers: ['5 V 3 A', '9 V 3 A', '15 V 2 A', '20 V 1.5 A'],
        askedWith: '3.0',
        celsius: 24.1,
        elapsed: 40,
      },
      {
        port: 'C1',
        analyser: 'analyserOld',
        offers: ['5 V 3 A', '9 V 3 A', '15 V 3 A', '20 V 2.25 A'],
        occupied: ['C2'],
        askedWith: '3.0',
        celsius: 24.3,
        elapsed: 60,
        note: 'C2 carried the loan phone.',
      },
      {
        port: 'A1',
        analyser: 'analyserOld',
        offers: [],
        marker: 'none',
        signals: { dcp: 'seen', divider: 'seen', 'stepped-high': 'seen', 'serial-high': 'cannot see' },
      },
    ],
    proof: [
      {
        rig: 'proof',
        mains: 230,
        display: null,
        steps: [level('C1', 5, 3), level('C1', 9, 3), level('C1', 15, 3), level('C1', 20, 3.75), level('C2', 9, 3)],
      },
    ],
    runs: [
      hold('C1', [20, 2.25], [60, 21], {
        others: [{ port: 'C2', volts: 9, amps: 3 }],
        end: 'folded back',
        hottest: celsius(81.2),
        after: 58.5,
      }),
      hold('C1', [20, 2], [60, 38], {
        others: [{ port: 'C2', volts: 9, amps: 2.8 }],
        end: 'folded back',
        hottest: celsius(81.9),
        after: 57.8,
      }),
      hold('C1', [20, 1.6], [60, 60], { others: [{ port: 'C2', volts: 9, amps: 2.6 }], hottest: celsius(79.5) }),
    ],
  },
  'QP-5520': {
    readOuts: [
      {
        port: 'C1',
        analyser: 'analyserNew',
        offers: ['5 V 3 A', '9 V 2.22 A', '12 V 1.67 A'],
        marker: 'none',
        askedWith: '3.2',
        declared: '3.0',
        celsius: 23.9,
        elapsed: 15,
        signals: { dcp: 'seen', 'stepped-high': 'seen' },
      },
      {
        port: 'A1',
        analyser: 'analyserNew',
        offers: [],
        marker: 'none',
        signals: { dcp: 'seen', divider: 'seen', 'stepped-high': 'not seen', 'low-volt-high-amp': 'not seen' },
      },
    ],
    proof: [
      { rig: 'desk', mains: 230, display: null, steps: [level('C1', 5, 3), level('C1', 9, 2.22), level('A1', 5, 2.4)] },
    ],
    runs: [
      hold('C1', [9, 2.22], [60, 10.1], { rig: 'desk', end: 'dropped a level', hottest: celsius(63.5) }),
      hold('C1', [9, 1.95], [60, 10], { rig: 'desk', end: 'dropped a level', hottest: celsius(57.8) }),
      hold('C1', [5, 3], [60, 60], { rig: 'desk', hottest: celsius(55.1) }),
    ],
    again: { rig: 'desk', mains: 230, display: null, steps: [level('C1', 9, 2.22, [1]), level('A1', 5, 2.4, [1])] },
  },
};
