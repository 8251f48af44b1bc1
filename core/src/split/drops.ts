// Interruptions: whether a running port dropped out when another was plugged or pulled, from samples or as noted.
import type { Drop, Return } from '../run/index.ts';

export interface VoltSample {
  /** s */
  readonly seconds: number;
  /** V */
  readonly volts: number;
}

/** Below this part of its level a port counts as gone. */
const GONE = 0.8;
/** Within this part of its level it is back at the same one. */
const BACK = 0.93;

/**
 * What the samples of a running port say about an event. A drop shorter than the distance of two samples is only seen
 * when a sample falls into it. It began somewhere between two samples and ended somewhere between two, so its length is
 * off by no more than the longer of these distances, which is told with it.
 * @param samples oldest first, from before the event until things are calm
 * @param level V it ran at
 */
export function dropIn(
  samples: readonly VoltSample[],
  level: number,
): Pick<Drop, 'dropped' | 'seconds' | 'offBy' | 'lowest' | 'back'> {
  const seen = samples.filter(({ seconds, volts }) => Number.isFinite(seconds) && Number.isFinite(volts));
  const first = seen.findIndex(({ volts }) => volts < GONE * level);
  const lowest = seen.length > 0 ? Math.min(...seen.map(({ volts }) => volts)) : null;
  const last = seen.at(-1);
  if (first < 0 || !last) {
    const lower = last !== undefined && last.volts < BACK * level;
    return { dropped: false, seconds: null, lowest, back: lower ? 'lower level' : 'same level' };
  }
  // Gone means below a usable voltage; a level that only went down is no gap.
  const off = seen.slice(first).filter(({ volts }) => volts < 1);
  const after = seen.slice(first).find(({ volts }, index) => index > 0 && volts >= 1 && off.length > 0);
  const begin = seen[first]?.seconds ?? 0;
  const seconds = (after?.seconds ?? last.seconds) - begin;
  const back: Return = last.volts < 1 ? 'stayed off' : last.volts < BACK * level ? 'lower level' : 'same level';
  if (off.length === 0) return { dropped: false, seconds: null, lowest, back };
  const before = first > 0 ? seen[first - 1] : undefined;
  const lastOff = after && seen[seen.indexOf(after) - 1];
  // What was off from the first sample on, or to the last, lasted longer than was looked.
  const offBy = before && lastOff ? Math.max(begin - before.seconds, after.seconds - lastOff.seconds) : undefined;
  return { dropped: true, seconds, ...(offBy === undefined ? {} : { offBy }), lowest, back };
}

/** What is known of one pair: a running port, and the port something happens at. */
export interface Pair {
  readonly port: string;
  readonly cause: string;
  readonly state: 'safe' | 'drops' | 'not tested';
  /** Longest break seen, s. */
  readonly longest: number | null;
  /** How far that may be off, s; left out where nobody knows. */
  readonly offBy?: number | undefined;
  /** Events behind it. */
  readonly seen: number;
}

/** Every pair of ports, whatever else was plugged in: one drop makes it unsafe. */
export function pairsOf(ports: readonly string[], drops: readonly Drop[]): readonly Pair[] {
  return ports.flatMap((port) =>
    ports
      .filter((cause) => cause !== port)
      .map((cause): Pair => {
        const own = drops.filter((one) => one.port === port && one.cause === cause);
        const gone = own.filter(({ dropped }) => dropped);
        const timed = gone.flatMap(({ seconds, offBy }) =>
          seconds === null ? [] : [{ seconds, offBy: offBy ?? undefined }],
        );
        const [longest] = timed.sort((a, b) => b.seconds - a.seconds);
        return {
          port,
          cause,
          state: own.length === 0 ? 'not tested' : gone.length > 0 ? 'drops' : 'safe',
          longest: longest?.seconds ?? null,
          ...(longest?.offBy === undefined ? {} : { offBy: longest.offBy }),
          seen: own.length,
        };
      }),
  );
}

/** Which ports can power something that must stay on: none of the others makes them drop. */
export function steadyPorts(
  ports: readonly string[],
  drops: readonly Drop[],
): readonly {
  readonly port: string;
  readonly state: 'steady' | 'drops' | 'not tested';
  readonly by: readonly string[];
}[] {
  const pairs = pairsOf(ports, drops);
  return ports.map((port) => {
    const own = pairs.filter((pair) => pair.port === port);
    const by = own.filter(({ state }) => state === 'drops').map(({ cause }) => cause);
    const open = own.filter(({ state }) => state === 'not tested');
    return { port, state: by.length > 0 ? 'drops' : open.length > 0 ? 'not tested' : 'steady', by };
  });
}
