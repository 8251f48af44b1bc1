// Shapes that travel over the API.

import type { CableFacts, CableRun } from '@lastmark/core/cable';
import type { Capture } from '@lastmark/core/capture';
import type { Claim, ClaimDuration, Promised } from '@lastmark/core/claim';
import type { LimitSet, NameplateClass } from '@lastmark/core/limits';
import type { BadLine, FilePlan } from '@lastmark/core/meter-file';
import type { Limits } from '@lastmark/core/plan';
import type { Device, Run } from '@lastmark/core/proof';
import type { QuantityId } from '@lastmark/core/quantity';
import type { ReadOut } from '@lastmark/core/read-out';
import type { Attached, EvidenceKind, Mains, Output, Place, Point, Setup, Stated } from '@lastmark/core/reading';
import type { SafetyCheck } from '@lastmark/core/safety';
import type { KeyFigures, PortFacts, PriceFacts, Profile, SampleKind, SetupFacts } from '@lastmark/core/verdict';
import type { StoredInstrument, StoredRig } from './bench-types.ts';
import type { MARKS, OBTAINED, PLUG_FORMS, SHELF_ORDERS } from './schemas.ts';

export interface ModelInput {
  maker: string;
  model: string;
  kind: SampleKind;
  ports: PortFacts[];
  length: number | null;
  width: number | null;
  height: number | null;
  mass: number | null;
  withPlug: boolean;
  plugForm: (typeof PLUG_FORMS)[number];
  plugEarthed: boolean;
  plugBlocksNeighbour: boolean;
  inputRating: string;
  marks: (typeof MARKS)[number][];
  prices: PriceFacts[];
  /** Of what sits in a line; null or left out for a charger. */
  cable?: CableFacts | null;
  classChoice?: { nameplateClass: NameplateClass; reason: string } | null;
}

export interface UnitInput {
  revision: string;
  serial: string;
  dateCode: string;
  obtained: (typeof OBTAINED)[number];
  disclosure: string;
  /** Day it goes back by, where it was lent; null or left out where nobody said. */
  returnBy?: string | null;
  notes: string;
}

export interface SampleInput {
  model: ModelInput;
  unit: UnitInput;
  /** Where it is taken in: only those who see that collection see it. Left out for the lab's own, or where it is. */
  collectionId?: string | null | undefined;
}

/** A sample as stored: one unit together with its model. */
export interface Sample extends SampleInput {
  id: string;
  modelId: string;
  /** Short tag for label and bench: the end of the id. */
  tag: string;
  /** Changes with every write; sent back as If-Match. */
  etag: string;
  /** Limits of its own at which loads go off; null takes the bench's. */
  limits: Limits | null;
  /** Null for the lab's own. */
  collectionId: string | null;
  createdAt: string;
  updatedAt: string;
  /** All units of the model, this one included, oldest first. */
  units: { id: string; tag: string; serial: string; revision: string }[];
}

export interface SampleRow {
  id: string;
  tag: string;
  maker: string;
  model: string;
  kind: SampleKind;
  serial: string;
  ports: PortFacts[];
  figures: KeyFigures;
  /** Something changed; its figures are being worked out, and these are the last ones. */
  pending: boolean;
  /** Something in it cannot be worked out: its own page says what it can. */
  unjudged: boolean;
  labels: string[];
  archived: boolean;
  updatedAt: string;
}

/** What the shelf can be sorted by. */
export type ShelfOrder = (typeof SHELF_ORDERS)[number];

export interface Page<T> {
  items: T[];
  page: number;
  size: number;
  total: number;
}

export interface ClaimInput {
  promise: Promised;
  duration: ClaimDuration;
  printed: string;
}

/** A claim that counts no more. */
export interface RemovedClaim extends StoredClaim {
  removedAt: string;
}

export interface StoredClaim extends Claim {
  version: number;
}

export interface SetupInput {
  name: string;
  purpose: Setup['purpose'];
  outputs: Output[];
  evidence: EvidenceKind;
  rigId: string;
  /** Overrides the derived class; null takes it. */
  nameplateClass: NameplateClass | null;
  /** Why it is overridden. */
  classReason?: string | null;
}

export type StatedInput = Omit<Stated, 'statedAt'>;

export type LimitSetInput = Omit<LimitSet, 'id'>;

/** A limit set as it stands at Rules. */
export interface StoredLimitSet extends LimitSet {
  /** Ships with the program and stays as it is; copy it to change it. */
  builtIn: boolean;
  version: number;
}

export interface StoredSetup extends SetupFacts {
  version: number;
}

export interface ReadingInput {
  id: string;
  quantity: QuantityId;
  place: Place;
  port: string | null;
  typed: string;
  supersedes?: string | null;
  /** The person was asked about an unlikely value and meant it. */
  really?: boolean;
  /** How many samples it is the mean of; one where left out. */
  count?: number | undefined;
  /** Standard deviation of one of them, SI; 0 where left out. */
  spread?: number | undefined;
  /** Where it comes from, where that is not the keypad. */
  source?: string | undefined;
  /** Why it corrects the one before. */
  because?: string | null | undefined;
}

export interface PointInput {
  id: string;
  setupId?: string | null;
  /** For a proof step: what is loaded; the server finds or makes the step. */
  outputs?: Output[];
  override?: string | null;
  mains: Mains;
  load: number;
  attached: Attached;
  rigId: string;
  /** For a new point: those under the same conditions that whoever types has seen. */
  pointsSeen?: string[];
  takenAt: string;
  readings: ReadingInput[];
}

export interface ImportInput {
  fileName: string;
  plan: FilePlan;
  setupId: string;
  wholeFileMains: Mains | null;
  keepGood: boolean;
  /** The same file was taken in before, and is to count twice. */
  again?: boolean | undefined;
  /** When the file was written last: a log without a date of its own is taken to end then. */
  takenAt: string;
  /** Minutes the wall clock of its dates is ahead of universal time. */
  offsetMinutes?: number | undefined;
}

export interface ImportOutcome {
  points: number;
  goodLines: number;
  badLines: readonly BadLine[];
  attachmentId: string;
}

/** What a whole import taken back came to. */
export interface ImportTakenBack {
  points: number;
  readings: number;
}

export interface StoredProfile extends Profile {
  version: number;
}

export interface AttachmentInfo {
  id: string;
  owner: 'sample' | 'claim' | 'reading';
  ownerId: string;
  name: string;
  type: string;
  size: number;
  hasThumbnail: boolean;
  createdAt: string;
  /** What it shows; empty where nobody said. */
  caption: string;
  /** Chosen for the report. */
  inReport: boolean;
  /** Points that came with it and still stand. */
  points: number;
}

export type ReadOutInput = ReadOut;
export type StoredReadOut = ReadOut;

type WithoutU<T> = T extends Run ? Omit<T, 'u'> : never;
export type RunInput = WithoutU<Run>;
export type StoredRun = Run;

export type DeviceInput = Omit<Device, 'id'>;

export interface StoredDevice extends Device {
  version: number;
}

/** Everything the browser needs to judge one sample. */
export interface SampleDossier {
  sample: Sample;
  claims: StoredClaim[];
  setups: StoredSetup[];
  points: Point[];
  stated: Stated[];
  readOuts: StoredReadOut[];
  captures: Capture[];
  runs: StoredRun[];
  cableRuns: CableRun[];
  checks: SafetyCheck[];
  devices: StoredDevice[];
  rigs: StoredRig[];
  instruments: StoredInstrument[];
  profile: StoredProfile;
  limitSets: LimitSet[];
}

/** A dossier for a browser that has some of it: the parts that changed since, and how often each had been changed. */
export interface DossierAnswer extends Partial<Omit<SampleDossier, 'sample'>> {
  sample: Sample;
  /** Sent back as `have`, so that only what changed afterwards is sent. */
  revisions: Record<string, number>;
}

/** RFC 9457 problem details. */
export interface Problem {
  type: string;
  title: string;
  status: number;
  detail: string;
  /** Which fields are wrong, where that is known. */
  errors?: { path: string; message: string; really?: boolean }[];
  /** When to try again, s. */
  again?: number;
  /** Lines of a file that are wrong, where a file was read. */
  badLines?: readonly BadLine[];
}

/** What of the demo stands on the shelf. */
export interface DemoState {
  demo: 'none' | 'shown' | 'away';
  /** No sample at all, the demo's included. */
  empty: boolean;
}

export * from './bench-types.ts';
export * from './capture-types.ts';
export * from './compare-types.ts';
export * from './report-types.ts';
export * from './trial-types.ts';
export * from './verdict-types.ts';
