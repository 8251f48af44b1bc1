// The laws behind the simulated bench, each a function of its own so that it can be checked by itself.
import type { HeatTruth, IdleTruth, LossTruth, RippleTruth } from './truth.ts';

/** What becomes heat at an output, W. @param outputs volts and watts of every loaded output */
export function lossWatts(
  loss: LossTruth,
  outputs: readonly { readonly volts: number; readonly watts: number }[],
  nameplate: number,
  mainsVolts: number,
): number {
  const total = outputs.reduce((sum, { watts }) => sum + watts, 0);
  if (total <= 0) return loss.fixed;
  const low = mainsVolts < 180 ? 1 + loss.lowMains : 1;
  const byLevel = outputs.reduce(
    (sum, { volts, watts }) => sum + loss.perVoltBelow20 * Math.max(0, 20 - volts) * watts,
    0,
  );
  return loss.fixed + loss.proportional * total + (loss.resistive * low * total ** 2) / nameplate + byLevel;
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

/** Crest factor of the input current: near a sine's when corrected, peaky when not. */
export const currentCrest = (corrected: boolean): number => (corrected ? 1.5 : 3.6);

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
