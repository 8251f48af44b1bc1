// Real devices as loads: what each took, and what that can prove.
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { Link } from 'react-router';
import { useSample } from '../../state/sample.tsx';
import { DeviceRunDialog } from './DeviceRunDialog.tsx';
import { RunList } from './RunList.tsx';

export function DeviceRuns() {
  const { dossier, verdict } = useSample();
  const [open, setOpen] = useState(false);
  const none = dossier.devices.length === 0;
  return (
    <>
      <RunList
        title="Devices"
        none={
          none
            ? 'No device is on record yet. Add one at Bench, with what it takes at most.'
            : 'No device was attached yet.'
        }
        action={
          none ? (
            <Button variant="contained" component={Link} to="/bench">
              Go to Bench
            </Button>
          ) : (
            <Button variant="contained" onClick={() => setOpen(true)}>
              Enter a device run
            </Button>
          )
        }
        items={verdict.results.proof.devices.map(({ run, sentence, limiter, notes }) => ({
          run,
          sentence,
          more: [limiter, ...notes],
        }))}
      >
        <Typography color="text.secondary" sx={{ mb: 1 }}>
          A device takes what it wants: what it took is a lower bound and never refutes a promise.
        </Typography>
      </RunList>
      {open && <DeviceRunDialog onClose={() => setOpen(false)} />}
    </>
  );
}
