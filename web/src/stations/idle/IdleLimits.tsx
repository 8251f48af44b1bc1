// The no-load limits held against the idle draw.
import { limitsOfIdle } from '@lastmark/core/verdict';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { toJudge, useOnBench } from '../../app/bench.tsx';
import { AgainstVerdict } from '../../parts/AgainstVerdict.tsx';
import { LimitLines } from '../../parts/LimitLines.tsx';
import { TakenDialog } from '../../parts/TakenDialog.tsx';
import { useOtherSet } from '../../parts/useOtherSet.tsx';

export function IdleLimits() {
  const { dossier, verdict } = useOnBench();
  const [stating, setStating] = useState(false);
  const { idle, figures } = verdict;
  const other = useOtherSet((sets) => limitsOfIdle(toJudge(dossier), idle, figures.watts, sets));
  const lines = [...verdict.idleLimits, ...other.lines];
  if (idle.length === 0) return null;
  return (
    <>
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 1.5, mt: 3, mb: 1 }}>
        <Typography variant="h2" sx={{ flex: 1 }}>
          Limit sets
        </Typography>
        {other.choice}
        <Button onClick={() => setStating(true)}>How it was taken</Button>
      </Box>
      {lines.length === 0 ? (
        <Typography color="text.secondary">No limit set covers what is measured so far.</Typography>
      ) : (
        <LimitLines label="No-load limits" lines={lines} />
      )}
      <AgainstVerdict lines={lines} />
      {stating && <TakenDialog setupId={null} title="idle" onClose={() => setStating(false)} />}
      <Typography variant="body2" color="text.secondary" sx={{ mt: 1 }}>
        Confirm every limit against its current text. One sample is never compliance.
      </Typography>
    </>
  );
}
