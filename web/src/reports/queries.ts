// Reports that were issued, and what is known of a code.
import type { CodeAnswer, StoredReport } from '@lastmark/contract/types';
import { queryOptions } from '@tanstack/react-query';
import { api } from '../api/client.ts';

/** Of one sample; null for all. */
export const reportsQuery = (sampleId: string | null) =>
  queryOptions({
    queryKey: ['reports', sampleId],
    queryFn: ({ signal }) =>
      api<{ items: StoredReport[] }>(sampleId === null ? '/reports' : `/samples/${sampleId}/reports`, { signal }),
  });

export const codeQuery = (code: string) =>
  queryOptions({
    queryKey: ['report-code', code],
    queryFn: ({ signal }) => api<CodeAnswer>(`/report-codes/${encodeURIComponent(code)}`, { signal }),
    // What a code cannot be it will not be the next time.
    retry: false,
  });
