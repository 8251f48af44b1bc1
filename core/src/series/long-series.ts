// What instruments tell over hours or days, in memory that does not grow with the time: the newest looks as they came,
// older ones as statistics of ever longer stretches.
import { joined, one, type Statistics } from './statistics.ts';

/** One look: numbers told together, null where none was. */
export interface Told {
  /** Counts up over everything that is heard. */
  readonly number: number;
  /** Instrument time, s. */
  readonly seconds: number;
  readonly values: readonly (number | null)[];
  /** The instrument told the measurement of the look before once more: it was asked more often than it measures. */
  readonly again?: boolean;
}

/** A look, or a stretch of looks as one. */
export interface Stretch {
  /** Middle of it, s. */
  readonly seconds: number;
  readonly value: number;
  readonly least: number;
  readonly most: number;
}

/** Statistics of a stretch, and the area under its curve. */
export interface Summary extends Statistics {
  /** Measurements behind the looks; one that was told again counts once. */
  readonly measurements: number;
  /** ∫ value dt by trapezoids, unit·s; where nothing was told for long, nothing is added. */
  readonly area: number;
  /** Time the area covers, s. */
  readonly covered: number;
}

interface Slot {
  readonly statistics: Statistics | null;
  /** Those that began in it. */
  readonly measurements: number;
  /** Its first look tells again of one that began before. */
  readonly goesOn: boolean;
  readonly area: number;
  readonly covered: number;
}

interface Bucket {
  readonly from: number;
  readonly to: number;
  readonly slots: readonly Slot[];
}

/** Looks kept as they came. */
const MOST_LOOKS = 20_000;
/** Looks that leave the newest together. */
const LEAVING = 64;
/** Stretches kept; twice as long ones are made of two when there are more. */
const MOST_BUCKETS = 2048;
/** A silence this many times the usual pause is a gap, not to be bridged. */
const GAP = 20;

const EMPTY: Slot = { statistics: null, measurements: 0, goesOn: false, area: 0, covered: 0 };

const slotsTogether = (a: Slot, b: Slot): Slot => ({
  statistics: joined(a.statistics, b.statistics),
  measurements: a.measurements + b.measurements,
  goesOn: a.statistics ? a.goesOn : b.goesOn,
  area: a.area + b.area,
  covered: a.covered + b.covered,
});

const together = (a: Bucket, b: Bucket): Bucket => ({
  from: a.from,
  to: b.to,
  slots: Array.from({ length: Math.max(a.slots.length, b.slots.length) }, (_, index) =>
    slotsTogether(a.slots[index] ?? EMPTY, b.slots[index] ?? EMPTY),
  ),
});

/**
 * A series of looks of one instrument.
 * @example
 * const series = new LongSeries();
 * series.push({ number: 1, seconds: 0, values: [20] });
 * series.push({ number: 2, seconds: 1, values: [22] });
 * series.summary(0, 0) // count 2, mean 21, least 20, most 22, area 21, covered 1
 */
export class LongSeries {
  #looks: Told[] = [];
  #buckets: Bucket[] = [];
  /** Times no stretch reaches across, s: what is asked for from there on is exact. */
  #marks: number[] = [];
  /** Usual pause between two looks, s. */
  #pause: number | null = null;

  /** Take a look. Times that run backwards begin a series anew: the instrument was started again. */
  push(told: Told): void {
    const last = this.#looks.at(-1);
    if (last && told.seconds < last.seconds) {
      this.#looks = [];
      this.#buckets = [];
      this.#pause = null;
    } else if (last) {
      const pause = told.seconds - last.seconds;
      if (this.#pause === null || pause < GAP * this.#pause)
        this.#pause = this.#pause === null ? pause : this.#pause + (pause - this.#pause) / 16;
    }
    this.#looks.push(told);
    if (this.#looks.length > MOST_LOOKS + LEAVING) this.#leave();
  }

  /** What is asked for from this time on will be exact, however long it lasts. Marks of before are forgotten. */
  mark(seconds: number): void {
    this.#marks = [...this.#marks.slice(-7), seconds];
  }

  /** The newest look; undefined when there is none. */
  get newest(): Told | undefined {
    return this.#looks.at(-1);
  }

  /** How much is kept: looks and stretches. */
  get kept(): number {
    return this.#looks.length + this.#buckets.length;
  }

  /** Looks heard after a number, of those still kept as they came. */
  after(number: number): readonly Told[] {
    return this.#looks.slice(this.#firstAfter(number));
  }

  /** The same, and the last look before them. */
  fromBefore(number: number): readonly Told[] {
    return this.#looks.slice(Math.max(0, this.#firstAfter(number) - 1));
  }

  #firstAfter(number: number): number {
    let at = this.#looks.length;
    while (at > 0 && (this.#looks[at - 1]?.number ?? 0) > number) at -= 1;
    return at;
  }

  /** Looks and stretches of one place in the numbers since a time, oldest first. */
  since(slot: number, from: number): readonly Stretch[] {
    const old = this.#buckets.flatMap(({ from: begin, to, slots }): Stretch[] => {
      const { statistics } = slots[slot] ?? EMPTY;
      if (begin < from || !statistics) return [];
      const { mean, least, most } = statistics;
      return [{ seconds: (begin + to) / 2, value: mean, least, most }];
    });
    const fresh = this.#looks.flatMap(({ seconds, values }): Stretch[] => {
      const value = values[slot] ?? null;
      return seconds < from || value === null ? [] : [{ seconds, value, least: value, most: value }];
    });
    return [...old, ...fresh];
  }

  /** Statistics of one place in the numbers since a time; null when nothing was told. */
  summary(slot: number, from: number): Summary | null {
    const old = this.#buckets.flatMap(({ from: begin, slots }) => (begin < from ? [] : [slots[slot] ?? EMPTY]));
    const fresh = this.#slotOf(
      this.#looks.filter(({ seconds }) => seconds >= from),
      slot,
    );
    const { statistics, measurements, goesOn, area, covered } = [...old, fresh].reduce(slotsTogether, EMPTY);
    return statistics && { ...statistics, measurements: measurements + (goesOn ? 1 : 0), area, covered };
  }

  #slotOf(looks: readonly Told[], slot: number): Slot {
    let statistics: Statistics | null = null;
    let measurements = 0;
    let goesOn = false;
    let area = 0;
    let covered = 0;
    let before: { readonly seconds: number; readonly value: number } | null = null;
    for (const { seconds, values, again } of looks) {
      const value = values[slot] ?? null;
      if (value === null) continue;
      if (!again) measurements += 1;
      else if (!statistics) goesOn = true;
      statistics = joined(statistics, one(value));
      const pause = before ? seconds - before.seconds : 0;
      if (before && pause <= GAP * (this.#pause ?? pause)) {
        area += ((before.value + value) / 2) * pause;
        covered += pause;
      }
      before = { seconds, value };
    }
    return { statistics, measurements, goesOn, area, covered };
  }

  /** The oldest looks become a stretch; the look after them closes its area. */
  #leave(): void {
    const [first] = this.#looks;
    if (!first) return;
    const split = this.#marks.find((mark) => mark > first.seconds && mark <= (this.#looks[LEAVING]?.seconds ?? 0));
    const count =
      split === undefined
        ? LEAVING
        : Math.max(
            1,
            this.#looks.findIndex(({ seconds }) => seconds >= split),
          );
    const leaving = this.#looks.slice(0, count);
    const next = this.#looks[count];
    // A stretch that ends at a mark has no area across it.
    const closed = next && split === undefined ? [...leaving, next] : leaving;
    const width = Math.max(...leaving.map(({ values }) => values.length));
    this.#buckets.push({
      from: first.seconds,
      to: leaving.at(-1)?.seconds ?? first.seconds,
      slots: Array.from({ length: width }, (_, slot) => {
        const { area, covered } = this.#slotOf(closed, slot);
        return { ...this.#slotOf(leaving, slot), area, covered };
      }),
    });
    this.#looks = this.#looks.slice(count);
    if (this.#buckets.length > MOST_BUCKETS) this.#halve();
  }

  /** Neighbours become one, save across a mark. */
  #halve(): void {
    const made: Bucket[] = [];
    for (let index = 0; index < this.#buckets.length; index += 1) {
      const a = this.#buckets[index] as Bucket;
      const b = this.#buckets[index + 1];
      if (b && !this.#marks.some((mark) => mark > a.from && mark <= b.from)) {
        made.push(together(a, b));
        index += 1;
      } else made.push(a);
    }
    this.#buckets = made;
  }
}
