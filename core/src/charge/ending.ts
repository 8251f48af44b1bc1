// The end of a charge while it is logged: power that has become steady and low for five minutes, told look by look.

/** Steady and low for so long is an end, s. */
const FLAT_SECONDS = 300;
/** Means of so long are looked at, s. */
const BLOCK_SECONDS = 20;
/** Low: below this part of the highest. */
const LOW = 0.1;
/** Steady: the second half of those minutes is not below this part of the first; of next to nothing it does not matter. */
const STEADY = 0.96;
const NOTHING = 0.01;
/** Power that counts as charging, W; before it there is no end. */
const LEAST_WATTS = 0.25;

/** Remembers no more than it needs: the highest power, and the means since power became low. */
export class EndWatch {
  #top = 0;
  #began: number | null = null;
  #block: { readonly from: number; sum: number; count: number } | null = null;
  /** Means since power became low, of the last five minutes and a little more. */
  #low: { readonly from: number; readonly mean: number }[] = [];
  #ended: number | null = null;
  #last = 0;

  /** Add a look: s on any clock that only rises, and W into the device. What is no number is passed over. */
  take(seconds: number, watts: number): void {
    if (!Number.isFinite(watts) || !Number.isFinite(seconds) || seconds < this.#last) return;
    this.#last = seconds;
    this.#block ??= { from: seconds, sum: 0, count: 0 };
    this.#block.sum += watts;
    this.#block.count += 1;
    if (seconds - this.#block.from < BLOCK_SECONDS) return;
    const mean = this.#block.sum / this.#block.count;
    const { from } = this.#block;
    this.#block = null;
    this.#top = Math.max(this.#top, mean);
    if (this.#top < LEAST_WATTS) return;
    this.#began ??= from;
    if (mean > LOW * this.#top) {
      // It takes power again: that was no end.
      this.#low = [];
      this.#ended = null;
      return;
    }
    this.#low.push({ from, mean });
    while (this.#low.length > 2 && seconds - (this.#low[1] as { from: number }).from >= FLAT_SECONDS) this.#low.shift();
    this.#ended ??= this.#flatSince();
  }

  /** When power began to flow; null before. */
  get began(): number | null {
    return this.#began;
  }

  /** When power became steady and low, once it has been for five minutes; null before. */
  get ended(): number | null {
    return this.#ended;
  }

  #flatSince(): number | null {
    const [first] = this.#low;
    if (!first || this.#last - first.from < FLAT_SECONDS) return null;
    const middle = Math.floor(this.#low.length / 2);
    const meanOf = (part: readonly { readonly mean: number }[]) =>
      part.reduce((sum, { mean }) => sum + mean, 0) / part.length;
    const [before, after] = [meanOf(this.#low.slice(0, middle)), meanOf(this.#low.slice(middle))];
    return after >= STEADY * before || before < NOTHING * this.#top ? first.from : null;
  }
}
