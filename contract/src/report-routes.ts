// Operations of conclusions and reports.
import { conclusionInput } from './report-schemas.ts';
import type { ConclusionInput, StoredConclusion } from './report-types.ts';
import { get, is, of, type Route, write } from './route.ts';

export const REPORT_ROUTES = {
  getConclusion: get('/samples/{sampleId}/conclusion', 'The conclusion of a sample as somebody kept it', {
    answer: is<StoredConclusion>(),
  }),
  updateConclusion: write('put', '/samples/{sampleId}/conclusion', 'Keep the conclusion of a sample', {
    body: of<ConclusionInput>(conclusionInput),
    ifMatch: true,
    answer: is<StoredConclusion>(),
  }),
} as const satisfies Record<string, Route>;
