// One sample of every eight, without what lies above: a windowed-sinc low pass.

/** So many samples become one. */
export const FACTOR = 8;
/** Highest frequency that is right afterwards, as a part of the new rate. */
export const PASS = 0.4;
const TAPS = 241;
/** Corner between what passes and what would fold onto it, as a part of the old rate. */
const CORNER = 1 / (2 * FACTOR);
/** Kaiser window of 90 dB: A. V. Oppenheim, R. W. Schafer, "Discrete-time signal processing", 7.5.3 */
const BETA = 0.1102 * (90 - 8.7);

function bessel(x: number): number {
  let term = 1;
  let sum = 1;
  for (let k = 1; k < 40; k += 1) {
    term *= (x / (2 * k)) ** 2;
    sum += term;
  }
  return sum;
}

function taps(): Float64Array {
  const middle = (TAPS - 1) / 2;
  const all = Float64Array.from({ length: TAPS }, (_, at) => {
    const away = at - middle;
    const sinc = away === 0 ? 2 * CORNER : Math.sin(2 * Math.PI * CORNER * away) / (Math.PI * away);
    return sinc * (bessel(BETA * Math.sqrt(1 - (away / middle) ** 2)) / bessel(BETA));
  });
  const sum = all.reduce((total, one) => total + one, 0);
  return all.map((one) => one / sum);
}
const FILTER = taps();

/** The samples an eighth as fast; what is too close to either end to be filtered whole is left out. */
export function decimate(values: ArrayLike<number>): Float64Array {
  const count = Math.max(0, Math.floor((values.length - TAPS) / FACTOR) + 1);
  const out = new Float64Array(count);
  let last = 0;
  for (let index = 0; index < count; index += 1) {
    const from = index * FACTOR;
    let sum = 0;
    for (let tap = 0; tap < TAPS; tap += 1) sum += (FILTER[tap] as number) * (values[from + tap] as number);
    // A gap is bridged with what was before: spectra of records with gaps are refused elsewhere.
    if (!Number.isNaN(sum)) last = sum;
    out[index] = last;
  }
  return out;
}
