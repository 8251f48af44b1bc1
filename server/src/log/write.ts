// An entry of the log: what was done, written in the transaction that does it.
import { type Operation, PEOPLE_ROUTES, ROUTES, type Route } from '@lastmark/contract';
import { inArray } from 'drizzle-orm';
import type { Queries } from '../db/database.ts';
import { newId } from '../db/ids.ts';
import { logEntries, logThings, samples } from '../db/schema.ts';
import { type Deed, MOST_THINGS, NOTHING_DONE, type Who } from '../who/who.ts';

const ID = /^[0-9A-HJKMNP-TV-Z]{26}$/;
/** What is never written down, wherever it stands. */
const SECRET = new Set(['password', 'ownPassword', 'code', 'secret', 'token']);
/** Longest text and list that are kept whole; of longer ones their beginning. */
const LONGEST_TEXT = 2000;
const LONGEST_LIST = 40;
/** Longest body that is kept at all, characters. */
const LONGEST_BODY = 60_000;

interface Kept {
  readonly body: string | null;
  readonly whole: boolean;
}

/** What was sent as it may be kept. @example keptOf({ password: 'x' }) // { body: '{}', whole: true } */
export function keptOf(sent: unknown): Kept {
  if (sent === undefined) return { body: null, whole: true };
  let whole = true;
  const shortened = (value: unknown): unknown => {
    if (typeof value === 'string' && value.length > LONGEST_TEXT) {
      whole = false;
      return `${value.slice(0, LONGEST_TEXT)}…`;
    }
    if (Array.isArray(value)) {
      if (value.length > LONGEST_LIST) whole = false;
      return value.slice(0, LONGEST_LIST).map(shortened);
    }
    if (typeof value !== 'object' || value === null) return value;
    return Object.fromEntries(
      Object.entries(value)
        .filter(([key]) => !SECRET.has(key))
        .map(([key, inner]) => [key, shortened(inner)]),
    );
  };
  const body = JSON.stringify(shortened(sent));
  return body.length > LONGEST_BODY ? { body: null, whole: false } : { body, whole };
}

/** Ids of things in what was sent, in their order, each once. */
export function thingsIn(sent: unknown): string[] {
  const found = new Set<string>();
  const waiting: unknown[] = [sent];
  for (let at = 0; at < waiting.length && found.size < MOST_THINGS; at += 1) {
    const value = waiting[at];
    if (typeof value === 'string') {
      if (ID.test(value)) found.add(value);
    } else if (typeof value === 'object' && value !== null) waiting.push(...Object.values(value));
  }
  return [...found];
}

/** Of what is asked about people, only what names nobody: somebody who is to be forgotten must not stand in the chain. */
const NAMES_NOBODY: readonly string[] = ['role', 'disabled', 'days'];

const withoutNames = (body: unknown): unknown =>
  typeof body === 'object' && body !== null
    ? Object.fromEntries(Object.entries(body).filter(([key]) => NAMES_NOBODY.includes(key)))
    : body;

interface Asked {
  readonly who: Who;
  readonly operation: string;
  readonly params: Readonly<Record<string, string>>;
  readonly query: unknown;
  readonly body: unknown;
  /** The sample it is about; null for none. */
  readonly sampleId: string | null;
  readonly request: string | null;
}

/** What is being done by a request: to its last parameter, or to what it makes. */
export function deedOf({ who, operation, params, query, body, sampleId, request }: Asked): Deed {
  const own = Object.values(params);
  const { id } = (typeof body === 'object' && body !== null ? body : {}) as { id?: unknown };
  const { method, path } = ROUTES[operation as Operation] as Route;
  const makes = method === 'post';
  // What there is one of is called as its address is.
  const only = method === 'put' ? path.slice(1, 65) : null;
  const subject = makes && typeof id === 'string' && ID.test(id) ? id : (own.at(-1) ?? only);
  return {
    id: newId(),
    who,
    operation,
    subject,
    sampleId: sampleId !== null && ID.test(sampleId) ? sampleId : null,
    // Half of it cannot be put back.
    ...(operation in PEOPLE_ROUTES ? { ...keptOf(withoutNames(body)), whole: false } : keptOf(body ?? query)),
    things: [...new Set([...own.filter((one) => ID.test(one)), ...thingsIn([body, query])])].slice(0, MOST_THINGS),
    request,
    undoes: null,
  };
}

/** A deed that is no request: of the server by itself, or who came and went. */
export const plainDeed = (who: Who, operation: string, more: Partial<Deed> = {}): Deed => ({
  ...NOTHING_DONE,
  id: newId(),
  who,
  operation,
  ...more,
});

/** What makes a sample, among other things. */
const TAKES_IN: readonly string[] = ['createSample', 'createUnit'];

async function sampleAmong(db: Queries, made: readonly string[]): Promise<string | null> {
  if (made.length === 0) return null;
  const [row] = await db
    .select({ id: samples.id })
    .from(samples)
    .where(inArray(samples.id, [...made]))
    .limit(1);
  return row?.id ?? null;
}

/** Write an entry down; one that is there already stays as it is. @param made ids of what was made by it @param at when it was done */
export async function writeEntry(
  db: Queries,
  deed: Deed,
  made: readonly string[] = [],
  at: Date = new Date(),
): Promise<void> {
  const { id, who, operation, subject, sampleId, body, whole, things, request, undoes } = deed;
  const taken = TAKES_IN.includes(operation) ? await sampleAmong(db, made) : null;
  // What a request without parameters makes is what it is about.
  const about = taken ?? subject ?? made[0] ?? null;
  await db
    .insert(logEntries)
    .ignore()
    .values({
      id,
      at,
      personId: who.id,
      // Of a person only who it is: what they are called stands with them, and goes with them.
      who: who.id === null ? who.name : '',
      through: who.through,
      keyId: who.keyId,
      operation,
      subject: about,
      sampleId: taken ?? sampleId,
      body,
      whole,
      request,
      undoes,
    });
  const all = [...new Set([...things, ...made])].slice(0, MOST_THINGS);
  if (all.length > 0)
    await db
      .insert(logThings)
      .ignore()
      .values(all.map((thingId) => ({ thingId, entryId: id })));
}
