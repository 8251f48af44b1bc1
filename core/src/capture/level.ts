// The level a voltage had before something happened to it: found, wherever the trigger stood.

/** Part of the level it may leave before something happened. */
export const BAND = 0.05;
/** Samples in a row that have to be outside: one alone is noise. */
const IN_A_ROW = 3;
/** Samples the first guess of the level is made of. */
const FIRST = 5;

/** Samples sorted at most. */
const MOST_SORTED = 20_000;

function medianOf(values: Float64Array): number {
  const stride = Math.max(1, Math.floor(values.length / MOST_SORTED));
  const some = values.filter((value, index) => index % stride === 0 && !Number.isNaN(value)).sort();
  return some[Math.floor((some.length - 1) / 2)] ?? 0;
}

export interface Before {
  /** Median before anything happened, V. */
  readonly level: number;
  /** Samples behind it. */
  readonly samples: number;
  /** First sample of what happened; -1 where nothing did. */
  readonly at: number;
}

/**
 * Where a voltage first leaves its level for good, and the level up to there. The first guess is the median of a few
 * samples and is mended with all that follow, so that an early trigger does no harm.
 */
export function levelBefore(values: Float64Array): Before {
  const guess = medianOf(values.subarray(0, Math.min(FIRST, values.length)));
  const leaves = (level: number): number => {
    let row = 0;
    for (let index = 0; index < values.length; index += 1) {
      const value = values[index] as number;
      if (Number.isNaN(value)) continue;
      row = Math.abs(value - level) > BAND * Math.abs(level) ? row + 1 : 0;
      if (row === Math.min(IN_A_ROW, values.length)) return index - row + 1;
    }
    return -1;
  };
  const first = leaves(guess);
  const own = values.subarray(0, first < 0 ? values.length : Math.max(1, first));
  const level = medianOf(own);
  return { level, samples: own.length, at: leaves(level) };
}

/** What to say where there is hardly anything before the event. */
export function beforeSays({ samples, at }: Before): string[] {
  return at >= 0 && samples < FIRST
    ? [
        `Only ${samples} ${samples === 1 ? 'sample' : 'samples'} before it happened: record earlier, the level before is a guess.`,
      ]
    : [];
}
