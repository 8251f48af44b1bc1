// A trace as one block of bytes, to be sent or kept whole: a line that says what it is, JSON, then its columns.
import type { Channel, Trace, TraceReading, Values } from './types.ts';

const MAGIC = 'trace 1\n';

interface PackedHead extends Omit<Trace, 'channels' | 'times'> {
  readonly channels: readonly (Omit<Channel, 'values'> & { readonly wide: boolean })[];
  readonly timed: boolean;
}

const bytesOf = (values: Values): Uint8Array => new Uint8Array(values.buffer, values.byteOffset, values.byteLength);

/**
 * Layout: the eight bytes `trace 1\n`, the length of the JSON as a little-endian 32-bit number, the JSON, then, each begun at
 * a multiple of eight bytes, the times (64-bit floats, only where uneven) and every channel (64-bit where `wide`, else 32).
 */
export function packTrace({ channels, times, ...head }: Trace): Uint8Array {
  const described: PackedHead = {
    ...head,
    timed: times !== null,
    channels: channels.map(({ values, ...one }) => ({ ...one, wide: values instanceof Float64Array })),
  };
  const json = new TextEncoder().encode(JSON.stringify(described));
  const columns = [...(times ? [times] : []), ...channels.map(({ values }) => values)];
  const aligned = (at: number) => Math.ceil(at / 8) * 8;
  const begin = aligned(MAGIC.length + 4 + json.length);
  const out = new Uint8Array(columns.reduce((at, { byteLength }) => aligned(at + byteLength), begin));
  out.set(new TextEncoder().encode(MAGIC));
  new DataView(out.buffer).setUint32(MAGIC.length, json.length, true);
  out.set(json, MAGIC.length + 4);
  let at = begin;
  for (const column of columns) {
    out.set(bytesOf(column), at);
    at = aligned(at + column.byteLength);
  }
  return out;
}

export const isPacked = (bytes: Uint8Array): boolean =>
  bytes.length > MAGIC.length + 4 && new TextDecoder('latin1').decode(bytes.subarray(0, MAGIC.length)) === MAGIC;

const fail = (reason: string): TraceReading => ({ ok: false, line: null, reason });
const QUANTITIES = [null, 'voltage', 'current', 'power', 'energy', 'temperature', 'level'];

/** Whether a head says what it must, so that its columns can be cut out. */
function headProblem(head: PackedHead): boolean {
  const { samples, interval, channels, facts, remarks } = head;
  return (
    !Number.isInteger(samples) ||
    samples < 2 ||
    !(interval > 0) ||
    !Array.isArray(channels) ||
    channels.length === 0 ||
    channels.length > 64 ||
    !channels.every(
      ({ name, unit, quantity }) =>
        typeof name === 'string' &&
        name.length <= 80 &&
        typeof unit === 'string' &&
        unit.length <= 40 &&
        QUANTITIES.includes(quantity),
    ) ||
    typeof facts !== 'object' ||
    facts === null ||
    !Array.isArray(remarks) ||
    remarks.length > 20
  );
}

/** The trace of {@link packTrace}, or what is wrong with it. */
export function unpackTrace(bytes: Uint8Array): TraceReading {
  if (!isPacked(bytes)) return fail('It is no packed trace.');
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const length = view.getUint32(MAGIC.length, true);
  let head: PackedHead;
  try {
    head = JSON.parse(
      new TextDecoder().decode(bytes.subarray(MAGIC.length + 4, MAGIC.length + 4 + length)),
    ) as PackedHead;
  } catch {
    return fail('The head of the packed trace is no JSON.');
  }
  if (typeof head !== 'object' || head === null || headProblem(head))
    return fail('The head of the packed trace is incomplete.');
  const { channels, timed, ...rest } = head;
  let at = Math.ceil((MAGIC.length + 4 + length) / 8) * 8;
  const column = (wide: boolean): Values | null => {
    const size = rest.samples * (wide ? 8 : 4);
    if (at + size > bytes.length) return null;
    // A copy that begins where numbers may begin; some kinds of bytes share their memory when sliced.
    const own = new Uint8Array(bytes.subarray(at, at + size)).buffer;
    at = Math.ceil((at + size) / 8) * 8;
    return wide ? new Float64Array(own) : new Float32Array(own);
  };
  const times = timed ? column(true) : null;
  const read = channels.map(({ name, quantity, unit, wide }) => ({ name, quantity, unit, values: column(wide) }));
  if ((timed && !times) || read.some(({ values }) => !values)) return fail('The packed trace is cut off.');
  const rises = !times || times.every((time, index) => Number.isFinite(time) && time >= (times[index - 1] ?? time));
  if (!rises) return fail('Its times do not rise.');
  const facts = {
    bandwidth: typeof rest.facts.bandwidth === 'number' ? rest.facts.bandwidth : null,
    envelope: rest.facts.envelope === true,
    coupling: rest.facts.coupling === 'AC' || rest.facts.coupling === 'DC' ? rest.facts.coupling : null,
  };
  return {
    ok: true,
    trace: {
      samples: rest.samples,
      interval: rest.interval,
      began: typeof rest.began === 'number' ? rest.began : null,
      remarks: rest.remarks.map(String),
      facts,
      times: times as Float64Array | null,
      channels: read as readonly Channel[],
    },
  };
}
