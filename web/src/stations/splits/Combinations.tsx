// Every combination: promised and measured side by side, what is left to measure, and ways to enter it.

import { CLAIM_STATES, worstState } from '@lastmark/core/claim';
import { fixed } from '@lastmark/core/quantity';
import { type SplitRow, setKey } from '@lastmark/core/split';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { Link } from 'react-router';
import { FileButton } from '../../parts/FileButton.tsx';
import { StateMark } from '../../parts/StateMark.tsx';
import { useSample } from '../../state/sample.tsx';
import { RunList } from '../proof/RunList.tsx';
import { SplitBars, shareWords } from './SplitBars.tsx';
import { SplitDialog } from './SplitDialog.tsx';
import { SplitListDialog } from './SplitListDialog.tsx';
import { Sweep } from './Sweep.tsx';

const MORE_WORDS = {
  stated: '▲ more than promised',
  headroom: '▲ headroom',
  hazard: '▲ hazard: more than promised',
} as const;

/** What all ports gave together: metered with one number, from the socket with both ends. */
function totalWords({ promised, total, lines }: SplitRow): string {
  const metered = lines.every(({ value }) => value !== null);
  const read =
    total === null
      ? 'not measured'
      : total.unstated.length > 0
        ? 'accuracy not stated'
        : metered
          ? `${fixed(
              lines.reduce((sum, { value }) => sum + (value ?? 0), 0),
              1,
            )} W`
          : `${shareWords({ value: null, measured: total }, 1)} W`;
  const plain = read.replaceAll(' ', '\u00a0');
  return promised === null ? plain : `${plain} of\u00a0${fixed(promised, 0)}\u00a0W`;
}

/** How a combination stands: the state of its promise as the ledger has it. */
function Standing({ row, as }: { readonly row: SplitRow; readonly as: keyof typeof MORE_WORDS }) {
  const states = row.lines.flatMap(({ state }) => state ?? []);
  if (states.length === 0) return '○ not promised';
  const worst = worstState(states, CLAIM_STATES);
  const more = row.lines.every((line) => line.more);
  return (
    <>
      <StateMark state={worst} />
      {more && <Box sx={{ fontSize: 13, fontWeight: 400 }}>{MORE_WORDS[as]}</Box>}
    </>
  );
}

export function Combinations() {
  const { dossier, verdict } = useSample();
  const { rows, drops } = verdict.results.splits;
  const ports = dossier.sample.model.ports.map(({ label }) => label);
  const [open, setOpen] = useState<readonly string[] | null>(null);
  const [file, setFile] = useState<File | null>(null);
  const scale = Math.max(
    30,
    ...rows.map(({ lines }) =>
      lines.reduce(
        (sum, { promised, measured }) =>
          sum + Math.max(promised ?? 0, Number.isFinite(measured?.high) ? (measured?.high ?? 0) : 0),
        0,
      ),
    ),
  );
  const runs = dossier.runs.filter(({ kind, withdrawn }) => kind === 'split' && !withdrawn);
  const elsewhere = verdict.results.proof.delivered.filter(
    ({ sourceIds, load }) => load > 0 && !sourceIds.some((id) => runs.some((run) => run.id === id)),
  ).length;
  const superseded = new Set(dossier.runs.map(({ supersedes }) => supersedes));
  return (
    <>
      <Stack direction="row" sx={{ gap: 1, mb: 1.5 }}>
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
          <Typography variant="body2" color="text.secondary" sx={{ mb: 0.5 }}>
            Outline: promised. Fill: metered. Hatched: known only to lie between two ends. A broken edge: the port drops
            out when another of the set is plugged in.
          </Typography>
          <Box
            component="table"
            aria-label="Combinations"
            sx={{
              borderCollapse: 'collapse',
              width: '100%',
              mb: 2,
              bgcolor: 'background.paper',
              border: 1,
              borderColor: 'divider',
              '& td': { px: 1, py: 0.25, borderBottom: 1, borderColor: 'divider' },
            }}
          >
            <tbody>
              {rows.map((row) => {
                return (
                  <tr key={setKey(row.occupied)}>
                    <Box component="td" sx={{ fontWeight: 600, whiteSpace: 'nowrap' }}>
                      {setKey(row.occupied)}
                    </Box>
                    <td>
                      <SplitBars row={row} ports={ports} scale={scale} drops={drops} />
                    </td>
                    <Box component="td" sx={{ fontVariantNumeric: 'tabular-nums', lineHeight: 1.25 }}>
                      {totalWords(row)}
                    </Box>
                    <Box component="td" sx={{ whiteSpace: 'nowrap', fontWeight: 600 }}>
                      <Standing row={row} as={dossier.profile.more.as} />
                      {row.charging === false && (
                        <Box sx={{ color: 'error.main', fontSize: 13 }}>▼ something stopped charging</Box>
                      )}
                    </Box>
                  </tr>
                );
              })}
            </tbody>
          </Box>
        </>
      )}
      <Sweep onMeasure={setOpen} />
      <RunList
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
                      run.mainsWatts === null ? '' : `${fixed(run.mainsWatts, 1)} W at the socket`,
                      run.drops
                        .filter(({ dropped }) => dropped)
                        .map(
                          ({ port, cause, seconds }) =>
                            `${port} dropped${seconds === null ? '' : ` for ${fixed(seconds, 1)} s`} when ${cause} came`,
                        )
                        .join(', '),
                    ],
                  },
                ]
              : [],
          )}
      />
      {open && <SplitDialog start={open} onClose={() => setOpen(null)} />}
      {file && <SplitListDialog file={file} onClose={() => setFile(null)} />}
    </>
  );
}
