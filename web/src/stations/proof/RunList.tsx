// Runs of one kind in sentences, each with a way to take it back.
import type { StoredRun } from '@lastmark/contract/types';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { RunChanges } from './RunChanges.tsx';
import { useWithdrawRun } from './useRuns.ts';

export interface RunItem {
  readonly run: StoredRun;
  readonly sentence: ReactNode;
  readonly more: readonly string[];
  /** Where it came from, when that is not here: there it is corrected and taken back. */
  readonly from?: { readonly to: string; readonly label: string } | undefined;
}

interface Props {
  readonly title: string;
  /** What to do first, while there is nothing. */
  readonly none: string;
  readonly action: ReactNode;
  readonly items: readonly RunItem[];
  /** Opens a run to be corrected; left out where it can only be taken back. */
  readonly onCorrect?: (run: StoredRun) => void;
  /** Kind of the runs, for what was corrected and taken back. */
  readonly kind: StoredRun['kind'];
  readonly children?: ReactNode;
}

export function RunList({ title, none, action, items, onCorrect, kind, children }: Props) {
  const withdraw = useWithdrawRun();
  return (
    <Box component="section" aria-label={title} sx={{ mb: 3 }}>
      <Stack direction="row" sx={{ alignItems: 'center', mb: 1 }}>
        <Typography variant="h2" sx={{ flex: 1 }}>
          {title}
        </Typography>
        {action}
      </Stack>
      {children}
      {items.length === 0 && <Typography color="text.secondary">{none}</Typography>}
      <Box component="ul" sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {items.map(({ run, sentence, more, from }) => (
          <Box
            component="li"
            key={run.id}
            sx={{
              p: 1.5,
              mb: 1,
              border: 1,
              borderColor: 'divider',
              borderRadius: 1,
              bgcolor: 'background.paper',
              display: 'flex',
              gap: 1,
            }}
          >
            <Box sx={{ flex: 1 }}>
              <Box>{sentence}</Box>
              {more.filter(Boolean).map((line) => (
                <Box key={line} sx={{ fontSize: 14, color: 'text.secondary' }}>
                  {line}
                </Box>
              ))}
              <Box sx={{ fontSize: 13, color: 'text.secondary' }}>
                {run.takenAt.slice(0, 16).replace('T', ' ')}
                {run.note && ` · ${run.note}`}
              </Box>
            </Box>
            {from && (
              <Button size="small" sx={{ alignSelf: 'start' }} component={Link} to={from.to}>
                {from.label}
              </Button>
            )}
            {onCorrect && !from && (
              <Button
                size="small"
                sx={{ alignSelf: 'start' }}
                aria-label={`Correct the run of ${run.takenAt.slice(0, 16).replace('T', ' ')} on ${run.port}`}
                onClick={() => onCorrect(run)}
              >
                Correct
              </Button>
            )}
            {!from && (
              <Button
                size="small"
                sx={{ alignSelf: 'start' }}
                aria-label={`Take back the run of ${run.takenAt.slice(0, 16).replace('T', ' ')} on ${run.port}`}
                onClick={() => withdraw.mutate(run)}
                disabled={withdraw.isPending}
              >
                Take back
              </Button>
            )}
          </Box>
        ))}
      </Box>
      <RunChanges kind={kind} />
    </Box>
  );
}
