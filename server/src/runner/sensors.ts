// The sensors of a rig's thermometer: how warm it is now, and which of them fell silent.
import { ZERO_CELSIUS } from '@lastmark/core/quantity';
import { type PointPlace, pointNames, roomAndHottest } from '@lastmark/core/reading';

/** A sensor that told no number for so long tells nothing of now, ms: logs of heat may have a line a minute. */
const COLD_MILLISECONDS = 60_000;

interface Parts {
  /** Of the thermometer. */
  readonly name: string;
  /** Where its sensors stand; left out for the usual places. */
  readonly spots: readonly PointPlace[] | null | undefined;
  /** How long it may take over a reply, ms. */
  readonly patience: number;
  /** Server time, ms. */
  readonly now: () => number;
}

export class Sensors {
  readonly #parts: Parts;
  /** As told last, °C. */
  #told: readonly (number | null)[] = [];
  /** When each last told a number, ms. */
  readonly #heard = new Map<number, number>();
  /** Those that told one since {@link goOnWithout}: they are missed when they fall silent. */
  readonly #minded = new Set<number>();

  constructor(parts: Parts) {
    this.#parts = parts;
  }

  /** @param told one temperature a sensor, °C; null where it told none */
  take(told: readonly (number | null)[]): void {
    this.#told = told;
    for (const [index, value] of told.entries()) {
      if (value === null) continue;
      this.#heard.set(index, this.#parts.now());
      this.#minded.add(index);
    }
  }

  /** This server itself stood still for a while: that is no silence of theirs. @param milliseconds for how long */
  excuse(milliseconds: number): void {
    for (const [index, at] of this.#heard) this.#heard.set(index, at + milliseconds);
  }

  /** A person goes on without those that fell silent: one is missed again once it told something. */
  goOnWithout(): void {
    this.#minded.clear();
  }

  #isSilent = (index: number): boolean => {
    const { now, patience } = this.#parts;
    return now() - (this.#heard.get(index) ?? Number.NEGATIVE_INFINITY) > Math.max(COLD_MILLISECONDS, patience);
  };

  /** K: the room, and the hottest of the others. One that fell silent tells none. */
  heat(): { readonly room: number | null; readonly hottest: number | null } {
    const kelvin = this.#told.map((value, index) =>
      value === null || this.#isSilent(index) ? null : value + ZERO_CELSIUS,
    );
    return roomAndHottest(kelvin, this.#parts.spots);
  }

  /** What fell silent so that no hottest spot can be minded, in words; null while all is told. */
  unminded(): string | null {
    const { name, spots } = this.#parts;
    const silent = [...this.#minded].filter(this.#isSilent);
    if (silent.length === 0) return null;
    if (silent.length === this.#minded.size) return `"${name}" tells nothing any more`;
    const names = pointNames(this.#told.length, spots);
    const point = silent.map((index) => names[index]).find((one) => one !== 'ambient');
    return point === undefined ? null : `Point "${point}" of "${name}" tells nothing any more`;
  }
}
