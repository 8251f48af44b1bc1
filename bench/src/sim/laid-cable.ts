// A cable as it lies on the simulated bench: warmed by its current, plugged anew, bent, and coming apart.
import { seededRandom } from '@lastmark/core/random';
import type { CableTruth } from './truth.ts';

/** Rise of copper for each kelvin over 20 °C. */
const COPPER = 0.003_93;
/** Ω that an opening adds while it is open, and the part of the time it is. */
const OPEN_OHMS = 1.5;
const OPEN_PART = 0.12;
/** s an opening lasts, at least. */
const OPEN_SECONDS = 0.5;

/** Ω of contact a bend adds beyond the count from which it wears. */
const wearOf = ({ wear }: CableTruth, bends: number): number =>
  wear ? wear.perThousand * (Math.max(0, bends - wear.from) / 1000) : 0;

export class LaidCable {
  readonly truth: CableTruth;
  #bends = 0;
  #plugging = 0;

  constructor(truth: CableTruth) {
    this.truth = truth;
  }

  get bends(): number {
    return this.#bends;
  }

  /** So many bends more. */
  bend(count: number): void {
    this.#bends += count;
  }

  /** Pulled and plugged in again: contacts never come back the same. */
  plug(): void {
    this.#plugging += 1;
  }

  /** Ω of the contacts in this plugging. */
  contact(): number {
    const { contactOhms, contactSpread = 0 } = this.truth;
    const turn = this.#plugging === 0 ? 0 : seededRandom(this.#plugging * 7919 + Math.round(contactOhms * 1e6))() - 0.5;
    // An even spread of that standard deviation.
    return contactOhms * (1 + contactSpread * Math.sqrt(12) * turn) + wearOf(this.truth, this.#bends);
  }

  /** Whether a broken strand is apart at this moment. @param seconds of the bench's clock */
  open(seconds: number): boolean {
    const { wear } = this.truth;
    if (!wear?.opensFrom || this.#bends < wear.opensFrom) return false;
    return seededRandom(Math.floor(seconds / OPEN_SECONDS) + this.#bends)() < OPEN_PART;
  }

  /**
   * Ω there and back at a current that has flowed long enough to warm it: T = room + θ·I²·R, with R of copper at T.
   * @param seconds of the bench's clock, for what comes and goes
   */
  ohms(amps: number, celsius: number, seconds = 0): number {
    const { copperOhms, kelvinPerWatt = 0 } = this.truth;
    const cold = copperOhms * (1 + COPPER * (celsius - 20)) + this.contact();
    const warmed = cold / Math.max(0.2, 1 - copperOhms * COPPER * kelvinPerWatt * amps ** 2);
    return warmed + (this.open(seconds) ? OPEN_OHMS : 0);
  }

  /** °C of its surface at a current. */
  celsius(amps: number, room: number): number {
    return room + (this.truth.kelvinPerWatt ?? 0) * amps ** 2 * this.ohms(amps, room);
  }
}
