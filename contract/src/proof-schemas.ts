// What may be written at Read-out and Proof: read-outs, devices and runs. Values are SI.
import { DEVICE_KINDS, HOLD_ENDS, OUTCOMES, WORKLOADS } from '@lastmark/core/proof';
import { MARKERS, MOST_OFFERS, REVISIONS } from '@lastmark/core/read-out';
import { RETURNS } from '@lastmark/core/split';
import { boolean, string } from 'yup';
import {
  id,
  list,
  mains,
  moment,
  oneOf,
  optionalText,
  output,
  portLabel,
  record,
  si,
  text,
  union,
  whole,
} from './parts.ts';

const word = () =>
  string()
    .strict()
    .matches(/^[0-9A-F]{8}$/, '${path} is not a word of eight hexadecimal digits')
    .required();

/** What a source may not have been asked for. */
const hexadecimal = (pattern: RegExp, what: string) =>
  string().strict().matches(pattern, `\${path} is not ${what}`).nullable().optional().default(null);

const takenBack = { supersedes: id().nullable().defined(), withdrawn: boolean().strict().defined() };

export const readOutInput = record({
  id: id(),
  port: portLabel(),
  instrumentId: id(),
  takenAt: moment().required(),
  occupied: list(portLabel(), 12),
  marker: oneOf(MARKERS),
  askedWith: string()
    .strict()
    .oneOf([...REVISIONS])
    .nullable()
    .defined(),
  temperature: si(200, 450).nullable().defined(),
  elapsed: si(0, 1e6).nullable().defined(),
  words: list(word(), MOST_OFFERS),
  epr: boolean().strict().defined(),
  declared: string()
    .strict()
    .oneOf([...REVISIONS])
    .nullable()
    .defined(),
  cableWords: list(word(), 8),
  info: hexadecimal(/^[0-9A-F]{8}$/, 'a word of eight hexadecimal digits'),
  extended: hexadecimal(/^(?:[0-9A-F]{2}){1,64}$/, 'a block of 1 to 64 bytes, two hexadecimal digits each'),
  signals: list(record({ mode: text(40), result: oneOf(['seen', 'not seen', 'cannot see']) }), 60),
  unreachable: list(record({ position: whole(1, MOST_OFFERS).required(), reason: text(200) }), MOST_OFFERS),
  note: optionalText(400),
  source: optionalText(260),
  ...takenBack,
});

const ceiling = record({
  connector: text(40),
  lead: text(80),
  volts: si(1, 60).nullable().defined(),
  watts: si(0.1, 500).required(),
});

export const deviceInput = record({
  name: text(80),
  kind: oneOf(DEVICE_KINDS),
  /** J */
  battery: si(100, 1e8).nullable().defined(),
  ceilings: list(ceiling, 20),
  baseline: si(0.1, 500).nullable().defined(),
  note: optionalText(400),
});

const runHead = {
  id: id(),
  port: portLabel(),
  rigId: id(),
  takenAt: moment().required(),
  note: optionalText(400),
  ...takenBack,
};
const volts = () => si(0, 60);
const amps = () => si(0, 20);
const seconds = () => si(0, 1e6);

export const runInput = union({
  device: record({
    kind: oneOf(['device']),
    ...runHead,
    deviceId: id(),
    connector: text(40),
    lead: text(80),
    workload: oneOf(WORKLOADS),
    charge: si(0, 1).nullable().defined(),
    settled: seconds().required(),
    place: oneOf(['port', 'mains']),
    volts: volts().nullable().defined(),
    watts: si(0, 1000).required(),
    peak: si(0, 1000).nullable().optional().default(undefined),
    mean: si(0, 1000).nullable().optional().default(undefined),
    spread: si(0, 1000).nullable().optional().default(undefined),
    outcome: oneOf(OUTCOMES),
    message: optionalText(200),
    warmth: si(220, 400).nullable().optional().default(undefined),
  }),
  hold: record({
    kind: oneOf(['hold']),
    ...runHead,
    volts: volts().required(),
    amps: amps().required(),
    others: list(output, 12),
    planned: seconds().required(),
    held: seconds().required(),
    end: oneOf(HOLD_ENDS),
    hottest: si(200, 600).nullable().defined(),
    ambient: si(200, 350).nullable().defined(),
    after: si(0, 1000).nullable().defined(),
  }),
  move: record({
    kind: oneOf(['move']),
    ...runHead,
    fromVolts: volts().required(),
    toVolts: volts().required(),
    amps: amps().required(),
    breaks: whole(0, 1000).required(),
    longest: seconds().nullable().defined(),
    lowest: volts().nullable().defined(),
  }),
  split: record({
    kind: oneOf(['split']),
    ...runHead,
    order: list(portLabel(), 12).min(1, 'Name the ports in the order they were plugged in'),
    mains: mains(),
    shares: list(
      record({
        port: portLabel(),
        volts: volts().nullable().defined(),
        amps: amps().nullable().defined(),
        light: boolean().strict().defined(),
        device: record({
          deviceId: id(),
          charge: si(0, 1).nullable().defined(),
          tries: whole(1, 50).nullable().defined(),
        })
          .nullable()
          .optional()
          .default(undefined),
      }),
      12,
    ),
    mainsWatts: si(0, 5000).nullable().defined(),
    evidence: oneOf(['load', 'device']),
    drops: list(
      record({
        port: portLabel(),
        cause: portLabel(),
        how: oneOf(['plugged', 'unplugged']),
        dropped: boolean().strict().defined(),
        seconds: si(0, 3600).nullable().defined(),
        offBy: si(0, 3600).nullable().optional().default(undefined),
        lowest: si(-1, 60).nullable().defined(),
        back: oneOf(RETURNS),
      }),
      60,
    ),
  }),
  over: record({
    kind: oneOf(['over']),
    ...runHead,
    volts: si(1, 60).required(),
    rated: si(0.01, 10).required(),
    steps: list(
      record({
        asked: amps().required(),
        amps: amps().required(),
        volts: volts().required(),
        seconds: si(0, 60).required(),
      }),
      40,
    ).min(1, 'A search has one step or more'),
    attached: oneOf(['electronic load', 'device']),
    latched: boolean().strict().nullable().defined(),
    recovery: seconds().nullable().defined(),
  }),
});

export const runBody = record({ run: runInput });
