// Schemas of captures.
import { CAPTURE_KINDS, SENSOR_KINDS, SENSOR_PLACES, SOAK_PLACES } from '@lastmark/core/capture';
import { SURFACES } from '@lastmark/core/heat';
import { ATTACHED } from '@lastmark/core/reading';
import { WORKLOADS } from '@lastmark/core/run';
import { boolean, number, string } from 'yup';
import { id, list, mains, moment, oneOf, optionalText, portLabel, record, si, text } from './parts.ts';

/** A port at a level; without load at 0 A. */
const loaded = record({ port: portLabel(), volts: si(0.5, 60).required(), amps: si(0, 20).required() });

const soakSetting = record({
  place: oneOf(SOAK_PLACES),
  /** °C a chamber is set to, or of the room where no column logs it. */
  ambient: si(-40, 90).nullable().defined(),
  surface: optionalText(80),
  adapter: optionalText(80),
  /** What the body is made of where it is touched. */
  touched: oneOf(SURFACES),
  sensors: list(record({ name: text(80), place: oneOf(SENSOR_PLACES), how: oneOf(SENSOR_KINDS) }), 32),
});

const chargeSetting = record({
  deviceId: id(),
  lead: optionalText(80),
  workload: oneOf(WORKLOADS).nullable().optional().default(undefined),
  startLevel: si(0, 1).nullable().defined(),
  end: si(0, 200_000).nullable().defined(),
});

const head = record({
  id: id(),
  kind: oneOf(CAPTURE_KINDS),
  mains: mains(),
  setupId: string().strict().max(26).nullable().defined(),
  load: si(0, 1.5).required(),
  port: string().strict().max(24).nullable().defined(),
  attached: oneOf(ATTACHED),
  rigId: id(),
  takenAt: moment().required(),
  source: optionalText(260),
  note: optionalText(400),
  supersedes: id().nullable().defined(),
  withdrawn: boolean().strict().defined(),
  /** Ripple and soaks: what was loaded, and with how much. Left out for the others. */
  outputs: list(loaded, 16).nullable().optional().default(undefined),
  /** Ripple read off by eye, V peak to peak: then there are no samples. */
  typed: si(1e-6, 60).nullable().optional().default(undefined),
  /** Where a soak stood. */
  soak: soakSetting.nullable().optional().default(undefined),
  /** What was charged. */
  charge: chargeSetting.nullable().optional().default(undefined),
});

/** A capture: from the file sent with it, from a scope, or neither to take one back. */
export const captureInput = record({
  capture: head,
  scopeId: id().nullable().defined(),
});

const stretch = { from: number().min(0).max(1e9), to: number().min(0).max(1e9) };

/** A stretch of a trace: from and to in seconds from its first sample; left out, all of it. */
export const captureTraceQuery = record({
  buckets: number().integer().min(10).max(5000),
  ...stretch,
}).strict(false);

export const captureSpectrumQuery = record(stretch).strict(false);
