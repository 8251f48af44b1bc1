// Runs at the door: their uncertainty, and what is refused with a sentence.

import { formatPlain, parseCelsius, ROOM_RANGE, SURFACE_RANGE, ZERO_CELSIUS } from '../quantity/index.ts';
import { type Instrument, lineRefusal, type Rig, readAt } from '../reading/index.ts';
import type { Device, Run } from '../run/index.ts';
import { isStated, type Measured, product, standardUncertainty, sum } from '../uncertainty/index.ts';

type WithoutU<T> = T extends Run ? Omit<T, 'u'> : never;
/** A run before its uncertainty is known. */
export type NewRun = WithoutU<Run>;

/** Volts × amps at the port by the rig's meters, W. */
const outputAt = (volts: number, amps: number, rig: Rig, instruments: readonly Instrument[]): Measured =>
  product(
    readAt(volts, 'voltage', rig.outputPlace, rig, instruments),
    readAt(amps, 'current', rig.outputPlace, rig, instruments),
  );

const known = (of: Measured): number | null => (isStated(of) ? standardUncertainty(of) : null);

/** Standard uncertainty of the power of a run, W; 0 for a kind that has none, null where an accuracy is not stated. */
export function runUncertainty(run: NewRun, rig: Rig, instruments: readonly Instrument[]): number | null {
  if (run.kind === 'hold') {
    const drawn = [run, ...run.others].map(({ volts, amps }) => outputAt(volts, amps, rig, instruments));
    return known(sum(drawn, rig.id));
  }
  if (run.kind !== 'device') return 0;
  if (run.place === 'mains') return known(readAt(run.watts, 'power', 'mains', rig, instruments));
  const volts = run.volts ?? 0;
  return volts > 0 ? known(outputAt(volts, run.watts / volts, rig, instruments)) : null;
}

/** Steps of a search from the rating up: rated × (1 + k·step), to half as much again. */
export function overSteps(rated: number, step: number): readonly number[] {
  if (!(rated > 0) || !(step > 0)) throw new RangeError('Rating and step are above zero.');
  const count = Math.min(40, Math.floor(0.5 / step + 1e-9) + 1);
  return Array.from({ length: count }, (_, index) => Number((rated * (1 + index * step)).toFixed(3)));
}

interface Situation {
  readonly rig: Rig;
  readonly devices: readonly Pick<Device, 'id' | 'ceilings'>[];
  readonly overRating: { readonly on: boolean; readonly step: number; readonly seconds: number };
}

function overRefusal(run: NewRun & { kind: 'over' }, { overRating }: Situation): string | null {
  if (!overRating.on) return 'Searches over the rating are off. Turn them on at Rules first.';
  if (run.attached === 'device')
    return 'A real device is attached: never go over the rating with one. Take it off and use an electronic load.';
  const long = run.steps.find(({ seconds }) => seconds > overRating.seconds * 2);
  if (long)
    return `${formatPlain(long.asked, 'current')} was held ${formatPlain(long.seconds, 'duration', 's')}; a step over the rating lasts ${formatPlain(overRating.seconds, 'duration', 's')}.`;
  const descending = run.steps.findIndex(
    (step, index) => index > 0 && step.asked <= (run.steps[index - 1]?.asked ?? 0),
  );
  if (descending > 0) return `Step ${descending + 1} does not ask for more than the one before it.`;
  return null;
}

function temperatureRefusal(
  kelvin: number | null,
  range: typeof ROOM_RANGE | typeof SURFACE_RANGE,
  what: string,
): string | null {
  if (kelvin === null) return null;
  const parsed = parseCelsius(`${kelvin - ZERO_CELSIUS}`, range, what);
  return parsed.ok ? null : parsed.reason;
}

function splitRefusal(run: NewRun & { kind: 'split' }, { rig: { elements }, devices }: Situation): string | null {
  const twice = run.order.find((port, index) => run.order.indexOf(port) !== index);
  if (twice) return `${twice} is named twice in the order.`;
  if (run.order[0] !== run.port) return 'The run stands on the port plugged in first.';
  const stray = [...run.shares.map(({ port }) => port), ...run.drops.map(({ port }) => port)].find(
    (port) => !run.order.includes(port),
  );
  if (stray) return `${stray} was not plugged in.`;
  const half = run.shares.find(({ volts, amps }) => (volts === null) !== (amps === null));
  if (half)
    return `${half.port} has ${half.volts === null ? 'amps without volts' : 'volts without amps'}: power needs both.`;
  const named = run.shares.flatMap(({ port, device }) => (device ? [{ port, ...device }] : []));
  const gone = named.find(({ deviceId }) => !devices.some(({ id }) => id === deviceId));
  if (gone) return `The device on ${gone.port} is not on the bench any more.`;
  const double = named.find(({ deviceId }, index) => named.findIndex((one) => one.deviceId === deviceId) !== index);
  if (double)
    return `One device cannot be on ${named.find((one) => one.deviceId === double.deviceId)?.port} and ${double.port} at once.`;
  if (named.length > 0 && run.evidence === 'load')
    return 'Devices are named, yet electronic loads are said to load it.';
  const output = run.shares.reduce((sum, { volts, amps }) => sum + (volts ?? 0) * (amps ?? 0), 0);
  if (run.mainsWatts !== null && output > run.mainsWatts * 1.02)
    return `Output ${formatPlain(Number(output.toFixed(1)), 'power')} is above input ${formatPlain(run.mainsWatts, 'power')}. Are two swapped?`;
  const self = run.drops.find(({ port, cause }) => port === cause);
  if (self) return `${self.port} cannot interrupt itself.`;
  const still = run.drops.find(({ dropped, seconds }) => !dropped && (seconds ?? 0) > 0);
  if (still) return `${still.port} did not drop, yet a break was timed. Which is it?`;
  return (
    run.shares.flatMap(({ volts, amps }) => (volts && amps ? (lineRefusal(elements, volts, amps) ?? []) : [])).at(0) ??
    null
  );
}

/** Why a run cannot be taken as entered, in a sentence; null when it can. Runs have no way past the rating of the line. */
export function runRefusal(run: NewRun, situation: Situation): string | null {
  if (run.withdrawn) return null;
  if (run.kind === 'over')
    return overRefusal(run, situation) ?? lineRefusal(situation.rig.elements, run.volts, run.rated);
  if (run.kind === 'hold') {
    if (run.end === 'held to the end' && run.held < run.planned - 1)
      return `Held to the end, yet ${formatPlain(run.held, 'duration')} of ${formatPlain(run.planned, 'duration')}. How did it end?`;
    if (run.end !== 'held to the end' && run.held >= run.planned)
      return `It ${run.end} after the planned time was over: then it was held to the end.`;
    if (run.others.some(({ port }) => port === run.port)) return `${run.port} is named twice.`;
    if (run.amps > 0.02 && run.volts === 0) return 'Amps without volts: check the meter.';
    return (
      temperatureRefusal(run.ambient, ROOM_RANGE, 'room') ??
      temperatureRefusal(run.hottest, SURFACE_RANGE, 'hottest spot') ??
      run.others.flatMap(({ volts, amps }) => lineRefusal(situation.rig.elements, volts, amps) ?? []).at(0) ??
      lineRefusal(situation.rig.elements, run.volts, run.amps)
    );
  }
  if (run.kind === 'move') {
    if (run.breaks === 0 && (run.longest ?? 0) > 0) return 'No break, yet a break was timed. How many were there?';
    return lineRefusal(situation.rig.elements, Math.max(run.fromVolts, run.toVolts), run.amps);
  }
  if (run.kind === 'split') return splitRefusal(run, situation);
  if (!situation.devices.some(({ id }) => id === run.deviceId)) return 'This device is not on the bench any more.';
  if (run.place === 'port' && (run.volts === null || run.volts <= 0))
    return 'A power read at the port has its voltage beside it.';
  if (run.outcome === 'not charging' && run.watts > 1 && run.place === 'port')
    return `Not charging, yet ${formatPlain(run.watts, 'power')} flows. Which is it?`;
  return run.volts ? lineRefusal(situation.rig.elements, run.volts, run.watts / run.volts) : null;
}
