// What happened in a capture of one event: inrush, a fading output, a dip, a supply lowered and raised.
import type { DipFigures, FadingFigures, InrushFigures, SweepFigures } from './types.ts';

/** Below this a socket counts as empty, V (USB Type-C: vSafe0V). */
export const EMPTY_VOLTS = 0.8;
/** Part of a voltage it may leave before it counts as off. */
const BAND = 0.05;
/** Part of the peak below which a surge counts as over. */
const SURGE_OVER = 0.1;

/** Mean of the first tenth, before anything happens; at least one sample. */
function before(values: Float64Array): number {
  const count = Math.max(1, Math.floor(values.length / 10));
  let sum = 0;
  for (let index = 0; index < count; index += 1) sum += values[index] ?? 0;
  return sum / count;
}

/**
 * Current as the mains are switched on: peak, ∫i²dt and length of the first surge. Which point of the cycle it was
 * switched on at decides the peak, so the highest of several counts.
 * @param interval s between samples
 */
export function inrushFigures(amps: Float64Array, interval: number): InrushFigures {
  let peak = 0;
  let at = 0;
  for (const [index, value] of amps.entries()) {
    if (Math.abs(value) <= peak) continue;
    peak = Math.abs(value);
    at = index;
  }
  let first = at;
  let last = at;
  while (first > 0 && Math.abs(amps[first - 1] ?? 0) > SURGE_OVER * peak) first -= 1;
  while (last < amps.length - 1 && Math.abs(amps[last + 1] ?? 0) > SURGE_OVER * peak) last += 1;
  let squares = 0;
  for (let index = first; index <= last; index += 1) squares += (amps[index] ?? 0) ** 2 * interval;
  const truncated = last >= amps.length - 1 || first === 0;
  const findings = [
    ...(truncated && peak > 0 ? ['The surge touches the edge of the capture: record more before and after.'] : []),
    ...(last - first < 8 ? ['Fewer than eight samples in the surge: sample faster, the peak may be higher.'] : []),
  ];
  return {
    kind: 'inrush',
    peak,
    at: at * interval,
    squareSeconds: squares,
    length: (last - first + 1) * interval,
    findings,
  };
}

/** How an output fades after the mains went off. Time counts from where it leaves 95 % of its voltage. */
export function fadingFigures(volts: Float64Array, interval: number): FadingFigures {
  const from = before(volts);
  const begins = volts.findIndex((value) => value < (1 - BAND) * from);
  const since = (limit: number): number | null => {
    const at = begins < 0 ? -1 : volts.findIndex((value, index) => index >= begins && value < limit);
    return at < 0 ? null : (at - begins) * interval;
  };
  const empty = since(EMPTY_VOLTS);
  const last = volts.at(-1) ?? 0;
  const findings = [
    ...(from < EMPTY_VOLTS ? ['There was no output at the start: nothing faded.'] : []),
    ...(begins < 0 ? ['It never fell: were the mains off?'] : []),
    ...(begins >= 0 && empty === null
      ? [`Still ${last.toFixed(2)} V at the end: it stays charged longer than was recorded.`]
      : []),
  ];
  return { kind: 'fading', from, half: since(from / 2), empty, last, findings };
}

/** What an output did while the supply dipped. */
export function dipFigures(volts: Float64Array, interval: number): DipFigures {
  const from = before(volts);
  let lowest = from;
  let outside = 0;
  for (const value of volts) {
    lowest = Math.min(lowest, value);
    if (Math.abs(value - from) > BAND * from) outside += interval;
  }
  const end = volts.subarray(Math.max(0, volts.length - Math.max(1, Math.floor(volts.length / 20))));
  const recovered = end.length > 0 && end.every((value) => Math.abs(value - from) <= BAND * from);
  const lost = lowest < EMPTY_VOLTS && from >= EMPTY_VOLTS;
  const findings = [
    ...(from < EMPTY_VOLTS ? ['There was no output before the dip.'] : []),
    ...(!recovered && from >= EMPTY_VOLTS
      ? ['It was not back at the end: unplug and plug in again, or record longer.']
      : []),
  ];
  return { kind: 'dip', from, lowest, outside, recovered, lost, findings };
}

/**
 * Where output goes away as the supply is lowered, and where it comes back as it is raised. Half of the output voltage
 * at the start tells on from off.
 */
export function sweepFigures(supply: Float64Array, volts: Float64Array): SweepFigures {
  const from = before(volts);
  let turn = 0;
  for (const [index, value] of supply.entries()) if (value < (supply[turn] ?? Number.POSITIVE_INFINITY)) turn = index;
  const on = (index: number) => (volts[index] ?? 0) > from / 2;
  let gone = -1;
  for (let index = 1; index <= turn && gone < 0; index += 1) if (on(index - 1) && !on(index)) gone = index;
  // At the very bottom it may go as the supply is already rising.
  for (let index = turn + 1; index < volts.length && gone < 0; index += 1)
    if (on(index - 1) && !on(index)) gone = index;
  let back = -1;
  for (let index = Math.max(gone, turn) + 1; gone >= 0 && index < volts.length && back < 0; index += 1)
    if (!on(index - 1) && on(index)) back = index;
  const lowest = supply[turn] ?? 0;
  const findings = [
    ...(gone < 0 ? [`Output stayed down to ${lowest.toFixed(2)} V: the cut-out lies lower.`] : []),
    ...(gone >= 0 && back < 0 ? ['It did not come back as the supply was raised: unplug, or record further up.'] : []),
  ];
  return {
    kind: 'sweep',
    cutOut: gone < 0 ? null : (supply[gone] ?? null),
    restart: back < 0 ? null : (supply[back] ?? null),
    lowest,
    findings,
  };
}
