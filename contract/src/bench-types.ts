// What stands on a bench, over the API: instruments and their traffic, live numbers, rigs.
import type { InstrumentProfile, ReplyExample, Wire } from '@lastmark/core/instrument';
import type { Ratings } from '@lastmark/core/plan';
import type { Instrument, LineElement, PointPlace, Probe, Rig, RigDrives } from '@lastmark/core/reading';
import type { INSTRUMENT_CLASSES } from './schemas.ts';

export interface InstrumentInput {
  name: string;
  /** The bench it stands on; left out for that of the server that is asked. Empty where there is one bench. */
  bench?: string | undefined;
  class: (typeof INSTRUMENT_CLASSES)[number];
  firmware: string;
  calibrationDue: string | null;
  /** Day of the last calibration; left out or null when not stated. */
  calibratedOn?: string | null;
  address: string | null;
  profileId: string | null;
  sees: Instrument['sees'];
  specs: Instrument['specs'];
  ratings?: Ratings | null;
}

export interface StoredInstrument extends InstrumentInput, Instrument {
  id: string;
  name: string;
  bench: string;
  specs: Instrument['specs'];
  sees: Instrument['sees'];
  calibrationDue: string | null;
  calibratedOn?: string | null;
  version: number;
}

export interface InstrumentProfileInput {
  title: string;
  class: InstrumentProfile['class'];
  /** `reply`: how its reply is read, where it is not plain numbers in order. */
  commands: { action: string; command: string; reply?: string | undefined }[];
  examples?: ReplyExample[] | undefined;
  channels?: string[] | undefined;
  wire?: Wire | undefined;
}

export interface StoredInstrumentProfile extends InstrumentProfileInput {
  id: string;
  /** Ships with Lastmark: it can be copied, not changed. */
  builtIn: boolean;
  version: number;
}

/** One line that went to or came from an instrument. */
export interface TrafficLine {
  at: number;
  direction: 'out' | 'in' | 'note';
  text: string;
  /** Part of the steady asking for live numbers. */
  steady: boolean;
}

export interface InstrumentTraffic {
  state: 'connecting' | 'up' | 'down' | 'closed';
  items: TrafficLine[];
}

export interface CommandAnswer extends InstrumentTraffic {
  /** What it answered; null for a command that asks nothing. */
  reply: string | null;
}

/** One instrument's numbers at a moment, in the order its class tells them; null for what is no number. */
export interface LiveEvent {
  /** Counts up; a browser that comes back names the last one it saw. */
  id: number;
  at: string;
  instrumentId: string;
  name: string;
  class: string;
  values: (number | null)[];
  /** Why there are no numbers, or what is suspicious about them. */
  problem: string | null;
}

/** What came of "loads off", load by load. */
export interface LoadsOffAnswer {
  /** `sent`: the command is on the wire. `sure`: the load itself said that it is off. `blind`: it cannot be asked. */
  items: { instrumentId: string; name: string; sent: boolean; sure: boolean; blind: boolean; detail: string }[];
  /** Whether it is written down already. Loads are off all the same. */
  written: boolean;
}

/** A bench, and whether a server stands beside it. */
export interface BenchPlace {
  /** Empty where there is one bench, without a name. */
  name: string;
  /** The server that is asked stands beside it. */
  here: boolean;
  /** Some server stands beside it: its instruments can be spoken to. */
  there: boolean;
}

export interface RigInput {
  name: string;
  meters: { mains: string; outputVolts: string | null; outputAmps: string | null; loadEnd: string | null };
  outputPlace: 'port' | 'load-end';
  leadOhms: number;
  leadUOhms: number;
  elements: LineElement[];
  drives?: RigDrives | null;
  probe?: Probe | null | undefined;
  spots?: PointPlace[] | null | undefined;
  note: string;
}

export interface StoredRig extends Rig {
  note: string;
  version: number;
}
