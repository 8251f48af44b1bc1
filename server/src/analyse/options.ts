// The command line of `npm run -s analyse -- KIND FILE`.
import { parseArgs } from 'node:util';
import { CAPTURE_KINDS, type CaptureKind } from '@lastmark/core/capture';
import { type AccuracySpec, parseAccuracy } from '@lastmark/core/uncertainty';

/** A soak is what `heat` reads. */
export const ANALYSE_KINDS: readonly AnalyseKind[] = [
  ...new Set<AnalyseKind>([
    'ripple',
    'heat',
    'charge',
    'resistance',
    'judge',
    ...CAPTURE_KINDS.filter((kind) => kind !== 'soak'),
  ]),
];
export type AnalyseKind = 'ripple' | 'heat' | 'charge' | 'resistance' | 'judge' | CaptureKind;

export interface Options {
  readonly kind: AnalyseKind;
  /** Path, or "-" for what is piped in. */
  readonly file: string;
  readonly json: boolean;
  readonly channel: string | null;
  readonly rate: number | null;
  readonly mains: number | null;
  readonly bandwidth: number | null;
  readonly envelope: boolean;
  readonly ambient: number | null;
  /** State of charge at the start of a charge, 0…1. */
  readonly start: number | null;
  /** The user's mark: when it was full, s from the first sample. */
  readonly end: number | null;
  /** Accuracies of the meters that read a drop; null for not stated. */
  readonly volts: AccuracySpec | null;
  readonly amps: AccuracySpec | null;
  /** JSON that describes a binary file. */
  readonly describe: string | null;
}

export const USAGE = `npm run -s analyse -- KIND FILE [--json]

KIND is one of ${ANALYSE_KINDS.join(', ')}.
FILE is a text file of any dialect, "-" for standard input, or binary samples with FILE.json (or --describe) beside it;
for judge it is the package of a sample.

  --json             figures in SI, field by field as docs/analyse.md says
  --channel NAME     the column to look at, by its name (ripple)
  --rate HZ          samples a second of a file without a column of time
  --mains HZ         50, 60, or 0 for DC (ripple)
  --bandwidth HZ     of probe and scope (ripple)
  --envelope         its samples are extremes, not the signal (ripple)
  --ambient C        where no column says it (heat, resistance)
  --volts ACCURACY   of the voltmeters, such as "0.05 % + 4 mV" (resistance)
  --amps ACCURACY    of the ammeter (resistance)
  --start PERCENT    level at the start, where no column says it (charge)
  --end SECONDS      when it was full, by your own mark (charge)
  --describe FILE    JSON that describes binary samples`;

/** What was asked for is not understood; the sentence says what to do. */
export class UsageError extends Error {}

function number(text: string | undefined, name: string, least: number): number | null {
  if (text === undefined) return null;
  const value = Number(text.replace(',', '.'));
  if (text.trim() === '' || !Number.isFinite(value) || value < least)
    throw new UsageError(`--${name} is "${text}"; give a number${least === 0 ? ' of nought or more' : ''}.`);
  return value;
}

function accuracy(text: string | undefined, name: string, quantity: 'voltage' | 'current'): AccuracySpec | null {
  if (text === undefined) return null;
  const parsed = parseAccuracy(text, quantity);
  if (!parsed.ok) throw new UsageError(`--${name} is "${text}": ${parsed.reason}`);
  return parsed.spec;
}

function percent(text: string | undefined): number | null {
  const value = number(text, 'start', 0);
  if (value !== null && value > 100) throw new UsageError(`--start is "${text}"; a level is 0 to 100 per cent.`);
  return value === null ? null : value / 100;
}

/** @throws UsageError */
export function readOptions(args: readonly string[]): Options {
  let parsed: ReturnType<typeof parse>;
  try {
    parsed = parse(args);
  } catch (error) {
    throw new UsageError(error instanceof Error ? error.message : 'The options are not understood.');
  }
  const { values, positionals } = parsed;
  const [kind, file, more] = positionals;
  if (kind === undefined) throw new UsageError('Say what to analyse.');
  if (!ANALYSE_KINDS.includes(kind as AnalyseKind))
    throw new UsageError(`"${kind}" is none of ${ANALYSE_KINDS.join(', ')}.`);
  if (file === undefined) throw new UsageError('Name a file.');
  if (more !== undefined) throw new UsageError(`One file at a time; "${more}" is one more.`);
  return {
    kind: kind as AnalyseKind,
    file,
    json: values.json ?? false,
    channel: values.channel ?? null,
    rate: number(values.rate, 'rate', Number.MIN_VALUE),
    mains: number(values.mains, 'mains', 0),
    bandwidth: number(values.bandwidth, 'bandwidth', 0),
    envelope: values.envelope ?? false,
    ambient: number(values.ambient, 'ambient', -100),
    start: percent(values.start),
    end: number(values.end, 'end', 0),
    volts: accuracy(values.volts, 'volts', 'voltage'),
    amps: accuracy(values.amps, 'amps', 'current'),
    describe: values.describe ?? null,
  };
}

const parse = (args: readonly string[]) =>
  parseArgs({
    args: [...args],
    allowPositionals: true,
    options: {
      json: { type: 'boolean' },
      channel: { type: 'string' },
      rate: { type: 'string' },
      mains: { type: 'string' },
      bandwidth: { type: 'string' },
      envelope: { type: 'boolean' },
      ambient: { type: 'string' },
      start: { type: 'string' },
      end: { type: 'string' },
      volts: { type: 'string' },
      amps: { type: 'string' },
      describe: { type: 'string' },
    },
  });
