// Trials: questions settled by runs, one thing changed at a time.
import type { TrialRow } from '@lastmark/contract/types';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { trialsQuery } from '../api/queries.ts';
import { Page } from '../parts/Page.tsx';
import { QueryGate } from '../parts/QueryGate.tsx';
import { QuietTable } from '../parts/QuietTable.tsx';
import { TrialDialog } from './TrialDialog.tsx';

export function TrialTable({ items }: { readonly items: readonly TrialRow[] }) {
  return (
    <QuietTable<TrialRow>
      label="Trials"
      rows={items}
      rowKey={({ id }) => id}
      columns={[
        { head: 'Question', cell: ({ id, question }) => <Link to={`/trials/${id}`}>{question}</Link> },
        { head: 'What is changed', cell: ({ words }) => words },
        { head: 'Runs', cell: ({ done, planned }) => (done >= planned ? `all ${planned}` : `${done} of ${planned}`) },
        { head: 'Planned', cell: ({ createdAt }) => createdAt.slice(0, 10) },
      ]}
    />
  );
}

export function TrialsPage() {
  const [params] = useSearchParams();
  const sampleId = params.get('sample');
  const query = useQuery({ ...trialsQuery(sampleId), refetchInterval: 10_000 });
  const [open, setOpen] = useState(false);
  return (
    <Page
      title="Trials"
      actions={
        <>
          {sampleId && (
            <Button component={Link} to="/trials">
              Trials with every sample
            </Button>
          )}
          <Button variant="contained" onClick={() => setOpen(true)}>
            Plan a trial
          </Button>
        </>
      }
    >
      <QueryGate query={query} what="the trials">
        {({ items }) =>
          items.length === 0 ? (
            <Box
              sx={{
                p: 2,
                maxWidth: 720,
                border: '1px dashed',
                borderColor: 'soft',
                borderRadius: 1,
                bgcolor: 'background.paper',
              }}
            >
              <Typography sx={{ fontWeight: 600 }}>No trial yet.</Typography>
              <Typography color="text.secondary">
                “Does the blue plug charge quicker?” One thing is changed, everything else is held and written down. The
                order is drawn, so that a warm room or an ageing battery hits both alike; how many pairs it takes is
                worked out before.
              </Typography>
            </Box>
          ) : (
            <TrialTable items={items} />
          )
        }
      </QueryGate>
      {open && <TrialDialog onClose={() => setOpen(false)} />}
    </Page>
  );
}
