// The loads behind the ports of the simulated bench, and when the next thing happens to them.
import { type SourceObject, voltsOf } from '@lastmark/core/pd';
import type { Battery } from './battery.ts';
import type { ChargerTruth } from './truth.ts';

/** The load behind one port: a sink that asks for a level, and a current. */
export interface Sink {
  plugged: boolean;
  /** Level asked for: position in the list and, for ranges, volts. */
  wanted: { readonly position: number; readonly volts: number | null };
  /** What was agreed. */
  agreed: { readonly position: number; readonly volts: number } | null;
  /** A */
  amps: number;
  on: boolean;
  /** VBUS is gone until this moment, s. */
  goneUntil: number;
  /** Cut off by overload: until when; infinite until unplugged. */
  offUntil: number;
  /** A device in the place of the load; null for none. */
  battery: Battery | null;
  /** Its meter shows what it showed at this moment, until it is plugged anew; null for one that moves. */
  hung: { readonly volts: number; readonly amps: number } | null;
  /** Since when more than the peak power was drawn, s; null while it is not. */
  peakSince: number | null;
}

/** Nothing plugged in yet: 5 V is agreed first. */
export const freshSink = (): Sink => ({
  plugged: false,
  wanted: { position: 1, volts: null },
  agreed: null,
  amps: 0,
  on: false,
  goneUntil: 0,
  offUntil: 0,
  battery: null,
  hung: null,
  peakSince: null,
});

/** What is agreed: what is wanted where it is offered, else the first level. @param refuses positions the charger takes back */
export function agreement(
  offers: readonly SourceObject[],
  { position, volts }: Sink['wanted'],
  refuses: readonly number[],
): NonNullable<Sink['agreed']> {
  const wanted = offers[position - 1];
  const range = wanted && voltsOf(wanted);
  if (range && !refuses.includes(position)) {
    const at = volts ?? range.high;
    if (at >= range.low - 1e-9 && at <= range.high + 1e-9) return { position, volts: at };
  }
  const five = offers[0];
  return { position: 1, volts: five?.kind === 'fixed' ? five.volts : 5 };
}

/** The next moment after one at which a gap, a cut-off, a peak or an idle burst begins or ends, s. */
export function nextMoment(sinks: readonly Sink[], { peak, idle }: ChargerTruth, at: number): number {
  const moments = sinks.flatMap(({ goneUntil, offUntil, peakSince }) => [
    goneUntil,
    offUntil,
    ...(peak && peakSince !== null ? [peakSince + peak.seconds] : []),
  ]);
  const phase = at % idle.period;
  moments.push(at + (phase < idle.length ? idle.length - phase : idle.period - phase));
  return Math.min(Number.POSITIVE_INFINITY, ...moments.filter((moment) => moment > at + 1e-9));
}
