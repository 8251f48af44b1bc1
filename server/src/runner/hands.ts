// What a step of a run has at hand: the rig, what it told, and ways to wait for things and people.
import type { Ask, Progress, SheetRun, StepOutcome, StoredInstrument, StoredRig } from '@lastmark/contract';
import type { StepFound } from '@lastmark/core/plan';
import type { Logger } from 'pino';
import type { Database, Queries } from '../db/database.ts';
import type { RigDriver } from './driver.ts';
import type { Looks } from './looks.ts';
import type { OutputWatch } from './outputs.ts';

/** What steps work with. */
export interface Hands {
  readonly db: Database;
  readonly run: SheetRun;
  readonly rig: StoredRig;
  readonly own: readonly StoredInstrument[];
  readonly ports: readonly string[];
  /** The sample sits in the line: what feeds it is the rig's. */
  readonly inLine: boolean;
  readonly driver: RigDriver;
  readonly looks: Looks;
  /** Instruments that tell numbers by themselves; ids. */
  readonly telling: readonly string[];
  /** What should come out of the ports, and what did not. */
  readonly outputs: OutputWatch;
  readonly log: Logger;
  /** Wait until something holds. Everything that may end a step early does so here. */
  readonly until: (holds: () => boolean, progress: () => Progress) => Promise<void>;
  /** A watched step begins: a person says they are there, unless they did lately. */
  readonly attend: () => Promise<void>;
  /** Wait for a person to go on. */
  readonly person: (says: string) => Promise<void>;
  /** Wait for a person to type. */
  readonly typed: (says: string) => Promise<Ask & { kind: 'record' }>;
  /** Whether "record" was pressed on a step that runs by itself: read it now. Asks once. */
  readonly recordNow: () => boolean;
  /** What came of the steps so far, by id. */
  readonly outcomes: () => Readonly<Record<string, StepOutcome>>;
  /** What a step saw that its readings do not tell. */
  readonly saw: (found: Partial<StepFound>) => void;
  /** Make sure, in a transaction, that the run is still this server's. */
  readonly mine: (tx: Queries) => Promise<void>;
  /** Write a step's outcome in the transaction that stores what it made. */
  readonly finish: (tx: Queries, outcome: Omit<StepOutcome, 'at'>) => Promise<void>;
}
