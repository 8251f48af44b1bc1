// What is wrong with a field, in the words and units of the people who fill it in.
import { formatPlain, type QuantityId, quantityOf } from '@lastmark/core/quantity';
import type { ValidationError } from 'yup';
import { ONE_OF } from './one-of.ts';
import { WORDS, type Word } from './word-list.ts';

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

/** What the number at a path measures; undefined for one that measures nothing. */
export const quantityIn = (path: string): QuantityId | undefined =>
  wordOf(path.split('.').map((part) => part.replace(ITEM, '$1')))[1];

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
