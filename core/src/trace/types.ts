// A trace: a long series of one or more channels against time, whoever recorded it.

/** What a channel holds; null where neither name nor unit says it. */
export type ChannelQuantity = 'voltage' | 'current' | 'power' | 'energy' | 'temperature' | 'level';

/** Units of channels as kept: SI, temperatures in °C, energy in Wh, a level as a fraction. */
export const CHANNEL_UNITS: Readonly<Record<ChannelQuantity, string>> = {
  voltage: 'V',
  current: 'A',
  power: 'W',
  energy: 'Wh',
  temperature: '°C',
  level: '1',
};

/** Values of one channel: doubles, or single precision where there are millions. */
export type Values = Float64Array | Float32Array;

export interface Channel {
  /** As the file names it; "column 2" where it does not. */
  readonly name: string;
  readonly quantity: ChannelQuantity | null;
  /** Unit as the file writes it; empty where it names none. */
  readonly unit: string;
  /** In the unit of its quantity, as written where it has none. NaN where nothing was told, or out of range. */
  readonly values: Values;
}

/** What is kept of a channel besides its values. */
export type KeptChannel = Pick<Channel, 'name' | 'quantity' | 'unit'>;

/** What stands above the table and tells how it was recorded; null where nothing does. */
export interface TraceFacts {
  /** Analogue bandwidth, Hz */
  readonly bandwidth: number | null;
  /** Samples are the extremes of longer stretches, not the signal itself. */
  readonly envelope: boolean;
  readonly coupling: 'AC' | 'DC' | null;
}

export interface Trace {
  readonly samples: number;
  /** s between samples where they are evenly spaced, else the usual pause. */
  readonly interval: number;
  /** s from the first sample, where they are not evenly spaced. */
  readonly times: Float64Array | null;
  /** When the first sample was taken, s since 1970, where the file gives dates; null otherwise. */
  readonly began: number | null;
  readonly channels: readonly Channel[];
  readonly facts: TraceFacts;
  /** What was odd about the file and did not keep it from being read. */
  readonly remarks: readonly string[];
}

export type TraceReading =
  | { readonly ok: true; readonly trace: Trace }
  | {
      readonly ok: false;
      /** 1-based, where the fault is in one line. */
      readonly line: number | null;
      readonly reason: string;
    };

/** What a caller knows that the file may not say. */
export interface TraceHints {
  /** Samples a second of a file without a time column. */
  readonly rate?: number | undefined;
  /** Length of the whole file, bytes: memory is then set aside once. */
  readonly bytes?: number | undefined;
}

/** Time of a sample, s from the first. */
export const timeAt = ({ times, interval }: Pick<Trace, 'times' | 'interval'>, index: number): number =>
  times ? (times[index] ?? Number.NaN) : index * interval;

/** Length of a trace from its first to its last sample, s. */
export const lengthOf = (trace: Pick<Trace, 'times' | 'interval' | 'samples'>): number =>
  trace.samples > 1 ? timeAt(trace, trace.samples - 1) : 0;
