// Ids a request may leave out: made here, and the same again for the same key, so that what is sent twice counts once.
import { createHash } from 'node:crypto';
import type { Route } from '@lastmark/contract';
import { encodeTime } from 'ulid';
import { newId } from '../db/ids.ts';

const SIGNS = '0123456789ABCDEFGHJKMNPQRSTVWXYZ';
/** Characters of an id after its time: 80 bits. */
const REST = 16;

type Thing = Record<string, unknown>;
const isThing = (value: unknown): value is Thing =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** An id that follows from a key and the place of its field: the moment of what it names, then their digest. */
function idFor(key: string, place: string, moment: number): string {
  const digest = createHash('sha256').update(`${key}\n${place}`).digest();
  const rest = Array.from({ length: REST }, (_, index) => SIGNS[(digest[index] ?? 0) & 31]).join('');
  return encodeTime(moment, 10) + rest;
}

/**
 * Fill in the ids a body lacks, wherever its route has some.
 * @param key of the request: the same key and body give the same ids; null makes fresh ones
 * @param now ms, where the body names no moment of its own; for a key the one it was first sent at
 */
export function withIds({ ids = [] }: Pick<Route, 'ids'>, body: unknown, key: string | null, now: number): unknown {
  if (ids.length === 0 || !isThing(body)) return body;
  const fill = (thing: Thing, path: readonly string[], place: string, moment: number): Thing => {
    const own = Date.parse(String(thing.takenAt));
    const at = Number.isFinite(own) && own > 0 ? own : moment;
    const [name = '', ...rest] = path;
    if (name === 'id') {
      if (thing.id !== undefined && thing.id !== null) return thing;
      return { ...thing, id: key === null ? newId() : idFor(key, place, at) };
    }
    const inner = thing[name.replace('[]', '')];
    const into = (one: unknown, index: string) =>
      isThing(one) ? fill(one, rest, `${place}.${name}${index}`, at) : one;
    if (name.endsWith('[]'))
      return Array.isArray(inner)
        ? { ...thing, [name.slice(0, -2)]: inner.map((one, at) => into(one, String(at))) }
        : thing;
    return isThing(inner) ? { ...thing, [name]: into(inner, '') } : thing;
  };
  return ids.reduce<Thing>((filled, path) => fill(filled, path.split('.'), '', now), body);
}
