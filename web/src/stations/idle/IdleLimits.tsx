// The no-load limits held against the idle draw.
import Typography from '@mui/material/Typography';
import { useOnBench } from '../../app/bench.tsx';
import { LimitLines } from '../../parts/LimitLines.tsx';

export function IdleLimits() {
  const { verdict } = useOnBench();
  if (verdict.idleLimits.length === 0) return null;
  return (
    <>
      <Typography variant="h2" sx={{ mt: 3, mb: 1 }}>
        Limit sets
      </Typography>
      <LimitLines label="No-load limits" lines={verdict.idleLimits} />
      <Typography variant="body2" color="text.secondary" sx={{ mt: 1 }}>
        Confirm every limit against its current text. One sample is never compliance.
      </Typography>
    </>
  );
}
