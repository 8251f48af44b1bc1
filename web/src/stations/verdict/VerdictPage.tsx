// The sample at a glance: what each port was promised and proved, its figures, the conclusion, claims, history, ways out.
import type { StoredReport } from '@lastmark/contract/types';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { apiUrl, PRACTISING } from '../../api/world.ts';
import { CableFace } from '../../parts/CableFace.tsx';
import { PageHead } from '../../parts/Page.tsx';
import { QueryGate } from '../../parts/QueryGate.tsx';
import { Term } from '../../parts/Term.tsx';
import { reportsQuery } from '../../reports/queries.ts';
import { useSample } from '../../state/sample.tsx';
import { Remarks } from '../../together/Remarks.tsx';
import { ClaimGroups } from './ClaimGroups.tsx';
import { ConclusionPanel } from './ConclusionPanel.tsx';
import { History } from './History.tsx';
import { Figures } from './KeyFigures.tsx';
import { Matrix } from './Matrix.tsx';
import { NextSteps } from './NextSteps.tsx';
import { Peers } from './Peers.tsx';
import { PortBars } from './PortBars.tsx';
import { ReportsOfSample } from './ReportsOfSample.tsx';
import { TrialsOfSample } from './TrialsOfSample.tsx';
import { conclusionQuery } from './useConclusion.ts';

/** All of it at once, so that nothing moves; what is fetched later stands below. */
function AtAGlance({ reports }: { readonly reports: readonly StoredReport[] }) {
  const { dossier, verdict } = useSample();
  const { sample, profile } = dossier;
  return (
    <>
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: { xs: '1fr', md: 'minmax(0, 2fr) minmax(0, 3fr)' },
          gap: 3,
          alignItems: 'start',
          mb: 2.5,
        }}
      >
        {sample.model.cable ? <CableFace cable={sample.model.cable} width={300} /> : <PortBars />}
        <Box sx={{ minWidth: 0 }}>
          <Figures figures={verdict.figures} />
          <Matrix />
        </Box>
      </Box>
      <ConclusionPanel />
      <ClaimGroups />
      {dossier.claims.length === 0 && (
        <Typography color="text.secondary" sx={{ mb: 2.5 }}>
          Nothing to judge yet. <Link to={`/samples/${sample.id}/claims`}>Type what the label promises</Link>.
        </Typography>
      )}
      <History reports={reports} />
      <Typography variant="body2" color="text.secondary" sx={{ mb: 2.5 }}>
        {profile.rule === 'guarded'
          ? 'Guarded: proven only if value − U clears the limit, short only if value + U misses it.'
          : 'Simple: the value against the limit.'}{' '}
        <Term of="U" /> is k = 2, about 95 %. A result from Lastmark is not a safety certification.
      </Typography>
      <NextSteps />
      <TrialsOfSample sampleId={sample.id} />
      {!PRACTISING && <ReportsOfSample sampleId={sample.id} kind={sample.model.kind} />}
      <Remarks sampleId={sample.id} />
      <Peers />
    </>
  );
}

/** What leaves the house. */
function Files({ base }: { readonly base: string }) {
  return (
    <>
      <Button variant="contained" href={`${base}/sheet.pdf`} target="_blank">
        Print the sheet
      </Button>
      <Button variant="outlined" href={`${base}/export.csv`}>
        Data as CSV
      </Button>
      <Button variant="outlined" href={`${base}/export.json`}>
        Data as JSON
      </Button>
      <Button variant="outlined" href={`${base}/package.zip`}>
        Package
      </Button>
    </>
  );
}

export function VerdictPage() {
  const { sample } = useSample().dossier;
  const conclusion = useQuery(conclusionQuery(sample.id));
  const reports = useQuery(reportsQuery(sample.id));
  const base = apiUrl(`/samples/${sample.id}`);
  return (
    <Box sx={{ maxWidth: 1240 }}>
      <PageHead title="Verdict">{!PRACTISING && <Files base={base} />}</PageHead>
      <QueryGate query={conclusion} what="the conclusion">
        {() => (
          <QueryGate query={reports} what="its reports">
            {({ items }) => <AtAGlance reports={items} />}
          </QueryGate>
        )}
      </QueryGate>
    </Box>
  );
}
