// Every combination: promised and measured side by side, what is left to measure, and ways to enter it.

import type { StoredRun } from '@lastmark/contract/types';
import { fixed } from '@lastmark/core/quantity';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { Link } from 'react-router';
import { FileButton } from '../../parts/FileButton.tsx';
import { Term } from '../../parts/Term.tsx';
import { useSample } from '../../state/sample.tsx';
import { RunList } from '../proof/RunList.tsx';
import { breakWords } from './breakWords.ts';
import { deviceWords } from './deviceWords.ts';
import { SplitDialog } from './SplitDialog.tsx';
import { SplitListDialog } from './SplitListDialog.tsx';
import { SplitMatrix } from './SplitMatrix.tsx';
import { Sweep } from './Sweep.tsx';

export function Combinations() {
  const { dossier, verdict } = useSample();
  const { rows, drops, rule } = verdict.results.splits;
  const ports = dossier.sample.model.ports.map(({ label }) => label);
  const [open, setOpen] = useState<readonly string[] | null>(null);
  const [corrected, setCorrected] = useState<Extract<StoredRun, { kind: 'split' }> | null>(null);
  const [file, setFile] = useState<File | null>(null);
  const runs = dossier.runs.filter(({ kind, withdrawn }) => kind === 'split' && !withdrawn);
  const elsewhere = verdict.results.proof.delivered.filter(
    ({ sourceIds, load }) => load > 0 && !sourceIds.some((id) => runs.some((run) => run.id === id)),
  ).length;
  const superseded = new Set(dossier.runs.map(({ supersedes }) => supersedes));
  return (
    <>
      <Stack direction="row" sx={{ gap: 1, mb: 1.5, flexWrap: 'wrap' }}>
        <Button variant="contained" onClick={() => setOpen([])}>
          Enter a combination
        </Button>
        <FileButton
          label="List of combinations"
          accept=".csv,text/csv"
          onFiles={([one]) => one && setFile(one)}
          button={{ variant: 'outlined' }}
        >
          Take in a list
        </FileButton>
        <Button component={Link} to={`/run-sheets?sample=${dossier.sample.id}`}>
          Plan a run
        </Button>
      </Stack>
      {rows.length === 0 && (
        <Typography sx={{ mb: 2 }}>
          Nothing promised and nothing measured yet. Enter the table as printed, or the first combination.
        </Typography>
      )}
      {rows.length > 0 && (
        <>
          <SplitMatrix
            label="Combinations"
            rows={rows}
            ports={ports}
            drops={drops}
            budgets={rule.budgets}
            as={dossier.profile.more.as}
          />
          <Typography variant="body2" color="text.secondary" sx={{ mb: 1.5 }}>
            Outline: promised. Fill: metered. Hatched: between two ends. Zigzag: drops out when another is plugged in.
            Bars over the ports: the <Term of="budget">budgets</Term> that follow.
          </Typography>
        </>
      )}
      <Sweep onMeasure={setOpen} />
      <RunList
        kind="split"
        onCorrect={(run) => run.kind === 'split' && setCorrected(run)}
        title="As entered"
        none={
          elsewhere > 0
            ? `None entered here. ${elsewhere} ${elsewhere === 1 ? 'reading' : 'readings'} of other stations count in the ledger.`
            : 'No combination entered yet.'
        }
        action={null}
        items={runs
          .filter(({ id }) => !superseded.has(id))
          .flatMap((run) =>
            run.kind === 'split'
              ? [
                  {
                    run,
                    sentence: `${run.order.join(', then ')}: ${run.shares.map(({ port, volts, amps, light }) => `${port} ${volts === null || amps === null ? 'not metered' : `${fixed(volts * amps, 1)} W`}${light ? ' (lightly loaded)' : ''}`).join(', ')}`,
                    more: [
                      run.shares.flatMap((share) => deviceWords(share, dossier.devices)).join('; '),
                      run.mainsWatts === null ? '' : `${fixed(run.mainsWatts, 1)} W at the socket`,
                      run.drops
                        .filter(({ dropped }) => dropped)
                        .map(
                          ({ port, cause, seconds, offBy }) =>
                            `${port} dropped${seconds === null ? '' : ` for ${breakWords(seconds, offBy)}`} when ${cause} came`,
                        )
                        .join(', '),
                    ],
                  },
                ]
              : [],
          )}
      />
      {open && <SplitDialog start={open} onClose={() => setOpen(null)} />}
      {corrected && <SplitDialog start={[]} run={corrected} onClose={() => setCorrected(null)} />}
      {file && <SplitListDialog file={file} onClose={() => setFile(null)} />}
    </>
  );
}
