// Key figures for the shelf, each with the condition that gave it.

import type { ClaimResult } from '../claim/index.ts';
import { nameplateOf, type SeriesResult } from '../efficiency/index.ts';
import type { ClaimState } from '../evidence/index.ts';
import { drawWords, type IdleResult } from '../idle/index.ts';
import { formatMeasured } from '../quantity/index.ts';
import { mainsLabel } from '../reading/index.ts';
import { expandedUncertainty, isStated, type Measured } from '../uncertainty/index.ts';
import type { Dossier, KeyFigure, KeyFigures, PriceFacts, StationState } from './types.ts';
import { FIGURES_FORM } from './types.ts';

/** The figure at the mains where it is worst, with that mains. */
function worseOf<T>(items: readonly T[], value: (item: T) => number): T | undefined {
  return items.reduce<T | undefined>(
    (worst, item) => (worst === undefined || value(item) < value(worst) ? item : worst),
    undefined,
  );
}

const PRICE_ORDER: readonly PriceFacts['kind'][] = ['paid', 'street', 'discounted', 'list'];

function newestPrice(prices: readonly PriceFacts[]): PriceFacts | undefined {
  for (const kind of PRICE_ORDER) {
    const newest = prices.filter((price) => price.kind === kind).sort((a, b) => b.date.localeCompare(a.date))[0];
    if (newest) return newest;
  }
  return undefined;
}

/** Expanded uncertainty for the shelf; null while it is not known. */
const knownExpanded = (of: Measured): number | null => (isStated(of) ? expandedUncertainty(of) : null);

/** The least of what is printed on something in the line, W; null where nothing is. */
function printedRating({ claims }: Dossier): number | null {
  const printed = claims.flatMap(({ promise }) =>
    promise.kind === 'cable-rating' ? [promise.amps * promise.volts] : [],
  );
  return printed.length > 0 ? Math.min(...printed) : null;
}

/** Figures of a judged sample. */
export function keyFigures(
  dossier: Dossier,
  series: readonly SeriesResult[],
  idle: readonly IdleResult[],
  claims: readonly ClaimResult[],
  stations: readonly StationState[],
): KeyFigures {
  const inLine = dossier.sample.kind === 'cable';
  const watts = inLine ? printedRating(dossier) : nameplateOf(dossier, series);
  const perWatt = inLine ? null : watts;
  const main = worseOf(
    series.filter((one) => one.byMains.some(({ average }) => average)),
    (one) => -one.nameplateWatts,
  );
  const averages = (main?.byMains ?? []).flatMap(({ mains, average }) => (average ? [{ mains, average }] : []));
  const worst = worseOf(averages, ({ average }) => average.value);
  const efficiency: KeyFigure | null =
    worst && main
      ? {
          value: worst.average.value,
          expanded: knownExpanded(worst.average),
          words: formatMeasured(worst.average.value, expandedUncertainty(worst.average), 'efficiency'),
          condition: `${main.setup.name}, ${mainsLabel(worst.mains)}`,
        }
      : null;
  const draw = worseOf(
    idle.filter(({ attached }) => attached === 'nothing'),
    (one) => -one.watts.value,
  );
  const price = newestPrice(dossier.sample.prices);
  const counts: Partial<Record<ClaimState, number>> = {};
  for (const { state } of claims) counts[state] = (counts[state] ?? 0) + 1;
  return {
    form: FIGURES_FORM,
    watts,
    efficiency,
    idle: draw
      ? {
          value: draw.below ?? draw.watts.value,
          expanded: knownExpanded(draw.watts),
          words: drawWords(draw),
          condition: mainsLabel(draw.mains),
          below: draw.below !== null,
        }
      : null,
    massPerWatt: perWatt && dossier.sample.mass ? dossier.sample.mass / perWatt : null,
    pricePerWatt:
      perWatt && price ? { value: price.amount / perWatt, currency: price.currency, basis: price.kind } : null,
    claims: counts,
    stations: stations.map(({ id, look }) => ({ id, look })),
  };
}
