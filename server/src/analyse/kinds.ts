// What each kind makes of a trace: figures in SI for scripts, and the same in words.
import { type CaptureKind, captureFigures, captureFrom, captureSays } from '@lastmark/core/capture';
import { chargeOf } from '@lastmark/core/charge';
import { EVENT_WORDS, soakOf } from '@lastmark/core/heat';
import { formatPlain } from '@lastmark/core/quantity';
import { hertzWords, LINE_WORDS, rippleChannel, rippleOf } from '@lastmark/core/ripple';
import type { Trace } from '@lastmark/core/trace';
import type { Options } from './options.ts';

export interface Analysis {
  readonly figures: object;
  /** Line by line, for people. */
  readonly says: readonly string[];
}

type Made = Analysis | { readonly reason: string };

const milli = (volts: number): string => `${Number((volts * 1000).toPrecision(4))} mV`;

function ripple(trace: Trace, { channel, mains, bandwidth, envelope }: Options): Made {
  const found = rippleChannel(trace, channel);
  if ('reason' in found) return found;
  const { facts, remarks, interval } = trace;
  const figures = rippleOf(found.values, interval, {
    mains,
    bandwidth: bandwidth ?? facts.bandwidth,
    envelope: envelope || facts.envelope,
    amps: found.amps,
  });
  if ('reason' in figures) return figures;
  const findings = [...figures.findings, ...found.remarks, ...remarks];
  const lines = figures.lines.map(({ hertz, peakToPeak, kind }) => ({ hertz, peakToPeak, kind }));
  const { samples, sampleRate, peakToPeak, peakToPeak9999, rms, mean, drift, steps = [] } = figures;
  return {
    figures: { samples, sampleRate, peakToPeak, peakToPeak9999, rms, mean, drift, lines, steps, findings },
    says: [
      `${milli(peakToPeak)} peak to peak, ${milli(peakToPeak9999 ?? peakToPeak)} of 99.99 % of the samples${rms === null ? '' : `, ${milli(rms)} rms`}.`,
      `${samples} samples at ${hertzWords(sampleRate)}.`,
      ...lines.map(
        (line) => `${hertzWords(line.hertz)}: ${milli(line.peakToPeak)} peak to peak, ${LINE_WORDS[line.kind]}.`,
      ),
      ...findings,
    ],
  };
}

function heat(trace: Trace, { ambient }: Options): Made {
  const figures = soakOf(trace, { ambient });
  if ('reason' in figures) return figures;
  const sensors = figures.sensors.map(({ fit: _fit, from: _from, lasted: _lasted, ...sensor }) => sensor);
  const findings = [...figures.findings, ...trace.remarks];
  const events = figures.events.map(({ kind, at, from, to, temperature, recovered }) => ({
    kind,
    at,
    from,
    to,
    temperature,
    recovered,
  }));
  const celsius = (value: number | null) => (value === null ? '?' : `${value.toFixed(1)} °C`);
  return {
    figures: { ambient: figures.ambient, sensors, events, findings },
    says: [
      ...(figures.ambient === null ? [] : [`Ambient ${celsius(figures.ambient)}.`]),
      ...sensors.map(
        ({ name, steady, steadyInterval: [low, high], atEnd, timeConstants }) =>
          `${name}: ${celsius(atEnd)} at the end, ${steady === null ? 'where to is not told' : `${celsius(steady)} steady`} (${celsius(low)} to ${celsius(high)})${timeConstants.length > 0 ? `, τ ${timeConstants.map((tau) => `${(tau / 60).toFixed(1)} min`).join(' and ')}` : ''}.`,
      ),
      ...events.map(
        ({ kind, at, from, to, temperature }) =>
          `${formatPlain(at, 'duration')}: ${EVENT_WORDS[kind]}, ${from.toFixed(1)} W to ${to.toFixed(1)} W${temperature === null ? '' : ` at ${celsius(temperature)}`}.`,
      ),
      ...findings,
    ],
  };
}

/** A session as a script reads it: SI, energy in Wh. */
function charge(trace: Trace, { start, end }: Options): Made {
  const session = chargeOf(trace, { startLevel: start, end });
  if ('reason' in session) return session;
  const { curve: _curve, ...rest } = session;
  const findings = [...session.findings, ...trace.remarks];
  const time = (seconds: number | null) =>
    seconds === null ? '?' : formatPlain(Math.round(seconds), 'duration', 'min');
  return {
    figures: { ...rest, findings },
    says: [
      `${session.energy === null ? 'Energy not logged' : formatPlain(session.energy * 3600, 'energy', 'Wh')} in ${time(session.duration)}${session.meanWatts === null ? '' : `, ${session.meanWatts.toFixed(1)} W on average`}.`,
      ...session.stages.map(
        ({ from, to, watts, volts, kind }) =>
          `${time(from)} to ${time(to)}: ${kind}, ${watts.toFixed(1)} W${volts === null ? '' : ` at ${volts.toFixed(1)} V`}.`,
      ),
      ...(session.level === null
        ? []
        : [
            `By ${session.level === 'energy' ? 'delivered energy' : session.level === 'log' ? 'the device’s log' : 'typed points'}: 50 % after ${time(session.times[50])}, 80 % after ${time(session.times[80])}, 100 % after ${time(session.times[100])}.`,
          ]),
      ...(session.end === null ? [] : [`Over after ${time(session.end.at)}, by ${ENDED[session.end.by]}.`]),
      ...(session.afterFull === null
        ? []
        : [
            `${session.afterFull.toFixed(2)} W after full: ${session.afterFullYear?.toFixed(1)} kWh a year if left plugged in.`,
          ]),
      ...session.warmest.map(({ name, celsius, at }) => `${name}: warmest ${celsius.toFixed(1)} °C at ${time(at)}.`),
      ...findings,
    ],
  };
}

const ENDED = { device: 'the device’s level', mark: 'your mark', tail: 'a flat tail' } as const;

function capture(kind: CaptureKind, trace: Trace): Made {
  const read = captureFrom(kind, { ok: true, trace });
  if (!read.ok) return read;
  const figures = captureFigures(kind, read.trace);
  if ('reason' in figures) return figures;
  const findings = [...figures.findings, ...read.remarks];
  const { kind: _kind, ...rest } = figures;
  return { figures: { ...rest, findings }, says: [captureSays(figures), ...findings] };
}

/** @returns figures, or why there are none */
export function analyse(trace: Trace, options: Options): Made {
  if (options.kind === 'ripple') return ripple(trace, options);
  if (options.kind === 'heat') return heat(trace, options);
  if (options.kind === 'charge') return charge(trace, options);
  if (options.kind === 'judge') return { reason: 'a package is no recording.' };
  if (options.kind === 'resistance') return { reason: 'drops are a table, not a recording.' };
  return capture(options.kind, trace);
}
