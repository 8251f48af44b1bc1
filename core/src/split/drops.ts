// Interruptions: whether a running port dropped out when another was plugged or pulled, from samples or as noted.
import type { Drop, Return } from '../run/index.ts';

export interface VoltSample {
  /** s */
  readonly seconds: number;
  /** V */
  readonly volts: number;
}

/** Below this there is no output, V. */
const GONE = 1;
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
  const lowest = seen.length > 0 ? Math.min(...seen.map(({ volts }) => volts)) : null;
  const end = seen.at(-1)?.volts ?? level;
  const back: Return = end < GONE ? 'stayed off' : end < BACK * level ? 'lower level' : 'same level';
  // A level that only went down is no gap.
  const first = seen.findIndex(({ volts }) => volts < GONE);
  if (first < 0) return { dropped: false, seconds: null, lowest, back };
  const again = seen.findIndex(({ volts }, index) => index > first && volts >= GONE);
  const at = (index: number): number => seen.at(index)?.seconds ?? 0;
  // What was off from the first sample on, or to the last (where none comes again), lasted longer than was looked.
  const whole = first > 0 && again > 0;
  return {
    dropped: true,
    seconds: at(again) - at(first),
    ...(whole ? { offBy: Math.max(at(first) - at(first - 1), at(again) - at(again - 1)) } : {}),
    lowest,
    back,
  };
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
