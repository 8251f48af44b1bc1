// Heads of a table of offers, as analysers write them, and the cells below as one form.
import { headedRows, headerParts } from '../table/index.ts';

/** What a column of offers is, by its name without its unit. */
const COLUMNS: readonly (readonly [key: string, pattern: RegExp])[] = [
  ['kind', /^(?:(?:pdo|supply|object|offer)?(?:kind|type)|supply)$/],
  ['word', /^(?:(?:raw|hex)(?:word|value|data|pdo)?|word|pdohex|pdoraw)$/],
  ['amps_above', /^(?:ampsabove|currentabove|aabove)$/],
  ['min_volts', /^(?:min(?:imum)?|low(?:est)?)(?:v|volts?|voltage)$|^(?:v|volts?|voltage)(?:min(?:imum)?|low)$/],
  ['max_volts', /^(?:max(?:imum)?|high(?:est)?)(?:v|volts?|voltage)$|^(?:v|volts?|voltage)(?:max(?:imum)?|high)$/],
  ['volts', /^(?:v|u|volts?|voltages?|level|range|voltagerange)$/],
  ['amps', /^(?:max(?:imum)?)?(?:a|i|amps?|amperes?|current)(?:max(?:imum)?)?$/],
  ['watts', /^(?:max(?:imum)?)?(?:w|p|watts?|power|pdp)(?:max(?:imum)?)?$/],
];
const keyOf = (name: string): string | undefined => {
  const bare = name.toLowerCase().replace(/[^a-z]/g, '');
  return COLUMNS.find(([, pattern]) => pattern.test(bare))?.[0];
};
const UNIT = /^m?[VAW]$/;
const SMALL_UNIT = /^(.+)[_ ](m?)([vaw])$/;
/** `Min V` has no name but its unit. */
const partsOf = (head: string): { readonly key: string | undefined; readonly unit: string } => {
  const small = SMALL_UNIT.exec(head);
  const { name, unit } = small
    ? { name: small[1] ?? '', unit: `${small[2]}${(small[3] ?? '').toUpperCase()}` }
    : headerParts(head);
  return UNIT.test(unit) && keyOf(name) ? { key: keyOf(name), unit } : { key: keyOf(head), unit: '' };
};
const RANGE = /^\s*([\d.,]+)\s*(?:V\s*)?(?:–|-|~|to|bis|…|\.\.)\s*([\d.,]+)\s*(?:V\s*)?$/i;

/** Whether text begins with the heads of a table of offers: a kind, or volts and amps, and no number yet. */
export function isOfferTable(text: string): boolean {
  const first = text.split(/\r?\n/).find((line) => line.trim() !== '') ?? '';
  if (/\d/.test(first) || !/[,;\t|]/.test(first)) return false;
  const keys = first.split(/[,;\t|]/).map((cell) => partsOf(cell.replaceAll('"', '').trim()).key);
  return keys.includes('kind') || keys.includes('word') || (keys.includes('volts') && keys.includes('amps'));
}

export interface OfferRow {
  readonly cells: Readonly<Record<string, string>>;
  readonly line: number;
}

/** One offer under names of our own, with its units in its values. */
export function offerCells(cells: Readonly<Record<string, unknown>>): Readonly<Record<string, string>> {
  const known = Object.entries(cells).flatMap(([head, cell]) => {
    const { key, unit } = partsOf(head.replaceAll('"', '').trim());
    const bare = typeof cell === 'string' || typeof cell === 'number' ? String(cell).trim() : '';
    if (key === undefined || bare === '' || /^[-–—]+$/.test(bare)) return [];
    const own = (value: string) => (unit === '' || /[a-z]$/i.test(value) ? value : `${value} ${unit}`);
    const [, low, high] = key === 'volts' ? (RANGE.exec(bare) ?? []) : [];
    return low !== undefined && high !== undefined
      ? [['min_volts', own(low)] as const, ['max_volts', own(high)] as const]
      : [[key, own(bare)] as const];
  });
  return Object.fromEntries(known);
}

/** Rows of a table of offers, see {@link offerCells}, each with its line. */
export const offerRows = (text: string): readonly OfferRow[] =>
  headedRows(text, (head) => head).rows.map(({ cells, line }) => ({ cells: offerCells(cells), line }));
