// Stretches of a trace: moved, widened, chosen with the pointer, kept within the trace.

export interface Stretch {
  readonly from: number;
  readonly to: number;
}

/** What is done to the stretch there is: turns of a wheel come faster than they are drawn, and each goes on from the one before. */
export type Move = (now: Stretch) => Stretch;

/** No stretch is shorter than so many samples. */
const LEAST_SAMPLES = 20;
/** A stretch that lacks less of the trace than this is all of it: closer and wider by the same is not exact. */
const ALL_OF_IT = 1 - 1e-9;
/** A drag shorter than this part of the picture is a slip of the hand. */
const LEAST_DRAG = 0.01;
/** How much closer one notch of a wheel comes, and the most a single turn does. */
const NOTCH = 100;
const CLOSER_BY_NOTCH = 1.5;
const MOST_NOTCHES = 4;

/** Wider or closer about its middle. */
export const around = ({ from, to }: Stretch, factor: number): Stretch => {
  const middle = (from + to) / 2;
  const half = ((to - from) / 2) * factor;
  return { from: middle - half, to: middle + half };
};

/** Moved by a part of its length. */
export const moved = ({ from, to }: Stretch, part: number): Stretch => ({
  from: from + part * (to - from),
  to: to + part * (to - from),
});

/** Closer or wider about a point, which stays where it is. @param part where it lies, 0…1 @param delta of the wheel, down is wider */
export function turned({ from, to }: Stretch, part: number, delta: number): Stretch {
  const notches = Math.min(MOST_NOTCHES, Math.max(-MOST_NOTCHES, delta / NOTCH));
  const factor = CLOSER_BY_NOTCH ** notches;
  const at = from + part * (to - from);
  return { from: at - (at - from) * factor, to: at + (to - at) * factor };
}

/** What was dragged over, either way; null for a slip of the hand. */
export function dragged({ from, to }: Stretch, begin: number, end: number): Stretch | null {
  if (Math.abs(end - begin) < LEAST_DRAG) return null;
  const at = (part: number) => from + part * (to - from);
  return { from: at(Math.min(begin, end)), to: at(Math.max(begin, end)) };
}

/** A stretch that lies within a trace; null for all of it. */
export function within(
  { from, to }: Stretch,
  { length, samples }: { readonly length: number; readonly samples: number },
): Stretch | null {
  const least = (LEAST_SAMPLES * length) / Math.max(1, samples - 1);
  const wide = Math.min(length, Math.max(least, to - from));
  if (wide >= length * ALL_OF_IT) return null;
  const begin = Math.min(length - wide, Math.max(0, from));
  return { from: begin, to: begin + wide };
}
