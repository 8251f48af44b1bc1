// Run sheets and their runs as they travel.
import type { Condition, Limits, MethodBody, SheetStep } from '@lastmark/core/plan';
import type { OUTCOMES } from '@lastmark/core/proof';
import type { Place } from '@lastmark/core/reading';
import type { ReadingInput } from './types.ts';

export interface MethodInput {
  method: MethodBody;
  /** What changed, and why. */
  note: string;
}

/** A version of a method. */
export interface StoredMethod extends MethodInput {
  id: string;
  version: number;
  /** It ships, and stays as it is. */
  builtIn: boolean;
  /** No new sheet is made by it. */
  retired: boolean;
  /** null for one that ships. */
  createdAt: string | null;
}

export interface SheetInput {
  title: string;
  rigId: string;
  steps: SheetStep[];
  /** What a run does by itself; as it was where they are left out. */
  conditions?: Condition[] | undefined;
}

export interface StoredSheet extends SheetInput {
  conditions: Condition[];
  id: string;
  sampleId: string;
  methodId: string;
  /** Which version of it the sheet was made by; null for sheets of before there were any. */
  methodVersion: number | null;
  version: number;
  createdAt: string;
}

/** Which sample a sheet or run is about, short. */
export interface SampleName {
  id: string;
  maker: string;
  model: string;
  serial: string;
  tag: string;
}

export interface SheetRow {
  id: string;
  /** With the day a lent one goes back; null where it stays. */
  sample: SampleName & { returnBy: string | null };
  title: string;
  methodId: string;
  methodVersion: number | null;
  /** As that version is called. */
  methodTitle: string;
  steps: number;
  /** Estimated, s. */
  seconds: number;
  createdAt: string;
  /** The newest run of it. */
  run: { id: string; state: RunState; done: number; steps: number; person: string } | null;
}

/**
 * `running`: by itself; `waiting`: for a person; `held`: loads off until someone goes on; `interrupted`: the server or
 * the database went away; `stopped` and `done`: over.
 */
export const RUN_STATES = ['running', 'waiting', 'held', 'interrupted', 'stopped', 'done'] as const;
export type RunState = (typeof RUN_STATES)[number];

export interface StepOutcome {
  state: 'done' | 'skipped' | 'failed';
  /** What came of it, in a sentence. */
  says: string;
  at: string;
  /** It did not go as planned: what came of it is a finding. */
  found?: boolean;
  /** Time under load, where that is what it was for, s. */
  seconds?: number;
  /** Points, runs and read-outs it made. */
  madeIds: string[];
}

/** How far the present step is. */
export interface Progress {
  /** What it is at: "warming up", "settling: drift 1.4 %". */
  doing: string;
  /** 0…1 */
  share: number;
  /** s left by the instruments' clock; null when not known. */
  left: number | null;
}

export interface StartInput {
  person: string;
  tag: string;
  watched: boolean;
}

export type Ask =
  | { kind: 'hold' }
  | { kind: 'go on'; person: string }
  | { kind: 'repeat' }
  /** Supply off, some seconds, and on again; then as "go on". */
  | { kind: 'cycle' }
  | { kind: 'skip'; reason: string }
  | { kind: 'note'; text: string }
  | { kind: 'stop'; reason: string }
  | {
      kind: 'record';
      readings: (Pick<ReadingInput, 'quantity' | 'port' | 'typed'> & { place: Place })[];
      device: { outcome: (typeof OUTCOMES)[number]; message: string } | null;
    };

export interface SheetRun {
  id: string;
  sheetId: string;
  sample: SampleName;
  rigId: string;
  title: string;
  person: string;
  state: RunState;
  /** Why it is held, what it waits for, how it ended. */
  says: string;
  stepId: string | null;
  /** Those of the sheet as it was, and those it added itself. */
  steps: SheetStep[];
  /** What it does by itself. */
  conditions: Condition[];
  outcomes: Record<string, StepOutcome>;
  progress: Progress | null;
  watched: boolean;
  /** What the instruments must not show more than. */
  limits: Limits;
  notes: { at: string; text: string }[];
  /** Instruments it owns while it lasts. */
  instrumentIds: string[];
  startedAt: string;
  endedAt: string | null;
}

/** Who has an instrument now. */
export interface Lease {
  instrumentId: string;
  runId: string;
  person: string;
  title: string;
}

/** What one instrument told at a moment of a run. */
export interface RunSample {
  /** ms since the epoch, by the server. */
  at: number;
  instrumentId: string;
  values: (number | null)[];
}

/** Part of what was told in a run, oldest first. */
export interface RunTrace {
  items: RunSample[];
  /** Ask for what was told before this; null when there is nothing before. */
  before: string | null;
}

export interface SimulatedBenchState {
  /** Whether this start has one. */
  there: boolean;
  speed: number | null;
  /** Models it can play. */
  chargers: string[];
  cables: string[];
  /** Devices a person can plug in there. */
  devices: string[];
}

/** What a person plugs in at the simulated bench. */
export interface SimulatedDeviceInput {
  readonly port: string;
  readonly device: string | null;
  readonly level: number;
  readonly speed: number;
}

/** What is to be played on the simulated bench. */
export interface SimulatedInput {
  readonly methodId: string;
  readonly person: string;
  /** Times real time. */
  readonly speed: number;
}

/** Something that stands on the shelf, and why it is told. */
interface OfSample {
  sample: SampleName;
}

export interface Today {
  /** Day of the server, ISO 8601. */
  day: string;
  /** Runs that are not over. */
  runs: (OfSample & { id: string; title: string; state: RunState; person: string; says: string })[];
  /** Meters whose calibration ends soon, or ended; the most overdue first. */
  calibration: { id: string; name: string; due: string; days: number }[];
  /** Samples that were lent and go back by a day; the most urgent first. */
  loans: (OfSample & { by: string; days: number })[];
  /** Reports nobody followed up for months. */
  followUps: (OfSample & { code: string; issued: string })[];
  /** Samples with promises left borderline. */
  borderline: (OfSample & { claims: number })[];
  /** Of samples with most promises open, what would settle most for its time; the best first. */
  next: (OfSample & { title: string; seconds: number; expected: number; open: number })[];
}

/** What is to be done on a day. Times are s after midnight. */
export interface BenchDayBody {
  /** When it begins. */
  from: number;
  /** How long another sample takes to set up, s. */
  setUp: number;
  people: { title: string; there: { from: number; to: number }[] }[];
  sheets: {
    sheetId: string;
    /** When its sample comes, and when it has to be back; null for there all day. */
    from: number | null;
    due: number | null;
    /** The chamber its soaks stand in; null for the open room. */
    chamberId: string | null;
  }[];
  /** Steps somebody holds in their place: id of the task, and when it begins. */
  pins: { taskId: string; at: number }[];
}

export interface BenchDay extends BenchDayBody {
  /** ISO date. */
  day: string;
  /** 0 while nobody kept it. */
  version: number;
}
