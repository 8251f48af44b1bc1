// Faults that may hide in a charger, a cable or the rig, and the steps that show each.
import { ofKind, type PointStep, type SheetStep, stepSeconds } from '../plan/index.ts';
import type { Point } from '../reading/index.ts';
import type { DrillFault } from './types.ts';

/** A load that counts as full, as a part of the rated current. */
const FULL = 0.95;
/** Long enough to see a timer end, and to see a shell get warm, s. */
const TIMER_SECONDS = 600;
const SOAK_SECONDS = 3000;
const WARM_SECONDS = 1700;
/** Idle is an energy over time: a shorter glance sees a burst or none, s. */
const IDLE_SECONDS = 60;

type Steps = readonly SheetStep[];
const one = (step: SheetStep | undefined): Steps => (step ? [step] : []);
/** The shortest of some: a good plan takes no longer than it must. */
const shortest = (steps: Steps): Steps => one([...steps].sort((a, b) => stepSeconds(a) - stepSeconds(b))[0]);

const fullPoints = (steps: Steps): readonly PointStep[] => ofKind(steps, 'point').filter(({ load }) => load >= FULL);
/** Full points of one port alone. */
const alone = (steps: Steps, port: string | undefined): readonly PointStep[] =>
  fullPoints(steps).filter(({ outputs }) => outputs.length === 1 && outputs[0]?.port === port);
const highest = (points: readonly PointStep[]): PointStep | undefined =>
  [...points].sort((a, b) => (b.outputs[0]?.volts ?? 0) - (a.outputs[0]?.volts ?? 0))[0];

/** Steps that draw the whole power for so long. */
const long = (steps: Steps, seconds: number): Steps =>
  steps.filter(
    (step) =>
      (step.kind === 'hold' || step.kind === 'warm-up' || (step.kind === 'capture' && step.capture === 'soak')) &&
      step.load >= FULL &&
      step.dwell >= seconds,
  );

/** Points of one loading and supply at four loads or more. */
function fourLoads(steps: Steps): readonly PointStep[] {
  const groups = new Map<string, PointStep[]>();
  for (const step of ofKind(steps, 'point')) {
    const key = JSON.stringify([step.mains, step.outputs]);
    const group = groups.get(key) ?? [];
    if (step.load > 0.2 && !group.some(({ load }) => Math.abs(load - step.load) < 0.01)) group.push(step);
    groups.set(key, group);
  }
  return [...groups.values()].find((group) => group.length >= 4)?.slice(0, 4) ?? [];
}

const hasLoad = ({ load, readings }: Point, port?: string): boolean =>
  load >= FULL &&
  readings.some(
    ({ value, place, port: own }) => value !== null && place === 'port' && (port === undefined || own === port),
  );

const CHARGER: readonly DrillFault[] = [
  {
    id: 'refused level',
    of: 'charger',
    title: 'It lists a level and refuses it',
    says: 'Its first port lists its highest level and refuses every request for it.',
    caughtBy:
      'a load step at the highest level of every port: a read-out alone shows what is listed, not what is given',
    caught: (steps, [first]) => one(highest(alone(steps, first))),
    byHand: ({ points }, [first]) => points.some((point) => hasLoad(point, first)),
  },
  {
    id: 'weak port',
    of: 'charger',
    title: 'A port gives less than it offers',
    says: 'Its last port gives four fifths of what it offers.',
    caughtBy: 'a load step at the rated current of every port, twins included',
    caught: (steps, ports) => shortest(alone(steps, ports.at(-1))),
    byHand: ({ points }, ports) => points.some((point) => hasLoad(point, ports.at(-1))),
  },
  {
    id: 'sagging level',
    of: 'charger',
    title: 'Its outputs sag under load',
    says: 'Its outputs sag by a third of an ohm.',
    caughtBy: 'volts read at the port under load, against the tolerance of the level',
    caught: (steps) => shortest(fullPoints(steps)),
    byHand: ({ points }) => points.some((point) => hasLoad(point)),
  },
  {
    id: 'timer',
    of: 'charger',
    title: 'Its power is held for a time only',
    says: 'Its whole power is held for five minutes, then four fifths of it.',
    caughtBy: 'a hold as long as the promise says, not a glance',
    caught: (steps) => shortest(long(steps, TIMER_SECONDS)),
  },
  {
    id: 'oversold split',
    of: 'charger',
    title: 'Ports together give less than is printed',
    says: 'Together its ports give a quarter less than is printed.',
    caughtBy: 'every combination loaded at once, each port read',
    caught: (steps) => shortest(ofKind(steps, 'split').filter(({ order }) => order.length > 1)),
  },
  {
    id: 'long interruption',
    of: 'charger',
    title: 'A running port drops out long when another is plugged',
    says: 'A port is without power for two seconds when another is plugged in.',
    caughtBy: 'a running port watched while the next is plugged in',
    caught: (steps) => shortest(ofKind(steps, 'split').filter(({ order }) => order.length > 1)),
  },
  {
    id: 'heavy idle',
    of: 'charger',
    title: 'It draws too much with nothing attached',
    says: 'It draws six times as much with nothing attached.',
    caughtBy: 'idle energy over minutes at the socket, with a meter that reads so low',
    caught: (steps) =>
      shortest(ofKind(steps, 'idle').filter(({ attached, dwell }) => attached === 'nothing' && dwell >= IDLE_SECONDS)),
    byHand: ({ points }) =>
      points.some(
        ({ setupId, attached, readings }) =>
          setupId === null && attached === 'nothing' && readings.some(({ value }) => value !== null),
      ),
  },
  {
    id: 'lossy',
    of: 'charger',
    title: 'It loses more than is printed',
    says: 'It loses five points more at every load.',
    caughtBy: 'input and output read together at four loads, warm',
    caught: fourLoads,
    byHand: ({ points }) => {
      const loads = points.filter(({ readings }) =>
        readings.some(({ place, value }) => place === 'mains' && value !== null),
      );
      return new Set(loads.map(({ load }) => load)).size >= 4;
    },
  },
  {
    id: 'late correction',
    of: 'charger',
    title: 'Its power-factor correction wakes late',
    says: 'Its power-factor correction begins above nine tenths of its load.',
    caughtBy: 'power factor at every load point, not at full load alone',
    caught: (steps) => {
      const some = ofKind(steps, 'point').filter(({ load }) => load >= 0.5 && load <= 0.8);
      return shortest(some);
    },
  },
  {
    id: 'ripple at light load',
    of: 'charger',
    title: 'Its ripple is high at light load',
    says: 'Below a seventh of its load it works in bursts of a third of a volt.',
    caughtBy: 'a ripple record at light load as well as at the rated one',
    caught: (steps) =>
      shortest(ofKind(steps, 'capture').filter(({ capture, load }) => capture === 'ripple' && load < 0.15)),
  },
  {
    id: 'throttles when hot',
    of: 'charger',
    title: 'It gives less when it is hot',
    says: 'Once it is hot inside, within the hour, it gives seven tenths.',
    caughtBy: 'a soak of an hour with output read to its end',
    // A warm-up may show it where the sample was warm already; the soak does in any case.
    caught: (steps) => {
      const soaks = long(steps, SOAK_SECONDS);
      return shortest(soaks.length > 0 ? soaks : long(steps, WARM_SECONDS));
    },
  },
  {
    id: 'lying display',
    of: 'charger',
    title: 'Its display shows more than it gives',
    says: 'Its display shows an eighth more than leaves the port.',
    caughtBy: 'a meter at the port, read beside the display under load',
    caught: (steps) => shortest(fullPoints(steps)),
    byHand: ({ points }) => points.some((point) => hasLoad(point)),
  },
];

const CABLE: readonly DrillFault[] = [
  {
    id: 'wrong marker',
    of: 'cable',
    title: 'Its marker says more than its wire carries',
    says: 'Its marker says 5 A; its wire has twice the resistance of one that carries so much.',
    caughtBy: 'its marker read, and its resistance beside it',
    caught: (steps) => {
      const read = ofKind(steps, 'read-out')[0];
      const series = ofKind(steps, 'resistance')[0];
      return read && series ? [read, series] : [];
    },
  },
  {
    id: 'worn contacts',
    of: 'cable',
    title: 'Its contacts are worn',
    says: 'Its contacts add as much as its wire, and another amount each time it is plugged.',
    caughtBy: 'its resistance read again after it was plugged anew',
    caught: (steps) => {
      const series = ofKind(steps, 'resistance');
      return series.length > 1 ? series.slice(0, 2) : [];
    },
  },
];

const rigStep = (steps: Steps): Steps => one(ofKind(steps, 'rig')[0]);

const RIG: readonly DrillFault[] = [
  {
    id: 'worn lead',
    of: 'rig',
    title: 'The lead of the rig has more resistance than is stated',
    says: 'The lead of the rig has an eighth of an ohm more than the rig states.',
    caughtBy: 'the rig check before the first load: its lead measured against what is stated',
    caught: rigStep,
  },
  {
    id: 'meter out of calibration',
    of: 'rig',
    title: 'A voltmeter of the rig reads wrong',
    says: 'The voltmeter at the port reads two parts in a hundred too much.',
    caughtBy: 'the same voltage read by the two voltmeters of the rig with nothing drawn',
    caught: rigStep,
  },
  {
    id: 'frozen meter',
    of: 'rig',
    title: 'A meter tells the same number for ever',
    says: 'The power analyser answers what it answered first, whatever is drawn.',
    caughtBy: 'a look whether the number moves when the load does',
    caught: rigStep,
  },
];

/** Every fault there is, in the order of the work that finds it. */
export const DRILL_FAULTS: readonly DrillFault[] = [...CHARGER, ...CABLE, ...RIG];

/** @returns undefined for an id nobody knows */
export const drillFault = (id: string): DrillFault | undefined => DRILL_FAULTS.find((fault) => fault.id === id);
