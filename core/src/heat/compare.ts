// Two soaks beside each other: a difference is told only where load, place and mains agree.
import { mainsLabel, type Output } from '../reading/index.ts';
import type { SoakResult } from './station.ts';

export type SoakComparison =
  | {
      readonly comparable: true;
      /** K, of the steady rise over ambient: second less first. */
      readonly difference: number;
      /** Half width of its 95 % interval, K; null where one of them is not bounded. */
      readonly half: number | null;
      /** Whether the difference is beyond what is known of either. */
      readonly told: boolean;
    }
  | { readonly comparable: false; readonly reasons: readonly string[] };

const loaded = (outputs: readonly Output[]): string =>
  outputs
    .filter(({ amps }) => amps > 0)
    .map(({ port, volts, amps }) => `${port} ${volts} V ${amps.toFixed(2)} A`)
    .sort()
    .join(' + ');

/** Half width of a rise's interval; null where an end is open. */
const halfOf = ({ rise }: SoakResult): number | null =>
  rise && rise.interval[0] !== null && rise.interval[1] !== null ? (rise.interval[1] - rise.interval[0]) / 2 : null;

/**
 * @param sameMains leave out to let the mains differ: then it is the one thing that is compared
 * @example compareSoaks(at115, at230, false) // { comparable: true, difference: −2.4, half: 0.3, told: true }
 */
export function compareSoaks(first: SoakResult, second: SoakResult, sameMains = true): SoakComparison {
  const reasons = [
    ...(loaded(first.outputs) === loaded(second.outputs)
      ? []
      : [`other loads: ${loaded(first.outputs)} and ${loaded(second.outputs)}`]),
    ...(first.place === second.place ? [] : [`other places: ${first.place} and ${second.place}`]),
    ...(!sameMains || mainsLabel(first.mains) === mainsLabel(second.mains)
      ? []
      : [`other mains: ${mainsLabel(first.mains)} and ${mainsLabel(second.mains)}`]),
    ...(first.rise && second.rise ? [] : ['where one of them leads over its ambient is not told']),
  ];
  if (reasons.length > 0 || !first.rise || !second.rise) return { comparable: false, reasons };
  const difference = second.rise.steady - first.rise.steady;
  const [a, b] = [halfOf(first), halfOf(second)];
  const half = a === null || b === null ? null : Math.hypot(a, b);
  return { comparable: true, difference, half, told: half !== null && Math.abs(difference) > half };
}
