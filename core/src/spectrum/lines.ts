// The lines of a signal: what stands out of its noise, with frequency and size, over any number of decades.
import { decimate, FACTOR, PASS } from './decimate.ts';
import { type PowerSpectrum, powerSpectrum } from './power.ts';
import { LOBE, SIDE_LOBES } from './taper.ts';

export interface Line {
  /** Hz */
  readonly hertz: number;
  /** How well the frequency is known, Hz. */
  readonly resolution: number;
  /** Mean square of it, unit². */
  readonly power: number;
  /** Whether it is wider than one frequency would be: a frequency that wanders. */
  readonly spread: boolean;
}

/** Peak to peak of a sine of this mean square. */
export const peakToPeakOf = (power: number): number => 2 * Math.sqrt(2 * power);

/** Segments long enough for fine lines, and many enough that noise stands still. */
const LONGEST_SEGMENT = 65_536;
const WANTED_PARTS = 8;
/** A record of fewer samples is not thinned out further. */
const LEAST_SAMPLES = 16_384;
/** Of the slowest part, what lies below so many bins of short segments is looked at in one long one. */
const LOW_BINS = 24;
/** Chance that noise alone gives a line somewhere. */
const FALSE_ALARM = 0.002;
/** Values a stretch of the spectrum has whose median is the noise there. */
const STRETCH = 128;
const LEAST_STRETCH = 24;
/** Smaller than this part of the strongest line is no line of its own. */
const LEAST_PART = 1e-8;

/** A spectrum and the frequencies it is asked about, Hz. */
export interface Band {
  readonly spectrum: PowerSpectrum;
  readonly low: number;
  readonly high: number;
}

const floorPower = (samples: number): number => 2 ** Math.floor(Math.log2(Math.max(2, samples)));

/**
 * Spectra that together cover everything from the length of the record to half its rate: fine at the bottom, quick at the
 * top.
 */
export function bandsOf(values: ArrayLike<number>, rate: number): readonly Band[] {
  const bands: Band[] = [];
  let level: ArrayLike<number> = values;
  let levelRate = rate;
  let high = rate / 2;
  while (level.length >= FACTOR * LEAST_SAMPLES) {
    const low = (PASS * levelRate) / FACTOR;
    const length = Math.min(LONGEST_SEGMENT, floorPower(level.length / WANTED_PARTS));
    bands.push({ spectrum: powerSpectrum(level, levelRate, length), low, high });
    level = decimate(level);
    levelRate /= FACTOR;
    high = low;
  }
  const short = Math.min(LONGEST_SEGMENT, floorPower(level.length / WANTED_PARTS));
  const split = (LOW_BINS * levelRate) / short;
  if (short >= 8 * LOW_BINS && split < high) {
    bands.push({ spectrum: powerSpectrum(level, levelRate, short), low: split, high });
    high = split;
  }
  if (level.length >= 16) bands.push({ spectrum: powerSpectrum(level, levelRate, level.length), low: 0, high });
  return bands;
}

/** z of a one-sided normal tail; good to 4 digits. M. Abramowitz, I. A. Stegun, 26.2.23 */
function tailQuantile(chance: number): number {
  const t = Math.sqrt(-2 * Math.log(chance));
  return t - (2.515517 + t * (0.802853 + t * 0.010328)) / (1 + t * (1.432788 + t * (0.189269 + t * 0.001308)));
}

/** Mean of so many noise powers that one of them exceeds with this chance, against their true mean. Wilson, Hilferty (1931) */
function exceeded(segments: number, chance: number): number {
  if (segments === 1) return -Math.log(chance);
  const part = 1 / (9 * segments);
  return (1 - part + tailQuantile(chance) * Math.sqrt(part)) ** 3;
}

/** Noise rises towards low frequencies by no more than this power of them: what drifts or settles has the square. */
const STEEPEST = 2;

interface Noise {
  /** Beside every value: the median of its stretch, as a mean. */
  readonly beside: Float64Array;
  /** How many times that it may be: before the middle of the first stretch it goes on as it rose from the second. */
  readonly rise: (bin: number) => number;
}

/** Noise of a spectrum. What drifts or settles rises towards low frequencies, and has no lines there. */
function noiseOf({ power, segments, spacing, resolution }: PowerSpectrum, from: number, to: number): Noise {
  const wide = resolution / spacing;
  const stretch = Math.max(LEAST_STRETCH, Math.min(STRETCH, Math.floor((to - from) / 8))) * Math.ceil(wide);
  const centres: number[] = [];
  const levels: number[] = [];
  const toMean = 1 / (1 - 1 / (9 * segments)) ** 3;
  for (let begin = from; begin < to; begin += stretch) {
    const end = Math.min(to, begin + stretch);
    if (end - begin < stretch / 2 && levels.length > 0) break;
    const sorted = power.slice(begin, end).sort();
    centres.push((begin + end) / 2);
    levels.push((sorted[Math.floor(sorted.length / 2)] ?? 0) * toMean);
  }
  const out = new Float64Array(power.length);
  const [first = 1, second = first] = centres;
  const [level = 0, next = level] = levels;
  const slope =
    level > next && next > 0 && second > first
      ? Math.min(STEEPEST, Math.log(level / next) / Math.log(second / first))
      : 0;
  let at = 0;
  for (let bin = from; bin < to; bin += 1) {
    while (at < centres.length - 2 && bin > (centres[at + 1] as number)) at += 1;
    const left = centres[at] as number;
    const right = centres[at + 1] ?? left;
    const share = right > left ? Math.min(1, Math.max(0, (bin - left) / (right - left))) : 0;
    const a = levels[at] as number;
    out[bin] = a + share * ((levels[at + 1] ?? a) - a);
  }
  return { beside: out, rise: (bin) => (slope > 0 && bin < first ? (first / Math.max(1, bin)) ** slope : 1) };
}

/** Extent of a peak, from its lobe outwards as long as a frequency that wanders goes on. */
function extentOf(power: Float64Array, noise: Float64Array, peak: number, lobe: number, from: number, to: number) {
  const top = power[peak] as number;
  const walk = (step: 1 | -1): number => {
    let at = peak;
    let least = top;
    for (;;) {
      const next = at + step;
      if (next < from || next >= to) return at;
      const value = power[next] as number;
      if (value < least) least = value;
      const away = Math.abs(next - peak);
      // A valley: another line begins.
      if (away > lobe / 2 && value > 4 * least && value > 4 * (noise[next] as number)) return at;
      if (away > lobe && value < Math.max(0.003 * top, 3 * (noise[next] as number))) return at;
      at = next;
    }
  };
  return { low: walk(-1), high: walk(1) };
}

function linesOfBand({ spectrum, low, high }: Band, tests: number, strongest: number): Line[] {
  const { power, spacing, resolution, segments } = spectrum;
  const wide = resolution / spacing;
  const lobe = Math.ceil(LOBE * wide);
  const from = Math.max(Math.ceil(low / spacing), Math.ceil(2 * wide));
  const to = Math.min(power.length, Math.ceil(high / spacing));
  if (to - from < 4) return [];
  // A line on the border of two spectra belongs to the one it has its top in.
  const begin = Math.max(1, from - 2 * lobe);
  const end = Math.min(power.length, to + 2 * lobe);
  const { beside: noise, rise } = noiseOf(spectrum, begin, end);
  const ratio = exceeded(Math.max(1, segments * 0.8), FALSE_ALARM / tests);
  const least = strongest * SIDE_LOBES;
  const found: { peak: number; low: number; high: number; line: Line }[] = [];
  const peaks: number[] = [];
  for (let bin = begin + 1; bin < end - 1; bin += 1) {
    const value = power[bin] as number;
    if (
      value > least &&
      value > ratio * rise(bin) * (noise[bin] as number) &&
      value >= (power[bin - 1] as number) &&
      value > (power[bin + 1] as number)
    )
      peaks.push(bin);
  }
  peaks.sort((a, b) => (power[b] as number) - (power[a] as number));
  for (const peak of peaks) {
    if (found.some((one) => peak >= one.low - lobe / 2 && peak <= one.high + lobe / 2)) continue;
    const extent = extentOf(power, noise, peak, lobe, begin, end);
    let sum = 0;
    let weighed = 0;
    let weights = 0;
    for (let bin = extent.low; bin <= extent.high; bin += 1) {
      const above = Math.max(0, (power[bin] as number) - (noise[bin] as number));
      sum += (power[bin] as number) - (noise[bin] as number);
      weighed += above * bin;
      weights += above;
    }
    const spread = extent.high - extent.low > 2 * lobe + 2 * wide;
    const centre = spread ? weighed / Math.max(weights, Number.MIN_VALUE) : peak + topOf(power, peak);
    const line: Line = {
      hertz: centre * spacing,
      resolution: spread ? ((extent.high - extent.low) * spacing) / 2 : resolution,
      power: Math.max(0, sum),
      spread,
    };
    found.push({ peak, ...extent, line });
  }
  return found.filter(({ peak }) => peak >= from && peak < to).map(({ line }) => line);
}

/** Where between values the top lies: a parabola through the logarithms of three. */
function topOf(power: Float64Array, peak: number): number {
  const [a, b, c] = [peak - 1, peak, peak + 1].map((bin) => Math.log(Math.max(power[bin] ?? 0, 1e-300))) as [
    number,
    number,
    number,
  ];
  const bend = a - 2 * b + c;
  return bend < 0 ? Math.min(0.5, Math.max(-0.5, (a - c) / (2 * bend))) : 0;
}

/**
 * Lines that stand out of the noise, the strongest first. The size of each is right wherever it falls between the values
 * of a spectrum: the power of its whole lobe counts, less the noise under it.
 * @param values evenly spaced
 * @param rate samples a second
 */
export function linesOf(values: ArrayLike<number>, rate: number, bands = bandsOf(values, rate)): readonly Line[] {
  const strongest = Math.max(
    ...bands.map(({ spectrum: { power, spacing, resolution }, low, high }) => {
      let most = 0;
      const from = Math.max(Math.ceil(low / spacing), Math.ceil((2 * resolution) / spacing));
      for (let bin = from; bin < Math.min(power.length, high / spacing); bin += 1)
        most = Math.max(most, power[bin] as number);
      return most;
    }),
    0,
  );
  if (!(strongest > 0)) return [];
  const tests = bands.reduce((sum, { spectrum, low, high }) => sum + (high - low) / spectrum.resolution, 0);
  const all = bands.flatMap((band) => linesOfBand(band, tests, strongest)).sort((a, b) => b.power - a.power);
  const [first] = all;
  return all
    .filter(({ power }) => first && power > LEAST_PART * first.power)
    .filter(
      (line, at) =>
        !all
          .slice(0, at)
          .some((other) => Math.abs(other.hertz - line.hertz) < Math.max(line.resolution, other.resolution) * 2),
    );
}
