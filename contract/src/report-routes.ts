// Operations of conclusions and reports.
import { conclusionInput, draftQuery, reportBody } from './report-schemas.ts';
import type { CodeAnswer, ConclusionInput, ReportInput, StoredConclusion, StoredReport } from './report-types.ts';
import { get, is, of, type Route, write } from './route.ts';
import type { Items } from './route-types.ts';

export const REPORT_ROUTES = {
  getConclusion: get('/samples/{sampleId}/conclusion', 'The conclusion of a sample as somebody kept it', {
    answer: is<StoredConclusion>(),
  }),
  updateConclusion: write('put', '/samples/{sampleId}/conclusion', 'Keep the conclusion of a sample', {
    body: of<ConclusionInput>(conclusionInput),
    ifMatch: true,
    answer: is<StoredConclusion>(),
  }),
  draftReport: get('/samples/{sampleId}/report.pdf', 'The report of a sample as a draft', {
    query: of<{ language: 'en' | 'de'; person?: string }>(draftQuery),
    answers: 'application/pdf',
  }),
  listReportsOfSample: get('/samples/{sampleId}/reports', 'Reports that were issued of a sample, the newest first', {
    answer: is<Items<StoredReport>>(),
  }),
  issueReport: write(
    'post',
    '/samples/{sampleId}/reports',
    'Issue a report, or one that amends another; the same id twice is issued once',
    {
      body: of<{ report: ReportInput }>(reportBody),
      ids: ['report.id'],
      answer: is<StoredReport>(),
    },
  ),
  listReports: get('/reports', 'Reports that were issued, the newest first', { answer: is<Items<StoredReport>>() }),
  getReportPdf: get('/reports/{reportId}/report.pdf', 'A report as it was issued', { answers: 'application/pdf' }),
  checkCode: get('/report-codes/{code}', 'What is known of the code of a printed report', { answer: is<CodeAnswer>() }),
} as const satisfies Record<string, Route>;
