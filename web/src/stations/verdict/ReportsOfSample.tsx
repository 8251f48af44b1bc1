// Reports of this sample: a draft to look at, the first to issue, and amendments of what was issued.
import type { StoredReport } from '@lastmark/contract/types';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { apiUrl } from '../../api/world.ts';
import { Witness } from '../../parts/Witness.tsx';
import { IssueDialog } from '../../reports/IssueDialog.tsx';
import { reportsQuery } from '../../reports/queries.ts';
import { ReportTable } from '../../reports/ReportTable.tsx';
import { useSettings } from '../../state/settings.tsx';

export function ReportsOfSample({ sampleId, kind }: { readonly sampleId: string; readonly kind: string }) {
  const { reportLanguage } = useSettings();
  const { data } = useQuery(reportsQuery(sampleId));
  const [open, setOpen] = useState<StoredReport | 'first' | null>(null);
  const items = data?.items ?? [];
  return (
    <Box component="section" aria-label="Reports" sx={{ mb: 2.5 }}>
      <Box sx={{ display: 'flex', gap: 1, alignItems: 'center', mb: 0.75 }}>
        <Typography variant="h2" sx={{ flex: 1 }}>
          Reports
        </Typography>
        <Button
          variant="outlined"
          href={apiUrl(`/samples/${sampleId}/report.pdf?language=${reportLanguage}`)}
          target="_blank"
        >
          Look at the draft
        </Button>
        <Button href={apiUrl(`/samples/${sampleId}/report.html?language=${reportLanguage}`)}>Draft as HTML</Button>
        <Button href={apiUrl(`/samples/${sampleId}/pictures.zip?language=${reportLanguage}`)}>Pictures</Button>
        <Button variant="outlined" onClick={() => setOpen('first')}>
          Issue the report
        </Button>
      </Box>
      {items.length > 0 ? (
        <ReportTable
          items={items}
          onAmend={setOpen}
          beside={({ id, code }) => <Witness sampleId={sampleId} about="report" aboutId={id} name={`report ${code}`} />}
        />
      ) : (
        <Typography color="text.secondary">
          {data ? 'None was issued. Once issued a report stays as it is; what changes later amends it.' : ' '}
        </Typography>
      )}
      {open && (
        <IssueDialog
          sampleId={sampleId}
          kind={kind}
          amends={open === 'first' ? null : open}
          onClose={() => setOpen(null)}
        />
      )}
    </Box>
  );
}
