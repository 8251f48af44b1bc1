// Who is doing what, wherever in the program it is being done: known from the door of a request to the row it writes.
import { AsyncLocalStorage } from 'node:async_hooks';
import type { Role } from '@lastmark/contract';

/** What lets somebody in. */
export type Through = 'machine' | 'session' | 'token' | 'server';

export interface Who {
  /** Of a person; null for whoever sits at a machine of one person, and for the server by itself. */
  readonly id: string | null;
  readonly name: string;
  readonly role: Role;
  /** From outside the lab. */
  readonly guest?: boolean;
  readonly through: Through;
  /** Of the session or token that lets them in. */
  readonly keyId: string | null;
}

/** Whoever sits at the machine, where people are not told apart. */
export const MACHINE: Who = { id: null, name: 'This machine', role: 'admin', through: 'machine', keyId: null };

/** The server, where nobody asked it to. */
export const SERVER: Who = { id: null, name: 'The server', role: 'admin', through: 'server', keyId: null };

/** Something that is being done, and that is to be written down with what it changes. */
export interface Deed {
  /** Of its entry: written twice, it is there once. */
  readonly id: string;
  readonly who: Who;
  readonly operation: string;
  /** What it is done to, for whoever asks what happened to a thing. */
  readonly subject: string | null;
  readonly sampleId: string | null;
  /** What was sent, as it may be kept: without secrets, and shortened. */
  readonly body: string | null;
  /** Whether `body` is all that was sent. */
  readonly whole: boolean;
  readonly things: readonly string[];
  readonly request: string | null;
  /** The entry it puts back. */
  readonly undoes: string | null;
}

/** Writes an entry to a database or into a transaction on it. @param made ids that were made on the way */
export type WriteDown = (to: never, deed: Deed, made: readonly string[]) => Promise<void>;

/** A deed that is about nothing yet. */
export const NOTHING_DONE: Omit<Deed, 'id' | 'who' | 'operation'> = {
  subject: null,
  sampleId: null,
  body: null,
  whole: true,
  things: [],
  request: null,
  undoes: null,
};

interface Doing {
  readonly deed: Deed;
  readonly write: WriteDown;
  readonly made: string[];
  /** Databases it was committed to, with what it changed there. */
  readonly written: WeakSet<object>;
  /** What was sent had been done before: there is nothing to tell. */
  repeated: boolean;
}

/** Most things one entry is found by. */
export const MOST_THINGS = 400;

const store = new AsyncLocalStorage<Doing>();

/** Do something in somebody's name. @returns what came of it, and in which databases its entry was committed on the way */
export async function inDeed<T>(
  deed: Deed,
  write: WriteDown,
  work: () => Promise<T>,
): Promise<{ readonly result: T; readonly written: WeakSet<object>; readonly made: readonly string[] }> {
  const doing: Doing = { deed, write, made: [], written: new WeakSet(), repeated: false };
  const result = await store.run(doing, work);
  return { result, written: doing.written, made: doing.made };
}

/** What is being done here; undefined where nothing is to be written down. */
export function deedNow(): Deed | undefined {
  const deed = store.getStore()?.deed;
  return deed?.id === '' ? undefined : deed;
}

/** Who does something here and what it is about, also where it goes on by itself; undefined where nobody began it. */
export const doingNow = (): Deed | undefined => store.getStore()?.deed;

/** Who writes a row: a person's id, null where people are not told apart. */
export const authorNow = (): string | null => store.getStore()?.deed.who.id ?? null;

/** What goes on by itself is about. */
export type About = Partial<Pick<Deed, 'subject' | 'sampleId'>>;

/**
 * Do something that goes on by itself, in the name of who began it: rows have that author, and what it does tells
 * of itself where it is worth an entry.
 */
export function inNameOf<T>(author: string | null, work: () => T, about: About = {}): T {
  const who: Who = { ...MACHINE, id: author, role: 'reader', through: 'server' };
  const deed: Deed = { ...NOTHING_DONE, ...about, id: '', who, operation: '' };
  const doing: Doing = { deed, write: async () => undefined, made: [], written: new WeakSet(), repeated: false };
  return store.run(doing, work);
}

/** An id was made: whatever is done now made the thing it names. */
export function wasMade(id: string): void {
  const doing = store.getStore();
  if (doing && doing.made.length < MOST_THINGS && id !== doing.deed.id) doing.made.push(id);
}

/** It was sent before, and was done then: nothing changes now, and nothing is written down twice. */
export function wasRepeated(): void {
  const doing = store.getStore();
  if (doing) doing.repeated = true;
}

/** A transaction begins, maybe anew: whether it repeats something is found again. */
export function beginsAnew(): void {
  const doing = store.getStore();
  if (doing) doing.repeated = false;
}

/**
 * Write what is being done into the transaction that does it, before its commit.
 * @returns what to call once it is committed; null where there was nothing to write
 */
export async function writeDownWith(tx: object, database: object): Promise<(() => void) | null> {
  const doing = store.getStore();
  if (!doing || doing.written.has(database)) return null;
  if (!doing.repeated) await doing.write(tx as never, doing.deed, doing.made);
  return () => doing.written.add(database);
}
