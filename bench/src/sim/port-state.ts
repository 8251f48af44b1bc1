// What is at a port of the simulated bench.

/** True values at one port. */
export interface PortState {
  /** V at the receptacle */
  readonly volts: number;
  /** A */
  readonly amps: number;
  /** V at the far end of the cable */
  readonly endVolts: number;
}

/** Nothing flows. */
export const NOTHING: PortState = { volts: 0, amps: 0, endVolts: 0 };
