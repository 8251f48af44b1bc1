// What a meter logged while a cable was wiggled: how often it came apart, and for how long.
import { type ChannelQuantity, chosenOf, readTrace, timeAt } from '../trace/index.ts';

/** A trace as it is kept: what it shows, and its outline. */
export interface Wiggle {
  readonly quantity: 'voltage' | 'current';
  /** s from the first to the last sample. */
  readonly seconds: number;
  /** Stretches below half of what flowed while it was whole. */
  readonly interruptions: number;
  /** s of the longest of them; 0 for none. */
  readonly longest: number;
  /** s of the longest stretch in which nothing was logged at all; left out where there is none. */
  readonly silent?: number | undefined;
  /** Least and most of each of up to a hundred even stretches, V or A. */
  readonly outline: readonly { readonly least: number; readonly most: number }[];
}

export interface WiggleSample {
  /** s */
  readonly seconds: number;
  readonly value: number;
}

const STRETCHES = 100;
const LEAST_SAMPLES = 10;
/** Part of the samples the level of a whole cable stands above: it may be apart most of the time. */
const WHOLE_PART = 0.95;
/** An interruption is below this part of that level. */
const APART = 0.5;

/** Nothing was logged where the next sample comes so many times later than usual, and at least so many s. */
const SILENT_TIMES = 5;
const LEAST_SILENT = 0.5;

/** The longest stretch without a sample that is no usual one, s; 0 for none. */
function silenceIn(samples: readonly WiggleSample[]): number {
  const gaps = samples.slice(1).map(({ seconds }, at) => seconds - (samples[at]?.seconds ?? 0));
  const usual = [...gaps].sort((a, b) => a - b)[Math.floor(gaps.length / 2)] ?? 0;
  const longest = gaps.reduce((most, one) => Math.max(most, one), 0);
  return longest > Math.max(SILENT_TIMES * usual, LEAST_SILENT) ? longest : 0;
}

/**
 * How often a trace is interrupted. A stretch counts from its first low sample to the next that is not, or to the end.
 * @param samples in the order of time
 * @returns null for fewer than ten samples, or where nothing flowed
 * @example wiggleOf([…5 V, 5 V, 0 V, 5 V…], 'voltage')?.interruptions // 1
 */
export function wiggleOf(samples: readonly WiggleSample[], quantity: Wiggle['quantity']): Wiggle | null {
  const known = samples.filter(({ seconds, value }) => Number.isFinite(seconds) && Number.isFinite(value));
  const [first, last] = [known[0], known.at(-1)];
  if (!first || !last || known.length < LEAST_SAMPLES || !(last.seconds > first.seconds)) return null;
  const sorted = known.map(({ value }) => value).sort((a, b) => a - b);
  const whole = sorted[Math.floor(WHOLE_PART * (sorted.length - 1))] ?? 0;
  if (!(whole > 0)) return null;
  let interruptions = 0;
  let longest = 0;
  let since: number | null = null;
  for (const { seconds, value } of known) {
    if (value < APART * whole) {
      if (since === null) interruptions += 1;
      since ??= seconds;
    }
    if (since !== null) longest = Math.max(longest, seconds - since);
    if (value >= APART * whole) since = null;
  }
  const span = last.seconds - first.seconds;
  const outline: { least: number; most: number }[] = [];
  let at = -1;
  for (const { seconds, value } of known) {
    const stretch = Math.min(STRETCHES - 1, Math.floor(((seconds - first.seconds) / span) * STRETCHES));
    const now = outline.at(-1);
    if (stretch > at || !now) outline.push({ least: value, most: value });
    else {
      now.least = Math.min(now.least, value);
      now.most = Math.max(now.most, value);
    }
    at = Math.max(at, stretch);
  }
  const silent = silenceIn(known);
  return { quantity, seconds: span, interruptions, longest, ...(silent > 0 ? { silent } : {}), outline };
}

/** `3 interruptions in 12 s, the longest 0.4 s` */
export const wiggleWords = ({ interruptions, longest, seconds, silent = 0 }: Wiggle): string => {
  const inAll = `in ${Number(seconds.toPrecision(3))} s`;
  // A meter that lives on the cable falls silent with it.
  const unlogged =
    silent > 0
      ? `; for ${Number(silent.toPrecision(2))} s on end nothing was logged, as when the meter itself went off`
      : '';
  if (interruptions === 0) return `no interruption ${inAll}${unlogged}`;
  return `${interruptions} ${interruptions === 1 ? 'interruption' : 'interruptions'} ${inAll}, the longest ${Number(longest.toPrecision(2))} s${unlogged}`;
};

/** What a column is called that has no head. */
const HEADLESS = /^column \d+$/;

type Read =
  | { readonly ok: true; readonly wiggle: Wiggle }
  | { readonly ok: false; readonly line: number; readonly reason: string };

/**
 * Read a trace from a table as meters log it: times in any form, and a column of volts or amps; without heads time and
 * volts.
 * @returns the first line that cannot be read, or why it shows nothing
 * @example readWiggle('time_s,volts\n0,5.1\n…')
 */
export function readWiggle(text: string): Read {
  const read = readTrace(text);
  if (!read.ok) return { ok: false, line: read.line ?? 1, reason: read.reason };
  const { trace } = read;
  const of = (quantity: ChannelQuantity) => chosenOf(trace.channels, quantity)?.channel;
  const volts = of('voltage');
  // Without heads the second column is volts; one whose head names neither is nobody's guess.
  const channel = volts ?? of('current') ?? trace.channels.find(({ name }) => HEADLESS.test(name));
  if (!channel) return { ok: false, line: 1, reason: 'It has a column of time, and one of volts or amps.' };
  const samples = Array.from(channel.values, (value, at) => ({ seconds: timeAt(trace, at), value }));
  const wiggle = wiggleOf(samples, channel.quantity === 'current' ? 'current' : 'voltage');
  if (wiggle) return { ok: true, wiggle };
  const few = samples.length < LEAST_SAMPLES;
  return { ok: false, line: 1, reason: few ? 'It has fewer than ten samples.' : 'Nothing flowed in it.' };
}
