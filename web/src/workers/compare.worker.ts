// Draws from uncertainties, away from the screen: who is first, and how weights turn.
import {
  type Compared,
  type Criterion,
  type First,
  firstOf,
  type Standing,
  standingOf,
  type WeightedRanking,
  weightedRanking,
} from '@lastmark/core/compare';
import type { Better } from '@lastmark/core/measure';
import { expose } from 'comlink';

const work = {
  firsts: (columns: readonly { readonly better: Better; readonly values: readonly Compared[] }[]): readonly First[] =>
    columns.map(({ better, values }) => firstOf(values, better, 8000)),
  standings: (
    id: string,
    columns: readonly { readonly better: Better; readonly values: readonly Compared[] }[],
  ): readonly (Standing | null)[] => columns.map(({ better, values }) => standingOf(id, values, better, 1000)),
  rank: (criteria: readonly Criterion[]): WeightedRanking => weightedRanking(criteria),
};

export type CompareWork = typeof work;

expose(work);
