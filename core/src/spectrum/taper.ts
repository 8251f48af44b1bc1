// The window of every spectrum here: four-term Blackman-Harris. Its side lobes are 92 dB down, its main lobe is four bins
// either way. Source: F. J. Harris, "On the use of windows for harmonic analysis", Proc. IEEE 66 (1978), table 1.

const TERMS = [0.35875, 0.48829, 0.14128, 0.01168] as const;
/** Half width of the main lobe, bins. */
export const LOBE = 4;
/** Power of its side lobes against the line, with some room: 85 dB. */
export const SIDE_LOBES = 10 ** -8.5;

const made = new Map<number, { readonly weights: Float64Array; readonly squares: number; readonly sum: number }>();

/** Weights for so many samples, and the sums spectra are scaled with. */
export function blackmanHarris(length: number) {
  const known = made.get(length);
  if (known) return known;
  const weights = new Float64Array(length);
  let squares = 0;
  let sum = 0;
  for (let at = 0; at < length; at += 1) {
    const turn = (2 * Math.PI * at) / length;
    const [a, b, c, d] = TERMS;
    const weight = a - b * Math.cos(turn) + c * Math.cos(2 * turn) - d * Math.cos(3 * turn);
    weights[at] = weight;
    squares += weight * weight;
    sum += weight;
  }
  const one = { weights, squares, sum };
  // A few lengths come again and again; all of them would be too much to keep.
  if (made.size > 8) made.clear();
  made.set(length, one);
  return one;
}
