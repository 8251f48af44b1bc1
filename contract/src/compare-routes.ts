// Operations of comparisons, and of how the shelf is filed.
import type { SetRule } from '@lastmark/core/compare';
import { comparisonInput, filingBody, searchInput, setBody } from './compare-schemas.ts';
import type {
  ComparisonBody,
  Filing,
  SearchInput,
  SetAnswer,
  StoredComparison,
  StoredSearch,
  WantedMeasure,
} from './compare-types.ts';
import { get, is, of, type Route, write } from './route.ts';
import type { Items } from './route-types.ts';

export const COMPARE_ROUTES = {
  listComparisons: get('/comparisons', 'Comparisons somebody keeps, the last changed first', {
    answer: is<Items<StoredComparison>>(),
  }),
  createComparison: write('post', '/comparisons', 'Keep a comparison', {
    body: of<ComparisonBody>(comparisonInput),
    answer: is<StoredComparison>(),
  }),
  getComparison: get('/comparisons/{comparisonId}', 'One comparison', { answer: is<StoredComparison>() }),
  updateComparison: write('put', '/comparisons/{comparisonId}', 'Change a comparison', {
    body: of<ComparisonBody>(comparisonInput),
    ifMatch: true,
    answer: is<StoredComparison>(),
  }),
  deleteComparison: write('delete', '/comparisons/{comparisonId}', 'Remove a comparison', { ifMatch: true }),
  lookAtSet: write('post', '/comparison-set', 'The set a rule makes, with values of some measures; keeps nothing', {
    needs: 'reader',
    keepsNothing: true,
    body: of<{ rule: SetRule; measures: WantedMeasure[] }>(setBody),
    answer: is<SetAnswer>(),
  }),
  listSearches: get('/searches', 'Searches of the shelf somebody keeps', { answer: is<Items<StoredSearch>>() }),
  createSearch: write('post', '/searches', 'Keep a search', {
    body: of<SearchInput>(searchInput),
    answer: is<StoredSearch>(),
  }),
  deleteSearch: write('delete', '/searches/{searchId}', 'Remove a search', {}),
  fileSamples: write('post', '/filings', 'Label and archive samples; answers with how they were filed before', {
    body: of<{ filings: Filing[] }>(filingBody),
    answer: is<{ before: Filing[] }>(),
  }),
} as const satisfies Record<string, Route>;
