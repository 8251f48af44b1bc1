// The laws behind the simulated bench, each a function of its own so that it can be checked by itself.
import type { HeatTruth, IdleTruth, LossTruth, RippleTruth, SupplyTruth } from './truth.ts';

/** What becomes heat at an output, W. @param outputs volts and watts of every loaded output */
export function lossWatts(
  loss: LossTruth,
  outputs: readonly { readonly volts: number; readonly watts: number }[],
  nameplate: number,
  mainsVolts: number,
  dc = false,
): number {
  const total = outputs.reduce((sum, { watts }) => sum + watts, 0);
  if (total <= 0) return loss.fixed;
  // From DC the current grows as the supply falls, and switching costs more as it rises.
  const low = dc ? 13.8 / Math.max(6, mainsVolts) : mainsVolts < 180 ? 1 + loss.lowMains : 1;
  const byLevel = outputs.reduce(
    (sum, { volts, watts }) => sum + loss.perVoltBelow20 * Math.max(0, 20 - volts) * watts,
    0,
  );
  const fixed = dc ? loss.fixed * (0.6 + (0.4 * mainsVolts) / 13.8) : loss.fixed;
  return fixed + loss.proportional * total + (loss.resistive * low * total ** 2) / nameplate + byLevel;
}

/** Input power with nothing drawn at a moment, W. */
export const idleWatts = ({ floor, burst, period, length }: IdleTruth, seconds: number): number =>
  seconds % period < length ? burst : floor;

/** Mean input power with nothing drawn, W: what an energy reading over many bursts must find. */
export const idleMean = ({ floor, burst, period, length }: IdleTruth): number =>
  floor + ((burst - floor) * length) / period;

/** Power factor. Below correction the input is peaks of current; it wakes up at `from` and sleeps again 10 % below. */
export function powerFactor(input: number, nameplate: number, corrected: boolean): number {
  const share = Math.min(1, input / nameplate);
  return corrected ? 0.9 + 0.085 * share : 0.4 + 0.18 * share;
}

/** Mean of cos(x)·cos(πx/2w) over one half-cycle of a pulse of half-width w about the peak of the voltage. */
function overlap(width: number): number {
  const a = Math.PI / (2 * width);
  return Math.abs(a - 1) < 1e-9 ? width : (2 * a * Math.cos(width)) / (a * a - 1);
}

/** Power factor of current that flows in half-cosine pulses of a half-width, rad, about the peaks of the voltage. */
export const pulseFactor = (width: number): number =>
  (Math.SQRT2 * overlap(width)) / Math.PI / Math.sqrt(width / Math.PI);

/** Half-width of the pulses that give a power factor: what a capacitor behind a rectifier does to the current. */
export function pulseWidth(factor: number): number {
  let low = 1e-3;
  let high = Math.PI / 2 - 1e-6;
  for (let step = 0; step < 60; step += 1) {
    const middle = (low + high) / 2;
    if (pulseFactor(middle) < factor) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}

/** Crest factor of the input current with a power factor: narrower pulses are higher. */
export const currentCrest = (factor: number): number => Math.sqrt(Math.PI / pulseWidth(factor));

/** Input current at an angle of the mains, rad, in parts of its rms value. */
export function currentShape(width: number, angle: number): number {
  const turn = ((angle % (2 * Math.PI)) + 2 * Math.PI) % (2 * Math.PI);
  const positive = turn < Math.PI;
  const x = (positive ? turn : turn - Math.PI) - Math.PI / 2;
  if (Math.abs(x) >= width) return 0;
  return (positive ? 1 : -1) * Math.cos((Math.PI * x) / (2 * width)) * Math.sqrt(Math.PI / width);
}

/** Current some seconds after switching on at a supply voltage: the bulk fills through its resistance, A. */
export const inrushAmps = ({ inrushOhms, bulkFarads }: SupplyTruth, volts: number, seconds: number): number =>
  seconds < 0 ? 0 : (volts / inrushOhms) * Math.exp(-seconds / (inrushOhms * bulkFarads));

/** How long the bulk keeps an output up once the mains are gone, s. @param volts peak of the supply @param watts drawn */
export const holdUpSeconds = ({ bulkFarads }: SupplyTruth, volts: number, watts: number): number =>
  watts > 0 ? (0.5 * bulkFarads * volts ** 2) / watts : 0;

export interface HeatState {
  /** K */
  readonly inside: number;
  readonly shell: number;
}

const LONGEST_STEP = 2;

/** Temperatures some seconds later, with a constant loss and room. Two lumps, stepped finely enough to be stable. */
export function heatAfter(state: HeatState, heat: HeatTruth, loss: number, room: number, seconds: number): HeatState {
  let { inside, shell } = state;
  const steps = Math.max(1, Math.ceil(seconds / LONGEST_STEP));
  const dt = seconds / steps;
  for (let step = 0; step < steps; step += 1) {
    const through = heat.insideToShell * (inside - shell);
    const away = heat.shellToRoom * (shell - room);
    inside += ((loss - through) / heat.insideCapacity) * dt;
    shell += ((through - away) / heat.shellCapacity) * dt;
  }
  return { inside, shell };
}

/** Where the temperatures end if nothing changes, K. */
export const heatSteady = (heat: HeatTruth, loss: number, room: number): HeatState => {
  const shell = room + loss / heat.shellToRoom;
  return { shell, inside: shell + loss / heat.insideToShell };
};

/** Copper rises by 0.393 % per kelvin over 20 °C; contacts do not. @param celsius of the cable */
export const cableOhms = (copper: number, contacts: number, celsius: number): number =>
  copper * (1 + 0.003_93 * (celsius - 20)) + contacts;

/** Ripple voltage at a moment, V about the mean. @param share of nameplate current, 0…1 */
export function rippleVolts(ripple: RippleTruth, share: number, mainsHertz: number, seconds: number): number {
  const turn = 2 * Math.PI * seconds;
  const mains = (ripple.mains / 2) * share * Math.sin(turn * 2 * mainsHertz);
  const switching = (ripple.switching / 2) * (0.3 + 0.7 * share) * Math.sin(turn * ripple.switchingHertz);
  if (share >= ripple.burstBelow || ripple.burstHertz <= 0) return mains + switching;
  // A burst lifts the output quickly and lets it sink slowly: a saw.
  const phase = (seconds * ripple.burstHertz) % 1;
  return mains + switching + ripple.burst * (phase < 0.1 ? phase * 10 - 0.5 : 0.5 - (phase - 0.1) / 0.9);
}
