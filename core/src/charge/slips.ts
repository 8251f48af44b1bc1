// Slips in a session's log: a meter that hangs, amps without volts, power the other way, a charge that was interrupted.
import type { ChargeRoles, ChargeSeries } from './series.ts';

/** The very same reading for so long is a meter that hangs, s; only where it otherwise moves. */
const HANGS = 300;
const AMPS = 0.1;
const NO_VOLTS = 0.5;
/** Out for this long in the middle is an interruption, s. */
const OUT = 20;

const minutes = (seconds: number): string => `${Number((seconds / 60).toPrecision(3))} min`;

/** The longest run of samples in which nothing changes while current flows. */
function hung({ times, volts, amps, watts }: ChargeRoles): { readonly from: number; readonly seconds: number } | null {
  if (!watts || !volts || !amps) return null;
  let begin = 0;
  let best: { from: number; seconds: number } | null = null;
  let moves = 0;
  for (let at = 1; at < watts.length; at += 1) {
    const same =
      watts[at] === watts[at - 1] &&
      volts.values[at] === volts.values[at - 1] &&
      amps.values[at] === amps.values[at - 1];
    if (same && (watts[at] as number) > 1) continue;
    moves += 1;
    const seconds = (times[at - 1] as number) - (times[begin] as number);
    if (seconds >= HANGS && seconds > (best?.seconds ?? 0)) best = { from: times[begin] as number, seconds };
    begin = at;
  }
  const seconds = (times.at(-1) ?? 0) - (times[begin] as number);
  if (seconds >= HANGS && seconds > (best?.seconds ?? 0) && (watts.at(-1) ?? 0) > 1)
    best = { from: times[begin] as number, seconds };
  // Coarse meters repeat themselves: only one that mostly does not is said to hang.
  return best && moves > 0.5 * watts.length * (1 - best.seconds / Math.max(1, times.at(-1) ?? 1)) ? best : null;
}

/** Stretches without power between two with it. */
function interruptions({ watts, step }: ChargeSeries): readonly { readonly at: number; readonly seconds: number }[] {
  const sorted = Float64Array.from(watts).sort();
  const top = sorted[Math.floor(0.97 * (sorted.length - 1))] ?? 0;
  const isOut = (at: number) => (watts[at] as number) < 0.01 * top;
  const isOn = (at: number) => (watts[at] as number) > 0.3 * top;
  const found: { at: number; seconds: number }[] = [];
  let lastOn = -1;
  let outs = 0;
  for (let at = 0; at < watts.length; at += 1) {
    if (isOut(at)) outs += 1;
    if (!isOn(at)) continue;
    const seconds = outs * step;
    if (lastOn >= 0 && seconds >= OUT && at - lastOn - outs <= 4) found.push({ at: (lastOn + 1) * step, seconds });
    lastOn = at;
    outs = 0;
  }
  return found;
}

/** What is wrong with a log, in sentences. */
export function slipsOf(roles: ChargeRoles, series: ChargeSeries | null): readonly string[] {
  const { volts, amps, times, reversed } = roles;
  const hang = hung(roles);
  let without = 0;
  for (let at = 0; volts && amps && at < times.length; at += 1)
    if (Math.abs(amps.values[at] as number) > AMPS && Math.abs(volts.values[at] as number) < NO_VOLTS) without += 1;
  const breaks = series ? interruptions(series) : [];
  return [
    ...(reversed ? ['Power flows the other way: out of the device, or through a meter that was turned round.'] : []),
    ...(without > 0 ? [`Amps without volts in ${without} samples: check the meter.`] : []),
    ...(hang
      ? [`Not a digit changed for ${minutes(hang.seconds)} from ${minutes(hang.from)}: the meter may have hung.`]
      : []),
    ...breaks.map(({ at, seconds }) => `Power was gone for ${minutes(seconds)} at ${minutes(at)}, and came back.`),
  ];
}
