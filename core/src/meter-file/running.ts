// Mean and standard deviation in one pass.

/** Fewer values than this show no course. */
const LEAST_COURSE = 10;

/** Running mean, spread and course after Welford (1962), stable for long files of nearly equal numbers. */
export class Running {
  count = 0;
  mean = 0;
  private squares = 0;

  add(value: number): void {
    this.count += 1;
    const before = value - this.mean;
    this.mean += before / this.count;
    this.squares += before * (value - this.mean);
    // Σ(i − ī)(x − x̄), kept up to date as both means move: the new value lies (n − 1)/2 after the mean of the order.
    this.times += (before * (this.count - 1)) / 2;
  }

  private times = 0;

  /**
   * How far the values moved from the first to the last by the straight line that fits them best, as a fraction of their
   * mean; null for fewer than ten, which show no course, or about a mean of nothing.
   */
  get drift(): number | null {
    const { count, mean } = this;
    if (count < LEAST_COURSE || !(Math.abs(mean) > 0)) return null;
    // Least squares over the order 0 … n − 1: Σ(i − ī)² = n(n² − 1)/12.
    const slope = (12 * this.times) / (count * (count * count - 1));
    return (slope * (count - 1)) / mean;
  }

  /** Standard deviation of one value, n − 1; 0 for fewer than two. */
  get spread(): number {
    return this.count > 1 ? Math.sqrt(this.squares / (this.count - 1)) : 0;
  }
}
