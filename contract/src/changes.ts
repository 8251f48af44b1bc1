// What changed between two bodies of a request, field by field, in words and units.
import { formatPlain } from '@lastmark/core/quantity';
import type { LogChange } from './log-types.ts';
import { fieldName, quantityIn } from './words.ts';

const ID = /^[0-9A-HJKMNP-TV-Z]{26}$/;
const LONGEST = 120;
/** Numbers of one field that are told. */
const MOST_NUMBERS = 8;

type Leaves = ReadonlyMap<string, unknown>;

/** Every value of a body by its path; a list of numbers is one value. */
function leavesOf(body: unknown): Leaves {
  const leaves = new Map<string, unknown>();
  const walk = (value: unknown, path: string): void => {
    if (Array.isArray(value) && value.every((one) => typeof one !== 'object' || one === null)) leaves.set(path, value);
    else if (Array.isArray(value)) for (const [at, one] of value.entries()) walk(one, `${path}[${at}]`);
    else if (typeof value === 'object' && value !== null)
      for (const [key, inner] of Object.entries(value)) walk(inner, path === '' ? key : `${path}.${key}`);
    else leaves.set(path, value);
  };
  walk(body, '');
  return leaves;
}

/** A value as people write it; null where there is nothing to be told. */
function told(path: string, value: unknown): string | null {
  if (value === null || value === undefined || value === '') return null;
  if (Array.isArray(value)) {
    const shown = value.slice(0, MOST_NUMBERS).flatMap((one) => told(path, one) ?? []);
    return shown.length === 0 ? null : shown.join(', ') + (value.length > shown.length ? ' …' : '');
  }
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (typeof value === 'number') {
    const quantity = quantityIn(path);
    return quantity ? formatPlain(value, quantity) : String(value);
  }
  const text = String(value);
  return text.length > LONGEST ? `${text.slice(0, LONGEST - 1)}…` : text;
}

const isId = (value: unknown): boolean => typeof value === 'string' && ID.test(value);
const areIds = (value: unknown): value is readonly string[] =>
  Array.isArray(value) && value.length > 0 && value.every(isId);

/** Ids are names only machines use: that one changed is told, not what it is. */
const ANOTHER = 'another one';

/** Of a list of them it is told how many there are. */
const howMany = (value: unknown): string | null => {
  const count = Array.isArray(value) ? value.length : Number(Boolean(value));
  return count === 0 ? null : count === 1 ? 'one' : String(count);
};

function bothTold(path: string, one: unknown, other: unknown): [string | null, string | null] {
  if (![one, other].some((value) => isId(value) || areIds(value))) return [told(path, one), told(path, other)];
  const [was, is] = [howMany(one), howMany(other)];
  if (was !== is) return [was, is];
  return [was, is === 'one' ? ANOTHER : `${is} others`];
}

/**
 * What is different in a body.
 * @param was the body before; null for something new, of which everything but its ids is told
 * @example changesBetween({ mass: 0.082 }, { mass: 0.085 }) // [{ field: 'Mass', was: '82 g', is: '85 g' }]
 */
export function changesBetween(was: unknown, is: unknown): LogChange[] {
  const [before, after] = [leavesOf(was ?? {}), leavesOf(is ?? {})];
  const changes: LogChange[] = [];
  for (const path of new Set([...before.keys(), ...after.keys()])) {
    const [one, other] = [before.get(path), after.get(path)];
    if (JSON.stringify(one ?? null) === JSON.stringify(other ?? null)) continue;
    if (was === null && isId(other)) continue;
    const [wasTold, isTold] = bothTold(path, one, other);
    if (wasTold !== isTold) changes.push({ field: fieldName(path), was: wasTold, is: isTold });
  }
  return changes;
}
