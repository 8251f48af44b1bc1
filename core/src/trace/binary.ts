// Samples as they are: a plain binary file, described by a small JSON beside it.
import { valueColumn } from './head.ts';
import type { Channel, TraceReading, Values } from './types.ts';

/** How a binary file is written. Left out: little-endian, one channel "samples", volts, scale 1, offset 0, no bytes before. */
export interface BinaryDescription {
  readonly format: 'int8' | 'uint8' | 'int16' | 'uint16' | 'float32' | 'float64';
  readonly endian?: 'little' | 'big';
  /** Samples a second; or `interval`, s. */
  readonly rate?: number;
  readonly interval?: number;
  /** Bytes before the first sample. */
  readonly skip?: number;
  /** Channels in turn, sample by sample; value = sample × scale + offset, in the unit given. */
  readonly channels?: readonly {
    readonly name?: string;
    readonly unit?: string;
    readonly scale?: number;
    readonly offset?: number;
  }[];
  /** Analogue bandwidth, Hz */
  readonly bandwidth?: number;
  readonly envelope?: boolean;
}

const SIZES = { int8: 1, uint8: 1, int16: 2, uint16: 2, float32: 4, float64: 8 } as const;
/** Above so many samples single precision is enough, and half the memory. */
const MANY = 1 << 20;

const fail = (reason: string): TraceReading => ({ ok: false, line: null, reason });
const isPositive = (value: unknown): value is number =>
  typeof value === 'number' && Number.isFinite(value) && value > 0;

/** What is wrong with a description; null when nothing is. */
export function descriptionProblem(description: unknown): string | null {
  if (typeof description !== 'object' || description === null) return 'The description is no JSON object.';
  const { format, endian, rate, interval, skip, channels } = description as Record<string, unknown>;
  if (typeof format !== 'string' || !(format in SIZES))
    return `Its "format" is one of ${Object.keys(SIZES).join(', ')}.`;
  if (endian !== undefined && endian !== 'little' && endian !== 'big') return 'Its "endian" is little or big.';
  if (!isPositive(rate) && !isPositive(interval)) return 'Give "rate" in samples a second, or "interval" in seconds.';
  if (skip !== undefined && !(Number.isInteger(skip) && (skip as number) >= 0))
    return 'Its "skip" is a number of bytes.';
  if (channels !== undefined && !(Array.isArray(channels) && channels.length > 0 && channels.length <= 16))
    return 'Its "channels" is a list of one to sixteen.';
  for (const channel of (channels ?? []) as Record<string, unknown>[]) {
    if (typeof channel !== 'object' || channel === null)
      return 'A channel is an object with "name", "unit", "scale", "offset".';
    if (channel.name !== undefined && typeof channel.name !== 'string') return 'A "name" is a text.';
    if (channel.unit !== undefined && typeof channel.unit !== 'string') return 'A "unit" is a text.';
    if (channel.scale !== undefined && !Number.isFinite(channel.scale)) return 'A "scale" is a number.';
    if (channel.offset !== undefined && !Number.isFinite(channel.offset)) return 'An "offset" is a number.';
  }
  return null;
}

/**
 * Read plain binary samples.
 * @example readBinary(new Uint8Array([1, 0, 255, 255]), { format: 'int16', rate: 1000, channels: [{ unit: 'mV' }] }) // 1 mV, −1 mV
 */
export function readBinary(bytes: Uint8Array, description: BinaryDescription): TraceReading {
  const problem = descriptionProblem(description);
  if (problem) return fail(problem);
  const { format, endian = 'little', skip = 0, channels = [{}], bandwidth = null, envelope = false } = description;
  const size = SIZES[format];
  const frame = size * channels.length;
  const body = bytes.byteLength - skip;
  const samples = Math.floor(body / frame);
  if (samples < 2) return fail('It has fewer than two samples.');
  const view = new DataView(bytes.buffer, bytes.byteOffset + skip, samples * frame);
  const little = endian === 'little';
  const read = {
    int8: (at: number) => view.getInt8(at),
    uint8: (at: number) => view.getUint8(at),
    int16: (at: number) => view.getInt16(at, little),
    uint16: (at: number) => view.getUint16(at, little),
    float32: (at: number) => view.getFloat32(at, little),
    float64: (at: number) => view.getFloat64(at, little),
  }[format];
  const made = channels.map(({ name, unit = 'V', scale = 1, offset = 0 }, index): Channel => {
    const own = valueColumn(name ?? '', unit);
    const { quantity } = own;
    const values: Values = samples > MANY ? new Float32Array(samples) : new Float64Array(samples);
    for (let at = 0; at < samples; at += 1)
      values[at] = (read(at * frame + index * size) * scale + offset) * own.factor + own.offset;
    return { name: name ?? (channels.length === 1 ? 'samples' : `channel ${index + 1}`), quantity, unit, values };
  });
  return {
    ok: true,
    trace: {
      samples,
      interval: isPositive(description.interval) ? description.interval : 1 / (description.rate as number),
      times: null,
      began: null,
      channels: made,
      facts: { bandwidth, envelope, coupling: null },
      remarks: body % frame === 0 ? [] : [`The file ends amid a sample: ${body % frame} of its bytes left out.`],
    },
  };
}

/**
 * Read plain binary samples by the text of the JSON that describes them.
 * @returns a refusal where that is no JSON, or describes nothing
 */
export function readDescribed(bytes: Uint8Array, json: string): TraceReading {
  let description: unknown;
  try {
    description = JSON.parse(json);
  } catch {
    return fail('The description is no JSON.');
  }
  return readBinary(bytes, description as BinaryDescription);
}
