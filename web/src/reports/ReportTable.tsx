// Reports that were issued, a line each: its code, who issued it, and what became of it since.
import type { StoredReport } from '@lastmark/contract/types';
import { LANGUAGE_NAMES } from '@lastmark/core/conclusion';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { apiUrl } from '../api/world.ts';
import { QuietTable } from '../parts/QuietTable.tsx';

const KIND_WORDS: Readonly<Record<StoredReport['kind'], string>> = {
  first: 'report',
  correction: 'correction',
  'follow-up': 'follow-up',
};

/** What kind it is, and why it was issued. */
function What({ report: { kind, reason, fate, changes } }: { readonly report: StoredReport }) {
  return (
    <>
      {KIND_WORDS[kind]}
      {fate && `: ${fate}`}
      {reason && (
        <Box component="span" sx={{ display: 'block', fontSize: 13, color: 'text.secondary' }}>
          {reason}
        </Box>
      )}
      {changes.length > 0 && (
        <Box component="details" sx={{ fontSize: 13 }}>
          <Box component="summary" sx={{ cursor: 'pointer' }}>
            {changes.length === 1 ? 'One figure changed' : `${changes.length} figures changed`}
          </Box>
          {changes.map(({ name, was, is }) => (
            <div key={name}>
              {name}: {was ?? 'nothing'} → {is ?? 'nothing'}
            </div>
          ))}
        </Box>
      )}
    </>
  );
}

interface Props {
  readonly items: readonly StoredReport[];
  /** Samples are named where there are several. */
  readonly ofAll?: boolean;
  readonly onAmend?: (report: StoredReport) => void;
  /** What stands below a code. */
  readonly beside?: (report: StoredReport) => ReactNode;
}

export function ReportTable({ items, ofAll = false, onAmend, beside }: Props) {
  return (
    <QuietTable<StoredReport>
      label="Issued reports"
      rows={items}
      rowKey={({ id }) => id}
      columns={[
        {
          head: 'Code',
          cell: (report) => {
            const { id, code } = report;
            return (
              <Box sx={{ whiteSpace: 'nowrap', '& a': { display: 'inline-block', minHeight: 24, lineHeight: '24px' } }}>
                <a href={apiUrl(`/reports/${id}/report.pdf`)} target="_blank" rel="noreferrer">
                  {code}
                </a>
                <Box sx={{ fontSize: 13, fontWeight: 400 }}>
                  <a href={apiUrl(`/reports/${id}/report.html`)} aria-label={`${code} as HTML`}>
                    HTML
                  </a>{' '}
                  ·{' '}
                  <a href={apiUrl(`/reports/${id}/pictures.zip`)} aria-label={`Pictures of ${code}`}>
                    pictures
                  </a>
                </Box>
                {beside && <Box sx={{ fontSize: 13, fontWeight: 400 }}>{beside(report)}</Box>}
              </Box>
            );
          },
        },
        ...(ofAll
          ? [
              {
                head: 'Sample',
                cell: ({ sampleId, title }: StoredReport) => (
                  <Box
                    component={Link}
                    to={`/samples/${sampleId}/verdict`}
                    sx={{ display: 'inline-block', minHeight: 24, color: 'primary.main' }}
                  >
                    {title}
                  </Box>
                ),
              },
            ]
          : []),
        { head: 'What', cell: (report) => <What report={report} /> },
        { head: 'Issued', cell: ({ issuedAt, person }) => `${issuedAt.slice(0, 10)}, ${person}` },
        { head: 'In', cell: ({ language }) => LANGUAGE_NAMES[language] },
        {
          head: 'Since',
          cell: ({ amendedBy, ...rest }) =>
            amendedBy !== null ? (
              <Box sx={{ minWidth: 110 }}>amended by {amendedBy}</Box>
            ) : onAmend ? (
              <Button size="small" aria-label={`Amend ${rest.code}`} onClick={() => onAmend({ amendedBy, ...rest })}>
                Amend
              </Button>
            ) : (
              'stands'
            ),
        },
      ]}
    />
  );
}
