// A run sheet: ordered steps with what to set, how long to wait, what to read, and who must be there.

import type { Bending } from '../bends/index.ts';
import type { CaptureKind } from '../capture/types.ts';
import type { ProfileClass } from '../instrument/index.ts';
import type { SettleRule } from '../procedure/index.ts';
import type { Attached, Mains, Output } from '../reading/index.ts';
import type { Condition } from './condition-types.ts';

/** What a step does. */
export const STEP_KINDS = [
  'rig',
  'idle',
  'read-out',
  'point',
  'split',
  'warm-up',
  'hold',
  'capture',
  'cool',
  'device',
  'charge',
  'resistance',
  'bend',
  'by hand',
] as const;
export type StepKind = (typeof STEP_KINDS)[number];

/** Kinds in the words of the bench. */
export const STEP_WORDS: Readonly<Record<StepKind, string>> = {
  rig: 'Rig check',
  idle: 'Idle',
  'read-out': 'Read-out',
  point: 'Load point',
  split: 'Combination',
  'warm-up': 'Warm-up',
  hold: 'Hold',
  capture: 'Capture',
  cool: 'Cool down',
  device: 'Device',
  charge: 'Whole charge',
  resistance: 'Resistance',
  bend: 'Bends',
  'by hand': 'By hand',
};

/** Who takes the readings. */
export type By = 'instruments' | 'keypad';

/** What every step says. */
interface StepBase<Kind extends StepKind> {
  /** Unique within its sheet. */
  readonly id: string;
  readonly kind: Kind;
  readonly by: By;
  /** What to set, as read aloud. */
  readonly title: string;
  /** Least time before it is read, s; for idle and hold the time it is measured over. */
  readonly dwell: number;
  /** Hottest it may get on this step, K; null takes the sample's limit. */
  readonly hottest: number | null;
  readonly needs: readonly ProfileClass[];
  /** One line of caution; null for none. */
  readonly caution: string | null;
  /** Whether someone has to watch. */
  readonly attended: boolean;
  /** Why it is left out; null while it is to be done. */
  readonly skip: string | null;
  /** Why a run added it; without one it is of the sheet. */
  readonly because?: string | undefined;
  /** The step it reads again; id. */
  readonly repeats?: string | undefined;
}

/** A step at a supply. */
interface Supplied {
  readonly mains: Mains;
}

/** A step with a load. */
interface Loaded extends Supplied {
  /** What is loaded, each with the level and its current at 100 %. */
  readonly outputs: readonly Output[];
  /** Fraction of those currents; 0 sets the levels and draws nothing. */
  readonly load: number;
}

export interface IdleStep extends StepBase<'idle'>, Supplied {
  readonly attached: Attached;
  /** It follows the load points, as a procedure may order it; else it is read from cold. */
  readonly warm?: boolean | undefined;
}
export interface ReadOutStep extends StepBase<'read-out'> {
  readonly port: string;
}
export interface PointStep extends StepBase<'point'>, Loaded {
  /** Where its readings go. */
  readonly station: 'proof' | 'efficiency';
  readonly settle: SettleRule | null;
}
export interface SplitStep extends StepBase<'split'>, Supplied {
  /** Ports in the order they are plugged in. */
  readonly order: readonly string[];
}
export interface LongStep<Kind extends 'warm-up' | 'hold' = 'warm-up' | 'hold'> extends StepBase<Kind>, Loaded {}
export interface CaptureStep extends StepBase<'capture'>, Loaded {
  readonly capture: CaptureKind;
  /** The output looked at; null where the supply is. */
  readonly port: string | null;
}
export interface DeviceStep extends StepBase<'device'>, Supplied {
  readonly port: string;
  readonly deviceId: string;
}

/** One full charge of a device: plugged by a person, logged to its end and a while after it. */
export interface ChargeStep extends StepBase<'charge'>, Supplied {
  readonly port: string;
  readonly deviceId: string;
  /** Cable between port and device. */
  readonly lead: string;
  /** Level the person brings it to before it is plugged in, 0…1; null for whatever it is. */
  readonly startLevel: number | null;
  /** How long it is logged after its end, s. */
  readonly after: number;
}

/** A series of currents through what sits in the line, in one plugging; its time is shared among them. */
export interface ResistanceStep extends StepBase<'resistance'>, Loaded {
  /** A, rising; without any the meters show what they differ by. */
  readonly currents: readonly number[];
  /** Both plugs are pulled and put in again before it. */
  readonly replug: boolean;
}

/** A stretch at the bender, up to a count, and a look at its end. */
export interface BendStep extends StepBase<'bend'>, Bending {
  /** Bends altogether at its end. */
  readonly count: number;
}

interface Steps {
  readonly rig: StepBase<'rig'>;
  readonly idle: IdleStep;
  readonly 'read-out': ReadOutStep;
  readonly point: PointStep;
  readonly split: SplitStep;
  readonly 'warm-up': LongStep<'warm-up'>;
  readonly hold: LongStep<'hold'>;
  readonly capture: CaptureStep;
  readonly cool: StepBase<'cool'>;
  readonly device: DeviceStep;
  readonly charge: ChargeStep;
  readonly resistance: ResistanceStep;
  readonly bend: BendStep;
  readonly 'by hand': StepBase<'by hand'>;
}

/** A step of a kind; of any without one. */
export type SheetStep<Kind extends StepKind = StepKind> = { [K in Kind]: Steps[K] }[Kind];

/** A step that is not yet part of a sheet. */
export type NewStep<Kind extends StepKind = StepKind> = { [K in Kind]: Omit<Steps[K], 'id'> }[Kind];

/** A school of measuring: which choices a sheet is made by. */
export interface Method {
  readonly id: string;
  readonly title: string;
  /** What sets it apart, in a sentence. */
  readonly says: string;
  readonly kinds: readonly ('wall' | 'desktop' | 'car' | 'cable')[];
  readonly by: By;
  readonly mains: readonly Mains[];
  /** Load points of the efficiency series, in the order taken; empty for none. */
  readonly loads: readonly number[];
  /** Which levels the efficiency series is taken at. */
  readonly levels: 'lowest and highest' | 'every fixed level';
  /** s at 100 % before the first point at a mains; 0 for none. */
  readonly warmUp: number;
  readonly settle: SettleRule | null;
  /** s an idle reading lasts; 0 for none. */
  readonly idle: number;
  readonly idleAttached: readonly Attached[];
  /** Where in the order idle is read. */
  readonly idleWhen: 'from cold' | 'after the points';
  readonly readOut: boolean;
  readonly proof: boolean;
  /** Whether combinations of ports are swept. */
  readonly splits: boolean;
  /** How long a soak at full load lasts at each mains, s; 0 for none. */
  readonly soak: number;
  /** How long the highest power is held, s; 0 for not at all. */
  readonly hold: number;
  /** Further supplies the strongest loading is read at, at full and half load. */
  readonly sweep: readonly Mains[];
  /** What is recorded against time besides. */
  readonly captures: readonly CaptureKind[];
  /** Whether real devices serve as loads. */
  readonly devices: boolean;
  /** What a run does by itself when a step turns out in some way. */
  readonly conditions?: readonly Condition[] | undefined;
  /** Hottest spot at which its loads go off, K, where a sample's or the bench's limit is not lower; null for theirs alone. */
  readonly hottest?: number | null | undefined;
  /** Who is there: as each step asks for it, or somebody all the time. */
  readonly watch?: 'as the steps ask' | 'all the time' | undefined;
  /** Whether each device is charged from empty to full on the first port. */
  readonly charges: boolean;
  /** What is done with something that sits in the line; null where chargers are measured. */
  readonly line: {
    /** How many times its resistance is read, plugged anew each time. */
    readonly pluggings: number;
    /** Whether it is bent, and read again at every look. */
    readonly bends: boolean;
  } | null;
}
