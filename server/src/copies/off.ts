// Loads off at every other copy of the server: copy to copy, whatever the database does.
import type { LoadsOffAnswer } from '@lastmark/contract';
import type { OffElsewhere } from '../links/loads-off.ts';
import { pause } from '../wait/wait.ts';
import type { Copies, Copy } from './copies.ts';
import type { Peers } from './peers.ts';

/** One that did not answer is told again this often, for so long, ms. */
const AGAIN_MILLISECONDS = 500;
const INSIST_MILLISECONDS = 60_000;
const PATIENCE_MILLISECONDS = 2000;

export class OffAtOthers implements OffElsewhere {
  readonly #copies: Copies;
  readonly #peers: Peers;
  readonly #insisting = new Set<string>();
  #closed = false;

  constructor(copies: Copies, peers: Peers) {
    this.#copies = copies;
    this.#peers = peers;
  }

  /** Tell all at once. @returns what every load said that could be told of in time; of two words about one, the surer */
  readonly press = async (patience: number): Promise<LoadsOffAnswer['items']> => {
    const told = await Promise.all(
      this.#copies.others.map(async (copy) => {
        const answer = await this.#peers.loadsOff(copy, patience);
        if (!answer) void this.#insist(copy);
        return answer?.items ?? [];
      }),
    );
    const items = new Map<string, LoadsOffAnswer['items'][number]>();
    for (const item of told.flat()) if (!items.get(item.instrumentId)?.sure) items.set(item.instrumentId, item);
    return [...items.values()];
  };

  async #insist(copy: Copy): Promise<void> {
    if (this.#insisting.has(copy.owner)) return;
    this.#insisting.add(copy.owner);
    const until = performance.now() + INSIST_MILLISECONDS;
    while (!this.#closed && performance.now() < until) {
      await pause(AGAIN_MILLISECONDS);
      // One that is known to be gone is told no more: its loads have watchdogs, and whoever stands beside it next looks.
      if (!this.#copies.others.some(({ owner }) => owner === copy.owner)) break;
      if (await this.#peers.loadsOff(copy, PATIENCE_MILLISECONDS)) break;
    }
    this.#insisting.delete(copy.owner);
  }

  close(): void {
    this.#closed = true;
  }
}
