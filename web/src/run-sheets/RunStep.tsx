// The present step, large enough for a metre away.
import type { SheetRun } from '@lastmark/contract/plan';
import { mainsOf, type SheetStep, STEP_WORDS } from '@lastmark/core/plan';
import { mainsLabel } from '@lastmark/core/reading';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import LinearProgress from '@mui/material/LinearProgress';
import Typography from '@mui/material/Typography';
import { Caution } from '../parts/Caution.tsx';
import { countdown, isOver, RUN_WORDS } from './words.ts';

const ALARMS: readonly SheetRun['state'][] = ['held', 'interrupted'];

/** The sign of success is for a run whose every step was done or left out before. */
function severityOf({ state, outcomes }: SheetRun): 'error' | 'info' | 'success' | 'warning' {
  if (ALARMS.includes(state)) return 'error';
  if (state === 'waiting') return 'info';
  return state === 'done' && Object.values(outcomes).every((one) => one.state !== 'failed') ? 'success' : 'warning';
}

export function RunStep({
  run,
  step,
  number,
}: {
  readonly run: SheetRun;
  readonly step: SheetStep | undefined;
  readonly number: number;
}) {
  const { state, says, progress, sample } = run;
  const over = isOver(state);
  const mains = step ? mainsOf(step) : null;
  return (
    <Box component="section" aria-label="Present step">
      <Box sx={{ display: 'flex', gap: 2, alignItems: 'baseline', color: 'text.secondary' }}>
        <Box
          sx={{
            fontWeight: 600,
            color: ALARMS.includes(state) ? 'error.main' : 'text.primary',
            fontSize: 18,
            whiteSpace: 'nowrap',
          }}
          role="status"
        >
          {RUN_WORDS[state]}
        </Box>
        <Box sx={{ flex: 1, minWidth: 0, overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}>
          {sample.maker} {sample.model}, {sample.serial || 'no serial'}, tag {sample.tag}
        </Box>
        <Box>{run.person}</Box>
      </Box>
      <Typography variant="h1" sx={{ fontSize: 32, mt: 0.5, overflowWrap: 'anywhere' }}>
        {over || !step ? run.title : step.title}
      </Typography>
      {!over && step && (
        <Box sx={{ color: 'text.secondary', fontSize: 16 }}>
          Step {number} of {run.steps.length} · {STEP_WORDS[step.kind]}
          {mains && ` · ${mainsLabel(mains)}`}
          {step.because && ` · added: ${step.because}`}
        </Box>
      )}
      {!over && step?.caution && <Caution line={step.caution} />}
      {says && (
        <Alert severity={severityOf(run)} sx={{ mt: 1, fontSize: 18 }}>
          {says}
        </Alert>
      )}
      {!over && !says && (
        // Its place is kept, so that nothing jumps when a step has no progress to tell.
        <Box sx={{ mt: 1, height: 44, visibility: progress ? 'visible' : 'hidden' }}>
          <Box sx={{ display: 'flex', fontSize: 18, fontVariantNumeric: 'tabular-nums' }}>
            <Box sx={{ flex: 1 }}>{progress?.doing ?? ' '}</Box>
            {progress?.left != null && <Box sx={{ fontWeight: 600 }}>{countdown(progress.left)}</Box>}
          </Box>
          <LinearProgress
            variant="determinate"
            value={(progress?.share ?? 0) * 100}
            aria-label="Progress of the step"
            sx={{ height: 8, borderRadius: 1, '& .MuiLinearProgress-bar': { transition: 'none' } }}
          />
        </Box>
      )}
    </Box>
  );
}
