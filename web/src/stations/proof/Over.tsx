// Over the rating: off unless the rules turn it on; then a search in short steps that stops by itself.
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { Link } from 'react-router';
import { useSample } from '../../state/sample.tsx';
import { OverDialog } from './OverDialog.tsx';
import { RunList } from './RunList.tsx';

export function Over() {
  const { dossier, verdict } = useSample();
  const [open, setOpen] = useState(false);
  const { on } = dossier.profile.overRating;
  return (
    <>
      <RunList
        kind="over"
        title="Over the rating"
        none={on ? 'No search yet.' : 'No search was made.'}
        action={
          on ? (
            <Button variant="contained" onClick={() => setOpen(true)}>
              Search the cut-off
            </Button>
          ) : (
            <Button variant="outlined" component={Link} to="/rules">
              Go to Rules
            </Button>
          )
        }
        items={verdict.results.proof.overs.map(({ run, sentence, highest }) => ({
          run,
          sentence,
          more: [
            run.steps.map(({ asked, amps, volts }) => `${asked} A: ${amps} A, ${volts} V`).join(' · '),
            highest !== null && highest > run.rated
              ? `Headroom of ${Math.round((highest / run.rated - 1) * 100)} % above its rating, stated without judgement.`
              : '',
          ],
        }))}
      >
        {!on && (
          <Typography sx={{ mb: 1 }}>
            Off: load steps stop at the rating. A search over it can destroy the sample; it is turned on at Rules.
          </Typography>
        )}
      </RunList>
      {open && <OverDialog onClose={() => setOpen(false)} />}
    </>
  );
}
