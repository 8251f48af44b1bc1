// The bench's own time: it can run fast, and a test can move it by hand.

export interface Clock {
  /** Seconds since the bench was switched on. */
  readonly now: () => number;
}

/** A clock that follows real time, faster by a factor that can be changed while it runs. */
export class RunningClock implements Clock {
  #speed: number;
  #base = 0;
  #since: number;
  readonly #real: () => number;

  /** @param real real time in s; the process's own by default */
  constructor(speed = 1, real: () => number = () => performance.now() / 1000) {
    this.#speed = speed;
    this.#real = real;
    this.#since = real();
  }

  readonly now = (): number => this.#base + (this.#real() - this.#since) * this.#speed;

  get speed(): number {
    return this.#speed;
  }

  /** Change the speed from now on. @throws RangeError unless above 0 and at most 3600 */
  set speed(to: number) {
    if (!(to > 0 && to <= 3600)) throw new RangeError('The clock runs above 0 and at most 3600 times as fast.');
    this.#base = this.now();
    this.#since = this.#real();
    this.#speed = to;
  }
}

/** A clock that stands until it is moved. */
export class HandClock implements Clock {
  #at = 0;
  readonly now = (): number => this.#at;
  /** Move on by some seconds. */
  advance(seconds: number): void {
    this.#at += seconds;
  }
}
