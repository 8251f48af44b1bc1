// The physics behind the demo's readings: what a charger would do, and what meters with errors would show of it.

/** How a charger loses power and holds its voltage. */
export interface ChargerPhysics {
  /** Loss without load while awake, W. */
  readonly fixedLoss: number;
  /** Loss in proportion to output, W/W. */
  readonly proportionalLoss: number;
  /** Loss growing with the square of output at nameplate, W/W. */
  readonly resistiveLoss: number;
  /** How much more it loses at 115 V than at 230 V, as a fraction. */
  readonly lowMainsPenalty: number;
  /** Source resistance of an output, Ω. */
  readonly sourceOhms: number;
  /** Fraction of the asked current it can give warm when asked for much; 1 when it holds. */
  readonly warmFoldBack: number;
  /** Output power from which it cannot hold warm, W. */
  readonly foldBackFrom: number;
  /** Draw with nothing attached at 230 V, W. */
  readonly idle: number;
  /** Output power from which power-factor correction works, W; infinite when it has none. */
  readonly correctionFrom: number;
}

/** A true operating point, before meters. */
export interface TruePoint {
  readonly inputWatts: number;
  readonly powerFactor: number;
  readonly outputs: readonly { readonly port: string; readonly volts: number; readonly amps: number }[];
}

/** Work out an operating point of a charger. `load` is a fraction of nameplate current. */
export function operate(
  physics: ChargerPhysics,
  outputs: readonly { port: string; volts: number; amps: number }[],
  nameplateWatts: number,
  load: number,
  mainsVolts: number,
): TruePoint {
  const held = load * nameplateWatts >= physics.foldBackFrom ? physics.warmFoldBack : 1;
  const actual = outputs.map(({ port, volts, amps }) => {
    const current = amps * load * held;
    return { port, amps: current, volts: volts * 1.004 - physics.sourceOhms * current };
  });
  const output = actual.reduce((total, { volts, amps }) => total + volts * amps, 0);
  const low = mainsVolts < 180 ? 1 + physics.lowMainsPenalty : 1;
  const loss =
    physics.fixedLoss +
    physics.proportionalLoss * output +
    (physics.resistiveLoss * low * output ** 2) / nameplateWatts;
  const inputWatts = output + loss;
  const uncorrected = 0.42 + 0.18 * Math.min(1, inputWatts / nameplateWatts) + (mainsVolts < 180 ? 0.08 : 0);
  const powerFactor =
    output >= physics.correctionFrom ? 0.9 + 0.08 * Math.min(1, output / nameplateWatts) : uncorrected;
  return { inputWatts, powerFactor, outputs: actual };
}

/** What a meter shows: a gain error of its own, a little noise, and its display digits. */
export function meter(
  random: () => number,
  gainPercent: number,
  noise: number,
  decimals: number,
): (value: number) => string {
  const gain = 1 + ((random() - 0.5) * 2 * gainPercent) / 100;
  return (value) => Math.max(0, value * gain + (random() - 0.5) * 2 * noise).toFixed(decimals);
}
