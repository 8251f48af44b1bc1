// What is wrong with a field, in the words and units of the people who fill it in.
import { formatPlain, type QuantityId, quantityOf } from '@lastmark/core/quantity';
import type { ValidationError } from 'yup';

/** A field's name, and what its number measures. */
type Word = readonly [name: string, quantity?: QuantityId];

/** By the last part of a field's path; where that means several things, by the last two. */
const WORDS: Readonly<Record<string, Word>> = {
  action: ['Action'],
  adapter: ['Plug adapter'],
  adaptiveLow: ['Loading of an adaptive supply'],
  address: ['Address'],
  after: ['Power afterwards', 'power'],
  count: ['How many samples'],
  spread: ['Spread of one sample'],
  again: ['Whether it counts twice'],
  allowance: ['What a power may miss', 'efficiency'],
  ambient: ['Ambient temperature', 'temperature'],
  amount: ['Amount'],
  amps: ['Current', 'current'],
  analyser: ['Analyser'],
  as: ['What more than promised counts as'],
  ask: ['What is asked'],
  asked: ['Current asked for', 'current'],
  askedWith: ['PD revision asked with'],
  assumedEfficiency: ['Efficiency where none was measured'],
  'assumedEfficiency.high': ['Upper end of the efficiency where none was measured', 'efficiency'],
  'assumedEfficiency.low': ['Lower end of the efficiency where none was measured', 'efficiency'],
  attached: ['What was attached'],
  attenuation: ['Attenuation of the probe'],
  because: ['Why it was corrected'],
  bandwidth: ['Bandwidth in Hz'],
  capacitors: ['Capacitors at the probe'],
  celsius: ['Temperature in °C'],
  coupling: ['Coupling'],
  'probe.floor': ['Floor of the scope', 'voltage'],
  floorRms: ['Floor of the scope, rms', 'voltage'],
  part: ['Part of the level', 'efficiency'],
  probe: ['How ripple is probed'],
  ripple: ['What ripple may be'],
  'ripple.volts': ['Ripple', 'voltage'],
  sensors: ['Sensors'],
  soak: ['Where the soak stood'],
  'soak.ambient': ['Ambient in °C'],
  surface: ['What it lay on'],
  tip: ['Tip of the probe'],
  touch: ['What may be touched, in °C'],
  touched: ['What the body is made of'],
  unloaded: ['Whether no load counts'],
  attended: ['Whether somebody is there'],
  average: ['Time averaged', 'duration'],
  averaged: ['Whether it was averaged'],
  back: ['How it came back'],
  baseline: ['Power taken alone', 'power'],
  basis: ['What the rating rests on'],
  battery: ['Battery', 'energy'],
  before: ['Place in the trace'],
  breaks: ['Number of breaks'],
  buckets: ['Number of buckets'],
  by: ['Who does it'],
  cableWords: ['Marker words'],
  calibratedOn: ['Day it was calibrated'],
  calibrationDue: ['Day its calibration is due'],
  capture: ['Capture'],
  cause: ['Port that caused it'],
  caution: ['Caution'],
  ceilings: ['Ceilings'],
  channels: ['Names of the channels'],
  charge: ['Battery level', 'efficiency'],
  'capture.charge': ['What was charged'],
  'charge.end': ['When it was full', 'duration'],
  startLevel: ['Level at the start', 'efficiency'],
  checked: ['Day it was compared with the text'],
  class: ['Class'],
  classChoice: ['Chosen class'],
  classReason: ['Reason for the class'],
  columns: ['Columns'],
  command: ['Command'],
  commands: ['Commands'],
  connector: ['Connector'],
  constant: ['Constant'],
  continuous: ['What counts as continuous', 'duration'],
  coverage: ['What the accuracy covers'],
  crest: ['Crest factor'],
  currency: ['Currency'],
  current: ['Accuracy of current'],
  date: ['Date'],
  dateCode: ['Date code'],
  decimal: ['Decimal sign'],
  declared: ['PD revision declared'],
  delimiter: ['Delimiter'],
  device: ['Device'],
  deviceId: ['Device'],
  disclosure: ['Who gains by the test'],
  distortion: ['Distortion', 'efficiency'],
  down: ['Order'],
  drift: ['Drift', 'efficiency'],
  drives: ['What runs by itself'],
  'drives.load': ['Load'],
  dropped: ['Whether it dropped out'],
  drops: ['Interruptions'],
  duration: ['For how long'],
  dwell: ['Duration', 'duration'],
  elapsed: ['Time since plugged in', 'duration'],
  elements: ['What is in line'],
  end: ['How it ended'],
  epr: ['Extended power range'],
  errors: ['Question for its errors'],
  evidence: ['Loaded by'],
  examples: ['Example replies'],
  fileName: ['File name'],
  finer: ['Finer ranges'],
  firmware: ['Firmware'],
  floor: ['Smallest reading'],
  formulas: ['Formulas'],
  fraction: ['Part it may still move by', 'efficiency'],
  fromVolts: ['Voltage before', 'voltage'],
  have: ['What is there already'],
  headerLine: ['Line of the heads'],
  height: ['Height', 'length'],
  held: ['Time held', 'duration'],
  hello: ['Lines sent after connecting'],
  hertz: ['Frequency', 'frequency'],
  high: ['Upper end'],
  hottest: ['Hottest point', 'temperature'],
  how: ['How it works'],
  id: ['Id'],
  inclusive: ['Whether the end belongs to it'],
  inputRating: ['Input rating'],
  instrumentId: ['Instrument'],
  jurisdiction: ['Where it holds'],
  keepGood: ['Whether good lines are kept'],
  kind: ['Kind'],
  label: ['Label'],
  latched: ['Whether it stayed off'],
  lead: ['Lead'],
  leadOhms: ['Resistance of the lead', 'resistance'],
  leadUOhms: ['Uncertainty of the lead', 'resistance'],
  length: ['Length', 'length'],
  light: ['Whether next to nothing was taken'],
  limits: ['Limits'],
  limitSetIds: ['Limit sets'],
  load: ['Load', 'efficiency'],
  loadEnd: ['Meter at the load end'],
  longest: ['Longest break', 'duration'],
  low: ['Lower end'],
  lowest: ['Lowest voltage', 'voltage'],
  mains: ['Mains'],
  mainsWatts: ['Power at the mains', 'power'],
  maker: ['Maker'],
  margin: ['What counts as more', 'efficiency'],
  marker: ['Cable marker'],
  marks: ['Marks'],
  mass: ['Mass', 'mass'],
  message: ['What the device says'],
  meters: ['Meters'],
  'meters.mains': ['Meter at the mains'],
  methodId: ['Method'],
  mode: ['Signalling'],
  model: ['Model'],
  more: ['More than promised'],
  name: ['Name'],
  nameplateClass: ['Nameplate class'],
  needs: ['Instruments needed'],
  note: ['Note'],
  notes: ['Notes'],
  obtained: ['How it was obtained'],
  occupied: ['Occupied ports'],
  offset: ['Offset'],
  on: ['Whether it is on'],
  order: ['Order of plugging in'],
  others: ['Other ports'],
  outcome: ['What happened'],
  output: ['Output'],
  outputAmps: ['Meter of the output current'],
  outputPlace: ['Where the output is metered'],
  outputs: ['Outputs'],
  outputVolts: ['Meter of the output voltage'],
  over: ['Time looked at', 'duration'],
  overRating: ['Over the rating'],
  'overRating.step': ['Steps over the rating', 'efficiency'],
  offsetMinutes: ['Minutes ahead of universal time'],
  override: ['Reason to go beyond the rating'],
  owner: ['What it belongs to'],
  ownerId: ['What it belongs to'],
  page: ['Page'],
  patience: ['Time a reply may take', 'duration'],
  pause: ['Pause after a command', 'duration'],
  perLog: ['Factor of the logarithm'],
  person: ['Person'],
  perWatt: ['Factor of the power'],
  pieces: ['Pieces'],
  place: ['Place'],
  plan: ['How the file is read'],
  planned: ['Time planned', 'duration'],
  plugBlocksNeighbour: ['Whether it blocks its neighbour'],
  plugEarthed: ['Whether the plug is earthed'],
  plugForm: ['Plug'],
  points: ['Points'],
  port: ['Port'],
  ports: ['Ports'],
  position: ['Position'],
  power: ['Accuracy of power'],
  prices: ['Prices'],
  printed: ['Printed on'],
  procedureId: ['Procedure'],
  profileId: ['Profile'],
  promise: ['Promise'],
  'promise.high': ['Highest voltage', 'voltage'],
  'promise.low': ['Lowest voltage', 'voltage'],
  purpose: ['Purpose'],
  q: ['Search text'],
  quantity: ['Quantity'],
  range: ['Full scale'],
  rangePercent: ['Per cent of the range'],
  rated: ['Rated current', 'current'],
  ratings: ['Ratings'],
  ratio: ['Efficiency', 'efficiency'],
  reading: ['Reading'],
  readingPercent: ['Per cent of the reading'],
  readings: ['Readings'],
  reads: ['What the example reads'],
  really: ['Whether it was meant'],
  reason: ['Reason'],
  recovery: ['Time to come back', 'duration'],
  reply: ['How the reply is read'],
  resolution: ['Resolution'],
  rest: ['How steady it was'],
  result: ['Result'],
  revision: ['Revision'],
  rigId: ['Rig'],
  role: ['Meaning of the column'],
  rule: ['Decision rule'],
  run: ['Run'],
  scope: ['Scope'],
  sink: ['PD sink'],
  scopeId: ['Scope'],
  seconds: ['Duration', 'duration'],
  sees: ['What it can see'],
  serial: ['Serial'],
  settle: ['When it is settled'],
  settled: ['Time to settle', 'duration'],
  setupId: ['Loading'],
  shares: ['Shares'],
  shown: ['Whether it is shown'],
  signalModes: ['Signalling'],
  signals: ['Signalling'],
  size: ['Size of a page'],
  skip: ['Reason it is left out'],
  sort: ['Order'],
  source: ['Source'],
  specs: ['Accuracy'],
  speed: ['Speed of the clock'],
  station: ['Station'],
  step: ['Step'],
  steps: ['Steps'],
  supersedes: ['What it takes the place of'],
  supplies: ['Supplies it can see'],
  supply: ['Supply'],
  tag: ['Tag'],
  taken: ['How it was taken'],
  takenAt: ['Time taken'],
  tariff: ['Price of a kWh'],
  temperature: ['Temperature', 'temperature'],
  tests: ['Worked values'],
  text: ['Text'],
  thermometer: ['Thermometer'],
  title: ['Title'],
  token: ['Token'],
  tolerance: ['Voltage tolerance', 'efficiency'],
  toVolts: ['Voltage after', 'voltage'],
  twin: ['Twin'],
  tries: ['Tries until it started'],
  typed: ['What was typed'],
  unit: ['Unit'],
  unreachable: ['Levels out of reach'],
  upTo: ['Upper end', 'power'],
  validFrom: ['In force since'],
  validTo: ['In force until'],
  value: ['Value'],
  voltage: ['Accuracy of voltage'],
  volts: ['Voltage', 'voltage'],
  warm: ['Whether it follows the load points'],
  warmUp: ['Warm-up', 'duration'],
  watched: ['Whether somebody watches'],
  watts: ['Power', 'power'],
  wholeFileMains: ['Mains of the whole file'],
  width: ['Width', 'length'],
  wire: ['How lines go to it'],
  with: ['Ports beside it'],
  withdrawn: ['Whether it is taken back'],
  within: ['Within'],
  withPlug: ['Whether plug and lead are included'],
  words: ['Words'],
  workload: ['Workload'],
};

/** One of a list. */
const ONE_OF: Readonly<Record<string, string>> = {
  cableWords: 'marker word',
  ceilings: 'ceiling',
  columns: 'column',
  commands: 'command',
  drops: 'interruption',
  elements: 'element in line',
  finer: 'finer range',
  sensors: 'sensor',
  formulas: 'formula',
  limitSetIds: 'limit set',
  mains: 'mains',
  marks: 'mark',
  needs: 'instrument needed',
  occupied: 'occupied port',
  order: 'port in the order',
  others: 'other port',
  outputs: 'output',
  pieces: 'piece',
  channels: 'channel',
  examples: 'example',
  hello: 'line after connecting',
  points: 'point',
  ports: 'port',
  prices: 'price',
  readings: 'reading',
  shares: 'share',
  signalModes: 'kind of signalling',
  signals: 'kind of signalling',
  steps: 'step',
  supplies: 'supply',
  tests: 'worked value',
  unreachable: 'level out of reach',
  with: 'port beside it',
  words: 'word',
};

const ITEM = /^(.*)\[(\d+)\]$/;

/** Units of what an instrument's accuracy is said in, by what it measures. */
const MEASURED = ['voltage', 'current', 'power'] as const satisfies readonly QuantityId[];
const IN_ITS_UNIT: readonly string[] = ['range', 'offset', 'resolution', 'floor'];

const wordOf = (parts: readonly string[]): Word => {
  const last = parts.at(-1) ?? '';
  const [name, quantity] = WORDS[`${parts.at(-2)}.${last}`] ?? WORDS[last] ?? ['This'];
  const measures = IN_ITS_UNIT.includes(last) ? MEASURED.find((one) => parts.includes(one)) : undefined;
  const known = measures ?? quantity;
  return known ? [name, known] : [name];
};

/** What a property of the API is, by its name: in words, with the SI unit of what it measures; null for one without a word. */
export function described(name: string): string | null {
  const word = WORDS[name];
  if (!word) return null;
  const [said, quantity] = word;
  const si = quantity ? quantityOf(quantity).units.find(({ factor }) => factor === 1)?.symbol : undefined;
  return si ? `${said}, ${si}` : said;
}

/**
 * A field as people call it, with the place it has in lists.
 * @example fieldName('run.shares[0].volts') // 'Voltage of share 1'
 */
export function fieldName(path: string): string {
  const parts = path.split('.').filter((part) => part !== '');
  const bare = parts.map((part) => part.replace(ITEM, '$1'));
  const places = parts.flatMap((part) => {
    const [, list = '', index = ''] = ITEM.exec(part) ?? [];
    return index === '' ? [] : [`${ONE_OF[list] ?? 'entry'} ${Number(index) + 1}`];
  });
  // An entry of a list has no other name than its place.
  if (parts.length > 0 && ITEM.test(parts.at(-1) ?? '')) {
    const [own = '', ...above] = places.reverse();
    return [own.charAt(0).toUpperCase() + own.slice(1), ...above].join(' of ');
  }
  return [wordOf(bare)[0], ...places.reverse()].join(' of ');
}

/** Short times in seconds, long ones in hours. */
function unitFor(si: number, quantity: QuantityId): string | undefined {
  if (quantity !== 'duration') return undefined;
  if (Math.abs(si) < 120) return 's';
  return si < 7200 ? 'min' : 'h';
}

const TYPES: Readonly<Record<string, string>> = {
  number: 'is not a number',
  string: 'must be a text',
  boolean: 'must be yes or no',
  array: 'must be a list',
  object: 'is missing',
};

const MISSING: readonly string[] = ['required', 'optionality', 'nullable', 'defined'];

/**
 * What a schema says of a field, in words and units of its user.
 * @example a mass of 0 → 'Mass must be at least 1 g'
 */
export function inWords({ type = '', params = {}, message }: ValidationError, path: string): string {
  const name = fieldName(path);
  const [, quantity] = wordOf(path.split('.').map((part) => part.replace(ITEM, '$1')));
  const { value } = params as { value?: unknown };
  if (MISSING.includes(type)) return `${name} is missing`;
  if (type === 'typeError') {
    const { type: wanted = '' } = params as { type?: string };
    return value === null || value === undefined ? `${name} is missing` : `${name} ${TYPES[wanted] ?? 'is not right'}`;
  }
  const bound = (params as { min?: number; max?: number })[type as 'min' | 'max'];
  if (bound !== undefined && typeof value === 'number') {
    const said = quantity ? formatPlain(bound, quantity, unitFor(bound, quantity)) : String(bound);
    return `${name} must be ${type === 'min' ? 'at least' : 'at most'} ${said}`;
  }
  if (type === 'max' && typeof value === 'string') return `${name} is longer than ${bound} characters`;
  if (type === 'min' && Array.isArray(value) && message.includes('must have at least'))
    return `${name}: at least ${bound} needed`;
  if (type === 'max' && Array.isArray(value)) return `${name}: more than ${bound} are too many`;
  if (path !== '' && message.startsWith(path)) return name + message.slice(path.length);
  return message.replace(/^this\b/, name);
}
