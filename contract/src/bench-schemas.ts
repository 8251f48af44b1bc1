// What may be written about the bench: instruments, how accurate they are, how they are driven, and rigs.
import { ADDRESS_FORMS, LINE_ENDS, PROFILE_CLASSES, parseAddress } from '@lastmark/core/instrument';
import { VISIBLE_KINDS } from '@lastmark/core/read-out';
import { ELEMENT_KINDS, MOST_POINTS, POINT_PLACES, RATING_BASES } from '@lastmark/core/reading';
import { string } from 'yup';
import { day, id, list, oneOf, optionalText, record, si, text } from './parts.ts';
import { ids } from './several.ts';

export const INSTRUMENT_CLASSES = PROFILE_CLASSES;

const specFields = {
  readingPercent: si(0, 100).required(),
  rangePercent: si(0, 100).required(),
  range: si(0, 1e6).required(),
  offset: si(0, 1e6).required(),
  resolution: si(0, 1e6).required(),
  floor: si(0, 1e6).required(),
  coverage: oneOf(['not stated', 'k = 2 or 95 %']),
};
const stated = (schema: ReturnType<typeof record>) =>
  schema.test(
    'some-limit',
    'An accuracy of exactly zero is no accuracy: give per cent, offset or resolution',
    (value) => {
      const {
        readingPercent = 0,
        rangePercent = 0,
        offset = 0,
        resolution = 0,
      } = (value ?? {}) as Record<string, number>;
      return value == null || readingPercent + rangePercent + offset + resolution > 0;
    },
  );
const rangeSpec = stated(record(specFields)).test(
  'full-scale',
  'A finer range has a full scale above zero',
  (value) => value == null || ((value as { range?: number }).range ?? 0) > 0,
);
/** An accuracy as a maker states it. */
export const spec = stated(record({ ...specFields, finer: list(rangeSpec, 8).optional().default(undefined) }));

/** What an instrument can take at most, SI; null where its maker states nothing. */
const ratings = record({
  volts: si(0.1, 2000).nullable().defined(),
  amps: si(0.01, 200).nullable().defined(),
  watts: si(0.1, 20_000).nullable().defined(),
});

/** Names of benches: what can be set as a setting of a server. */
export const BENCH_NAME = /^(?:[\p{L}\p{N}][\p{L}\p{N} ._-]*)?$/u;
const BENCH_RULE = 'has letters, digits, spaces, points and dashes only';

export const instrumentInput = record({
  name: text(80),
  bench: string().strict().max(40).matches(BENCH_NAME, BENCH_RULE).optional().default(undefined),
  class: oneOf(INSTRUMENT_CLASSES),
  firmware: optionalText(40),
  calibrationDue: day().nullable().defined(),
  calibratedOn: day().nullable().optional().default(undefined),
  address: string()
    .strict()
    .max(240)
    .test('port', '${path} has a port outside 1 to 65535', (value) => {
      const [, ports] = /^(?:hislip:\/\/)?[^/@]+:(\d{1,5}(?:\+\d{1,5})*)$/.exec(value ?? '') ?? [];
      return ports === undefined || ports.split('+').every((port) => Number(port) >= 1 && Number(port) <= 65_535);
    })
    .test(
      'address',
      `\${path} is none an instrument can be at; write it as ${ADDRESS_FORMS}`,
      (value) => value == null || parseAddress(value) !== null,
    )
    .nullable()
    .defined(),
  profileId: string().strict().max(60).nullable().defined(),
  sees: record({ supplies: list(oneOf(VISIBLE_KINDS), VISIBLE_KINDS.length), signals: list(text(40), 60) })
    .nullable()
    .defined(),
  specs: record({
    voltage: spec.optional().default(undefined),
    current: spec.optional().default(undefined),
    power: spec.optional().default(undefined),
  }),
  /** Left out: not stated. */
  ratings: ratings.nullable().optional().default(undefined),
}).test('due-after', 'Its calibration is due before the day it was calibrated', (value) => {
  const { calibratedOn, calibrationDue } = (value ?? {}) as {
    calibratedOn?: string | null;
    calibrationDue?: string | null;
  };
  return !calibratedOn || !calibrationDue || calibratedOn <= calibrationDue;
});

/** A profile as it is edited: one command an action; actions left out cannot be done. */
export const instrumentProfileInput = record({
  title: text(80),
  class: oneOf(PROFILE_CLASSES),
  commands: list(record({ action: text(40), command: text(400), reply: text(200).optional().default(undefined) }), 40),
  /** Replies with what they must be read as: a profile that reads them otherwise is refused. */
  examples: list(record({ action: text(40), reply: text(1000), reads: text(400) }), 80)
    .optional()
    .default(undefined),
  channels: list(text(24), 16).optional().default(undefined),
  wire: record({
    end: oneOf(LINE_ENDS),
    errors: text(60).nullable().defined(),
    patience: si(0.1, 60).required(),
    pause: si(0, 10).required(),
    hello: list(text(200), 20),
  })
    .optional()
    .default(undefined),
});

/** One command typed at the console. */
export const commandInput = record({ command: text(400) });

const lineElement = record({
  kind: oneOf(ELEMENT_KINDS),
  name: text(60),
  amps: si(0.1, 20).nullable().defined(),
  volts: si(1, 60).nullable().defined(),
  basis: oneOf(RATING_BASES),
  sampleId: id().nullable().optional().default(undefined),
  calibrated: record({ ohms: si(0, 10).required(), expanded: si(0, 10).required(), on: day().required() })
    .nullable()
    .optional()
    .default(undefined),
});

export const rigInput = record({
  name: text(80),
  meters: record({
    mains: id(),
    outputVolts: id().nullable(),
    outputAmps: id().nullable(),
    loadEnd: id().nullable().defined(),
  }).test('both', 'Volts and amps of the output need a meter each, or neither has one', (value) => {
    const { outputVolts = null, outputAmps = null } = (value ?? {}) as {
      outputVolts?: string | null;
      outputAmps?: string | null;
    };
    return (outputVolts === null) === (outputAmps === null);
  }),
  outputPlace: oneOf(['port', 'load-end']),
  leadOhms: si(0, 10).required(),
  leadUOhms: si(0, 10).required(),
  elements: list(lineElement, 12),
  /** What runs by itself; left out for a rig that is set by hand. */
  drives: record({
    source: id().nullable().defined(),
    load: id().nullable().defined(),
    thermometer: id().nullable().defined(),
    analyser: id().nullable().defined(),
    scope: id().nullable().optional().default(undefined),
    sink: id().nullable().optional().default(undefined),
  })
    .nullable()
    .optional()
    .default(undefined),
  /** How ripple is probed; left out, not stated. */
  probe: record({
    tip: optionalText(80),
    capacitors: optionalText(80),
    bandwidth: si(1e3, 20e9).nullable().defined(),
    coupling: oneOf(['AC', 'DC']),
    attenuation: si(0.1, 1000).required(),
    floor: si(1e-6, 10).nullable().defined(),
    floorRms: si(1e-7, 10).nullable().defined(),
  })
    .nullable()
    .optional()
    .default(undefined),
  /** Where the points of the thermometer stand, in its order; left out, the usual ones. */
  spots: list(oneOf(POINT_PLACES), MOST_POINTS).min(1).nullable().optional().default(undefined),
  note: optionalText(400),
});

/** Instruments somebody looks at closely at once: those of a rig. */
export const MOST_LOOKED_AT = 64;

export const liveQuery = record({ fast: ids(MOST_LOOKED_AT, 'instruments') }).strict(false);
