// Every claim by its state, the worst first, each with the readings behind it.
import { CLAIM_STATES, type ClaimState, describeDuration, describePromise } from '@lastmark/core/claim';
import { STATIONS_ABOUT, stateWord } from '@lastmark/core/station';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { Link } from 'react-router';
import { EvidenceList } from '../../parts/EvidenceList.tsx';
import { isLoud, StateMark } from '../../parts/StateMark.tsx';
import { useSample } from '../../state/sample.tsx';

/** Where to go to settle a claim nobody tested. */
function NextStep({ kind }: { readonly kind: string }) {
  const { dossier } = useSample();
  const station = STATIONS_ABOUT.find(({ settles }) => (settles as readonly string[]).includes(kind));
  if (!station) return null;
  return (
    <Button size="small" component={Link} to={`/samples/${dossier.sample.id}/${station.id}`} sx={{ mt: 0.5, px: 0.5 }}>
      Measure it at {station.title}
    </Button>
  );
}

function ClaimGroup({ state }: { readonly state: ClaimState }) {
  const { dossier, verdict } = useSample();
  const members = dossier.claims.flatMap((claim, index) => {
    const result = verdict.claims[index];
    return result?.state === state ? [{ claim, result }] : [];
  });
  if (members.length === 0) return null;
  return (
    <Box component="section" aria-label={stateWord(state)} sx={{ mb: 2.5 }}>
      <Typography variant="h2" sx={{ mb: 0.75 }}>
        <StateMark state={state} />
      </Typography>
      {members.map(({ claim, result }) => (
        <Box
          key={claim.id}
          component="details"
          sx={{
            border: 1,
            borderColor: isLoud(state) ? 'error.main' : 'divider',
            borderRadius: 1,
            bgcolor: isLoud(state) ? 'badGround' : 'background.paper',
            mb: 0.5,
            '& > summary': { px: 2, py: 1, cursor: 'pointer' },
          }}
        >
          <summary>
            <Box component="span" sx={{ fontWeight: 600 }}>
              {describePromise(claim.promise)}
            </Box>{' '}
            <Box component="span" sx={{ color: 'text.secondary' }}>
              {claim.duration.kind !== 'unstated' && `(${describeDuration(claim.duration)}) `}
            </Box>
            {result.sentence}
          </summary>
          <Box sx={{ px: 2, pb: 1.5 }}>
            <EvidenceList result={result} printed={claim.printed} />
            {state === 'not tested' && <NextStep kind={claim.promise.kind} />}
          </Box>
        </Box>
      ))}
    </Box>
  );
}

export function ClaimGroups() {
  return CLAIM_STATES.map((state) => <ClaimGroup key={state} state={state} />);
}
