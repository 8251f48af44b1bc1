// What a source offers: 32-bit words to power objects and back, without losing a bit.
import { pack, reservedPart, unpack } from './layout.ts';
import { BATTERY, EPR_AVS, FIXED, PPS, SPR_AVS, sourceLayout, UNKNOWN, VARIABLE } from './source-layouts.ts';

/** Flags of the first, 5 V object; in any other object these bits are reserved. */
export const FIXED_FLAGS = [
  'dualRolePower',
  'suspend',
  'unconstrained',
  'usbComms',
  'dualRoleData',
  'unchunked',
  'eprCapable',
] as const;

export type FixedFlag = (typeof FIXED_FLAGS)[number];

/** One offer. Volts, amps, watts; `peak` is the peak-current code 0–3; `reserved` holds reserved bits in their places. */
export type SourceObject =
  | {
      readonly kind: 'fixed';
      readonly volts: number;
      readonly amps: number;
      readonly peak: number;
      readonly flags: readonly FixedFlag[];
      readonly reserved: number;
    }
  | { readonly kind: 'variable'; readonly minVolts: number; readonly maxVolts: number; readonly amps: number }
  | { readonly kind: 'battery'; readonly minVolts: number; readonly maxVolts: number; readonly watts: number }
  | {
      readonly kind: 'pps';
      readonly minVolts: number;
      readonly maxVolts: number;
      readonly amps: number;
      readonly powerLimited: boolean;
      readonly reserved: number;
    }
  | {
      readonly kind: 'epr-avs';
      readonly minVolts: number;
      readonly maxVolts: number;
      readonly watts: number;
      readonly peak: number;
      readonly reserved: number;
    }
  | {
      readonly kind: 'spr-avs';
      /** At 9–15 V. */
      readonly amps: number;
      /** At 15–20 V; 0 when it stops at 15 V. */
      readonly ampsAbove: number;
      readonly peak: number;
      readonly reserved: number;
    }
  /** An augmented type nobody has defined. */
  | { readonly kind: 'unknown'; readonly reserved: number }
  /** All zero: a place holder in an EPR list. */
  | { readonly kind: 'empty' };

export type SupplyKind = SourceObject['kind'];

const rounded = (raw: number, step: number): number => Number((raw * step).toFixed(3));

/**
 * Decode one source object.
 * @param word unsigned 32-bit word; every word decodes
 */
export function decodeSource(word: number): SourceObject {
  if (!Number.isInteger(word) || word < 0 || word > 0xffffffff) throw new RangeError('A word has 32 bits.');
  if (word === 0) return { kind: 'empty' };
  const rest = reservedPart(sourceLayout(word), word);
  switch (sourceLayout(word)) {
    case FIXED: {
      const raw = unpack(FIXED, word);
      const flags = FIXED_FLAGS.filter((name) => raw[name] === 1);
      const { volts, amps, peak } = raw;
      return { kind: 'fixed', volts: rounded(volts, 0.05), amps: rounded(amps, 0.01), peak, flags, reserved: rest };
    }
    case VARIABLE: {
      const { minVolts, maxVolts, amps } = unpack(VARIABLE, word);
      return {
        kind: 'variable',
        minVolts: rounded(minVolts, 0.05),
        maxVolts: rounded(maxVolts, 0.05),
        amps: rounded(amps, 0.01),
      };
    }
    case BATTERY: {
      const { minVolts, maxVolts, watts } = unpack(BATTERY, word);
      return {
        kind: 'battery',
        minVolts: rounded(minVolts, 0.05),
        maxVolts: rounded(maxVolts, 0.05),
        watts: rounded(watts, 0.25),
      };
    }
    case PPS: {
      const { minVolts, maxVolts, amps, powerLimited } = unpack(PPS, word);
      return {
        kind: 'pps',
        minVolts: rounded(minVolts, 0.1),
        maxVolts: rounded(maxVolts, 0.1),
        amps: rounded(amps, 0.05),
        powerLimited: powerLimited === 1,
        reserved: rest,
      };
    }
    case EPR_AVS: {
      const { minVolts, maxVolts, watts, peak } = unpack(EPR_AVS, word);
      return {
        kind: 'epr-avs',
        minVolts: rounded(minVolts, 0.1),
        maxVolts: rounded(maxVolts, 0.1),
        watts,
        peak,
        reserved: rest,
      };
    }
    case SPR_AVS: {
      const { amps, ampsAbove, peak } = unpack(SPR_AVS, word);
      return { kind: 'spr-avs', amps: rounded(amps, 0.01), ampsAbove: rounded(ampsAbove, 0.01), peak, reserved: rest };
    }
    default:
      return { kind: 'unknown', reserved: rest };
  }
}

/** Steps of a value, the nearest one. @throws RangeError unless finite */
const stepsOf = (value: number, step: number): number => {
  if (!Number.isFinite(value)) throw new RangeError('An offer has finite numbers.');
  return Math.round(value / step);
};

/**
 * Encode one source object: the exact inverse of {@link decodeSource}.
 * @throws RangeError for a value that does not fit its field
 */
export function encodeSource(object: SourceObject): number {
  switch (object.kind) {
    case 'empty':
      return 0;
    case 'fixed': {
      const flags = Object.fromEntries(object.flags.map((name) => [name, 1]));
      const { volts, amps, peak } = object;
      return (
        pack(FIXED, { type: 0, ...flags, peak, volts: stepsOf(volts, 0.05), amps: stepsOf(amps, 0.01) }) +
        object.reserved
      );
    }
    case 'variable':
      return pack(VARIABLE, {
        type: 2,
        minVolts: stepsOf(object.minVolts, 0.05),
        maxVolts: stepsOf(object.maxVolts, 0.05),
        amps: stepsOf(object.amps, 0.01),
      });
    case 'battery':
      return pack(BATTERY, {
        type: 1,
        minVolts: stepsOf(object.minVolts, 0.05),
        maxVolts: stepsOf(object.maxVolts, 0.05),
        watts: stepsOf(object.watts, 0.25),
      });
    case 'pps':
      return (
        pack(PPS, {
          type: 3,
          augmented: 0,
          powerLimited: object.powerLimited ? 1 : 0,
          minVolts: stepsOf(object.minVolts, 0.1),
          maxVolts: stepsOf(object.maxVolts, 0.1),
          amps: stepsOf(object.amps, 0.05),
        }) + object.reserved
      );
    case 'epr-avs':
      return (
        pack(EPR_AVS, {
          type: 3,
          augmented: 1,
          peak: object.peak,
          minVolts: stepsOf(object.minVolts, 0.1),
          maxVolts: stepsOf(object.maxVolts, 0.1),
          watts: stepsOf(object.watts, 1),
        }) + object.reserved
      );
    case 'spr-avs':
      return (
        pack(SPR_AVS, {
          type: 3,
          augmented: 2,
          peak: object.peak,
          amps: stepsOf(object.amps, 0.01),
          ampsAbove: stepsOf(object.ampsAbove, 0.01),
        }) + object.reserved
      );
    case 'unknown':
      return pack(UNKNOWN, { type: 3, augmented: 3 }) + object.reserved;
  }
}
