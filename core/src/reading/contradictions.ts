// Refuses at entry what cannot be true together, with a sentence that says what to look at.

import { formatPlain } from '../quantity/index.ts';
import { expandedUncertainty, isStated, type Measured, product, sum } from '../uncertainty/index.ts';
import { impossible } from './bounds.ts';
import { asMeasured, currentReadings } from './current.ts';
import type { Place, Point, Reading } from './types.ts';

/** Current below which an unloaded output counts as unloaded, A: meters show a few mA of their own. */
const NO_LOAD_AMPS = 0.02;

/** What a meter of unknown accuracy may be off by before a value is called impossible. */
const UNKNOWN_PART = 0.05;

/** How far a value may be from the truth. */
const leeway = (of: Measured): number => (isStated(of) ? expandedUncertainty(of) : UNKNOWN_PART * Math.abs(of.value));

const outputPlaces: readonly Place[] = ['port', 'load-end', 'display'];

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
    const beyond = impossible({ quantity, place, value, typed });
    if (beyond) return [beyond];
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

/** Output power of one port at one place from its readings, if both factors are there. */
function placePower(readings: readonly Reading[], port: string | null, place: Place) {
  const at = (quantity: Reading['quantity']) =>
    readings.findLast((r) => r.quantity === quantity && r.port === port && r.place === place);
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

const PLACE_WORDS: Readonly<Record<Place, string>> = {
  mains: 'at the mains',
  port: 'at the port',
  'load-end': 'at the load end',
  display: 'on the display',
};

function powerContradictions(readings: readonly Reading[]): string[] {
  const found: string[] = [];
  const outputs = readings.filter(({ place }) => place !== 'mains');
  const best = new Map<string | null, Measured>();
  for (const place of ['load-end', 'display', 'port'] as const) {
    for (const port of new Set(outputs.filter((r) => r.place === place).map((r) => r.port))) {
      const { computed, stated, statedText, samples } = placePower(readings, port, place);
      if (computed && stated && samples === 1) {
        const allowed = leeway(computed) + leeway(stated);
        if (Math.abs(computed.value - stated.value) > allowed) {
          found.push(
            `${statedText} on ${port} ${PLACE_WORDS[place]} is not volts × amps: ${formatPlain(computed.value, 'power')} by the two meters. Check the place and unit of each.`,
          );
        }
      }
      const power = stated ?? computed;
      // What the port itself gives counts; the display and the load end only where nothing better was read.
      if (power && (place === 'port' || place === 'load-end' || !best.has(port))) best.set(port, power);
    }
  }
  const output = sum([...best.values()]);
  const mains = readings.findLast((r) => r.quantity === 'power' && r.place === 'mains');
  if (mains && output.value > 0) {
    const input = asMeasured(mains);
    if (output.value - leeway(output) > input.value + leeway(input)) {
      found.push(
        `Output ${formatPlain(output.value, 'power')} is above input ${formatPlain(input.value, 'power')}. Are the two swapped, or is one in mW?`,
      );
    }
  }
  return found;
}
