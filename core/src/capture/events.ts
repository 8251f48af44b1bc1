// What happened in a capture of one event: inrush, a fading output, a dip, a supply lowered and raised.

import { clipped, clippedSays } from '../trace/clipping.ts';
import { inrushAccuracy, type ScopeSpecs } from './accuracy.ts';
import { BAND, beforeSays, levelBefore } from './level.ts';
import type { DipFigures, FadingFigures, InrushFigures, SweepFigures, Within } from './types.ts';

/** Below this a socket counts as empty, V (USB Type-C: vSafe0V). */
export const EMPTY_VOLTS = 0.8;
/** Part of the peak below which a surge counts as over, once it stays there. */
const SURGE_OVER = 0.1;
/** s a surge has to stay small before it is over: a ringing one is small at every zero. */
const QUIET = 1e-3;
/** Samples before the surge that tell what the clamp shows of nothing. */
const LEAST_BEFORE = 16;

const median = (values: Float64Array): number => {
  const sorted = Float64Array.from(values).sort();
  return sorted[Math.floor((sorted.length - 1) / 2)] ?? 0;
};

/** The surge around a peak, from where it first to where it last exceeds a tenth of it without staying small between. */
function surgeAround(amps: Float64Array, peak: number, at: number, quiet: number): [first: number, last: number] {
  const large = (index: number) => Math.abs(amps[index] ?? 0) > SURGE_OVER * peak;
  let first = at;
  for (let index = at; index >= 0 && first - index <= quiet; index -= 1) if (large(index)) first = index;
  let last = at;
  for (let index = at; index < amps.length && index - last <= quiet; index += 1) if (large(index)) last = index;
  return [first, last];
}

function peakOf(amps: Float64Array): [peak: number, at: number] {
  let peak = 0;
  let at = 0;
  for (const [index, value] of amps.entries()) {
    if (Math.abs(value) <= peak) continue;
    peak = Math.abs(value);
    at = index;
  }
  return [peak, at];
}

/**
 * Current as the mains are switched on: peak, ∫i²dt and length of the first surge, ringing included. What the clamp
 * shows before the surge is taken off. Which point of the cycle it was switched on at decides the peak, so the highest of
 * several counts.
 * @param interval s between samples
 * @param specs accuracy of probe and scope
 */
export function inrushFigures(raw: Float64Array, interval: number, specs: ScopeSpecs = {}): InrushFigures {
  const [rawPeak, rawAt] = peakOf(raw);
  const quiet = Math.max(3, Math.ceil(QUIET / interval));
  const [begins] = surgeAround(raw, rawPeak, rawAt, quiet);
  // The rise itself is left out of what was there before it.
  const calm = raw.subarray(0, Math.floor(begins * 0.9));
  const known = calm.length >= LEAST_BEFORE;
  const offset = known ? median(calm) : 0;
  const amps = offset === 0 ? raw : raw.map((value) => value - offset);
  const [peak, at] = peakOf(amps);
  const [first, last] = surgeAround(amps, peak, at, quiet);
  let squares = 0;
  for (let index = first; index <= last; index += 1) squares += (amps[index] ?? 0) ** 2 * interval;
  const truncated = last >= amps.length - 1 || first === 0;
  const findings = [
    ...(clipped(raw) ? [clippedSays('current')] : []),
    ...(truncated && peak > 0 ? ['The surge touches the edge of the capture: record more before and after.'] : []),
    ...(!known && !truncated && peak > 0
      ? ['Too little before the surge to tell what the clamp shows of nothing.']
      : []),
    ...(last - first < 8 ? ['Fewer than eight samples in the surge: sample faster, the peak may be higher.'] : []),
  ];
  const figures = { peak, squareSeconds: squares };
  return {
    kind: 'inrush',
    ...figures,
    at: at * interval,
    length: (last - first + 1) * interval,
    ...(known ? { offset } : {}),
    expanded: inrushAccuracy(figures, specs),
    findings,
  };
}

/** Index of the last sample read up to an index; -1 where none was. */
function readUpTo(values: Float64Array, index: number): number {
  let at = index;
  while (at >= 0 && Number.isNaN(values[at])) at -= 1;
  return at;
}

/**
 * How an output fades after the mains went off. Time counts from where it leaves 95 % of its voltage. What happened
 * while nothing was read (NaN) has no time: it is null, and said between when and when it was.
 */
export function fadingFigures(volts: Float64Array, interval: number): FadingFigures {
  const known = levelBefore(volts);
  const { level: from } = known;
  const begins = volts.findIndex((value, index) => index >= Math.max(0, known.at) && value < (1 - BAND) * from);
  const unseen: string[] = [];
  const time = (index: number): string => `${(index * interval).toFixed(1)} s`;
  const seen = (at: number, what: string): boolean => {
    const before = readUpTo(volts, at - 1);
    if (before === at - 1) return true;
    unseen.push(`It ${what} between ${time(before)} and ${time(at)}, while nothing was read: record it again.`);
    return false;
  };
  const begun = begins <= 0 || seen(begins, 'began to fall');
  const since = (limit: number): number | null => {
    const at = begins < 0 ? -1 : volts.findIndex((value, index) => index >= begins && value < limit);
    if (at < 0 || !begun) return null;
    return at === begins || seen(at, `fell below ${limit.toFixed(2)} V`) ? (at - begins) * interval : null;
  };
  const half = since(from / 2);
  const empty = since(EMPTY_VOLTS);
  const last = volts[readUpTo(volts, volts.length - 1)] ?? 0;
  const findings = [
    ...beforeSays(known),
    ...(from < EMPTY_VOLTS ? ['There was no output at the start: nothing faded.'] : []),
    ...(begins < 0 ? ['It never fell: were the mains off?'] : []),
    ...unseen,
    ...(begins >= 0 && last >= EMPTY_VOLTS
      ? [`Still ${last.toFixed(2)} V at the end: it stays charged longer than was recorded.`]
      : []),
  ];
  return { kind: 'fading', from, half, empty, last, findings };
}

/** What an output did while the supply dipped. */
export function dipFigures(volts: Float64Array, interval: number): DipFigures {
  const known = levelBefore(volts);
  const { level: from } = known;
  let lowest = from;
  let outside = 0;
  for (const value of volts) {
    if (Number.isNaN(value)) continue;
    lowest = Math.min(lowest, value);
    if (Math.abs(value - from) > BAND * from) outside += interval;
  }
  const end = volts.subarray(Math.max(0, volts.length - Math.max(1, Math.floor(volts.length / 20))));
  const told = end.filter((value) => !Number.isNaN(value));
  const recovered = told.length > 0 && told.every((value) => Math.abs(value - from) <= BAND * from);
  const settled = median(told);
  const elsewhere =
    !recovered && settled >= EMPTY_VOLTS && told.every((value) => Math.abs(value - settled) <= BAND * settled);
  const lost = lowest < EMPTY_VOLTS && from >= EMPTY_VOLTS;
  const findings = [
    ...beforeSays(known),
    ...(from < EMPTY_VOLTS ? ['There was no output before the dip.'] : []),
    ...(elsewhere && from >= EMPTY_VOLTS
      ? [`It came back at ${settled.toFixed(2)} V, not at ${from.toFixed(2)} V: another level was agreed on.`]
      : !recovered && from >= EMPTY_VOLTS
        ? ['It was not back at the end: unplug and plug in again, or record longer.']
        : []),
  ];
  return { kind: 'dip', from, lowest, outside, recovered, ...(elsewhere ? { after: settled } : {}), lost, findings };
}

/**
 * Where output goes away as the supply is lowered, and where it comes back as it is raised. Half of the output voltage
 * at the start tells on from off. Where that happened while supply or output was not read (NaN) it has no voltage: it is
 * null, and said between which it was.
 */
export function sweepFigures(supply: Float64Array, volts: Float64Array): SweepFigures {
  const { level: from } = levelBefore(volts);
  const read = Array.from(supply.keys()).filter((index) => !Number.isNaN(supply[index]) && !Number.isNaN(volts[index]));
  const supplied = (at: number): number => supply[read[at] ?? -1] ?? Number.NaN;
  const on = (at: number) => (volts[read[at] ?? -1] ?? 0) > from / 2;
  let turn = 0;
  for (let at = 1; at < read.length; at += 1) if (supplied(at) < supplied(turn)) turn = at;
  // At the very bottom it may go as the supply is already rising.
  const gone = read.findIndex((_, at) => at > 0 && on(at - 1) && !on(at));
  const back = gone < 0 ? -1 : read.findIndex((_, at) => at > Math.max(gone, turn) && !on(at - 1) && on(at));
  /** The voltage something was first seen at, and between which it was where nothing was read before. */
  const level = (at: number): { readonly at: number | null; readonly within?: Within } => {
    if (at < 0) return { at: null };
    if (read[at] === (read[at - 1] ?? 0) + 1) return { at: supplied(at) };
    const [before, after] = [supplied(at - 1), supplied(at)];
    return { at: null, within: { from: Math.min(before, after), to: Math.max(before, after) } };
  };
  const cutOut = level(gone);
  const restart = level(back);
  const unread = ({ within }: { readonly within?: Within }, what: string): string[] =>
    within
      ? [
          `It ${what} between ${within.from.toFixed(2)} and ${within.to.toFixed(2)} V, while nothing was read: record it again.`,
        ]
      : [];
  const lowest = read.length > 0 ? supplied(turn) : 0;
  const findings = [
    ...(gone < 0 ? [`Output stayed down to ${lowest.toFixed(2)} V: the cut-out lies lower.`] : []),
    ...unread(cutOut, 'went away'),
    ...unread(restart, 'came back'),
    ...(gone >= 0 && back < 0 ? ['It did not come back as the supply was raised: unplug, or record further up.'] : []),
  ];
  return {
    kind: 'sweep',
    cutOut: cutOut.at,
    ...(cutOut.within ? { cutOutWithin: cutOut.within } : {}),
    restart: restart.at,
    ...(restart.within ? { restartWithin: restart.within } : {}),
    lowest,
    findings,
  };
}
