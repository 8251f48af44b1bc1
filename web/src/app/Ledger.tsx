// The ledger: the claims this station touches, their state as evidence arrives, and the readings behind each.
import { type ClaimState, describePromise } from '@lastmark/core/claim';
import { STATIONS_ABOUT } from '@lastmark/core/station';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Collapse from '@mui/material/Collapse';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { useMatch } from 'react-router';
import { EvidenceList } from '../parts/EvidenceList.tsx';
import { isLoud, isOpen, StateMark } from '../parts/StateMark.tsx';
import { useSample } from '../state/sample.tsx';
import { useSettings } from '../state/settings.tsx';
import { useKeys } from '../state/useKeys.ts';
import { useNarrow } from '../state/useNarrow.ts';

const WIDTH = 248;

/** Stations that list the claims themselves. */
const OWN_LIST: readonly string[] = ['claims', 'verdict'];

/** As few as this stand above the work, not in a column of their own. */
const FEW = 2;

/** What fell short first, then what is open, then what nobody knows yet; what is proven last. */
function rank(state: ClaimState): number {
  if (isLoud(state)) return 0;
  if (isOpen(state)) return 1;
  return state === 'proven' || state === 'assumed' ? 3 : 2;
}

interface EntryProps {
  readonly index: number;
  readonly open: boolean;
  readonly onToggle: () => void;
}

function Entry({ index, open, onToggle }: EntryProps) {
  const { dossier, verdict } = useSample();
  const claim = dossier.claims[index];
  const result = verdict.claims[index];
  if (!claim || !result) return null;
  const id = `ledger-${claim.id}`;
  const quiet = rank(result.state) === 3;
  return (
    <Box
      component="li"
      sx={{ borderBottom: 1, borderColor: 'divider', bgcolor: isLoud(result.state) ? 'badGround' : undefined }}
    >
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
          px: 1.5,
          py: quiet ? 0.6 : 1,
          cursor: 'pointer',
          fontSize: 14,
          '&:hover': { bgcolor: 'ground' },
          '&:focus-visible': { outline: '3px solid', outlineColor: 'primary.main', outlineOffset: -3 },
        }}
      >
        <Box sx={{ display: 'flex', flexWrap: 'wrap', columnGap: 1, justifyContent: 'space-between' }}>
          <Box component="span" sx={{ fontWeight: quiet ? 400 : 600, overflowWrap: 'anywhere' }}>
            {describePromise(claim.promise)}
          </Box>
          <StateMark state={result.state} />
        </Box>
        {!quiet && <Box sx={{ fontSize: 13, color: 'text.secondary', mt: 0.25 }}>{result.sentence}</Box>}
      </Box>
      <Collapse in={open} unmountOnExit timeout={0}>
        <Box id={id} sx={{ px: 1.5, pb: 1.5 }}>
          {quiet && <Box sx={{ fontSize: 13, color: 'text.secondary' }}>{result.sentence}</Box>}
          <EvidenceList result={result} printed={claim.printed} />
        </Box>
      </Collapse>
    </Box>
  );
}

const COLUMN = {
  gridColumn: 2,
  gridRow: '1 / span 2',
  width: WIDTH,
  boxSizing: 'border-box',
  position: 'sticky',
  top: 0,
  height: '100vh',
  overflowY: 'auto',
  // The bench line stands over its foot.
  pb: 8,
  borderLeft: 1,
} as const;

/** Above the work: claims are few, or there is no room beside it. */
const STRIP = { gridColumn: '1 / span 2', gridRow: 1, borderBottom: 1 } as const;

export function Ledger() {
  const { dossier, verdict } = useSample();
  const { ledgerOpen, change } = useSettings();
  const narrow = useNarrow();
  const [selected, setSelected] = useState<string | null>(null);
  const station = useMatch('/samples/:sampleId/:station')?.params.station ?? '';
  useKeys({ 'alt+l': () => change({ ledgerOpen: !ledgerOpen }) });
  const touched: readonly string[] | null = STATIONS_ABOUT.find(({ id }) => id === station)?.touches ?? null;
  if (touched === null || OWN_LIST.includes(station)) return null;
  const shown = dossier.claims
    .flatMap((claim, index) => (touched.includes(claim.promise.kind) ? [{ claim, index }] : []))
    .sort(
      (a, b) =>
        rank(verdict.claims[a.index]?.state ?? 'not tested') - rank(verdict.claims[b.index]?.state ?? 'not tested'),
    );
  if (shown.length === 0) return null;
  const strip = narrow || shown.length <= FEW;
  const look = { ...(strip ? STRIP : COLUMN), bgcolor: 'background.paper', borderColor: 'divider' };
  if (!ledgerOpen) {
    return (
      <Box sx={{ ...look, width: 'auto' }}>
        <Button
          size="small"
          onClick={() => change({ ledgerOpen: true })}
          sx={strip ? { m: 0.5 } : { minWidth: 0, px: 1, py: 2, writingMode: 'vertical-rl' }}
          aria-expanded={false}
        >
          Ledger ({shown.length})
        </Button>
      </Box>
    );
  }
  return (
    <Box component="aside" aria-label="Ledger" sx={look}>
      <Box
        sx={{
          display: 'flex',
          alignItems: 'baseline',
          justifyContent: 'space-between',
          px: 1.5,
          pt: strip ? 0.5 : 1.5,
        }}
      >
        <Typography variant="h2">Ledger</Typography>
        <Button size="small" onClick={() => change({ ledgerOpen: false })} aria-expanded>
          Fold
        </Button>
      </Box>
      <Box component="ul" sx={{ listStyle: 'none', m: 0, p: 0, borderTop: strip ? 0 : 1, borderColor: 'divider' }}>
        {shown.map(({ claim, index }) => (
          <Entry
            key={claim.id}
            index={index}
            open={selected === claim.id}
            onToggle={() => setSelected(selected === claim.id ? null : claim.id)}
          />
        ))}
      </Box>
    </Box>
  );
}
