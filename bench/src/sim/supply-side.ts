// The supply of the simulated bench: switched on and off, sagging, what is left of an output after it, and its current.
import { currentShape, holdUpSeconds, inrushAmps, pulseWidth } from './physics.ts';
import type { SupplyTruth } from './truth.ts';

export interface Supply {
  readonly on: boolean;
  readonly volts: number;
  /** 0 for DC */
  readonly hertz: number;
}

/** How things stand as the supply is changed. */
export interface SupplyMoment {
  /** Bench time, s */
  readonly at: number;
  readonly truth: SupplyTruth;
  /** V at each port before. */
  readonly outputs: ReadonlyMap<string, number>;
  /** W drawn before. */
  readonly drawn: number;
}

/** The golden angle spreads the moments of switching on evenly over the mains, rad. */
const GOLDEN = 2.399_963;
/** Where in the mains a record begins, rad: any angle will do. */
const RECORD_ANGLE = 0.4;

export class SupplySide {
  #supply: Supply = { on: false, volts: 230, hertz: 50 };
  /** A DC supply sagged below what the charger runs on. */
  #under = false;
  /** Outputs that fade since the supply went off: voltage then, and until when the bulk holds it. */
  #fading = new Map<string, { readonly volts: number; readonly holdsUntil: number }>();
  #switchedOn = { angle: Math.PI / 2, count: 0 };

  get now(): Supply {
    return this.#supply;
  }

  get under(): boolean {
    return this.#under;
  }

  set(part: Partial<Supply>, { at, truth, outputs, drawn }: SupplyMoment): void {
    const before = this.#supply;
    this.#supply = { ...before, ...part };
    if (before.on && !this.#supply.on) {
      const peak = before.hertz === 0 ? before.volts : before.volts * Math.SQRT2;
      const holdsUntil = at + holdUpSeconds(truth, peak, drawn);
      this.#fading = new Map([...outputs].map(([label, volts]) => [label, { volts, holdsUntil }]));
    }
    if (!before.on && this.#supply.on) {
      const count = this.#switchedOn.count + 1;
      this.#switchedOn = { angle: (count * GOLDEN) % (2 * Math.PI), count };
      this.#fading.clear();
      this.#under = false;
    }
    this.#sag(truth);
  }

  /** A DC supply below the cut-out takes every output away; above the restart they may come back. */
  #sag({ cutOut, restart }: SupplyTruth): void {
    const { on, volts, hertz } = this.#supply;
    if (cutOut === null || restart === null || !on || hertz !== 0) return;
    if (!this.#under && volts < cutOut) this.#under = true;
    else if (this.#under && volts > restart) this.#under = false;
  }

  /** V left at a port since the supply went off; null while it is on, or where nothing was. */
  fading(label: string, at: number, { bleedSeconds }: SupplyTruth): number | null {
    const was = this.#supply.on ? undefined : this.#fading.get(label);
    return was ? was.volts * Math.exp(-Math.max(0, at - was.holdsUntil) / bleedSeconds) : null;
  }

  /** Mains voltage and current, V and A. @param amps rms @param factor power factor */
  wave(
    samples: number,
    interval: number,
    amps: number,
    factor: number,
  ): { readonly volts: Float64Array; readonly amps: Float64Array } {
    const { volts, hertz, on } = this.#supply;
    const drawn = (value: (angle: number) => number) =>
      Float64Array.from({ length: samples }, (_, index) =>
        on ? value(2 * Math.PI * hertz * index * interval + RECORD_ANGLE) : 0,
      );
    if (hertz === 0) return { volts: drawn(() => volts), amps: drawn(() => amps) };
    const width = factor > 0 ? pulseWidth(factor) : 1;
    return {
      volts: drawn((angle) => volts * Math.SQRT2 * Math.sin(angle)),
      amps: drawn((angle) => amps * currentShape(width, angle)),
    };
  }

  /** Current as it was last switched on, a tenth of the record before it, A. */
  inrush(samples: number, interval: number, truth: SupplyTruth): Float64Array {
    const { volts, hertz } = this.#supply;
    const { angle, count } = this.#switchedOn;
    const at = hertz === 0 ? volts : volts * Math.SQRT2 * Math.sin(angle);
    const begin = (samples / 10) * interval;
    return Float64Array.from({ length: samples }, (_, index) =>
      count === 0 ? 0 : inrushAmps(truth, at, index * interval - begin),
    );
  }
}
