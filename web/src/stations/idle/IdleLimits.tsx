// The no-load limits held against the idle draw.
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { useOnBench } from '../../app/bench.tsx';
import { AgainstVerdict } from '../../parts/AgainstVerdict.tsx';
import { LimitLines } from '../../parts/LimitLines.tsx';
import { TakenDialog } from '../../parts/TakenDialog.tsx';

export function IdleLimits() {
  const { verdict } = useOnBench();
  const [stating, setStating] = useState(false);
  if (verdict.idleLimits.length === 0) return null;
  return (
    <>
      <Box sx={{ display: 'flex', alignItems: 'center', mt: 3, mb: 1 }}>
        <Typography variant="h2" sx={{ flex: 1 }}>
          Limit sets
        </Typography>
        <Button onClick={() => setStating(true)}>How it was taken</Button>
      </Box>
      <LimitLines label="No-load limits" lines={verdict.idleLimits} />
      <AgainstVerdict lines={verdict.idleLimits} />
      {stating && <TakenDialog setupId={null} title="idle" onClose={() => setStating(false)} />}
      <Typography variant="body2" color="text.secondary" sx={{ mt: 1 }}>
        Confirm every limit against its current text. One sample is never compliance.
      </Typography>
    </>
  );
}
