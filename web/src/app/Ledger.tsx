// The ledger: the claims this station touches, their state as evidence arrives, and the readings behind each.
import { describePromise } from '@lastmark/core/claim';
import { STATIONS_ABOUT } from '@lastmark/core/station';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Collapse from '@mui/material/Collapse';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { Link, useMatch } from 'react-router';
import { EvidenceList } from '../parts/EvidenceList.tsx';
import { StateMark } from '../parts/StateMark.tsx';
import { useSample } from '../state/sample.tsx';
import { useSettings } from '../state/settings.tsx';
import { useKeys } from '../state/useKeys.ts';

const WIDTH = 296;

function Entry({
  index,
  open,
  onToggle,
}: {
  readonly index: number;
  readonly open: boolean;
  readonly onToggle: () => void;
}) {
  const { dossier, verdict } = useSample();
  const claim = dossier.claims[index];
  const result = verdict.claims[index];
  if (!claim || !result) return null;
  const id = `ledger-${claim.id}`;
  return (
    <Box component="li" sx={{ borderBottom: 1, borderColor: 'divider' }}>
      <Box
        component="button"
        type="button"
        aria-expanded={open}
        aria-controls={id}
        onClick={onToggle}
        sx={{
          all: 'unset',
          display: 'block',
          width: '100%',
          boxSizing: 'border-box',
          px: 2,
          py: 1.1,
          cursor: 'pointer',
          '&:hover': { bgcolor: 'ground' },
          '&:focus-visible': { outline: '3px solid', outlineColor: 'primary.main', outlineOffset: -3 },
        }}
      >
        <Box sx={{ fontWeight: 600, overflowWrap: 'anywhere' }}>{describePromise(claim.promise)}</Box>
        <StateMark state={result.state} />
        <Box sx={{ fontSize: 13, color: 'text.secondary', mt: 0.25 }}>{result.sentence}</Box>
      </Box>
      <Collapse in={open} unmountOnExit timeout={0}>
        <Box id={id} sx={{ px: 2, pb: 1.5 }}>
          <EvidenceList result={result} printed={claim.printed} />
        </Box>
      </Collapse>
    </Box>
  );
}

export function Ledger() {
  const { dossier } = useSample();
  const { ledgerOpen, change } = useSettings();
  const [selected, setSelected] = useState<string | null>(null);
  const station = useMatch('/samples/:sampleId/:station')?.params.station ?? '';
  useKeys({ 'alt+l': () => change({ ledgerOpen: !ledgerOpen }) });
  const touched: readonly string[] | null = STATIONS_ABOUT.find(({ id }) => id === station)?.touches ?? null;
  const shown = dossier.claims.flatMap((claim, index) =>
    !touched || touched.includes(claim.promise.kind) ? [{ claim, index }] : [],
  );
  if (!ledgerOpen) {
    return (
      <Box sx={{ borderLeft: 1, borderColor: 'divider', bgcolor: 'background.paper' }}>
        <Button
          onClick={() => change({ ledgerOpen: true })}
          sx={{ minWidth: 0, px: 1, py: 2, writingMode: 'vertical-rl' }}
          aria-expanded={false}
        >
          Ledger ({shown.length})
        </Button>
      </Box>
    );
  }
  return (
    <Box
      component="aside"
      aria-label="Ledger"
      sx={{
        width: WIDTH,
        flexShrink: 0,
        position: 'sticky',
        top: 0,
        height: '100vh',
        overflowY: 'auto',
        bgcolor: 'background.paper',
        borderLeft: 1,
        borderColor: 'divider',
      }}
    >
      <Box sx={{ display: 'flex', alignItems: 'baseline', justifyContent: 'space-between', px: 2, pt: 2, pb: 1 }}>
        <Typography variant="h2">Ledger</Typography>
        <Button size="small" onClick={() => change({ ledgerOpen: false })} aria-expanded>
          Fold
        </Button>
      </Box>
      <Box component="ul" sx={{ listStyle: 'none', m: 0, p: 0, borderTop: 1, borderColor: 'divider' }}>
        {shown.map(({ claim, index }) => (
          <Entry
            key={claim.id}
            index={index}
            open={selected === claim.id}
            onToggle={() => setSelected(selected === claim.id ? null : claim.id)}
          />
        ))}
      </Box>
      {shown.length === 0 && (
        <Typography sx={{ p: 2 }} color="text.secondary">
          {dossier.claims.length === 0
            ? 'No claims yet. Type what label and box promise.'
            : 'No claim is settled at this station.'}{' '}
          {station !== 'claims' && <Link to={`/samples/${dossier.sample.id}/claims`}>Go to Claims</Link>}
        </Typography>
      )}
    </Box>
  );
}
