// Commands the server sends to instruments while it carries something out: entries of the log, some lines each.
import type { StoredInstrument } from '@lastmark/contract';
import { doingNow, SERVER, type Who } from '../who/who.ts';
import type { Journal } from './journal.ts';
import { keptOf, plainDeed } from './write.ts';

/** How long lines are gathered, ms; what only says the same again is gathered ever longer, up to the second. */
const GATHER_MILLISECONDS = 2000;
const LONGEST_MILLISECONDS = 64_000;
/** Most lines of one entry: as many as the log keeps of a list. */
const MOST_LINES = 40;
/** Operations whose own entry says what was sent. */
const SAYS_ITSELF: readonly string[] = ['sendCommand'];

/** One line that was sent, or the same one several times on end. */
interface Sent {
  readonly at: string;
  readonly to: string;
  readonly line: string;
  times: number;
}

interface Batch {
  readonly who: Who;
  readonly subject: string | null;
  readonly sampleId: string | null;
  readonly request: string | null;
  readonly instruments: Set<string>;
  readonly sent: Sent[];
  readonly timer: NodeJS.Timeout;
}

/** What the lines of an entry say, one after the other. @param body as it was kept */
export function sentIn(body: unknown): readonly { readonly to: string; readonly says: string }[] {
  const { sent = [] } = (body ?? {}) as { sent?: readonly Sent[] };
  return sent.map(({ to, line, times }) => ({ to, says: times > 1 ? `${line}, ${times} times` : line }));
}

const wordsOf = ({ sent }: Pick<Batch, 'sent'>): string => JSON.stringify(sent.map(({ to, line }) => [to, line]));

export class CommandLog {
  readonly #journal: Pick<Journal, 'keep'>;
  readonly #batches = new Map<string, Batch>();
  /** What was said last for the same, and how long it was gathered. */
  readonly #before = new Map<string, { readonly words: string; readonly gathered: number }>();

  constructor(journal: Pick<Journal, 'keep'>) {
    this.#journal = journal;
  }

  /** A line that asks nothing went to an instrument. Never waits. */
  take({ id, name }: Pick<StoredInstrument, 'id' | 'name'>, line: string): void {
    const doing = doingNow();
    if (doing && SAYS_ITSELF.includes(doing.operation)) return;
    const { who, subject = null, sampleId = null, request = null } = doing ?? { who: SERVER };
    const key = JSON.stringify([who.id, who.through, subject, request]);
    const batch = this.#batches.get(key) ?? this.#begin(key, { who, subject, sampleId, request });
    batch.instruments.add(id);
    const last = batch.sent.at(-1);
    if (last?.to === name && last.line === line) last.times += 1;
    else batch.sent.push({ at: new Date().toISOString(), to: name, line, times: 1 });
    if (batch.sent.length >= MOST_LINES) void this.#write(key);
  }

  #begin(key: string, about: Pick<Batch, 'who' | 'subject' | 'sampleId' | 'request'>): Batch {
    const gather = this.#before.get(key)?.gathered ?? GATHER_MILLISECONDS;
    const timer = setTimeout(() => void this.#write(key), gather).unref();
    const batch: Batch = { ...about, instruments: new Set(), sent: [], timer };
    this.#batches.set(key, batch);
    return batch;
  }

  async #write(key: string): Promise<void> {
    const batch = this.#batches.get(key);
    if (!batch) return;
    clearTimeout(batch.timer);
    this.#batches.delete(key);
    const words = wordsOf(batch);
    const before = this.#before.get(key);
    // A load that does not answer is told to go off for hours: that is one thing, told ever more seldom.
    const again = before?.words === words;
    const gathered = again ? Math.min(before.gathered * 2, LONGEST_MILLISECONDS) : GATHER_MILLISECONDS;
    this.#before.delete(key);
    this.#before.set(key, { words, gathered });
    for (const [old] of [...this.#before].slice(0, Math.max(0, this.#before.size - MOST_LINES)))
      this.#before.delete(old);
    const { who, subject, sampleId, request, instruments, sent } = batch;
    const things = [...(subject === null ? [] : [subject]), ...instruments];
    const deed = plainDeed(who, 'command', { subject, sampleId, request, things, ...keptOf({ sent }) });
    await this.#journal.keep(deed);
  }

  /** Write what is gathered. */
  async close(): Promise<void> {
    await Promise.all([...this.#batches.keys()].map((key) => this.#write(key)));
  }
}
