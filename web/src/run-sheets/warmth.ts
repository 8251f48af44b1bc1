// The hottest point against time, gathered from what the instruments of a run tell.
import type { RunSample } from '@lastmark/contract/plan';
import type { StoredRig } from '@lastmark/contract/types';
import { toldNumber } from '@lastmark/core/instrument';
import { roomAndHottest } from '@lastmark/core/reading';

/** Readings kept; every other one goes when there are more. */
const MOST_READINGS = 1200;

/** Less than this is no load, A. */
const DRAWS_AMPS = 0.05;

/** What was told of the thermometer's points since a load draws, on the clock of the meters. */
export class Warmth {
  readonly times: number[] = [];
  readonly celsius: number[] = [];
  #now: number | null = null;
  #every = 1;
  #count = 0;
  #draws = false;
  readonly #points: StoredRig['spots'];

  /** @param points where those of the thermometer stand; left out for the usual ones */
  constructor(points?: StoredRig['spots']) {
    this.#points = points;
  }

  take(kind: string, values: RunSample['values']): void {
    if (kind === 'power analyser' || kind === 'DC load') this.#now = toldNumber(kind, values, 'time') ?? this.#now;
    if (kind === 'DC load') this.#load(values);
    if (kind === 'thermometer' && this.#draws && this.#now !== null) this.#keep(this.#now, values);
  }

  /** What was warm before the load came on, or after it went, is of another curve. */
  #load(values: RunSample['values']): void {
    const channels = Math.floor((values.length - 1) / 2);
    const amps = Array.from({ length: channels }, (_, at) => toldNumber('DC load', values, 'current', at + 1) ?? 0);
    const draws = amps.some((one) => one > DRAWS_AMPS);
    if (draws !== this.#draws) {
      this.times.length = 0;
      this.celsius.length = 0;
      this.#every = 1;
    }
    this.#draws = draws;
  }

  #keep(now: number, values: RunSample['values']): void {
    const { hottest } = roomAndHottest(values, this.#points);
    this.#count += 1;
    if (hottest === null || this.#count % this.#every !== 0 || now <= (this.times.at(-1) ?? -1)) return;
    this.times.push(now);
    this.celsius.push(hottest);
    if (this.times.length < MOST_READINGS) return;
    for (const list of [this.times, this.celsius]) list.splice(0, list.length, ...list.filter((_, at) => at % 2 === 0));
    this.#every *= 2;
  }
}
