// Where the uncertainty of a loading's averages and points comes from, on demand.
import { AVERAGE_LOADS, averageBudget, efficiencyBudget, type SeriesResult } from '@lastmark/core/efficiency';
import { fixed } from '@lastmark/core/quantity';
import { mainsLabel } from '@lastmark/core/reading';
import { BudgetLines, type BudgetRow } from '../../parts/BudgetLines.tsx';

const points = (expanded: number): string => `${fixed(expanded * 100, 2)} percentage points`;

export function Budget({ series }: { readonly series: SeriesResult }) {
  const rows = series.byMains.flatMap(({ mains, loads, average }): BudgetRow[] => {
    const four = loads.filter(({ load }) => AVERAGE_LOADS.includes(load));
    const whole = average ? [{ title: `Average, ${mainsLabel(mains)}`, budget: averageBudget(four, average) }] : [];
    const each = loads
      .filter(({ load }) => load > 0)
      .map((result) => ({
        title: `${Math.round(result.load * 100)} %, ${mainsLabel(mains)}`,
        budget: efficiencyBudget(result),
      }));
    return [...whole, ...each].map((row) => ({ ...row, expanded: points(row.budget.expanded) }));
  });
  return <BudgetLines rows={rows} />;
}
