// After the last step: what became of the claims.
import type { SheetRun } from '@lastmark/contract/plan';
import type { SampleDossier } from '@lastmark/contract/types';
import { describePromise } from '@lastmark/core/claim';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { dossierQuery } from '../api/queries.ts';
import { StateMark } from '../parts/StateMark.tsx';
import { useVerdict } from '../state/sample.tsx';
import { StartForm } from './StartForm.tsx';

function Claims({ dossier }: { readonly dossier: SampleDossier }) {
  const verdict = useVerdict(dossier);
  if (dossier.claims.length === 0) return <Typography>No claim was entered, so none is judged.</Typography>;
  return (
    <Box component="ul" aria-label="Claims" sx={{ listStyle: 'none', m: 0, p: 0 }}>
      {verdict.claims.map(({ claimId, state, sentence }) => {
        const claim = dossier.claims.find(({ id }) => id === claimId);
        return (
          <Box
            component="li"
            key={claimId}
            sx={{
              display: 'grid',
              gridTemplateColumns: '170px 1fr',
              gap: 1,
              py: 0.75,
              borderBottom: 1,
              borderColor: 'divider',
            }}
          >
            <StateMark state={state} />
            <Box>
              <Box sx={{ fontWeight: 600 }}>{claim ? describePromise(claim.promise) : ''}</Box>
              <Box sx={{ color: 'text.secondary' }}>{sentence}</Box>
            </Box>
          </Box>
        );
      })}
    </Box>
  );
}

export function RunEnd({ run }: { readonly run: SheetRun }) {
  const { data } = useQuery(dossierQuery(run.sample.id));
  return (
    <Box component="section" aria-label="After the run">
      {run.state === 'stopped' && (
        <>
          <Typography variant="h2" sx={{ mb: 1 }}>
            Take it up again
          </Typography>
          <Typography color="text.secondary" sx={{ mb: 1 }}>
            What was done stays done; it goes on at the first step that is open.
          </Typography>
          <StartForm
            sampleId={run.sample.id}
            rigId={run.rigId}
            path={`/sheet-runs/${run.id}/resume`}
            action="Take the run up again"
          />
        </>
      )}
      <Typography variant="h2" sx={{ mb: 1 }}>
        Claims
      </Typography>
      {data && <Claims dossier={data} />}
      <Box sx={{ display: 'flex', gap: 1, mt: 2 }}>
        <Button variant="contained" component={Link} to={`/samples/${run.sample.id}/verdict`}>
          To the verdict
        </Button>
        <Button variant="outlined" component={Link} to={`/run-sheets/${run.sheetId}`}>
          The sheet
        </Button>
      </Box>
    </Box>
  );
}
