// What readings of a drop say besides a resistance.
import quantile from '@stdlib/stats-base-dists-t-quantile';
import type { Measured } from '../uncertainty/index.ts';
import type { Line } from './line.ts';
import type { DropFinding, DropReading } from './types.ts';

const milliohms = (ohms: number): string => `${Number((ohms * 1000).toPrecision(3))} mΩ`;

/** A part of the resistance below which warming is not worth a word. */
const MATTERS = 0.02;

export function findingsOf(
  line: Line | null,
  readings: readonly DropReading[],
  pluggings: number,
  currents: number,
  ohms: Measured,
): DropFinding[] {
  const found: DropFinding[] = [];
  if (!(ohms.value > 0))
    found.push({
      kind: 'less than nothing',
      sentence: 'The drop falls as the current rises: check which meter is at which end, and the sign.',
    });
  if (currents === 1)
    found.push({ kind: 'one current', sentence: 'One current alone: what the meters are off by counts in full.' });
  if (currents === 2)
    found.push({ kind: 'two currents', sentence: 'Two currents do not show whether it warms up. Read a third.' });
  if (line) {
    const { curvature, residuals, spread } = line;
    if (curvature) {
      const { value, uRepeat, degrees } = curvature;
      const most = Math.max(...readings.map(({ amps }) => amps));
      // What is told from chance, and large enough to matter.
      const clear =
        Math.abs(value) > tOf(degrees) * uRepeat && Math.abs(value) * most ** 2 > MATTERS * Math.abs(line.slope);
      if (clear && value > 0)
        found.push({
          kind: 'warms up',
          sentence: `It warms up: at ${Number(most.toPrecision(3))} A it is ${milliohms(value * most ** 2)} more than cold.`,
        });
      if (clear && value < 0)
        found.push({
          kind: 'falls with current',
          sentence:
            'The resistance falls as the current rises: a contact that cleans itself, or a meter that is not linear.',
        });
    }
    if (line.off)
      found.push({
        kind: 'one off',
        sentence: `One reading at ${Number((readings[line.off.at] as DropReading).amps.toPrecision(3))} A is ${Number((Math.abs(line.off.off) * 1000).toPrecision(2))} mV off the line of the others: a contact that moved, or a slip.`,
      });
    if (spread !== null && spread > 0.05 * Math.abs(line.slope))
      found.push({
        kind: 'pluggings differ',
        sentence: `From one plugging to the next it differs by ${milliohms(spread)}: the contacts, not the wire.`,
      });
    if (residuals.length > 3 && residuals.every((one) => Math.abs(one) < 1e-9))
      found.push({ kind: 'no scatter', sentence: 'The readings lie on a line to the last digit: no meter does that.' });
  }
  if (pluggings === 1)
    found.push({ kind: 'plugged once', sentence: 'Plugged in once: what the contacts do the next time is not in it.' });
  return found;
}

/** Student’s t for 95 %, two-sided. */
const tOf = (degrees: number): number => (Number.isFinite(degrees) ? quantile(0.975, degrees) : 1.96);
