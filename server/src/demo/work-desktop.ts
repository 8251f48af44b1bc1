// Work done on the desktop chargers of the Fernwall shelf.
import { celsius, hold, level, set } from './proof-steps.ts';
import type { DemoWork } from './proof-world.ts';

const QUAD_FULL = ['5 V 3 A', '9 V 3 A', '12 V 3 A', '15 V 3 A', '20 V 5 A', 'PPS 5–11 V 5 A', 'PPS 5–16 V 5 A'];
/** Hold-up 10 ms, a limited power source, touch temperatures of IEC 62368-1 TS1, fed from outside, 100 W. */
const QUAD_EXTENDED = '00FF0100000000000201000A01000000000000000103006400';
/** Hold-up 20 ms, a fifth more for 60 ms, a ground pin that is protective earth; 100 W, and 180 W with EPR. */
const MONOLITH_EXTENDED = '00FF02000000000003010514000662200000000001030064B4';
const MONOLITH_SPR = ['5 V 3 A', '9 V 3 A', '15 V 3 A', '20 V 5 A', 'PPS 3.3–21 V 5 A'];
const MONOLITH_EPR = ['28 V 5 A', '36 V 5 A', 'EPR AVS 15–36 V 180 W'];
const MARKER_240: readonly string[] = ['FF00A041', '18002E5B', '00000000', '12340100', '000A2640'];

/** By serial. */
export const DESKTOP_WORK: Readonly<Record<string, DemoWork>> = {
  'GQ-20931': {
    readOuts: [
      {
        port: 'C1',
        analyser: 'analyserNew',
        offers: QUAD_FULL,
        askedWith: '3.2',
        declared: '3.1',
        celsius: 24.4,
        elapsed: 20,
        cable: MARKER_240,
        info: { guaranteed: false, maximum: 100, present: 100, reported: 100 },
        extended: QUAD_EXTENDED,
        unreachable: [{ position: 3, reason: 'Every request for 12 V is refused, alone and shared.' }],
        signals: { dcp: 'seen', 'continuous-high': 'not seen', 'stepped-high': 'seen' },
      },
      {
        port: 'C1',
        analyser: 'analyserNew',
        offers: ['5 V 3 A', '9 V 3 A', '15 V 3 A', '20 V 3 A'],
        occupied: ['C2'],
        askedWith: '3.2',
        declared: '3.1',
        celsius: 24.6,
        elapsed: 30,
        cable: MARKER_240,
        info: { guaranteed: false, maximum: 100, present: 60, reported: 60 },
      },
      {
        port: 'C2',
        analyser: 'analyserNew',
        offers: ['5 V 3 A', '9 V 3 A', '15 V 3 A', '20 V 3.25 A'],
        askedWith: '3.2',
        declared: '3.1',
        celsius: 24.6,
        elapsed: 30,
      },
    ],
    proof: [
      {
        rig: 'proof',
        mains: 230,
        display: 0.42,
        steps: [
          level('C1', 5, 3),
          level('C1', 9, 3),
          level('C1', 15, 3),
          level('C1', 20, 5),
          level('C2', 20, 3.25),
          {
            outputs: [
              { port: 'C1', volts: 20, amps: 3.25 },
              { port: 'C2', volts: 20, amps: 3.25 },
            ],
            loads: [1],
          },
        ],
      },
    ],
    runs: [
      {
        rig: 'proof',
        kind: 'move',
        port: 'C1',
        fromVolts: 5,
        toVolts: 11,
        amps: 3,
        breaks: 2,
        longest: 0.24,
        lowest: 0.3,
        note: 'The output fell away at each change of range.',
      },
      {
        rig: 'proof',
        kind: 'device',
        device: 'Warden’s laptop',
        deviceId: '',
        port: 'C1',
        connector: 'C',
        lead: '240 W cable, 1 m',
        workload: 'screen on',
        charge: 0.42,
        settled: 300,
        place: 'port',
        volts: 20,
        watts: 74.8,
        outcome: 'charging',
        message: '',
        note: '',
      },
    ],
  },
  'OB-18-0092': {
    readOuts: [
      {
        port: 'C1',
        analyser: 'analyserNew',
        offers: [...MONOLITH_SPR, 'SPR AVS 5 A / 5 A', '–', ...MONOLITH_EPR],
        epr: true,
        marker: '5 A EPR',
        askedWith: '3.2',
        declared: '3.2',
        celsius: 24,
        elapsed: 30,
        cable: MARKER_240,
        info: { guaranteed: true, maximum: 180, present: 180, reported: 180 },
        extended: MONOLITH_EXTENDED,
      },
      {
        port: 'C1',
        analyser: 'analyserOld',
        offers: [...MONOLITH_SPR, '–', '–', ...MONOLITH_EPR],
        epr: true,
        marker: '5 A EPR',
        askedWith: '3.1',
        celsius: 24.2,
        elapsed: 40,
        cable: MARKER_240,
        note: 'Firmware 1.1 is older than SPR AVS.',
      },
      {
        port: 'C1',
        analyser: 'analyserNew',
        offers: ['5 V 3 A', '9 V 3 A', '15 V 3 A', '20 V 3 A', 'PPS 3.3–21 V 3 A', 'SPR AVS 3 A / 3 A'],
        marker: '3 A',
        askedWith: '3.2',
        declared: '3.2',
        celsius: 24.3,
        elapsed: 30,
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
          level('C1', 20, 5),
          level('C1', 28, 5),
          level('C1', 36, 5),
          set('C1', 'epr-avs', 15, 5),
          set('C1', 'epr-avs', 25.5, 5),
          set('C1', 'epr-avs', 36, 5),
          set('C1', 'spr-avs', 9, 5),
        ],
      },
    ],
    runs: [
      hold('C1', [36, 5], [60, 60], { hottest: celsius(71.6) }),
      {
        rig: 'proof',
        kind: 'over',
        port: 'C1',
        volts: 20,
        rated: 5,
        attached: 'electronic load',
        steps: [5, 5.15, 5.3, 5.45, 5.6].map((asked, index) => ({
          asked,
          amps: index < 4 ? asked - 0.004 : 0,
          volts: index < 4 ? 20.11 - 0.01 * index : 0.2,
          seconds: 3,
        })),
        latched: false,
        recovery: 2.4,
        note: '',
      },
      {
        rig: 'proof',
        kind: 'move',
        port: 'C1',
        fromVolts: 15,
        toVolts: 36,
        amps: 3,
        breaks: 0,
        longest: null,
        lowest: null,
        note: '',
      },
    ],
  },
  'M6-1177': {
    readOuts: [
      {
        port: 'C1',
        analyser: 'analyserNew',
        offers: ['5 V 3 A', '9 V 3 A', '15 V 3 A', '20 V 5 A', 'PPS 3.3–21 V 5 A'],
        askedWith: '3.2',
        declared: '3.1',
        celsius: 23.8,
        elapsed: 20,
      },
      {
        port: 'C2',
        analyser: 'analyserNew',
        offers: ['5 V 3 A', '9 V 3 A', '15 V 3 A', '20 V 3.25 A'],
        marker: '3 A',
        askedWith: '3.2',
        declared: '3.1',
        celsius: 23.8,
        elapsed: 25,
      },
      {
        port: 'C3',
        analyser: 'analyserNew',
        offers: ['5 V 3 A', '15 V 1.66 A', '9 V 2.77 A'],
        askedWith: '3.2',
        declared: '3.0',
        celsius: 23.9,
        elapsed: 25,
      },
    ],
    proof: [],
    runs: [],
  },
};
