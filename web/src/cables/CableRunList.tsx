// What was done of one kind, in sentences, each with ways to correct it and to take it back.
import type { StoredCableRun } from '@lastmark/contract/types';
import { describeCableRun } from '@lastmark/core/cable';
import { currentRuns } from '@lastmark/core/run';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useSample } from '../state/sample.tsx';
import { useCableChanges, useWithdrawCableRun } from './useCableRuns.ts';

const when = (iso: string): string => iso.slice(0, 16).replace('T', ' ');

interface Props {
  readonly title: string;
  readonly kind: StoredCableRun['kind'];
  readonly onCorrect: (run: StoredCableRun) => void;
}

export function CableRunList({ title, kind, onCorrect }: Props) {
  const { cableRuns } = useSample().dossier;
  const withdraw = useWithdrawCableRun();
  const { changes, restore } = useCableChanges(kind);
  const runs = currentRuns(cableRuns).filter((run) => run.kind === kind);
  if (runs.length === 0 && changes.length === 0) return null;
  return (
    <Box component="section" aria-label={title} sx={{ mt: 2 }}>
      <Typography variant="h2" sx={{ mb: 1 }}>
        {title}
      </Typography>
      <Box component="ul" sx={LIST}>
        {runs.map((run) => {
          const named = `${describeCableRun(run)}, ${when(run.takenAt)}`;
          return (
            <Box component="li" key={run.id} sx={ROW}>
              <Box sx={{ flex: 1 }}>
                {describeCableRun(run)}
                {run.bends > 0 && run.kind !== 'bend' && `, after ${run.bends} bends`}
                <Box component="span" sx={{ color: 'text.secondary', fontSize: 13 }}>
                  {' '}
                  {when(run.takenAt)}
                  {run.note && ` · ${run.note}`}
                </Box>
              </Box>
              <Button size="small" aria-label={`Correct ${named}`} onClick={() => onCorrect(run)}>
                Correct
              </Button>
              <Button
                size="small"
                aria-label={`Take back ${named}`}
                disabled={withdraw.isPending}
                onClick={() => withdraw.mutate(run)}
              >
                Take back
              </Button>
            </Box>
          );
        })}
      </Box>
      {changes.length > 0 && (
        <Box component="details" sx={{ fontSize: 14 }}>
          <Box component="summary" sx={{ cursor: 'pointer' }}>
            Corrected and taken back: {changes.length}
          </Box>
          <Box component="ul" sx={LIST}>
            {changes.map((change) => {
              const { was, now } = change;
              const words = `${describeCableRun(was)} of ${when(was.takenAt)}: ${now.withdrawn ? 'taken back' : `now ${describeCableRun(now)}`}`;
              return (
                <Box component="li" key={now.id} sx={ROW}>
                  <Box sx={{ flex: 1 }}>{words}</Box>
                  <Button
                    size="small"
                    disabled={restore.isPending}
                    aria-label={`Put back ${words}`}
                    onClick={() => restore.mutate(change)}
                  >
                    Put back
                  </Button>
                </Box>
              );
            })}
          </Box>
        </Box>
      )}
    </Box>
  );
}

const LIST = { listStyle: 'none', m: 0, p: 0 } as const;
const ROW = {
  display: 'flex',
  gap: 1,
  alignItems: 'center',
  borderBottom: 1,
  borderColor: 'divider',
  py: 0.25,
} as const;
