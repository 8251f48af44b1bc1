// Where a series changes its course: the best cut into straight or decaying pieces, each cut paid for.
// Source: B. Jackson et al., "An algorithm for optimal partitioning of data on an interval", IEEE Signal Proc. Lett. 12 (2005).

export interface Piece {
  /** Index of its first value, and one beyond its last. */
  readonly from: number;
  readonly to: number;
  /** Value of the curve at its first and last value. */
  readonly begins: number;
  readonly ends: number;
}

export interface CutRule {
  /** Standard deviation of what no curve explains. */
  readonly noise: number;
  /** Values a piece has at least. */
  readonly least: number;
}

/** What one more cut costs, in squared noises, times the logarithm of the number of values. */
const PENALTY = 4;
/** Below it a logarithm would count noise as course. */
const LEAST_FOR_DECAY = 4;

/** Sums over the values before each index, so that any piece is fitted in one step. */
class Sums {
  readonly #one: Float64Array;
  readonly #x: Float64Array;
  readonly #xx: Float64Array;
  readonly #y: Float64Array;
  readonly #xy: Float64Array;
  readonly #yy: Float64Array;

  /** @param weights of each value; @param values what is fitted by a straight line over its index */
  constructor(weights: (at: number) => number, values: (at: number) => number, count: number) {
    const fresh = () => new Float64Array(count + 1);
    [this.#one, this.#x, this.#xx, this.#y, this.#xy, this.#yy] = [
      fresh(),
      fresh(),
      fresh(),
      fresh(),
      fresh(),
      fresh(),
    ];
    for (let at = 0; at < count; at += 1) {
      const w = weights(at);
      const y = values(at);
      // About the middle of the record, so that no digits are lost.
      const x = at - count / 2;
      this.#one[at + 1] = (this.#one[at] as number) + w;
      this.#x[at + 1] = (this.#x[at] as number) + w * x;
      this.#xx[at + 1] = (this.#xx[at] as number) + w * x * x;
      this.#y[at + 1] = (this.#y[at] as number) + w * y;
      this.#xy[at + 1] = (this.#xy[at] as number) + w * x * y;
      this.#yy[at + 1] = (this.#yy[at] as number) + w * y * y;
    }
  }

  /** Residual of the best line of a piece, and the line at its ends. */
  line(
    from: number,
    to: number,
    half: number,
  ): { readonly residual: number; readonly begins: number; readonly ends: number } {
    const of = (sums: Float64Array) => (sums[to] as number) - (sums[from] as number);
    const [w, x, xx, y, xy, yy] = [of(this.#one), of(this.#x), of(this.#xx), of(this.#y), of(this.#xy), of(this.#yy)];
    if (!(w > 0)) return { residual: 0, begins: 0, ends: 0 };
    const [mx, my] = [x / w, y / w];
    const sxx = xx - w * mx * mx;
    const sxy = xy - w * mx * my;
    const slope = sxx > 1e-9 * xx ? sxy / sxx : 0;
    const residual = Math.max(0, yy - w * my * my - slope * sxy);
    return { residual, begins: my + slope * (from - half - mx), ends: my + slope * (to - 1 - half - mx) };
  }
}

/**
 * Cut a series into pieces, each a straight line or an exponential decay.
 * @param values without gaps
 * @returns pieces from first to last
 */
export function piecesOf(values: ArrayLike<number>, { noise, least }: CutRule): readonly Piece[] {
  const count = values.length;
  if (count === 0) return [];
  const half = count / 2;
  const straight = new Sums(
    () => 1,
    (at) => values[at] as number,
    count,
  );
  const floor = LEAST_FOR_DECAY * noise;
  // ln P by its line, weighted by P²: the residual is then that of P itself.
  const decaying = new Sums(
    (at) => Math.max(floor, values[at] as number) ** 2,
    (at) => Math.log(Math.max(floor, values[at] as number)),
    count,
  );
  const scale = 1 / noise ** 2;
  const fit = (from: number, to: number) => {
    const line = straight.line(from, to, half);
    const log = decaying.line(from, to, half);
    return log.residual < line.residual && log.ends < log.begins
      ? { residual: log.residual, begins: Math.exp(log.begins), ends: Math.exp(log.ends) }
      : line;
  };
  const penalty = PENALTY * Math.log(Math.max(8, count));
  const best = new Float64Array(count + 1).fill(Number.POSITIVE_INFINITY);
  const cut = new Int32Array(count + 1);
  best[0] = -penalty;
  for (let to = Math.min(least, count); to <= count; to += 1) {
    for (let from = 0; from <= to - Math.min(least, count); from += 1) {
      const before = best[from] as number;
      if (before + penalty >= (best[to] as number)) continue;
      const cost = before + penalty + fit(from, to).residual * scale;
      if (cost < (best[to] as number)) {
        best[to] = cost;
        cut[to] = from;
      }
    }
  }
  const pieces: Piece[] = [];
  for (let to = count; to > 0; to = cut[to] as number) {
    const from = cut[to] as number;
    const { begins, ends } = fit(from, to);
    pieces.unshift({ from, to, begins, ends });
    if (from === 0) break;
  }
  return pieces;
}
