// Power of a real signal by frequency: averaged over segments that overlap by half. P. D. Welch, IEEE Trans. Audio
// Electroacoust. AU-15 (1967).
import FFT from 'fft.js';
import { blackmanHarris } from './taper.ts';

export interface PowerSpectrum {
  /** Hz from one value to the next; the first is at 0. */
  readonly spacing: number;
  /** Hz two lines must be apart by to be told apart at all: 1/length of a segment. */
  readonly resolution: number;
  /** Power within each spacing, unit²: the sum over a line's lobe is its mean square. */
  readonly power: Float64Array;
  /** Segments averaged. */
  readonly segments: number;
}

/** Segments of one spectrum: more of a very long record tell nothing new. */
const MOST_SEGMENTS = 256;

const powerOfTwo = (least: number): number => 2 ** Math.ceil(Math.log2(Math.max(2, least)));

/**
 * @param values evenly spaced; NaN counts as the mean of its segment
 * @param rate samples a second
 * @param length samples of a segment; the whole of `values` for one single segment
 */
export function powerSpectrum(values: ArrayLike<number>, rate: number, length: number): PowerSpectrum {
  const size = powerOfTwo(length);
  const fft = new FFT(size);
  const { weights, squares, sum } = blackmanHarris(length);
  const half = size / 2;
  const power = new Float64Array(half + 1);
  const segment = new Float64Array(size);
  const out = fft.createComplexArray();
  const available = Math.max(1, Math.floor((values.length - length) / (length / 2)) + 1);
  const segments = Math.min(available, MOST_SEGMENTS);
  const hop = segments > 1 ? (values.length - length) / (segments - 1) : 0;
  for (let index = 0; index < segments; index += 1) {
    const from = Math.round(index * hop);
    let weighed = 0;
    let missing = 0;
    for (let at = 0; at < length; at += 1) {
      const value = values[from + at] as number;
      const weight = weights[at] as number;
      if (!Number.isNaN(value)) weighed += weight * value;
      else missing += weight;
    }
    // The weighted mean goes, so that none of it leaks into the lowest lines.
    const mean = missing < sum ? weighed / (sum - missing) : 0;
    for (let at = 0; at < length; at += 1) {
      const value = values[from + at] as number;
      segment[at] = !Number.isNaN(value) ? (weights[at] as number) * (value - mean) : 0;
    }
    fft.realTransform(out, segment);
    for (let bin = 0; bin <= half; bin += 1) {
      const real = out[2 * bin] as number;
      const imaginary = out[2 * bin + 1] as number;
      power[bin] = (power[bin] as number) + real * real + imaginary * imaginary;
    }
  }
  // One side holds both; a spacing of the spectrum is a part of a bin where it was filled up with zeros.
  const scale = 2 / (segments * squares * size);
  for (let bin = 0; bin <= half; bin += 1) power[bin] = (power[bin] as number) * scale;
  return { spacing: rate / size, resolution: rate / length, power, segments };
}
