// A spectrum as a picture draws it: the largest line of each of some stretches on a logarithmic scale.
import { bandsOf } from './lines.ts';

/** Equivalent noise bandwidth of the window, bins: makes the top of a line as high as the line is. Harris (1978), table 1 */
const NOISE_BINS = 2.0044;

export interface SpectrumSpot {
  /** Hz */
  readonly x: number;
  /** Peak to peak of a sine that would show so, in the unit of the signal. */
  readonly y: number;
}

/**
 * @param values evenly spaced
 * @param rate samples a second
 * @param buckets stretches of the logarithmic scale
 */
export function spectrumPicture(values: ArrayLike<number>, rate: number, buckets: number): readonly SpectrumSpot[] {
  const bands = bandsOf(values, rate);
  const lowest = Math.min(...bands.map(({ spectrum, low }) => Math.max(low, 2 * spectrum.resolution)));
  const high = rate / 2;
  if (!(lowest > 0) || lowest >= high) return [];
  const perBucket = buckets / Math.log(high / lowest);
  const best = new Map<number, SpectrumSpot>();
  for (const { spectrum, low, high: top } of bands) {
    const { power, spacing, resolution } = spectrum;
    const from = Math.max(1, Math.ceil(Math.max(low, 2 * resolution) / spacing));
    for (let bin = from; bin < Math.min(power.length, top / spacing); bin += 1) {
      const x = bin * spacing;
      const y = 2 * Math.sqrt(2 * (power[bin] as number) * NOISE_BINS * (resolution / spacing));
      const bucket = Math.floor(Math.log(x / lowest) * perBucket);
      if (y > (best.get(bucket)?.y ?? 0)) best.set(bucket, { x, y });
    }
  }
  return [...best.values()].sort((a, b) => a.x - b.x);
}
