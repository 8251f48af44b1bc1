// What may be written about run sheets and their runs. Values are SI.
import { CAPTURE_KINDS } from '@lastmark/core/capture';
import { PROFILE_CLASSES } from '@lastmark/core/instrument';
import type { StepKind } from '@lastmark/core/plan';
import { OUTCOMES } from '@lastmark/core/proof';
import { ATTACHED } from '@lastmark/core/reading';
import { array, boolean, string } from 'yup';
import { conditions } from './method-schemas.ts';
import { id, list, mains, oneOf, optionalText, output, portLabel, record, si, text, union, whole } from './parts.ts';

const settleRule = record({
  fraction: si(0.0001, 0.5).required(),
  over: si(1, 3600).required(),
  average: si(1, 14_400).required(),
});

const stepOf = <Fields extends Record<string, unknown>>(kind: StepKind, fields: Fields) =>
  record({
    id: text(26),
    kind: oneOf([kind]),
    by: oneOf(['instruments', 'keypad']),
    title: text(160),
    dwell: si(0, 172_800).required(),
    hottest: si(250, 500).nullable().defined(),
    needs: list(oneOf(PROFILE_CLASSES), PROFILE_CLASSES.length),
    caution: string().strict().max(200).nullable().defined(),
    attended: boolean().strict().defined(),
    skip: string().strict().min(1, 'A step is left out with a reason').max(200).nullable().defined(),
    because: string().strict().max(300).optional().default(undefined),
    repeats: string().strict().max(26).optional().default(undefined),
    ...fields,
  });

const anyPort = string().strict().max(24).nullable().defined();
const loaded = { mains: mains(), outputs: list(output, 12), load: si(0, 1.5).required() };

const STEPS: Readonly<Record<StepKind, ReturnType<typeof stepOf>>> = {
  rig: stepOf('rig', {}),
  idle: stepOf('idle', {
    mains: mains(),
    attached: oneOf(ATTACHED),
    warm: boolean().strict().optional().default(undefined),
  }),
  'read-out': stepOf('read-out', { port: portLabel() }),
  point: stepOf('point', {
    ...loaded,
    station: oneOf(['proof', 'efficiency']),
    settle: settleRule.nullable().defined(),
  }),
  split: stepOf('split', { mains: mains(), order: list(portLabel(), 12).min(1) }),
  'warm-up': stepOf('warm-up', loaded),
  hold: stepOf('hold', loaded),
  capture: stepOf('capture', { ...loaded, capture: oneOf(CAPTURE_KINDS), port: anyPort }),
  cool: stepOf('cool', {}),
  device: stepOf('device', { mains: mains(), port: portLabel(), deviceId: id() }),
  charge: stepOf('charge', {
    mains: mains(),
    port: portLabel(),
    deviceId: id(),
    lead: optionalText(80),
    startLevel: si(0, 1).nullable().defined(),
    after: si(0, 14_400).required(),
  }),
  resistance: stepOf('resistance', {
    ...loaded,
    currents: list(si(0, 20).required(), 60).min(1, 'A series has one current or more'),
    replug: boolean().strict().defined(),
  }),
  bend: stepOf('bend', {
    count: whole(1, 10_000_000).required(),
    angle: si(1, 360).required(),
    radius: si(0.0001, 1).required(),
    tension: si(0, 1000).nullable().defined(),
    rate: si(0.01, 1000).required(),
  }),
  'by hand': stepOf('by hand', {}),
};

/** A new sheet: made from a method. */
export const newSheetInput = record({
  methodId: text(40),
  rigId: id(),
  /** Only what settles these promises; left out for the whole sheet. */
  claimIds: array(id()).strict().max(500).optional(),
});

export const sheetInput = record({
  title: text(120),
  rigId: id(),
  steps: list(union(STEPS), 1000).test('own-ids', 'Two steps have the same id', (steps) => {
    const ids = (steps as { id?: string }[] | undefined)?.map((one) => one?.id) ?? [];
    return new Set(ids).size === ids.length;
  }),
  conditions: conditions(),
});

/** Starting a run: who, with the tag of what really stands on the bench. */
export const startInput = record({
  person: text(60),
  tag: text(40),
  /** Loads go off when nobody is at the console. Without it: a soak that was made safe to leave. */
  watched: boolean().strict().defined(),
});

const typedReading = record({
  quantity: oneOf(['voltage', 'current', 'power', 'energy', 'duration', 'power-factor']),
  place: oneOf(['mains', 'port', 'load-end', 'display']),
  port: string().strict().max(24).nullable().defined(),
  typed: text(60),
});

/** What a person asks of a run. */
export const askInput = record({
  ask: union({
    hold: record({ kind: oneOf(['hold']) }),
    'go on': record({ kind: oneOf(['go on']), person: text(60) }),
    repeat: record({ kind: oneOf(['repeat']) }),
    cycle: record({ kind: oneOf(['cycle']) }),
    skip: record({ kind: oneOf(['skip']), reason: text(200) }),
    note: record({ kind: oneOf(['note']), text: text(400) }),
    stop: record({ kind: oneOf(['stop']), reason: optionalText(200) }),
    record: record({
      kind: oneOf(['record']),
      readings: list(typedReading, 60),
      device: record({ outcome: oneOf(OUTCOMES), message: optionalText(200) })
        .nullable()
        .defined(),
    }),
  }),
});

export const limitsInput = record({
  hottest: si(273, 500).nullable().defined(),
  volts: si(1, 2000).nullable().defined(),
  amps: si(0.01, 200).nullable().defined(),
  watts: si(0.1, 20_000).nullable().defined(),
});

export const sampleLimitsInput = record({ limits: limitsInput.nullable().defined() });

export const sheetsQuery = record({ sampleId: id().optional() }).strict(false);
/** A part of a trace: of one step, before a part. */
export const traceQuery = record({ step: string().max(26), before: id().optional() }).strict(false);

/** The demo's one button: which method, and how fast the bench's clock runs. */
export const simulatedDeviceInput = record({
  port: portLabel(),
  /** Name of the device; null pulls it. */
  device: string().strict().max(60).nullable().defined(),
  level: si(0, 1).required(),
  speed: si(1, 3600).required(),
});

export const simulatedInput = record({ methodId: text(40), person: text(60), speed: si(1, 3600).required() });

/** Three days after midnight at most: work that goes on over night. */
const time = () => si(0, 3 * 86_400);
const span = record({ from: time().required(), to: time().required() });

export const benchDayInput = record({
  from: time().required(),
  setUp: si(0, 7200).required(),
  people: list(record({ title: text(60), there: list(span, 12) }), 20),
  sheets: list(
    record({
      sheetId: id(),
      from: time().nullable().defined(),
      due: time().nullable().defined(),
      chamberId: id().nullable().defined(),
    }),
    12,
  ),
  pins: list(record({ taskId: text(60), at: time().required() }), 500),
});
