// Mains voltage and current over whole cycles: power, power factor, crest, distortion.

import { clipped, clippedSays } from '../trace/clipping.ts';
import { type ScopeSpecs, waveformAccuracy } from './accuracy.ts';
import { crossings, meanOver, type Stretch, weigh } from './cycles.ts';
import type { WaveformFigures } from './types.ts';

/** Harmonics of the current that count: to the 40th (IEC 61000-3-2, 6.2). */
const CURRENT_HARMONICS = 40;
/** Harmonics of the supply that count: to the 13th (10 CFR 430 subpart B, appendix Z). */
const VOLTAGE_HARMONICS = 13;
/** Most cycles worked on: twice the stretch IEC 61000-4-7, 5, takes; more tell nothing new. */
const MOST_CYCLES = 20;
const LEAST_SAMPLES_A_CYCLE = 2 * CURRENT_HARMONICS;

/** Amplitude, rms, of one harmonic over whole cycles. */
function harmonicRms(values: Float64Array, stretch: Stretch, cycles: number, order: number): number {
  const { from, to } = stretch;
  const turn = (2 * Math.PI * cycles * order) / (to - from);
  // One complex product a sample turns the angle on: a sine and a cosine each would take ten times as long.
  const stepCosine = Math.cos(turn);
  const stepSine = Math.sin(turn);
  const first = Math.floor(from);
  let c = Math.cos(turn * (first - from));
  let s = Math.sin(turn * (first - from));
  let cosine = 0;
  let sine = 0;
  weigh(stretch, (index, weight) => {
    const value = weight * (values[index] ?? 0);
    cosine += value * c;
    sine += value * s;
    const next = c * stepCosine - s * stepSine;
    s = s * stepCosine + c * stepSine;
    c = next;
  });
  return (Math.SQRT2 * Math.hypot(cosine, sine)) / (to - from);
}

const distortion = (harmonics: readonly number[], to: number): number => {
  const [fundamental = 0, ...others] = harmonics.slice(0, to);
  return fundamental > 0 ? Math.hypot(...others) / fundamental : 0;
};

/**
 * Figures of mains voltage and current sampled together.
 * P = mean of v·i, PF = P/(Vrms·Irms), crest = peak/rms, THD-I = √ΣI²ₕ/I₁ for h = 2…40 (IEC 61000-3-2, 3.3), all over
 * whole cycles between upward crossings of the voltage, their broken ends included.
 * @param interval s between samples
 * @param specs accuracy of probe and scope
 * @returns figures, or why there are none
 */
export function waveformFigures(
  volts: Float64Array,
  amps: Float64Array,
  interval: number,
  specs: ScopeSpecs = {},
): WaveformFigures | { readonly reason: string } {
  const found = crossings(volts).slice(0, MOST_CYCLES + 1);
  const from = found[0];
  const to = found.at(-1);
  const cycles = found.length - 1;
  if (from === undefined || to === undefined || cycles < 1)
    return { reason: 'There is no whole cycle of the mains in it. Record two cycles or more.' };
  const hertz = cycles / ((to - from) * interval);
  const perCycle = (to - from) / cycles;
  if (perCycle < LEAST_SAMPLES_A_CYCLE)
    return {
      reason: `${perCycle.toFixed(0)} samples a cycle; the 40th harmonic needs ${LEAST_SAMPLES_A_CYCLE} or more. Sample faster.`,
    };
  const stretch = { from, to };
  let voltPeak = 0;
  let ampPeak = 0;
  for (let index = Math.ceil(from); index <= Math.floor(to); index += 1) {
    voltPeak = Math.max(voltPeak, Math.abs(volts[index] ?? 0));
    ampPeak = Math.max(ampPeak, Math.abs(amps[index] ?? 0));
  }
  const watts = meanOver(stretch, (index) => (volts[index] ?? 0) * (amps[index] ?? 0));
  const rmsVolts = Math.sqrt(meanOver(stretch, (index) => (volts[index] ?? 0) ** 2));
  const rmsAmps = Math.sqrt(meanOver(stretch, (index) => (amps[index] ?? 0) ** 2));
  const orders = Array.from({ length: CURRENT_HARMONICS }, (_, index) => index + 1);
  const harmonics = orders.map((order) => harmonicRms(amps, stretch, cycles, order));
  const ofVoltage = orders.slice(0, VOLTAGE_HARMONICS).map((order) => harmonicRms(volts, stretch, cycles, order));
  const voltAmps = rmsVolts * rmsAmps;
  const voltageDistortion = distortion(ofVoltage, VOLTAGE_HARMONICS);
  const findings = [
    ...(clipped(volts) ? [clippedSays('voltage')] : []),
    ...(clipped(amps) ? [clippedSays('current')] : []),
    ...(watts < 0 ? ['Power is negative: the current probe is the wrong way round.'] : []),
    ...(cycles < 5 ? [`Only ${cycles} whole cycle${cycles === 1 ? '' : 's'}: five or more average better.`] : []),
    ...(voltageDistortion > 0.02
      ? [`The supply itself is distorted by ${(voltageDistortion * 100).toFixed(1)} %; 2 % is allowed for a verdict.`]
      : []),
  ];
  const figures: WaveformFigures = {
    kind: 'waveform',
    hertz,
    cycles,
    volts: rmsVolts,
    amps: rmsAmps,
    watts,
    voltAmps,
    powerFactor: voltAmps > 0 ? watts / voltAmps : 0,
    currentCrest: rmsAmps > 0 ? ampPeak / rmsAmps : 0,
    voltageCrest: rmsVolts > 0 ? voltPeak / rmsVolts : 0,
    currentDistortion: distortion(harmonics, CURRENT_HARMONICS),
    voltageDistortion,
    harmonics,
    findings,
  };
  return { ...figures, expanded: waveformAccuracy(figures, specs) };
}

/** Harmonics of the current as parts of the fundamental, 0…; all 0 without one. */
export function harmonicParts({ harmonics }: Pick<WaveformFigures, 'harmonics'>): readonly number[] {
  const [fundamental = 0] = harmonics;
  return harmonics.map((amps) => (fundamental > 0 ? amps / fundamental : 0));
}
