import { NAMEPLATE_CLASSES } from '@lastmark/core/limits';
import type { Column, DecimalSign, Delimiter } from '@lastmark/core/meter-file';
import type { QuantityId } from '@lastmark/core/quantity';
import { ATTACHED, type EvidenceKind, type Place, RANGE_SUPPLIES } from '@lastmark/core/reading';
import { MORE_AS, type PortFacts, type PriceFacts, type SampleKind } from '@lastmark/core/verdict';
import { boolean, number, string } from 'yup';
import { bendMethod, cableFacts } from './cable-schemas.ts';
import {
  anyMains,
  currency,
  day,
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
import { limitsInput } from './plan-schemas.ts';
import { safetyChoice } from './safety-schemas.ts';

export * from './bench-schemas.ts';

/** What the shelf can be sorted by; without one the last changed comes first. */
export const SHELF_ORDERS = ['name', 'watts', 'efficiency', 'idle', 'mass', 'short'] as const;
export const SAMPLE_KINDS = ['wall', 'desktop', 'car', 'cable'] as const satisfies readonly SampleKind[];
export const CONNECTORS = ['C', 'A', 'captive C'] as const satisfies readonly PortFacts['connector'][];
export const OBTAINED = ['bought', 'lent', 'given', 'commission'] as const;
export const PLUG_FORMS = ['fixed', 'folding', 'detachable lead'] as const;
export const PRICE_KINDS = ['paid', 'list', 'street', 'discounted'] as const satisfies readonly PriceFacts['kind'][];
export const MARKS = [
  'safety listing',
  'double insulation',
  'indoor use',
  'efficiency level',
  'rated ambient',
] as const;
export const EVIDENCE = ['load', 'device', 'wall', 'display'] as const satisfies readonly EvidenceKind[];
export const PLACES = ['mains', 'port', 'load-end', 'display'] as const satisfies readonly Place[];
export const READ_QUANTITIES = [
  'voltage',
  'current',
  'power',
  'energy',
  'duration',
  'power-factor',
] as const satisfies readonly QuantityId[];
export const COLUMN_ROLE_IDS = [
  'load',
  'mains-volts',
  'mains-hertz',
  'input-watts',
  'power-factor',
  'output-volts',
  'output-amps',
  'efficiency',
  'date',
  'time',
  'unit',
  'ignore',
] as const satisfies readonly Column['role'][];

/** The label of a port as printed; short, since it is drawn. */

const port = record({
  label: portLabel(),
  connector: oneOf(CONNECTORS),
  twin: string().strict().max(24).nullable().defined(),
});

const price = record({
  kind: oneOf(PRICE_KINDS),
  amount: si(0, 1e6).required(),
  currency: currency(),
  date: day().required(),
});

/** Everything that is the same for all units of a model. */
export const modelInput = record({
  maker: text(80),
  model: text(120),
  kind: oneOf(SAMPLE_KINDS),
  ports: list(port, 12).test('unique-labels', 'Two ports have the same label; give each its own', (ports) => {
    const labels = (ports as { label?: string }[] | undefined)?.map((one) => one?.label) ?? [];
    return new Set(labels).size === labels.length;
  }),
  /** m */
  length: si(0.001, 2).nullable().defined(),
  width: si(0.001, 2).nullable().defined(),
  height: si(0.001, 2).nullable().defined(),
  /** kg */
  mass: si(0.001, 50).nullable().defined(),
  /** Whether size and mass include plug and lead. */
  withPlug: boolean().strict().defined(),
  plugForm: oneOf(PLUG_FORMS),
  plugEarthed: boolean().strict().defined(),
  plugBlocksNeighbour: boolean().strict().defined(),
  inputRating: optionalText(120),
  marks: list(oneOf(MARKS), MARKS.length),
  prices: list(price, 40),
  cable: cableFacts.nullable().optional().default(undefined),
  /** Nameplate class chosen for the whole of it, with the reason; null takes the derived one. */
  classChoice: record({ nameplateClass: oneOf(NAMEPLATE_CLASSES), reason: text(300) })
    .nullable()
    .optional()
    .default(undefined),
});

/** What belongs to the one unit on the bench. */
export const unitInput = record({
  revision: optionalText(60),
  serial: optionalText(80),
  dateCode: optionalText(40),
  obtained: oneOf(OBTAINED),
  /** Who gains by the test, as disclosed on the sheet. */
  disclosure: optionalText(400),
  returnBy: day().nullable().optional().default(undefined),
  notes: optionalText(4000),
});

export const sampleInput = record({
  model: modelInput,
  unit: unitInput,
  collectionId: id().nullable().optional().default(undefined),
});
/** A further unit of a model that is there already. */
export const unitOfModelInput = record({ unit: unitInput });

const share = record({
  port: portLabel(),
  with: list(portLabel(), 11).optional().default(undefined),
  watts: si(0.01, 1000).required(),
});

export const promised = union({
  'port-line': record({
    kind: oneOf(['port-line']),
    port: portLabel(),
    volts: si(0.5, 60).required(),
    amps: si(0.001, 20).required(),
  }),
  range: record({
    kind: oneOf(['range']),
    port: portLabel(),
    supply: oneOf(RANGE_SUPPLIES),
    low: si(0.5, 60).required(),
    high: si(0.5, 60).required(),
    amps: si(0.001, 20).required(),
  }),
  signal: record({ kind: oneOf(['signal']), port: portLabel(), mode: text(40), title: text(60) }),
  total: record({ kind: oneOf(['total']), watts: si(0.01, 5000).required() }),
  combination: record({
    kind: oneOf(['combination']),
    shares: list(share, 12).min(1, 'A combination names a port or more'),
  }),
  'average-efficiency': record({
    kind: oneOf(['average-efficiency']),
    ratio: si(0.01, 1).required(),
    mains: anyMains(),
  }),
  idle: record({ kind: oneOf(['idle']), watts: si(0.0001, 100).required(), mains: anyMains() }),
  ripple: record({ kind: oneOf(['ripple']), volts: si(1e-5, 10).required(), mains: anyMains() }),
  surface: record({ kind: oneOf(['surface']), celsius: si(20, 200).required() }),
  'charge-time': record({
    kind: oneOf(['charge-time']),
    device: optionalText(60),
    from: si(0, 0.99).required(),
    to: si(0.01, 1).required(),
    seconds: si(60, 172_800).required(),
  }),
  'cable-rating': record({
    kind: oneOf(['cable-rating']),
    amps: si(0.1, 20).required(),
    volts: si(3, 60).required(),
  }),
  'data-rate': record({ kind: oneOf(['data-rate']), bits: si(1e6, 1e12).required() }),
  bends: record({ kind: oneOf(['bends']), count: whole(1, 10_000_000).required() }),
  wording: record({ kind: oneOf(['wording']), text: text(300) }),
});

const duration = union({
  unstated: record({ kind: oneOf(['unstated']) }),
  continuous: record({ kind: oneOf(['continuous']) }),
  peak: record({ kind: oneOf(['peak']), seconds: si(0.001, 86_400).required() }),
});

export const claimInput = record({ promise: promised, duration, printed: text(120) });

export const setupInput = record({
  name: text(80),
  purpose: oneOf(['efficiency', 'proof']),
  outputs: list(output, 12).min(1, 'A loading has one output or more'),
  evidence: oneOf(EVIDENCE),
  rigId: id(),
  nameplateClass: string()
    .strict()
    .oneOf([...NAMEPLATE_CLASSES])
    .nullable()
    .defined(),
  classReason: string().strict().max(300).nullable().optional().default(undefined),
}).test('reason', 'Say why the class is another than the derived one', (value) => {
  const { nameplateClass, classReason } = (value ?? {}) as {
    nameplateClass?: string | null;
    classReason?: string | null;
  };
  return !nameplateClass || Boolean(classReason?.trim());
});

const readingInput = record({
  id: id(),
  quantity: oneOf(READ_QUANTITIES),
  place: oneOf(PLACES),
  port: string().strict().max(24).nullable().defined(),
  /** As typed, with or without a unit; empty strikes out the reading it supersedes. */
  typed: string().strict().max(60).defined(),
  supersedes: id().nullable().optional(),
  /** The person was asked about an unlikely value and meant it. */
  really: boolean().strict().optional(),
  /** How many samples it is the mean of; one where left out. */
  count: whole(1, 10_000_000).optional(),
  /** Standard deviation of one of them, SI. */
  spread: si(0, 1e6).optional(),
  /** Where it comes from, where that is not the keypad. */
  source: text(200).optional(),
  because: text(200).nullable().optional(),
}).test('many', 'A spread is of two samples or more: give the count as well', (value) => {
  const { count = 1, spread = 0 } = (value ?? {}) as { count?: number; spread?: number };
  return spread === 0 || count > 1;
});

const pointInput = record({
  id: id(),
  setupId: id().nullable().optional(),
  /** For a proof step instead of setupId: what is loaded; the server finds or makes the step. */
  outputs: list(output, 12).optional().default(undefined),
  /** Why the step is run beyond the rating of the line. */
  override: string().strict().max(300).nullable().optional(),
  mains: mains(),
  load: si(0, 1.5).required(),
  attached: oneOf(ATTACHED),
  rigId: id(),
  /** For a new point: those under the same conditions that whoever types has seen. Another one, begun meanwhile, is told of. */
  pointsSeen: list(id(), 200).optional().default(undefined),
  takenAt: moment().required(),
  readings: list(readingInput, 60).min(1, 'A point has one reading or more'),
});

/** Why a reading was corrected, said afterwards. */
export const becauseInput = record({ because: text(200) });

export const readingsInput = record({ points: list(pointInput, 200).min(1) });

const column = record({
  name: optionalText(200),
  role: oneOf(COLUMN_ROLE_IDS),
  unit: optionalText(20),
  port: string().strict().max(24).nullable().defined(),
});

export const planInput = record({
  delimiter: oneOf([',', ';', '\t', '|'] satisfies Delimiter[]),
  decimal: oneOf(['.', ','] satisfies DecimalSign[]),
  headerLine: whole(1, 1000).required(),
  columns: list(column, 100).min(1),
});

export const importInput = record({
  fileName: text(200),
  plan: planInput,
  setupId: id(),
  /** Supply of the whole file, when no column says it. */
  wholeFileMains: anyMains(),
  /** The user has seen the bad lines and wants the good ones. */
  keepGood: boolean().strict().defined(),
  /** The same file was taken in before, and is to count twice. */
  again: boolean().strict().optional().default(undefined),
  /** When the file was written last: a log without a date of its own is taken to end then. */
  takenAt: moment().required(),
  /** Minutes the wall clock of its dates is ahead of universal time. */
  offsetMinutes: whole(-840, 840).optional().default(undefined),
});

/** Show the demo on the shelf, or put it away. */
export const demoInput = record({ shown: boolean().strict().defined() });

/** The token of a server that is open to the network. */

export const profileInput = record({
  rule: oneOf(['simple', 'guarded']),
  allowance: si(0, 0.2).required(),
  mains: list(mains(), 4).min(1, 'Choose one mains or more'),
  tariff: si(0, 1000).required(),
  currency: currency(),
  limitSetIds: list(text(60), 50),
  tolerance: si(0.001, 0.1).nullable().defined(),
  continuous: si(60, 86_400).required(),
  /** Efficiency of a charger where nobody measured it. */
  assumedEfficiency: record({ low: si(0.3, 1).required(), high: si(0.3, 1).required() })
    .optional()
    .default(undefined)
    .test('order', 'Efficiency where none was measured: the lower end is below the upper one', (value) => {
      const { low, high } = (value ?? {}) as { low?: number; high?: number };
      return low === undefined || high === undefined || low < high;
    }),
  overRating: record({
    on: boolean().strict().defined(),
    step: si(0.01, 0.1).required(),
    seconds: si(0.5, 10).required(),
  }),
  signalModes: list(record({ id: text(40), title: text(60), how: text(200) }), 40),
  more: record({ as: oneOf(MORE_AS), margin: si(0, 1).required() }),
  ripple: record({
    volts: si(1e-5, 10).nullable().defined(),
    part: si(1e-5, 0.5).nullable().defined(),
    unloaded: boolean().strict().defined(),
  })
    .nullable()
    .optional()
    .default(undefined),
  touch: si(20, 200).nullable().optional().default(undefined),
  bends: bendMethod,
  safety: safetyChoice,
  limits: limitsInput,
});

/** How lists are asked for. Query values arrive as text. */
export const listQuery = record({
  q: string().max(120),
  kind: string().oneOf([...SAMPLE_KINDS]),
  page: number().integer().min(1).max(100_000),
  size: number().integer().min(1).max(200),
  label: string().max(40),
  collection: id().optional(),
  archived: boolean(),
  sort: string().oneOf([...SHELF_ORDERS]),
  down: boolean(),
}).strict(false);

export const dossierQuery = record({ have: string().max(400) }).strict(false);

export const readingsQuery = record({
  page: number().integer().min(1).max(100_000),
  size: number().integer().min(1).max(500),
}).strict(false);

export const attachmentQuery = record({
  owner: oneOf(['sample', 'claim', 'reading']),
  ownerId: id(),
  name: text(200),
}).strict(false);

export const attachmentInput = record({ caption: optionalText(200), inReport: boolean().strict().defined() });

export const attachmentListQuery = record({ sampleId: id() }).strict(false);
