// For how long: every hold with how it ended, and hold-time against power.
import type { StoredRun } from '@lastmark/contract/types';
import { moveSentence } from '@lastmark/core/proof';
import { formatPlain } from '@lastmark/core/quantity';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { lazy, useState } from 'react';
import { EmptyFigure } from '../../parts/EmptyFigure.tsx';
import { barsHeight, figureHeight } from '../../parts/heights.ts';
import { Later } from '../../parts/Later.tsx';
import { useSample } from '../../state/sample.tsx';
import { HoldDialog } from './HoldDialog.tsx';
import { MoveDialog } from './MoveDialog.tsx';
import { RunList } from './RunList.tsx';

const HoldBars = lazy(async () => ({ default: (await import('./HoldBars.tsx')).HoldBars }));
const HoldChart = lazy(async () => ({ default: (await import('./HoldChart.tsx')).HoldChart }));

/** Side by side where there is room. */
const PICTURES = { xs: 'minmax(0, 1fr)', xl: 'repeat(auto-fit, minmax(460px, 1fr))' } as const;

const time = (seconds: number): string => formatPlain(seconds, 'duration', seconds < 120 ? 's' : 'min');

export function Holds() {
  const { dossier, verdict } = useSample();
  const { holds, moves, causes } = verdict.results.proof;
  const [open, setOpen] = useState<'hold' | 'move' | null>(null);
  const [corrected, setCorrected] = useState<Extract<StoredRun, { kind: 'hold' }> | null>(null);
  const several = holds.some((one) => one.lines.length > 1);
  const lines = holds.flatMap(({ title, lines: own }) => own.map((line) => ({ ...line, title })));
  return (
    <>
      <RunList
        kind="hold"
        onCorrect={(run) => run.kind === 'hold' && setCorrected(run)}
        title="For how long"
        none="No hold yet. Load the claimed power and leave it: the time it is really held, and what ends it."
        action={
          <Button variant="contained" onClick={() => setOpen('hold')}>
            Enter a hold
          </Button>
        }
        items={lines.map(({ run, title, watts }) => ({
          run,
          from: dossier.captures.some(({ id }) => id === run.id)
            ? { to: `/samples/${dossier.sample.id}/heat?soak=${run.id}`, label: 'The soak' }
            : undefined,
          sentence: (
            <>
              <strong>
                {formatPlain(watts, 'power')} on {title}
              </strong>
              : {run.end}{' '}
              {run.end === 'held to the end'
                ? `for ${time(run.held)}`
                : `after ${time(run.held)} of ${time(run.planned)}`}
              .
            </>
          ),
          more: [
            [
              run.hottest === null ? '' : `hottest spot ${formatPlain(run.hottest, 'temperature', '°C')}`,
              run.ambient === null ? '' : `room ${formatPlain(run.ambient, 'temperature', '°C')}`,
              run.after === null ? '' : `${formatPlain(run.after, 'power')} left`,
            ]
              .filter(Boolean)
              .join(', '),
          ],
        }))}
      >
        {lines.length === 0 && <EmptyFigure says="Time held against power, and what ended it, show here." />}
        {lines.length > 0 && (
          <Box sx={{ mb: 1.5, display: 'grid', gap: 1.5, gridTemplateColumns: PICTURES }}>
            <Later
              what="the charts"
              height={figureHeight(barsHeight(lines.length)) + (several ? figureHeight(240) + 12 : 0)}
            >
              <HoldBars />
              {/* How long depends on how much only shows with several powers. */}
              {several && <HoldChart />}
            </Later>
          </Box>
        )}
        {holds.map(({ title, sentence }) => (
          <Typography key={title} sx={{ mb: 1 }}>
            <strong>{title}</strong>: {sentence}
          </Typography>
        ))}
        {causes.map(({ sentence }) => (
          <Typography key={sentence} sx={{ mb: 1 }}>
            {sentence}
          </Typography>
        ))}
      </RunList>
      <RunList
        kind="move"
        title="Levels moved under load"
        none="Not moved yet. Where a level can be set, move it while loaded and count the breaks."
        action={
          <Button variant="outlined" onClick={() => setOpen('move')}>
            Enter a move
          </Button>
        }
        items={moves.map(({ run }) => ({ run, sentence: moveSentence(run), more: [] }))}
      />
      {open === 'hold' && <HoldDialog onClose={() => setOpen(null)} />}
      {corrected && <HoldDialog run={corrected} onClose={() => setCorrected(null)} />}
      {open === 'move' && <MoveDialog onClose={() => setOpen(null)} />}
    </>
  );
}
