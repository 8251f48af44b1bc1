// Samples from a spreadsheet: one a line, as benches keep them before they have anything better.
import Papa from 'papaparse';
import { parseMoney, parseQuantity } from '../quantity/index.ts';

export interface ListedPort {
  readonly label: string;
  readonly connector: 'C' | 'A';
}

export interface ListedSample {
  readonly line: number;
  readonly maker: string;
  readonly model: string;
  readonly kind: 'wall' | 'desktop' | 'car';
  readonly serial: string;
  readonly ports: readonly ListedPort[];
  /** kg; null where it is not given */
  readonly mass: number | null;
  /** Price paid, with its currency; null where it is not given. */
  readonly paid: { readonly amount: number; readonly currency: string } | null;
}

export interface SampleList {
  readonly samples: readonly ListedSample[];
  /** What could not be read, line by line. */
  readonly bad: readonly { readonly line: number; readonly reason: string }[];
}

/** Columns of the list; those after the second may be left out. */
export const SAMPLE_COLUMNS = ['maker', 'model', 'kind', 'serial', 'ports', 'mass_g', 'paid', 'currency'] as const;

const MOST_PORTS = 12;
const COUNTED = /^(\d{1,2})\s*[x×]?\s*(?:usb[- ]?)?([ca])$/i;
const NAMED = /^(?:usb[- ]?)?([ca])(?:[- ]?(\d{1,2}))?$/i;

/**
 * Ports as people note them: `C1 C2 A1`, `2C + 1A`, `USB-C, USB-A`.
 * @returns the ports in the order written, or why not
 */
export function parsePorts(text: string): readonly ListedPort[] | string {
  const parts = text
    .replace(/usb[- ]([ca])/gi, '$1')
    .split(/[\s,;/+&]+/)
    .filter(Boolean);
  const counts = { C: 0, A: 0 };
  const next = (letter: string): ListedPort => {
    const connector = letter.toUpperCase() === 'C' ? 'C' : 'A';
    counts[connector] += 1;
    return { label: `${connector}${counts[connector]}`, connector };
  };
  const ports: ListedPort[] = [];
  for (const part of parts) {
    const [, many, counted] = COUNTED.exec(part) ?? [];
    const [, letter] = NAMED.exec(part) ?? [];
    if (many !== undefined && counted !== undefined) {
      for (let index = 0; index < Number(many) && ports.length <= MOST_PORTS; index += 1) ports.push(next(counted));
    } else if (letter !== undefined) ports.push(next(letter));
    else return `"${part}" is not a port. Write ports like C1 C2 A1, or 2C 1A.`;
  }
  return ports.length > MOST_PORTS ? `more than ${MOST_PORTS} ports.` : ports;
}

const KINDS = ['wall', 'desktop', 'car'] as const;

type Row = Readonly<Record<string, string | undefined>>;

function sampleOf(row: Row, line: number): ListedSample | string {
  const cell = (name: (typeof SAMPLE_COLUMNS)[number]) => (row[name] ?? '').trim();
  if (cell('maker') === '' || cell('model') === '') return 'maker and model are needed.';
  const said = cell('kind').toLowerCase();
  const kind = KINDS.find((one) => one === (said === '' ? 'wall' : said));
  if (!kind) return `kind "${said}" is none of ${KINDS.join(', ')}.`;
  const ports = parsePorts(cell('ports'));
  if (typeof ports === 'string') return `ports: ${ports}`;
  const mass = cell('mass_g') === '' ? null : parseQuantity(cell('mass_g'), 'mass');
  if (mass && !mass.ok) return `mass_g: ${mass.reason}`;
  const money = cell('paid') === '' ? null : parseMoney(cell('paid'));
  const amount = money?.amount ?? null;
  if (amount !== null && !(amount >= 0)) return `paid: "${cell('paid')}" is not a price.`;
  const currency = cell('currency').toUpperCase() || (money?.currency ?? 'EUR');
  if (amount !== null && !/^[A-Z]{3}$/.test(currency))
    return `currency "${currency}" is not three letters such as EUR.`;
  return {
    line,
    maker: cell('maker'),
    model: cell('model'),
    kind,
    serial: cell('serial'),
    ports,
    mass: mass?.ok ? mass.value : null,
    paid: amount === null ? null : { amount, currency },
  };
}

/**
 * Read a list of samples. Columns in any order, any delimiter, either decimal sign; columns nobody knows are passed over.
 * Never throws; a line that cannot be read is listed with its number and the reason.
 * @example readSampleList('maker,model,ports\nTarnhook,Ember 45,C1').samples[0]?.ports.length // 1
 */
export function readSampleList(text: string): SampleList {
  const { data, meta } = Papa.parse<Row>(text.replace(/^\ufeff/, ''), {
    header: true,
    skipEmptyLines: 'greedy',
    transformHeader: (head) => head.trim().toLowerCase().replaceAll(' ', '_'),
  });
  const heads = meta.fields ?? [];
  if (!heads.includes('maker') || !heads.includes('model'))
    return {
      samples: [],
      bad: [{ line: 1, reason: `the first line names the columns: ${SAMPLE_COLUMNS.join(', ')}.` }],
    };
  const samples: ListedSample[] = [];
  const bad: { line: number; reason: string }[] = [];
  for (const [index, row] of data.entries()) {
    const line = index + 2;
    const read = sampleOf(row, line);
    if (typeof read === 'string') bad.push({ line, reason: read });
    else samples.push(read);
  }
  return { samples, bad };
}
