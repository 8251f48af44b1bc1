// The times of a trace as they come: kept while they might be uneven, and only checked once they have proved even.
import { MANY } from './column.ts';

/** How far a sample may stray from an even spacing, as a fraction of it. */
const JITTER = 0.1;
/** A logger's own jitter, as a fraction of its spacing, that still counts as even: well within a sample. */
const LOGGER_JITTER = 0.35;
/** Fewer times than this tell no pace of a logger. */
const FEW = 20;
const ANCHOR_EVERY = 65_536;

interface Even {
  readonly interval: number;
  readonly tolerance: number;
}

/** The spacing of times that are even within their own resolution; null where they are not. */
function evenOf(times: Float64Array): Even | null {
  const count = times.length;
  const from = times[0] ?? 0;
  const interval = ((times[count - 1] ?? 0) - from) / (count - 1);
  if (!(interval > 0)) return null;
  let least = Number.POSITIVE_INFINITY;
  let most = 0;
  let equal = false;
  for (let at = 1; at < count; at += 1) {
    const step = (times[at] ?? 0) - (times[at - 1] ?? 0);
    if (step <= 0) equal = true;
    else if (step < least) least = step;
    if (step > most) most = step;
  }
  // Times written with few digits repeat, or step by one digit more or less.
  const coarse = equal ? least : Math.min(most - least, LOGGER_JITTER * interval);
  // A few times were written by hand: they are what they are.
  const strays = count < FEW ? 0 : Math.max(JITTER * interval, 1.05 * coarse);
  const tolerance = strays + 1e-9 * interval * count + 1e-15 * Math.abs(from);
  for (let at = 0; at < count; at += 1) if (Math.abs((times[at] ?? 0) - from - at * interval) > tolerance) return null;
  return { interval, tolerance };
}

/** Takes times in order and tells how they are spaced. */
export class Pace {
  #times: Float64Array = new Float64Array(4096);
  #count = 0;
  #first = 0;
  #last = 0;
  #even: (Even & { anchor: number; anchorAt: number }) | null = null;

  /** @returns false for a time before the last one */
  push(time: number): boolean {
    if (this.#count === 0) this.#first = time;
    else if (time < this.#last) return false;
    this.#last = time;
    if (this.#even) this.#check(time);
    else this.#keep(time);
    this.#count += 1;
    return true;
  }

  #keep(time: number): void {
    if (this.#count === this.#times.length) {
      if (this.#count === MANY) {
        const even = evenOf(this.#times);
        if (even) {
          this.#even = { ...even, anchor: this.#last, anchorAt: this.#count };
          this.#times = new Float64Array(0);
          this.#check(time);
          return;
        }
      }
      const larger = new Float64Array(this.#times.length * 2);
      larger.set(this.#times);
      this.#times = larger;
    }
    this.#times[this.#count] = time;
  }

  #check(time: number): void {
    const even = this.#even;
    if (!even) return;
    const steps = this.#count - even.anchorAt;
    if (Math.abs(time - even.anchor - steps * even.interval) > even.tolerance + steps * even.interval * 1e-6) {
      // Uneven after all: what was even so far is written down again.
      const { interval } = even;
      const count = this.#count;
      this.#even = null;
      this.#times = new Float64Array(2 ** Math.ceil(Math.log2(count + 2)));
      for (let at = 0; at < count; at += 1) this.#times[at] = this.#first + at * interval;
      this.#times[count] = time;
      return;
    }
    if (steps < ANCHOR_EVERY) return;
    const interval = (time - this.#first) / this.#count;
    this.#even = { interval, tolerance: even.tolerance, anchor: time, anchorAt: this.#count };
  }

  /**
   * Spacing, s, and the times from the first where they are uneven.
   * @returns null where times do not rise at all
   */
  result(): { readonly first: number; readonly interval: number; readonly times: Float64Array | null } | null {
    const count = this.#count;
    if (count < 2) return { first: this.#first, interval: 0, times: null };
    if (!(this.#last > this.#first)) return null;
    const mean = (this.#last - this.#first) / (count - 1);
    if (this.#even) return { first: this.#first, interval: mean, times: null };
    const own = this.#times.subarray(0, count);
    if (evenOf(own)) return { first: this.#first, interval: mean, times: null };
    const times = own.map((time) => time - this.#first);
    const steps = times.subarray(1).map((time, at) => time - (times[at] ?? 0));
    steps.sort();
    return { first: this.#first, interval: steps[Math.floor(steps.length / 2)] || mean, times };
  }
}
