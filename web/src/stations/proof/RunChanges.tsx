// Runs that were corrected or taken back, each with a way to put it back: nothing is ever lost.
import type { StoredRun } from '@lastmark/contract/types';
import { type RunChange, runChanges } from '@lastmark/core/proof';
import { describeRun } from '@lastmark/core/run';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useSample } from '../../state/sample.tsx';
import { useRestoreRun } from './useRuns.ts';

const when = (iso: string): string => iso.slice(0, 16).replace('T', ' ');

const words = ({ was, now }: RunChange<StoredRun>): string =>
  now.withdrawn
    ? `${describeRun(was)} of ${when(was.takenAt)}: taken back`
    : `${describeRun(was)} of ${when(was.takenAt)}: now ${describeRun(now)}`;

export function RunChanges({ kind }: { readonly kind: StoredRun['kind'] }) {
  const { runs } = useSample().dossier;
  const restore = useRestoreRun();
  // Put back, it stands again: then there is nothing left to say of it.
  const changes = runChanges(runs.filter((run) => run.kind === kind)).filter(({ standing }) => standing);
  if (changes.length === 0) return null;
  return (
    <Box component="details" sx={{ fontSize: 14 }}>
      <Box component="summary" sx={{ cursor: 'pointer' }}>
        Corrected and taken back: {changes.length}
      </Box>
      <Box component="ul" sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {changes.map((change) => (
          <Box component="li" key={change.now.id} sx={{ display: 'flex', gap: 1, alignItems: 'center' }}>
            <Box sx={{ flex: 1 }}>{words(change)}</Box>
            <Button
              size="small"
              disabled={restore.isPending}
              aria-label={`Put back ${words(change)}`}
              onClick={() => restore.mutate(change)}
            >
              Put back
            </Button>
          </Box>
        ))}
      </Box>
    </Box>
  );
}
