// Looks at readings as they come: a meter that stands still while the load moves, a sign turned over, a value out of range.

export interface WatchedReading {
  /** What was read, SI. */
  readonly value: number;
  /** What the load was set to at that moment, SI; readings should follow it. */
  readonly setting: number;
}

export interface WatchRules {
  /** What the meter can show at most, SI. */
  readonly range: number;
  /** Identical readings in a row, while the setting moves, after which a meter counts as frozen. */
  readonly still?: number;
  /** A reading no further below zero than this is a meter's own noise, SI. */
  readonly noise?: number;
}

export type Suspicion =
  | { readonly kind: 'frozen'; readonly sentence: string }
  | { readonly kind: 'reversed'; readonly sentence: string }
  | { readonly kind: 'out of range'; readonly sentence: string }
  | { readonly kind: 'not a number'; readonly sentence: string };

/** Keeps what it needs of the past readings of one meter. */
export class MeterWatch {
  readonly #rules: Required<WatchRules>;
  #last: WatchedReading | null = null;
  #same = 0;
  #moved = false;

  constructor(rules: WatchRules) {
    this.#rules = { still: 4, noise: 0, ...rules };
  }

  /** Look at the next reading. @returns what is suspicious about it, or null */
  look(reading: WatchedReading): Suspicion | null {
    const { value, setting } = reading;
    if (Number.isNaN(value)) return { kind: 'not a number', sentence: 'The meter answered with no number.' };
    if (!Number.isFinite(value) || Math.abs(value) > this.#rules.range)
      return { kind: 'out of range', sentence: `The meter shows ${value}; its range ends at ${this.#rules.range}.` };
    const before = this.#last;
    this.#last = reading;
    if (before && before.value === value) {
      this.#same += 1;
      this.#moved ||= Math.abs(setting - before.setting) > 1e-9;
    } else {
      this.#same = 0;
      this.#moved = false;
    }
    if (this.#moved && this.#same + 1 >= this.#rules.still)
      return {
        kind: 'frozen',
        sentence: `${this.#same + 1} identical readings while the load was moved: the meter stands still.`,
      };
    if (value < -this.#rules.noise && setting > 0)
      return {
        kind: 'reversed',
        sentence:
          'The meter shows the other sign: is it turned round, or does power flow back? Unplug, wait, and repeat.',
      };
    return null;
  }
}
