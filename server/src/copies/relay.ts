// Live numbers of other benches: while someone listens here, the copies beside those are listened to.
import type { Copies, Copy } from './copies.ts';
import type { Peers } from './peers.ts';

/** How soon a stream that ended is opened again, and new benches are seen, ms. */
const AGAIN_MILLISECONDS = 1000;

export type Tell = Parameters<Peers['live']>[1];

export class Relay {
  readonly #copies: Copies;
  readonly #peers: Peers;
  readonly #open = new Map<string, AbortController>();
  #timer: NodeJS.Timeout | null = null;

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
    this.#timer = setInterval(look, AGAIN_MILLISECONDS);
    look();
  }

  #listen(copy: Copy, tell: Tell): void {
    const control = new AbortController();
    this.#open.set(copy.owner, control);
    void this.#peers
      .live(copy, tell, control.signal)
      .catch(() => undefined)
      .finally(() => {
        if (this.#open.get(copy.owner) === control) this.#open.delete(copy.owner);
      });
  }

  stop(): void {
    if (this.#timer) clearInterval(this.#timer);
    this.#timer = null;
    for (const control of this.#open.values()) control.abort();
    this.#open.clear();
  }
}
