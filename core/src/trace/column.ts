// Columns that grow: doubles first, single precision once there are so many that memory counts.
import type { Values } from './types.ts';

/** From so many values on a column is kept in single precision: seven digits, as no meter has more. */
export const MANY = 1 << 20;
const FIRST_ROOM = 16_384;

export class GrowingColumn {
  #values: Values;
  #count = 0;
  readonly #expected: number;

  /** @param expected about how many values will come; room for them is made once */
  constructor(expected = 0) {
    this.#expected = expected;
    this.#values = expected > MANY ? new Float32Array(expected) : new Float64Array(Math.max(expected, FIRST_ROOM));
  }

  get count(): number {
    return this.#count;
  }

  push(value: number): void {
    if (this.#count === this.#values.length) this.#grow();
    this.#values[this.#count] = value;
    this.#count += 1;
  }

  #grow(): void {
    const room = Math.max(this.#expected, this.#values.length * 2);
    const larger = room > MANY ? new Float32Array(room) : new Float64Array(room);
    larger.set(this.#values);
    this.#values = larger;
  }

  /** What came, in memory that may have room beyond it. */
  values(): Values {
    return this.#values.subarray(0, this.#count);
  }
}
