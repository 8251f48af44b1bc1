// What may be wrong with a seeded charger: each fault changes what is true and leaves the label as it was.
import { drillFault } from '@lastmark/core/drill';
import { lossWatts } from './physics.ts';
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

type Change = Pick<ChargerFault, 'id' | 'fits' | 'apply'>;

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

/** K of a usual room. */
const ROOM = 298.15;
/** Part of its whole rise at which it throttles: reached within the hour of a soak, and not within a warm-up. */
const NEARLY = 0.94;

/** How hot it gets inside at full load by the end of a soak, all but a little, K: of the cooler of its first port alone and all together. */
function nearlyHot({ loss, heat, nameplate, ports, allocations }: ChargerTruth): number {
  const [first] = ports;
  const all = allocations.find((one) => one.ports.length === ports.length);
  const watts = [first?.watts ?? 0, ...(all ? [Object.values(all.watts).reduce((sum, one) => sum + one, 0)] : [])];
  const lost = Math.min(...watts.map((drawn) => lossWatts(loss, [{ volts: 20, watts: drawn }], nameplate, 230)));
  return ROOM + NEARLY * lost * (1 / heat.shellToRoom + 1 / heat.insideToShell);
}

const CHANGES: readonly Change[] = [
  {
    id: 'refused level',
    fits: ({ ports }) => (ports[0]?.offers.length ?? 0) > 1,
    apply: (truth) => first(truth, (port) => ({ ...port, refuses: [port.offers.length] })),
  },
  {
    id: 'weak port',
    fits: always,
    apply: (truth) => last(truth, (port) => ({ ...port, weak: 0.8 })),
  },
  {
    id: 'sagging level',
    fits: always,
    apply: (truth) => ({ ...truth, sourceOhms: 0.34 }),
  },
  {
    id: 'timer',
    // One port reaches the whole of it, so that one port shows it.
    fits: ({ ports, nameplate }) => (ports[0]?.watts ?? 0) > 0.95 * nameplate,
    apply: (truth) => ({
      ...truth,
      peak: { above: 0.82 * truth.nameplate, seconds: 300, downTo: 0.8 * truth.nameplate },
    }),
  },
  {
    id: 'oversold split',
    fits: several,
    apply: (truth) => ({
      ...truth,
      allocations: truth.allocations.map(({ ports, watts }) => ({ ports, watts: scaled(watts, 0.75) })),
    }),
  },
  {
    id: 'long interruption',
    fits: several,
    apply: (truth) => ({ ...truth, gap: 2 }),
  },
  {
    id: 'heavy idle',
    fits: always,
    apply: (truth) => ({ ...truth, idle: { ...truth.idle, floor: truth.idle.floor * 6 } }),
  },
  {
    id: 'lossy',
    fits: always,
    apply: (truth) => ({ ...truth, loss: { ...truth.loss, proportional: truth.loss.proportional + 0.055 } }),
  },
  {
    id: 'late correction',
    fits: ({ nameplate, kind }) => nameplate >= 75 && kind !== 'car',
    apply: (truth) => ({ ...truth, correctionFrom: 0.92 * truth.nameplate }),
  },
  {
    id: 'ripple at light load',
    fits: always,
    apply: (truth) => ({ ...truth, ripple: { ...truth.ripple, burst: 0.34, burstBelow: 0.15 } }),
  },
  {
    id: 'throttles when hot',
    fits: always,
    apply: (truth) => ({ ...truth, heat: { ...truth.heat, throttleAt: nearlyHot(truth), throttleTo: 0.7 } }),
  },
  {
    id: 'lying display',
    fits: ({ display }) => display !== null,
    apply: (truth) => ({ ...truth, display: 1.125 }),
  },
];

/** Every fault, in the order of the work that finds it. */
export const CHARGER_FAULTS: readonly ChargerFault[] = CHANGES.map((change) => {
  const { says = '', caughtBy = '' } = drillFault(change.id) ?? {};
  return { ...change, says, caughtBy };
});

export const faultNamed = (id: string): ChargerFault | undefined => CHARGER_FAULTS.find((one) => one.id === id);
