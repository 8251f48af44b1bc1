// Mean and standard deviation in one pass.

/** Running mean and spread after Welford (1962), stable for long files of nearly equal numbers. */
export class Running {
  count = 0;
  mean = 0;
  private squares = 0;

  add(value: number): void {
    this.count += 1;
    const before = value - this.mean;
    this.mean += before / this.count;
    this.squares += before * (value - this.mean);
  }

  /** Standard deviation of one value, n − 1; 0 for fewer than two. */
  get spread(): number {
    return this.count > 1 ? Math.sqrt(this.squares / (this.count - 1)) : 0;
  }
}
