// Operations of conclusions and reports.
import type { Language } from '@lastmark/core/conclusion';
import { conclusionInput, draftQuery, packageInput, phraseQuery, reportBody, studyQuery } from './report-schemas.ts';
import type {
  CodeAnswer,
  ConclusionInput,
  Phrase,
  ReportInput,
  StoredConclusion,
  StoredReport,
  TakenPackage,
} from './report-types.ts';
import { get, is, of, type Route, write } from './route.ts';
import { type Items, PACKAGE_LIMIT } from './route-types.ts';

interface DraftQuery {
  language: Language;
  /** `ripple,heat` */
  leaves?: string | undefined;
  /** Ids of samples, `a,b`. */
  otherSamples?: string | undefined;
}

export const REPORT_ROUTES = {
  getConclusion: get('/samples/{sampleId}/conclusion', 'The conclusion of a sample as somebody kept it', {
    answer: is<StoredConclusion>(),
  }),
  updateConclusion: write('put', '/samples/{sampleId}/conclusion', 'Keep the conclusion of a sample', {
    body: of<ConclusionInput>(conclusionInput),
    ifMatch: true,
    answer: is<StoredConclusion>(),
  }),
  listPhrases: get('/phrases', 'Words written in conclusions before, those used most first', {
    query: of<{ language: Language }>(phraseQuery),
    answer: is<Items<Phrase>>(),
  }),
  draftReport: get('/samples/{sampleId}/report.pdf', 'The report of a sample as a draft', {
    query: of<DraftQuery>(draftQuery),
    answers: 'application/pdf',
  }),
  draftHtml: get('/samples/{sampleId}/report.html', 'The report of a sample as one HTML file, as a draft', {
    query: of<DraftQuery>(draftQuery),
    answers: 'text/html',
  }),
  draftPictures: get('/samples/{sampleId}/pictures.zip', 'Pictures of the report as SVG, with their data as CSV', {
    query: of<DraftQuery>(draftQuery),
    answers: 'application/zip',
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
  getReportHtml: get('/reports/{reportId}/report.html', 'A report as one HTML file, from what was issued', {
    answers: 'text/html',
  }),
  getReportPictures: get('/reports/{reportId}/pictures.zip', 'Pictures of a report, from what was issued', {
    answers: 'application/zip',
  }),
  getPackage: get(
    '/samples/{sampleId}/package.zip',
    'The sample as an open package: JSON, tables, traces, files, hashes',
    {
      answers: 'application/zip',
    },
  ),
  getStudy: get(
    '/study.zip',
    'Several samples as one open package: chosen ones or those of a comparison, with the trials among them',
    {
      query: of<{ samples?: string | undefined; comparison?: string | undefined }>(studyQuery),
      answers: 'application/zip',
    },
  ),
  takePackage: write(
    'post',
    '/packages',
    'Take in a package of a sample or a study: what is known is recognised, nothing is overwritten',
    {
      body: of<{ name: string }>(packageInput),
      file: 'with input',
      limit: PACKAGE_LIMIT,
      answer: is<TakenPackage>(),
    },
  ),
  checkCode: get('/report-codes/{code}', 'What is known of the code of a printed report', { answer: is<CodeAnswer>() }),
} as const satisfies Record<string, Route>;
