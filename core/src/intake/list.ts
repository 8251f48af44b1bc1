// Samples from a spreadsheet: one a line, as benches keep them before they have anything better.
import { currencyOfSign, findUnit, parseMoney, parseQuantity } from '../quantity/index.ts';
import { type HeadedRow, headedRows } from '../table/index.ts';
import { dayOf } from './day.ts';
import { type ListedPort, parsePorts } from './ports.ts';

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
  /** ISO day it was bought; null where it is not given. */
  readonly bought: string | null;
  readonly notes: string;
}

export interface SampleList {
  readonly samples: readonly ListedSample[];
  /** What could not be read, line by line. */
  readonly bad: readonly { readonly line: number; readonly reason: string }[];
}

/** Columns of the list; those after the second may be left out. */
export const SAMPLE_COLUMNS = [
  'maker',
  'model',
  'kind',
  'serial',
  'ports',
  'mass_g',
  'paid',
  'currency',
  'bought',
  'notes',
] as const;
export type SampleColumn = (typeof SAMPLE_COLUMNS)[number];

/** Which column of a file holds what, by its head; what is left out is in none. */
export type ColumnsOfList = Readonly<Partial<Record<SampleColumn, string>>>;

/** What else people call a column, as heads are compared: small letters, words joined. */
const CALLED: Readonly<Record<SampleColumn, readonly string[]>> = {
  maker: ['brand', 'manufacturer', 'make', 'hersteller', 'company'],
  model: ['product', 'name', 'charger', 'device', 'modell', 'item', 'type_name'],
  kind: ['type', 'category', 'form', 'art'],
  serial: ['serial_number', 'sn', 's/n', 'seriennummer', 'id', 'unit'],
  ports: ['outputs', 'port', 'anschlüsse', 'connectors'],
  mass_g: ['mass', 'weight', 'weight_g', 'masse', 'gewicht', 'grams'],
  paid: ['price', 'cost', 'price_paid', 'preis', 'eur', 'usd'],
  currency: ['währung', 'curr'],
  bought: ['date', 'bought_on', 'purchase_date', 'purchased', 'datum', 'gekauft'],
  notes: ['note', 'comment', 'comments', 'remarks', 'bemerkung'],
};

const KINDS = ['wall', 'desktop', 'car'] as const;

/** kg */
const LEAST_MASS = 0.005;
const MOST_MASS = 20;

/** A number without a unit. */
const BARE = /^[\d.,\s]+$/;

/** Words of a head: `weight_(kg)` has two. */
const wordsOf = (head = ''): readonly string[] => head.split(/[\s_()[\]/,]+/).filter((word) => word !== '');

/** A head without the unit or currency it ends in: `weight` of `weight_(kg)`. */
function withoutUnit(head: string): string {
  const words = wordsOf(head);
  const last = words.at(-1) ?? '';
  return findUnit('mass', last) || currencyOf(last) ? words.slice(0, -1).join('_') : head;
}

/** The currency a head names: `price_usd`, `USD`. */
function currencyOf(head: string | undefined): string | null {
  const known = Intl.supportedValuesOf('currency');
  return (
    wordsOf(head)
      .map((word) => currencyOfSign(word) ?? word.toUpperCase())
      .find((word) => known.includes(word)) ?? null
  );
}

function sampleOf({ cells: row, line }: HeadedRow, columns: ColumnsOfList): ListedSample | string {
  const cell = (name: SampleColumn) => (row[columns[name] ?? ''] ?? '').trim();
  if (cell('maker') === '' || cell('model') === '') return 'maker and model are needed.';
  const said = cell('kind').toLowerCase();
  const kind = said === '' ? 'wall' : KINDS.find((one) => said.split(/[^a-z]+/).includes(one));
  if (!kind) return `kind "${said}" is none of ${KINDS.join(', ')}.`;
  const ports = parsePorts(cell('ports'));
  if (typeof ports === 'string') return `ports: ${ports}`;
  const bought = cell('bought') === '' ? null : dayOf(cell('bought'));
  if (cell('bought') !== '' && bought === null)
    return `bought: "${cell('bought')}" is not a day that can be read one way only. Write it as 2026-03-02.`;
  const weighed = cell('mass_g');
  const massUnit = wordsOf(columns.mass_g).find((word) => findUnit('mass', word));
  const mass =
    weighed === '' ? null : parseQuantity(BARE.test(weighed) ? `${weighed} ${massUnit ?? 'g'}` : weighed, 'mass');
  if (mass && !mass.ok) return `mass_g: ${mass.reason}`;
  // No charger weighs so little, nor so much: a number alone is then in another unit.
  if (mass?.ok && !massUnit && BARE.test(weighed) && !(mass.value >= LEAST_MASS && mass.value <= MOST_MASS))
    return `mass_g: "${weighed}" of what? Write it with its unit, as 110 g or 0.11 kg.`;
  const money = cell('paid') === '' ? null : parseMoney(cell('paid'));
  const amount = money?.amount ?? null;
  if (amount !== null && !(amount >= 0)) return `paid: "${cell('paid')}" is not a price.`;
  const currency = cell('currency').toUpperCase() || (money?.currency ?? currencyOf(columns.paid) ?? 'EUR');
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
    bought,
    notes: cell('notes'),
  };
}

const asHead = (head: string): string => head.trim().toLowerCase().replaceAll(' ', '_');

const parsed = (text: string) => headedRows(text, asHead);

/** Heads of a list, as they are compared: small letters, words joined. */
export const headsOf = (text: string): readonly string[] => parsed(text).heads.filter((head) => head !== '');

/**
 * Which column holds what, by what people call them; each column is taken once.
 * @example guessColumns(['brand', 'product', 'weight']) // { maker: 'brand', model: 'product', mass_g: 'weight' }
 */
export function guessColumns(heads: readonly string[]): ColumnsOfList {
  const taken = new Set<string>();
  const found: Partial<Record<SampleColumn, string>> = {};
  const take = (column: SampleColumn, names: readonly string[]) => {
    const head = heads.find((one) => (names.includes(one) || names.includes(withoutUnit(one))) && !taken.has(one));
    if (found[column] !== undefined || head === undefined) return;
    taken.add(head);
    found[column] = head;
  };
  // By their own names first, so that nothing else takes them.
  for (const column of SAMPLE_COLUMNS) take(column, [column]);
  for (const column of SAMPLE_COLUMNS) take(column, CALLED[column]);
  return found;
}

/**
 * Read a list of samples. Columns in any order, any delimiter, either decimal sign; columns nobody chose are passed over.
 * Never throws; a line that cannot be read is listed with its number and the reason.
 * @param columns which column holds what; left out for what their heads say
 * @example readSampleList('maker,model,ports\nTarnhook,Ember 45,C1').samples[0]?.ports.length // 1
 */
export function readSampleList(text: string, columns?: ColumnsOfList): SampleList {
  const { rows, heads } = parsed(text);
  const chosen = columns ?? guessColumns(heads);
  if (chosen.maker === undefined || chosen.model === undefined)
    return {
      samples: [],
      bad: [{ line: 1, reason: `say which columns hold maker and model. The first line names: ${heads.join(', ')}.` }],
    };
  const samples: ListedSample[] = [];
  const bad: { line: number; reason: string }[] = [];
  for (const row of rows) {
    const read = sampleOf(row, chosen);
    if (typeof read === 'string') bad.push({ line: row.line, reason: read });
    else samples.push(read);
  }
  return { samples, bad };
}
