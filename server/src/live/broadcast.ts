// What is told of instruments, to whoever listens: to runs at once, to pages some at a time.
import type { LiveEvent } from '@lastmark/contract';

/** Events kept for a browser that comes back, as they are sent: half a minute of eight instruments, less than a megabyte. */
const KEPT_EVENTS = 2400;
/** Pages are told this often, ms: one write for many events costs hardly more than for one. */
const GATHER_MILLISECONDS = 40;
/** An instrument is told this often to another bench where nobody looks at it, ms. */
const SELDOM_MILLISECONDS = 500;
/** The same where it comes from another bench, which told it seldom already, give or take its way here. */
const SELDOM_AGAIN_MILLISECONDS = 400;

export type Listener = (event: LiveEvent) => void;

/** An event as pages are told it. */
export interface Told {
  readonly event: LiveEvent;
  /** As server-sent event, made once for everyone. */
  readonly text: string;
  /** It is of this bench. */
  readonly own: boolean;
  /** It is also for those who do not look closely: something changed about it, or the last one is a while ago. */
  readonly seldom: boolean;
}

/** Events of a moment. */
export interface Batch {
  readonly told: readonly Told[];
  /** What pages are told that look at nothing elsewhere closely, as it is written. */
  readonly usual: string;
}

type Reader = (batch: Batch) => void;

const batchOf = (told: readonly Told[]): Batch => ({
  told,
  usual: told
    .filter(({ own, seldom }) => own || seldom)
    .map(({ text }) => text)
    .join(''),
});

export class Broadcast {
  readonly #listeners = new Set<Listener>();
  readonly #readers = new Set<Reader>();
  #kept: Told[] = [];
  #due: Told[] = [];
  #timer: NodeJS.Timeout | null = null;
  #next = 1;
  /** Of each instrument, when everyone was told last, and what was wrong with it. */
  readonly #seldom = new Map<string, { readonly at: number; readonly problem: string | null }>();

  get count(): number {
    return this.#listeners.size + this.#readers.size;
  }

  /** What came after an event, where it is still kept. */
  #after(since: number | null): readonly Told[] {
    return since === null ? [] : this.#kept.filter(({ event }) => event.id > since);
  }

  /** Be told each event as it comes, beginning with what came after `since`. @returns how to stop */
  listen(listener: Listener, since: number | null): () => void {
    for (const { event } of this.#after(since)) listener(event);
    this.#listeners.add(listener);
    return () => this.#listeners.delete(listener);
  }

  /** Be told some at a time, beginning with what came after `since`. @returns how to stop */
  follow(reader: Reader, since: number | null): () => void {
    // What is due goes to those who were there: whoever comes now has it from what is kept, or came later.
    this.#flush();
    const missed = this.#after(since);
    if (missed.length > 0) reader(batchOf(missed));
    this.#readers.add(reader);
    return () => this.#readers.delete(reader);
  }

  #isSeldom({ instrumentId, problem }: Omit<LiveEvent, 'id'>, own: boolean): boolean {
    const now = performance.now();
    const last = this.#seldom.get(instrumentId);
    if (last && now - last.at < (own ? SELDOM_MILLISECONDS : SELDOM_AGAIN_MILLISECONDS) && last.problem === problem)
      return false;
    this.#seldom.set(instrumentId, { at: now, problem });
    return true;
  }

  /** Number it in the order of this server, keep it, and tell it. @param own whether it is of this bench */
  send(told: Omit<LiveEvent, 'id'>, own: boolean): void {
    const event: LiveEvent = { ...told, id: this.#next };
    this.#next += 1;
    for (const listener of this.#listeners) listener(event);
    const text = `id: ${event.id}\ndata: ${JSON.stringify(event)}\n\n`;
    const one: Told = { event, text, own, seldom: this.#isSeldom(told, own) };
    this.#kept.push(one);
    if (this.#kept.length > KEPT_EVENTS) this.#kept = this.#kept.slice(-Math.floor(KEPT_EVENTS * 0.9));
    if (this.#readers.size === 0) return;
    this.#due.push(one);
    this.#timer ??= setTimeout(() => this.#flush(), GATHER_MILLISECONDS);
  }

  #flush(): void {
    if (this.#timer) clearTimeout(this.#timer);
    this.#timer = null;
    if (this.#due.length === 0) return;
    const batch = batchOf(this.#due);
    this.#due = [];
    for (const reader of this.#readers) reader(batch);
  }

  clear(): void {
    if (this.#timer) clearTimeout(this.#timer);
    this.#timer = null;
    this.#due = [];
    this.#listeners.clear();
    this.#readers.clear();
  }
}
