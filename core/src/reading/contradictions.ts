// Refuses at entry what cannot be true together, with a sentence that says what to look at.
import { formatPlain } from '../quantity/index.ts';
import { expandedUncertainty, product } from '../uncertainty/index.ts';
import { asMeasured, currentReadings } from './current.ts';
import type { Point, Reading } from './types.ts';

/** Current below which an unloaded output counts as unloaded, A: meters show a few mA of their own. */
const NO_LOAD_AMPS = 0.02;

const outputPlaces: readonly string[] = ['port', 'load-end'];

/**
 * Everything in a point that contradicts itself. Empty when nothing does.
 * @param point conditions and readings together, as they would stand after entry
 */
export function contradictions(point: Pick<Point, 'load' | 'attached' | 'readings'>): readonly string[] {
  const readings = currentReadings(point.readings);
  return [...impossibleValues(readings), ...loadContradictions(point, readings), ...powerContradictions(readings)];
}

function impossibleValues(readings: readonly Reading[]): string[] {
  return readings.flatMap(({ quantity, value, typed, place }) => {
    if (value === null || !Number.isFinite(value)) return [`${typed} is not a finite value.`];
    if (value < 0 && place === 'mains' && quantity === 'power')
      return [`${typed} at the mains is negative: is the meter wired backwards, or does power flow the other way?`];
    if (value < 0 && quantity !== 'temperature') return [`${typed} is negative: check the polarity of the meter.`];
    if (quantity === 'power-factor' && value > 1) return [`A power factor of ${typed} is above 1.`];
    if (quantity === 'efficiency' && value > 1) return [`An efficiency of ${typed} is above 100 %.`];
    return [];
  });
}

function loadContradictions(point: Pick<Point, 'load' | 'attached'>, readings: readonly Reading[]): string[] {
  const drawn = readings.find(
    (reading) =>
      reading.quantity === 'current' && outputPlaces.includes(reading.place) && (reading.value ?? 0) > NO_LOAD_AMPS,
  );
  if (point.load === 0 && drawn?.value != null) {
    return [
      `No load, yet ${formatPlain(drawn.value, 'current')} flows. Is something plugged in, or is this a load point?`,
    ];
  }
  return [];
}

/** Output power of one port from its readings, if both factors are there. */
function portPower(readings: readonly Reading[], port: string | null) {
  const at = (quantity: Reading['quantity']) =>
    readings.findLast((r) => r.quantity === quantity && r.port === port && outputPlaces.includes(r.place));
  const volts = at('voltage');
  const amps = at('current');
  const watts = at('power');
  return {
    computed: volts && amps ? product(asMeasured(volts), asMeasured(amps)) : undefined,
    stated: watts ? asMeasured(watts) : undefined,
    statedText: watts?.typed,
    samples: watts?.count ?? 1,
  };
}

function powerContradictions(readings: readonly Reading[]): string[] {
  const found: string[] = [];
  const ports = new Set(readings.filter((r) => outputPlaces.includes(r.place)).map((r) => r.port));
  let output = 0;
  let outputU = 0;
  for (const port of ports) {
    const { computed, stated, statedText, samples } = portPower(readings, port);
    if (computed && stated && samples === 1) {
      const allowed = expandedUncertainty(computed) + expandedUncertainty(stated);
      if (Math.abs(computed.value - stated.value) > allowed) {
        found.push(
          `${statedText} on ${port} is not volts × amps: ${formatPlain(computed.value, 'power')} by the two meters. Check the place and unit of each.`,
        );
      }
    }
    const best = stated ?? computed;
    output += best?.value ?? 0;
    outputU += best ? expandedUncertainty(best) : 0;
  }
  const mains = readings.findLast((r) => r.quantity === 'power' && r.place === 'mains');
  if (mains && output > 0) {
    const input = asMeasured(mains);
    if (output - outputU > input.value + expandedUncertainty(input)) {
      found.push(
        `Output ${formatPlain(output, 'power')} is above input ${formatPlain(input.value, 'power')}. Are the two swapped, or is one in mW?`,
      );
    }
  }
  return found;
}
