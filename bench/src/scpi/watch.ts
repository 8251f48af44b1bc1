// Looks at readings as they come: a meter that stands still while the load moves, a sign turned over, a value out of range.
import { fixed, formatPlain } from '@lastmark/core/quantity';

export interface WatchedReading {
  /** What was read, SI. */
  readonly value: number;
  /** What the load did at that moment and the reading should follow, SI; null where nobody knows. */
  readonly setting: number | null;
  /** When, s. */
  readonly at: number;
}

export interface WatchRules {
  /** What the meter can show at most, SI. */
  readonly range: number;
  /** A smaller change of the setting may stay below what the meter shows, SI. */
  readonly moves?: number;
  /** Identical readings after the setting moved, from which on a meter counts as frozen … */
  readonly still?: number;
  /**
   * … once they last so long, s: a meter may show each of its readings for a second or two. As long after a reading first
   * came, the load may still be told where it was before: it is not held against the meter.
   */
  readonly lasting?: number;
  /** A reading no further below zero than this is a meter's own noise, SI. */
  readonly noise?: number;
}

export type Suspicion =
  | { readonly kind: 'frozen'; readonly sentence: string }
  | { readonly kind: 'reversed'; readonly sentence: string }
  | { readonly kind: 'out of range'; readonly sentence: string }
  | { readonly kind: 'not a number'; readonly sentence: string };

/** The readings since the last that differed. */
interface Same {
  readonly value: number;
  /** When the first came, s. */
  readonly since: number;
  /** Where the load was about then; null until it is known. */
  readonly from: { readonly least: number; readonly most: number } | null;
  /** Since when it has been elsewhere, s; null while it is where it was. */
  readonly movedAt: number | null;
  /** Readings since then. */
  readonly count: number;
}

/** Keeps what it needs of the past readings of one meter. */
export class MeterWatch {
  readonly #rules: Required<WatchRules>;
  #same: Same | null = null;

  constructor(rules: WatchRules) {
    this.#rules = { still: 4, lasting: 3, moves: 1, noise: 0, ...rules };
  }

  /** Look at the next reading. @returns what is suspicious about it, or null */
  look(reading: WatchedReading): Suspicion | null {
    const { value, setting } = reading;
    const { range, noise } = this.#rules;
    if (Number.isNaN(value)) return { kind: 'not a number', sentence: 'The meter answered with no number.' };
    if (!Number.isFinite(value) || Math.abs(value) > range)
      return { kind: 'out of range', sentence: `The meter shows ${value}; its range ends at ${range}.` };
    const frozen = this.#frozen(reading);
    if (frozen) return frozen;
    // Turned round it shows all the load draws and more; a little below zero is its zero, before it has followed.
    if (setting !== null && setting > 0 && value < -Math.max(noise, setting / 2))
      return {
        kind: 'reversed',
        sentence:
          'The meter shows the other sign: is it turned round, or does power flow back? Unplug, wait, and repeat.',
      };
    return null;
  }

  #frozen({ value, setting, at }: WatchedReading): Suspicion | null {
    const { moves, still, lasting } = this.#rules;
    const own = setting === null ? null : { least: setting, most: setting };
    const before = this.#same;
    if (before?.value !== value) {
      this.#same = { value, since: at, from: own, movedAt: null, count: 0 };
      return null;
    }
    const from =
      before.from && own && at - before.since < lasting
        ? { least: Math.min(before.from.least, own.least), most: Math.max(before.from.most, own.most) }
        : (before.from ?? own);
    const moved = from !== null && setting !== null && (setting > from.most + moves || setting < from.least - moves);
    const movedAt = moved ? (before.movedAt ?? at) : null;
    const count = moved ? before.count + 1 : 0;
    this.#same = { ...before, from, movedAt, count };
    if (movedAt === null || setting === null || from === null || count < still || at - movedAt < lasting) return null;
    const nearest = setting > from.most ? from.most : from.least;
    const went = `${formatPlain(nearest, 'power')} to ${formatPlain(setting, 'power')}`;
    return {
      kind: 'frozen',
      sentence: `The same reading for ${fixed(at - movedAt, 0)} s while the load went from ${went}: the meter stands still.`,
    };
  }
}
