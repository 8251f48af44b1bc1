// A CSV list of combinations before it is kept: what was understood, and what was not, line by line.
import type { StoredRun } from '@lastmark/contract/types';
import { formatPlain } from '@lastmark/core/quantity';
import { mainsLabel } from '@lastmark/core/reading';
import { type ListedSplit, readSplitList, splitColumns } from '@lastmark/core/split';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import Typography from '@mui/material/Typography';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { ulid } from 'ulid';
import { api } from '../../api/client.ts';
import { refreshSample } from '../../api/queries.ts';
import { fileText } from '../../parts/fileText.ts';
import { useSample } from '../../state/sample.tsx';
import { useProofPlace } from '../proof/useProofPlace.ts';

const SHOWN = 12;

/** What a line was read as: the ports in their order with what was read there. */
function readWords({ shares, mainsWatts }: ListedSplit): string {
  const ports = shares.map(({ port, volts, amps }) =>
    [
      port,
      ...(volts === null ? [] : [formatPlain(volts, 'voltage')]),
      ...(amps === null ? [] : [formatPlain(amps, 'current')]),
    ].join(' '),
  );
  return `${ports.join(', then ')}${mainsWatts === null ? '' : `; mains ${formatPlain(mainsWatts, 'power')}`}`;
}

export function SplitListDialog({ file, onClose }: { readonly file: File; readonly onClose: () => void }) {
  const { sample } = useSample().dossier;
  const ports = useMemo(() => sample.model.ports.map(({ label }) => label), [sample]);
  const { rig, mains } = useProofPlace();
  const { data: text } = useQuery({
    queryKey: ['split-list', file.name, file.lastModified],
    queryFn: () => fileText(file),
  });
  const list = useMemo(() => readSplitList(text ?? 'order', ports), [text, ports]);
  const [ids] = useState(() => new Map<number, string>());
  const keep = useMutation({
    mutationFn: async () => {
      for (const { line, order, shares, mainsWatts } of list.splits) {
        const id = ids.get(line) ?? ulid();
        ids.set(line, id);
        const run = {
          kind: 'split',
          id,
          port: order[0],
          rigId: rig?.id,
          takenAt: new Date().toISOString(),
          note: `${file.name}, line ${line}`,
          supersedes: null,
          withdrawn: false,
          order,
          mains,
          shares,
          mainsWatts,
          evidence: 'load',
          drops: [],
        };
        await api<StoredRun>(`/samples/${sample.id}/runs`, { method: 'POST', body: { run } });
      }
    },
    onSuccess: onClose,
    // A line that was refused keeps those before it; sent again they count once.
    onSettled: () => refreshSample(sample.id),
  });
  return (
    <Dialog open onClose={onClose} maxWidth="sm" fullWidth aria-labelledby="split-list-title">
      <DialogTitle id="split-list-title">A list of combinations: {file.name}</DialogTitle>
      <DialogContent sx={{ display: 'grid', gap: 1.5 }}>
        <Typography>
          {list.splits.length} {list.splits.length === 1 ? 'combination' : 'combinations'}, for the rig {rig?.name} at{' '}
          {mainsLabel(mains)}.
        </Typography>
        {list.bad.length > 0 && (
          <Alert severity="warning">
            {list.bad.slice(0, SHOWN).map(({ line, reason }) => (
              <Box key={`${line} ${reason}`}>
                Line {line}: {reason}
              </Box>
            ))}
            Columns: {splitColumns(ports).join(', ')}.
          </Alert>
        )}
        {list.unread.length > 0 && <Alert severity="info">Not read: {list.unread.join(', ')}.</Alert>}
        {list.splits.slice(0, SHOWN).map((one) => (
          <Box key={one.line}>
            Line {one.line}: {readWords(one)}
          </Box>
        ))}
        {keep.error && <Alert severity="error">{keep.error.message}</Alert>}
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Cancel</Button>
        <Button
          variant="contained"
          onClick={() => keep.mutate()}
          disabled={keep.isPending || list.splits.length === 0 || !rig}
        >
          {list.bad.length > 0 ? `Keep ${list.splits.length}, leave out ${list.bad.length}` : 'Keep'}
        </Button>
      </DialogActions>
    </Dialog>
  );
}
