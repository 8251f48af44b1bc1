// Idle in words: the same on screen, sheet and shelf, and in what is said of a claim.
import { formatAtMost, formatMeasured, roundUp } from '../quantity/index.ts';
import { expandedUncertainty } from '../uncertainty/index.ts';
import type { IdleResult } from './index.ts';
import { yearlyCost, yearlyKilowattHours } from './year.ts';

type Draw = Pick<IdleResult, 'watts' | 'below'>;

/** `0.045 ± 0.002 W`, or `below 0.085 W` where the meter cannot tell more. */
export const drawWords = ({ watts, below }: Draw): string =>
  below === null
    ? formatMeasured(watts.value, expandedUncertainty(watts), 'power')
    : `below ${formatAtMost(below, 'power')}`;

/** What it takes and costs left plugged in for a year: `0.39 kWh`, or `< 0.75 kWh` where only a bound is known. */
export function yearWords({ watts, below }: Draw, tariff: number, currency: string): { energy: string; cost: string } {
  const value = below ?? watts.value;
  const shown = (amount: number) => (below === null ? amount : roundUp(amount, 2)).toFixed(2);
  const bound = below === null ? '' : '< ';
  return {
    energy: `${bound}${shown(yearlyKilowattHours(value))} kWh`,
    cost: `${bound}${shown(yearlyCost(value, tariff))} ${currency}`,
  };
}
