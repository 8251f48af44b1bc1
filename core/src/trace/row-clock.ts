// The times of rows in order: past midnight, by months and days whichever comes first, and over the ends of summer time.
import { monthFirstSeconds, secondsOf, type TimeForm } from '../meter-file/index.ts';

const HOUR = 3600;
const DAY = 86_400;
/** From one sample to the next, s: weeks are no pause, an hour may be one. */
const LEAP = 20 * DAY;
const GOES_ON = HOUR;
/** Clocks are changed in the night: the hour that comes twice, or not at all, begins before it. */
const LATEST = 3 * HOUR;
/** A clock is changed between two rows, or with one missing. */
const ROWS = 2;
const SUNDAY = 0;
/** Months of the northern and the southern half in which clocks go back, and ahead; from 0. */
const BACK = [3, 9, 10];
const AHEAD = [2, 8, 9];
/** Such a time counts from 1970 in universal time, which has no summer. */
const ZONED = /(?:Z|[+-]\d{2}:?\d{2})$/i;

const ofDay = (seconds: number): number => ((seconds % DAY) + DAY) % DAY;

/** Reads the written times of rows, in order. */
export class RowClock {
  readonly #form: TimeForm;
  readonly #short: boolean;
  /** What is added to what is written, s. */
  #shift = 0;
  #last = Number.NaN;
  #lastText = '';
  /** The longest from one row to the next so far, s. */
  #step = 0;
  #monthFirst = false;
  #changed: 'back' | 'ahead' | null = null;

  /** @param short two parts are minutes and seconds */
  constructor(form: TimeForm, short: boolean) {
    this.#form = form;
    this.#short = short;
  }

  /** What was made of the times, in sentences. */
  get remarks(): readonly string[] {
    if (this.#changed === null) return [];
    const way = this.#changed === 'back' ? 'went back an hour' : 'went ahead an hour';
    return [`Its clock ${way} in the night, as summer time does: times go on without a break.`];
  }

  /**
   * The time of the next row, s, going on from those before.
   * @returns NaN for what is no time; a time before the last one where nothing explains it
   */
  at(text: string): number {
    let time = this.#form === 'date' ? this.#date(text) : secondsOf(text, this.#form, this.#short) + this.#shift;
    if (this.#form === 'clock' && !this.#short && this.#last - time > DAY / 2) {
      this.#shift += DAY;
      time += DAY;
    }
    time += this.#summer(text, time);
    if (time > this.#last) this.#step = Math.max(this.#step, time - this.#last);
    this.#last = time;
    this.#lastText = text;
    return time;
  }

  /** A date leaping ahead by weeks, which with its month first goes on, has its month first. */
  #date(text: string): number {
    if (this.#monthFirst) return monthFirstSeconds(text) + this.#shift;
    const time = secondsOf(text, 'date', this.#short) + this.#shift;
    if (!(time - this.#last > LEAP)) return time;
    const [before, now] = [monthFirstSeconds(this.#lastText), monthFirstSeconds(text)];
    if (!(now >= before && now - before < GOES_ON)) return time;
    this.#monthFirst = true;
    this.#shift = this.#last - before;
    return now + this.#shift;
  }

  /** What a change of the clock by an hour adds from here on, s; 0 where there is none. Once a recording. */
  #summer(text: string, time: number): number {
    const last = this.#last;
    if (this.#changed !== null || !(this.#step > 0 && this.#step < HOUR) || this.#short) return 0;
    if (this.#form !== 'clock' && this.#form !== 'date') return 0;
    // The full hour at which it is changed.
    const full = (Math.floor(last / HOUR) + 1) * HOUR;
    const near = (seconds: number) => seconds >= 0 && seconds <= ROWS * this.#step;
    const back = time < last && near(time + HOUR - full) && ofDay(full) <= LATEST + HOUR && this.#isNight(time, BACK);
    const ahead =
      this.#form === 'date' &&
      near(full - last) &&
      near(time - full - HOUR) &&
      ofDay(full) <= LATEST &&
      this.#isNight(time, AHEAD);
    if ((!back && !ahead) || ZONED.test(text)) return 0;
    this.#changed = back ? 'back' : 'ahead';
    const more = back ? HOUR : -HOUR;
    this.#shift += more;
    return more;
  }

  /** Whether clocks may be changed that day: on a Sunday of certain months; any day where none is written. */
  #isNight(time: number, months: readonly number[]): boolean {
    if (this.#form !== 'date') return true;
    const day = new Date((time - this.#shift) * 1000);
    return day.getUTCDay() === SUNDAY && months.includes(day.getUTCMonth());
  }
}
