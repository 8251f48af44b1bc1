// The bits of every kind of source object. USB Power Delivery R3.2, 6.4.1.2 (tables of the power data objects).
import { choice, flag, type Layout, reserved, steps } from './layout.ts';

const TYPES = { 0: 'fixed supply', 1: 'battery', 2: 'variable supply', 3: 'augmented' };
const AUGMENTED = { 0: 'SPR programmable (PPS)', 1: 'EPR adjustable (AVS)', 2: 'SPR adjustable (AVS)' };
const PEAK = {
  0: 'as rated',
  1: '150 % for 1 ms, 125 % for 2 ms, 110 % for 10 ms',
  2: '200 % for 1 ms, 150 % for 2 ms, 125 % for 10 ms',
  3: '200 % for 1 ms, 175 % for 2 ms, 150 % for 10 ms',
};

const type = () => choice('type', 31, 30, 'Type', TYPES);
const augmented = () => choice('augmented', 29, 28, 'Augmented type', AUGMENTED);
const peak = (high: number, low: number) => choice('peak', high, low, 'Peak current', PEAK);

export const FIXED = [
  type(),
  flag('dualRolePower', 29, 'Dual-role power'),
  flag('suspend', 28, 'USB suspend supported'),
  flag('unconstrained', 27, 'Unconstrained power'),
  flag('usbComms', 26, 'USB communications capable'),
  flag('dualRoleData', 25, 'Dual-role data'),
  flag('unchunked', 24, 'Unchunked extended messages'),
  flag('eprCapable', 23, 'EPR capable'),
  reserved(22),
  peak(21, 20),
  steps('volts', 19, 10, 'Voltage', 0.05, 'V'),
  steps('amps', 9, 0, 'Maximum current', 0.01, 'A'),
] as const;

export const VARIABLE = [
  type(),
  steps('maxVolts', 29, 20, 'Maximum voltage', 0.05, 'V'),
  steps('minVolts', 19, 10, 'Minimum voltage', 0.05, 'V'),
  steps('amps', 9, 0, 'Maximum current', 0.01, 'A'),
] as const;

export const BATTERY = [
  type(),
  steps('maxVolts', 29, 20, 'Maximum voltage', 0.05, 'V'),
  steps('minVolts', 19, 10, 'Minimum voltage', 0.05, 'V'),
  steps('watts', 9, 0, 'Maximum power', 0.25, 'W'),
] as const;

export const PPS = [
  type(),
  augmented(),
  flag('powerLimited', 27, 'Power limited'),
  reserved(26, 25),
  steps('maxVolts', 24, 17, 'Maximum voltage', 0.1, 'V'),
  reserved(16),
  steps('minVolts', 15, 8, 'Minimum voltage', 0.1, 'V'),
  reserved(7),
  steps('amps', 6, 0, 'Maximum current', 0.05, 'A'),
] as const;

export const EPR_AVS = [
  type(),
  augmented(),
  peak(27, 26),
  steps('maxVolts', 25, 17, 'Maximum voltage', 0.1, 'V'),
  reserved(16),
  steps('minVolts', 15, 8, 'Minimum voltage', 0.1, 'V'),
  steps('watts', 7, 0, 'Power (PDP)', 1, 'W'),
] as const;

export const SPR_AVS = [
  type(),
  augmented(),
  peak(27, 26),
  reserved(25, 20),
  steps('amps', 19, 10, 'Maximum current, 9–15 V', 0.01, 'A'),
  steps('ampsAbove', 9, 0, 'Maximum current, 15–20 V', 0.01, 'A'),
] as const;

export const UNKNOWN = [type(), augmented(), reserved(27, 0)] as const;

/** The layout a word has by its type bits. */
export function sourceLayout(word: number): Layout {
  const top = Math.floor(word / 2 ** 28);
  const plain = [FIXED, BATTERY, VARIABLE][top >> 2];
  return plain ?? [PPS, EPR_AVS, SPR_AVS, UNKNOWN][top & 3] ?? UNKNOWN;
}
