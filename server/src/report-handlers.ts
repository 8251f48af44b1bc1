// What conclusions and reports answer with.
import { listOf } from '@lastmark/contract';
import type { LeavableId } from '@lastmark/core/report';
import { listPhrases } from './conclusions/phrases.ts';
import { getConclusion, updateConclusion } from './conclusions/store.ts';
import { asJson, saved, versioned } from './http/answers.ts';
import type { Call, Handlers } from './http/handlers.ts';
import { refused } from './http/problem.ts';
import { listReports } from './issued/store.ts';
import type { ReportForm } from './reports/issue.ts';
import type { Working } from './working.ts';

type Reporting = Pick<
  Handlers,
  | 'getConclusion'
  | 'updateConclusion'
  | 'listPhrases'
  | 'draftReport'
  | 'draftHtml'
  | 'draftPictures'
  | 'listReportsOfSample'
  | 'issueReport'
  | 'listReports'
  | 'getReportPdf'
  | 'getReportHtml'
  | 'getReportPictures'
  | 'getPackage'
  | 'getStudy'
  | 'takePackage'
  | 'checkCode'
>;

export function reportHandlers(jobs: Working['jobs']): Reporting {
  const draft = ({ params, query, left }: Call<'draftReport' | 'draftHtml' | 'draftPictures'>, form: ReportForm) =>
    jobs.run(
      'report',
      {
        sampleId: params.sampleId,
        form,
        language: query.language,
        leaves: listOf(query.leaves) as LeavableId[],
        others: listOf(query.otherSamples),
      },
      left,
    );
  return {
    getConclusion: async (call) => versioned(await getConclusion(call.db, call.params.sampleId)),
    updateConclusion: async (call) =>
      versioned(await updateConclusion(call.db, call.params.sampleId, call.body, call.ifMatch)),
    listPhrases: async ({ db, query }) => ({ body: { items: await listPhrases(db, query.language) } }),
    draftReport: async (call) => saved('inline', await draft(call, 'pdf')),
    draftHtml: async (call) => saved('attachment', await draft(call, 'html')),
    draftPictures: async (call) => saved('attachment', await draft(call, 'pictures')),
    getReportHtml: async (call) =>
      saved('attachment', await jobs.run('issuedAs', { reportId: call.params.reportId, form: 'html' }, call.left)),
    getReportPictures: async (call) =>
      saved('attachment', await jobs.run('issuedAs', { reportId: call.params.reportId, form: 'pictures' }, call.left)),
    listReportsOfSample: async (call) => ({ body: { items: await listReports(call.db, call.params.sampleId) } }),
    issueReport: async (call) => ({
      body: await jobs.run('issueReport', { sampleId: call.params.sampleId, report: call.body.report }, call.left),
    }),
    listReports: async ({ db }) => ({ body: { items: await listReports(db, null) } }),
    getReportPdf: async (call) =>
      saved('inline', await jobs.run('issuedReport', { reportId: call.params.reportId }, call.left)),
    getPackage: async (call) =>
      saved('attachment', await jobs.run('package', { sampleId: call.params.sampleId }, call.left)),
    getStudy: async ({ query, left }) => {
      const { samples, comparison = null } = query;
      if (!samples && !comparison) throw refused('samples', 'Say which samples, or which comparison.');
      const ids = samples?.split(',') ?? null;
      return saved('attachment', await jobs.run('study', { sampleIds: ids, comparisonId: comparison }, left));
    },
    takePackage: async ({ path, left }) => {
      if (path === null) throw refused('file', 'Send the package itself, as a file.');
      return { body: await jobs.run('takePackage', { path }, left) };
    },
    checkCode: async (call) => asJson(await jobs.run('checkCode', { code: call.params.code }, call.left)),
  };
}
