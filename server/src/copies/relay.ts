// Live numbers of other benches: while someone listens here, the copies beside those are listened to.
import type { Copies, Copy } from './copies.ts';
import type { Peers } from './peers.ts';

/** How soon a stream that ended is opened again, and new benches are seen, ms. */
const AGAIN_MILLISECONDS = 1000;

export type Tell = Parameters<Peers['live']>[2];

export class Relay {
  readonly #copies: Copies;
  readonly #peers: Peers;
  readonly #open = new Map<string, AbortController>();
  #timer: NodeJS.Timeout | null = null;
  #look: (() => void) | null = null;
  /** Instruments that are to be told often; ids. */
  #fast: readonly string[] = [];

  constructor(copies: Copies, peers: Peers) {
    this.#copies = copies;
    this.#peers = peers;
  }

  /** Listen from now on. */
  start(tell: Tell): void {
    this.stop();
    const look = () => {
      const wanted = this.#copies.benches;
      for (const copy of wanted) if (!this.#open.has(copy.owner)) this.#listen(copy, tell);
      for (const [owner, control] of this.#open)
        if (!wanted.some((copy) => copy.owner === owner)) {
          control.abort();
          this.#open.delete(owner);
        }
    };
    this.#look = look;
    this.#timer = setInterval(look, AGAIN_MILLISECONDS);
    look();
  }

  /** From now on these are told as often as they are asked. What nobody looks at any more goes on until the last listener leaves. */
  closely(instruments: readonly string[]): void {
    const more = instruments.filter((id) => !this.#fast.includes(id));
    if (more.length === 0) return;
    this.#fast = [...new Set([...this.#fast, ...more])];
    // Those that are listened to are asked anew.
    for (const control of this.#open.values()) control.abort();
    this.#open.clear();
    this.#look?.();
  }

  #listen(copy: Copy, tell: Tell): void {
    const control = new AbortController();
    this.#open.set(copy.owner, control);
    void this.#peers
      .live(copy, this.#fast, tell, control.signal)
      .catch(() => undefined)
      .finally(() => {
        if (this.#open.get(copy.owner) === control) this.#open.delete(copy.owner);
      });
  }

  stop(): void {
    if (this.#timer) clearInterval(this.#timer);
    this.#timer = null;
    this.#look = null;
    this.#fast = [];
    for (const control of this.#open.values()) control.abort();
    this.#open.clear();
  }
}
