// The rig proves itself before a sheet runs: load capacity, meter zero, reference cable, calibration.
import { formatPlain, formatValue, type QuantityId } from '../quantity/index.ts';
import { calibrationOverdue, type Instrument, lineRefusal, type Rig } from '../reading/index.ts';
import { type AccuracySpec, specLimit } from '../uncertainty/index.ts';
import type { Ratings } from './limits.ts';
import { loadOf, outputsOf } from './steps.ts';
import type { SheetStep } from './types.ts';

/** One thing the rig proved or did not. */
export interface RigLine {
  readonly what: string;
  /** `stop` keeps the sheet from running; `know` is said on every result. */
  readonly state: 'good' | 'know' | 'stop';
  readonly says: string;
}

const loaded = (steps: readonly SheetStep[]) =>
  steps.flatMap((step) =>
    step.skip === null && step.by === 'instruments' && loadOf(step) > 0
      ? outputsOf(step).map(({ volts, amps }) => ({ volts, amps: amps * loadOf(step) }))
      : [],
  );

/** Whether the load can take every step of the sheet. @param channels channels it has; null when not known */
export function loadCapacity(
  name: string,
  ratings: Ratings | null | undefined,
  channels: number | null,
  steps: readonly SheetStep[],
): RigLine {
  const what = 'Load capacity';
  const together = steps.reduce((most, step) => Math.max(most, step.skip === null ? outputsOf(step).length : 0), 0);
  if (channels !== null && together > channels)
    return {
      what,
      state: 'stop',
      says: `"${name}" has ${channels} channels; the sheet loads ${together} ports at once.`,
    };
  for (const { volts, amps } of loaded(steps)) {
    const over = (
      [
        [volts, ratings?.volts ?? null, 'voltage'],
        [amps, ratings?.amps ?? null, 'current'],
        [volts * amps, ratings?.watts ?? null, 'power'],
      ] as const
    ).find(([value, rating]) => rating !== null && value > rating);
    if (over)
      return {
        what,
        state: 'stop',
        says: `The sheet asks for ${formatPlain(over[0], over[2])}; "${name}" takes ${formatPlain(over[1] ?? 0, over[2])}.`,
      };
  }
  return ratings
    ? { what, state: 'good', says: `"${name}" takes every step.` }
    : { what, state: 'know', says: `What "${name}" can take is not stated at Bench.` };
}

/** Whether the line may carry every step. */
export function lineCapacity(rig: Rig, steps: readonly SheetStep[]): RigLine {
  const what = 'Line';
  for (const { volts, amps } of loaded(steps)) {
    const refusal = lineRefusal(rig.elements, volts, amps);
    if (refusal) return { what, state: 'stop', says: refusal };
  }
  return { what, state: 'good', says: 'Everything in the line may carry every step.' };
}

/** Whether a meter stands at zero with everything off, within what its maker states. */
export function meterZero(
  name: string,
  quantity: QuantityId,
  shown: number | null,
  spec: AccuracySpec | undefined,
): RigLine {
  const what = `Zero of ${name}`;
  if (shown === null || !Number.isFinite(shown))
    return { what, state: 'stop', says: `It shows no number. Is it on, and is it free?` };
  if (!spec) return { what, state: 'know', says: 'Its accuracy is not stated at Bench.' };
  const allowed = specLimit(spec, 0) + spec.resolution;
  const text = `${formatValue(shown, quantity, 4)} with everything off`;
  return Math.abs(shown) <= allowed * 1.5
    ? { what, state: 'good', says: `${text}.` }
    : {
        what,
        state: 'stop',
        says: `${text}; its maker allows ±${formatValue(allowed, quantity, 4)}. Null it, then repeat.`,
      };
}

/** The stated resistance of the line against the one measured now. @param allowed Ω by the meters' specs */
export function referenceCable(stated: number, found: number | null, allowed: number): RigLine {
  const what = 'Reference cable';
  if (found === null) return { what, state: 'know', says: 'One meter only: the line cannot be measured by itself.' };
  const text = `${formatPlain(Number(found.toPrecision(4)), 'resistance')} measured`;
  if (stated <= 0) return { what, state: 'know', says: `${text}; the rig states none.` };
  return Math.abs(found - stated) <= allowed + 0.15 * stated
    ? { what, state: 'good', says: `${text}, ${formatPlain(stated, 'resistance')} stated.` }
    : {
        what,
        state: 'stop',
        says: `${text}, ${formatPlain(stated, 'resistance')} stated: is it the cable the rig names, and are its contacts clean?`,
      };
}

/** Whether the calibration of every instrument of the rig is good for today. @param today `2026-11-25` */
export function calibrations(instruments: readonly Instrument[], today: string): RigLine {
  const what = 'Calibration';
  const late = instruments
    .filter((one) => calibrationOverdue(one, today))
    .map(({ name, calibrationDue }) => `"${name}" since ${calibrationDue}`);
  return late.length > 0
    ? { what, state: 'know', says: `Overdue: ${late.join(', ')}. Every reading of it says so.` }
    : { what, state: 'good', says: 'None is overdue.' };
}
