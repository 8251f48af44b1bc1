// Measures of one's own, read when there are any: what reads formulas is large.
import type { OwnMeasure } from '@lastmark/contract/types';
import { useQuery } from '@tanstack/react-query';
import type { OwnFormula } from './views.ts';

/** @returns undefined until they are read */
export function useOwnMeasures(own: readonly OwnMeasure[]): readonly OwnFormula[] | undefined {
  const { data } = useQuery({
    queryKey: ['own measures', own],
    queryFn: async (): Promise<readonly OwnFormula[]> => {
      if (own.length === 0) return [];
      const { formulaOf, formulaValue } = await import('@lastmark/core/formula');
      return own.flatMap((one): OwnFormula[] => {
        const formula = formulaOf(one.formula);
        return 'refusal' in formula ? [] : [{ own: one, formula, value: (of) => formulaValue(formula, of) }];
      });
    },
    staleTime: Number.POSITIVE_INFINITY,
  });
  return data;
}
