// What may be wrong with a seeded charger: each fault changes what is true and leaves the label as it was.
import type { ChargerTruth, PortTruth } from './truth.ts';

export interface ChargerFault {
  readonly id: string;
  /** What is true of the charger. */
  readonly says: string;
  /** What shows it. */
  readonly caughtBy: string;
  /** Whether a charger can have it at all. */
  readonly fits: (truth: ChargerTruth) => boolean;
  readonly apply: (truth: ChargerTruth) => ChargerTruth;
}

const always = (): boolean => true;
const several = ({ ports }: ChargerTruth): boolean => ports.length > 1;
const scaled = (watts: Readonly<Record<string, number>>, by: number) =>
  Object.fromEntries(Object.entries(watts).map(([port, own]) => [port, own * by]));
const first = (truth: ChargerTruth, change: (port: PortTruth) => PortTruth): ChargerTruth => ({
  ...truth,
  ports: truth.ports.map((port, at) => (at === 0 ? change(port) : port)),
});
const last = (truth: ChargerTruth, change: (port: PortTruth) => PortTruth): ChargerTruth => ({
  ...truth,
  ports: truth.ports.map((port, at) => (at === truth.ports.length - 1 ? change(port) : port)),
});

const CELSIUS = 273.15;

/** Every fault, in the order of the work that finds it. */
export const CHARGER_FAULTS: readonly ChargerFault[] = [
  {
    id: 'refused level',
    says: 'Its first port lists its highest level and refuses every request for it.',
    caughtBy: 'a read-out that asks for what is listed, or a load step at that level',
    fits: ({ ports }) => (ports[0]?.offers.length ?? 0) > 1,
    apply: (truth) => first(truth, (port) => ({ ...port, refuses: [port.offers.length] })),
  },
  {
    id: 'weak port',
    says: 'Its last port gives four fifths of what it offers.',
    caughtBy: 'a load step at the rated current of every port, twins included',
    fits: always,
    apply: (truth) => last(truth, (port) => ({ ...port, weak: 0.8 })),
  },
  {
    id: 'sagging level',
    says: 'Its outputs sag by a third of an ohm.',
    caughtBy: 'volts read at the port under load, against the tolerance of the level',
    fits: always,
    apply: (truth) => ({ ...truth, sourceOhms: 0.34 }),
  },
  {
    id: 'timer',
    says: 'Its whole power is held for five minutes, then four fifths of it.',
    caughtBy: 'a hold as long as the promise says, not a glance',
    fits: always,
    apply: (truth) => ({
      ...truth,
      peak: { above: 0.82 * truth.nameplate, seconds: 300, downTo: 0.8 * truth.nameplate },
    }),
  },
  {
    id: 'oversold split',
    says: 'Together its ports give a quarter less than is printed.',
    caughtBy: 'every combination loaded at once, each port read',
    fits: several,
    apply: (truth) => ({
      ...truth,
      allocations: truth.allocations.map(({ ports, watts }) => ({ ports, watts: scaled(watts, 0.75) })),
    }),
  },
  {
    id: 'long interruption',
    says: 'A port is without power for two seconds when another is plugged in.',
    caughtBy: 'a running port watched while the next is plugged in',
    fits: several,
    apply: (truth) => ({ ...truth, gap: 2 }),
  },
  {
    id: 'heavy idle',
    says: 'It draws six times as much with nothing attached.',
    caughtBy: 'idle energy over minutes at the socket, with a meter that reads so low',
    fits: always,
    apply: (truth) => ({ ...truth, idle: { ...truth.idle, floor: truth.idle.floor * 6 } }),
  },
  {
    id: 'lossy',
    says: 'It loses five points more at every load.',
    caughtBy: 'input and output read together at four loads, warm',
    fits: always,
    apply: (truth) => ({ ...truth, loss: { ...truth.loss, proportional: truth.loss.proportional + 0.055 } }),
  },
  {
    id: 'late correction',
    says: 'Its power-factor correction begins above nine tenths of its load.',
    caughtBy: 'power factor at every load point, not at full load alone',
    fits: ({ nameplate, kind }) => nameplate >= 75 && kind !== 'car',
    apply: (truth) => ({ ...truth, correctionFrom: 0.92 * truth.nameplate }),
  },
  {
    id: 'ripple at light load',
    says: 'Below a seventh of its load it works in bursts of a third of a volt.',
    caughtBy: 'a ripple record at light load as well as at the rated one',
    fits: always,
    apply: (truth) => ({ ...truth, ripple: { ...truth.ripple, burst: 0.34, burstBelow: 0.15 } }),
  },
  {
    id: 'throttles when hot',
    says: 'From 62 °C inside it gives seven tenths.',
    caughtBy: 'a soak of an hour with output read to its end',
    fits: always,
    apply: (truth) => ({ ...truth, heat: { ...truth.heat, throttleAt: CELSIUS + 62, throttleTo: 0.7 } }),
  },
];

export const faultNamed = (id: string): ChargerFault | undefined => CHARGER_FAULTS.find((one) => one.id === id);
