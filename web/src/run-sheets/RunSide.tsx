// Beside the console: the next two steps, what was done, and notes.
import type { SheetRun, StepOutcome } from '@lastmark/contract/plan';
import { sheetSeconds } from '@lastmark/core/plan';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { howLong } from './words.ts';

const MARKS: Readonly<Record<StepOutcome['state'], string>> = { done: '●', failed: '▼', skipped: '✕' };
/** Done, and not as planned. */
const FOUND = '▲';
const WORDS: Readonly<Record<StepOutcome['state'], string>> = {
  done: 'done',
  failed: 'could not be done',
  skipped: 'left out',
};
/** Newest outcomes in sight; all of them stand on the sheet and in the record. */
const SHOWN = 60;

export function RunSide({ run, at }: { readonly run: SheetRun; readonly at: number }) {
  const open = run.steps.slice(Math.max(0, at)).filter(({ id, skip }) => !run.outcomes[id] && skip === null);
  const next = open.filter(({ id }) => id !== run.stepId).slice(0, 2);
  const past = run.steps
    .flatMap((step) => {
      const outcome = run.outcomes[step.id];
      return outcome ? [{ step, outcome }] : [];
    })
    .sort((a, b) => b.outcome.at.localeCompare(a.outcome.at));
  return (
    <Box
      component="aside"
      aria-label="Course of the run"
      sx={{
        borderLeft: 1,
        borderColor: 'divider',
        bgcolor: 'background.paper',
        p: 2,
        height: 'calc(100vh - 62px)',
        overflowY: 'auto',
      }}
    >
      <Typography variant="h2" sx={{ mb: 0.5 }}>
        Next
      </Typography>
      {next.map(({ id, title, because }) => (
        <Box key={id} sx={{ py: 0.75, fontSize: 17, borderBottom: 1, borderColor: 'divider' }}>
          {title}
          {because && <Box sx={{ fontSize: 14, color: 'text.secondary' }}>Added: {because}</Box>}
        </Box>
      ))}
      {next.length === 0 && <Typography color="text.secondary">Nothing more.</Typography>}
      {open.length > 0 && (
        <Typography color="text.secondary" sx={{ mt: 0.75 }}>
          {open.length} steps left, about {howLong(sheetSeconds(open))}
        </Typography>
      )}
      {run.notes.length > 0 && (
        <Typography variant="h2" sx={{ mt: 2, mb: 0.5 }}>
          Notes
        </Typography>
      )}
      {run.notes.map(({ at: when, text }) => (
        <Box key={when} sx={{ fontSize: 14, mb: 0.5 }}>
          {when.slice(11, 16)} {text}
        </Box>
      ))}
      <Typography variant="h2" sx={{ mt: 2, mb: 0.5 }}>
        So far
      </Typography>
      <Box component="ol" aria-label="Steps so far, newest first" sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {past.slice(0, SHOWN).map(({ step, outcome }) => (
          <Box component="li" key={step.id} sx={{ py: 0.5, fontSize: 14 }}>
            <Box
              sx={{ fontWeight: 600, color: outcome.state === 'failed' || outcome.found ? 'error.main' : undefined }}
            >
              <span aria-hidden>{outcome.found && outcome.state === 'done' ? FOUND : MARKS[outcome.state]} </span>
              {step.title}
              {outcome.state !== 'done' && `: ${WORDS[outcome.state]}`}
            </Box>
            {step.because && <Box>Added: {step.because}</Box>}
            <Box sx={{ color: 'text.secondary', overflowWrap: 'anywhere', whiteSpace: 'pre-line' }}>{outcome.says}</Box>
          </Box>
        ))}
      </Box>
      {past.length === 0 && <Typography color="text.secondary">Nothing yet.</Typography>}
      {past.length > SHOWN && <Typography color="text.secondary">and {past.length - SHOWN} before</Typography>}
    </Box>
  );
}
