// What is done with something in the line and kept whole: a series of drops, a copied file, a stretch of bends.
import { formatPlain } from '../quantity/index.ts';
import { currentRuns } from '../run/index.ts';
import type { AccuracySpec } from '../uncertainty/index.ts';
import type { Wiggle } from './wiggle.ts';

/** Which conductors a drop is along. */
export const SIDES = ['loop', 'vbus', 'ground'] as const;
export type Side = (typeof SIDES)[number];

interface CableRunHead {
  readonly id: string;
  readonly takenAt: string;
  /** How often it had been bent before. */
  readonly bends: number;
  readonly note: string;
  readonly supersedes: string | null;
  readonly withdrawn: boolean;
}

/** One current of a series. */
export interface DropStep {
  /** A */
  readonly amps: number;
  /** V at both ends, by two meters; null for a drop read as one. */
  readonly near: number | null;
  readonly far: number | null;
  /** V, read as one by four wires; null for two meters. */
  readonly drop: number | null;
  /** K of the cable; null where nobody read it. */
  readonly temperature: number | null;
}

/** Drops at several currents, in one plugging. */
export interface ResistanceRun extends CableRunHead {
  readonly kind: 'resistance';
  readonly rigId: string;
  readonly how: 'four wires' | 'two meters';
  readonly side: Side;
  readonly steps: readonly DropStep[];
  /** Accuracies it was accepted with, by the rig's meters; null for one nobody stated, left out until it is stored. */
  readonly accuracy?:
    | {
        readonly amps: AccuracySpec | null;
        readonly near: AccuracySpec | null;
        readonly far: AccuracySpec | null;
      }
    | undefined;
}

export const DIRECTIONS = ['to the device', 'from the device'] as const;

/** A copied file or set of files. Nothing of it is measured by Lastmark itself. */
export interface CopyRun extends CableRunHead {
  readonly kind: 'copy';
  /** "one file of 8 GB", "4000 photos" */
  readonly mix: string;
  readonly direction: (typeof DIRECTIONS)[number];
  readonly bytes: number;
  /** s */
  readonly seconds: number;
  /** Computer, drive and ports. */
  readonly host: string;
  /** What the host says the link runs at, bit/s; null where it does not say. */
  readonly link: number | null;
  /** What the same host, drive and ports are known to link at over a better cable, bit/s; null where nobody tried. */
  readonly hostLink: number | null;
  readonly errors: number;
  /** It fell back to a slower link while it copied. */
  readonly fellBack: boolean;
}

export const BEND_FAULTS = ['none', 'loose head', 'bump', 'limp', 'open', 'intermittent under wiggle'] as const;
export type BendFault = (typeof BEND_FAULTS)[number];
/** Faults after which it does not do its work any more. */
export const FAILED: readonly BendFault[] = ['open', 'intermittent under wiggle', 'loose head'];

export const CHARGES = ['as before', 'slower', 'not at all', 'not tried'] as const;

/** A stretch of bends, up to a count. */
export interface BendRun extends CableRunHead {
  readonly kind: 'bend';
  /** Bends altogether when it was looked at. */
  readonly count: number;
  /** To each side, degrees. */
  readonly angle: number;
  /** m */
  readonly radius: number;
  /** N; null without a weight. */
  readonly tension: number | null;
  /** Bends a minute. */
  readonly rate: number;
  readonly fault: BendFault;
  readonly charging: (typeof CHARGES)[number];
  /** What a meter logged while it was wiggled; null without. */
  readonly wiggle: Wiggle | null;
}

export type CableRun = ResistanceRun | CopyRun | BendRun;
export type CableRunKind = CableRun['kind'];

type WithoutAccuracy<T> = T extends CableRun ? Omit<T, 'accuracy'> : never;
/** A run before the bench says how accurate its meters are. */
export type NewCableRun = WithoutAccuracy<CableRun>;

/** V between both ends of a step, whichever way it was read. */
export const dropOf = ({ near, far, drop }: DropStep): number | null =>
  drop ?? (near === null || far === null ? null : near - far);

/** bit/s of a copy. */
export const throughput = ({ bytes, seconds }: Pick<CopyRun, 'bytes' | 'seconds'>): number => (bytes * 8) / seconds;

/** A run in a few words, with the number it is known by. */
export function describeCableRun(run: CableRun): string {
  if (run.kind === 'resistance')
    return `${run.side === 'loop' ? 'Both conductors' : run.side === 'vbus' ? 'VBUS' : 'Ground'}, ${run.steps.length} readings up to ${formatPlain(Math.max(...run.steps.map(({ amps }) => amps)), 'current')}`;
  if (run.kind === 'copy') return `${run.mix} ${run.direction}: ${(throughput(run) / 8e6).toFixed(1)} MB/s`;
  return `${run.count} bends: ${run.fault === 'none' ? 'no fault' : run.fault}`;
}

/** Bends it had altogether, by the runs that stand. */
export const bendsOf = (runs: readonly CableRun[]): number =>
  Math.max(0, ...currentRuns(runs).map((one) => (one.kind === 'bend' ? one.count : one.bends)));

/** From this current on a drop below nothing is a mistake, A; below it only one beyond what two meters differ by, V. */
const TELLING_AMPS = 0.5;
const METERS_APART = 0.1;

/** Why a run cannot be taken as entered, in a sentence; null when it can. */
export function cableRunRefusal(run: NewCableRun, others: readonly CableRun[]): string | null {
  if (run.withdrawn) return null;
  if (run.kind === 'copy')
    return throughput(run) > 2e11
      ? `${(throughput(run) / 1e9).toFixed(0)} Gbit/s is more than any cable carries. Check size and time.`
      : run.link !== null && throughput(run) > run.link
        ? `${(throughput(run) / 1e6).toFixed(0)} Mbit/s is more than the link of ${(run.link / 1e6).toFixed(0)} Mbit/s carries. Was it answered from a cache?`
        : null;
  if (run.kind === 'bend') {
    if (run.wiggle && run.wiggle.longest > run.wiggle.seconds)
      return 'The trace contradicts itself: paste what was logged again.';
    if (run.count < run.bends) return `It had ${run.bends} bends before, and ${run.count} now.`;
    const most = Math.max(
      0,
      ...others.filter((one) => one.id !== run.supersedes).map((one) => (one.kind === 'bend' ? one.count : 0)),
    );
    return run.supersedes === null && run.count < most
      ? `It had ${most} bends already. Type all of them together, not those of this stretch.`
      : null;
  }
  for (const [at, step] of run.steps.entries()) {
    const where = `Reading ${at + 1}`;
    const volts = dropOf(step);
    if (volts === null)
      return `${where}: ${run.how === 'two meters' ? 'type the volts at both ends' : 'type the drop'}.`;
    // Without a current to speak of two meters differ by what their makers allow, either way.
    if (volts < 0 && (step.amps >= TELLING_AMPS || volts < -METERS_APART))
      return `${where}: the far end is ${formatPlain(-volts, 'voltage')} above the near one. Are the two swapped?`;
    if (volts > 5) return `${where}: ${formatPlain(volts, 'voltage')} drop along a cable? Check the meters.`;
  }
  return run.steps.some(({ amps }) => amps > 0) ? null : 'Without a current there is no drop: type a reading with one.';
}
