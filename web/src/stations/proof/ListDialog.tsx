// A CSV list of steps before it is kept: what was understood, what was not, line by line.
import type { PointInput, StoredRig } from '@lastmark/contract/types';
import { LIST_COLUMNS, readStepList, type StepList, stepTitle } from '@lastmark/core/proof';
import { type Mains, mainsLabel } from '@lastmark/core/reading';
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
import { QuietTable } from '../../parts/QuietTable.tsx';
import { useSample } from '../../state/sample.tsx';

interface Props {
  readonly file: File;
  readonly rig: StoredRig;
  readonly mains: Mains;
  readonly onClose: () => void;
}

const SHOWN = 12;

export function ListDialog({ file, rig, mains, onClose }: Props) {
  const { dossier, verdict } = useSample();
  const { sample } = dossier;
  const { data: text } = useQuery({ queryKey: ['list', file.name, file.lastModified], queryFn: () => fileText(file) });
  const list = useMemo<StepList>(
    () =>
      text === undefined
        ? { steps: [], bad: [], unread: [] }
        : readStepList(
            text,
            sample.model.ports.map(({ label }) => label),
            verdict.results.proof.steps.flatMap(({ step }) => (step.outputs.length === 1 ? step.outputs : [])),
          ),
    [text, sample, verdict],
  );
  const [ids] = useState(() => new Map<number, string>());
  const idFor = (key: number) => {
    const known = ids.get(key) ?? ulid();
    ids.set(key, known);
    return known;
  };
  const keep = useMutation({
    mutationFn: () => {
      const takenAt = new Date().toISOString();
      const points = list.steps.map(
        ({ line, output, load, readings }): PointInput => ({
          id: idFor(line),
          outputs: [output],
          mains,
          load,
          attached: 'nothing',
          rigId: rig.id,
          takenAt,
          readings: readings.map((reading, index) => ({ ...reading, id: idFor(line * 100 + index + 1e6) })),
        }),
      );
      return api(`/samples/${sample.id}/readings`, { method: 'POST', body: { points } });
    },
    onSuccess: async () => {
      await refreshSample(sample.id);
      onClose();
    },
  });
  return (
    <Dialog open onClose={onClose} maxWidth="md" fullWidth aria-labelledby="list-title">
      <DialogTitle id="list-title">A list of steps: {file.name}</DialogTitle>
      <DialogContent sx={{ display: 'grid', gap: 1.5 }}>
        <Typography>
          {list.steps.length} {list.steps.length === 1 ? 'step' : 'steps'} with readings, for the rig {rig.name} at{' '}
          {mainsLabel(mains)}. All are kept or none.
        </Typography>
        {list.bad.length > 0 && (
          <Alert severity="warning">
            {list.bad.slice(0, SHOWN).map(({ line, reason }) => (
              <Box key={`${line} ${reason}`}>
                Line {line}: {reason}
              </Box>
            ))}
            {list.bad.length > SHOWN && <Box>and {list.bad.length - SHOWN} more.</Box>}
            Columns: {LIST_COLUMNS.join(', ')}.
          </Alert>
        )}
        {list.unread.length > 0 && <Alert severity="info">Not read: {list.unread.join(', ')}.</Alert>}
        <QuietTable
          label="Steps in the file"
          rows={list.steps.slice(0, SHOWN)}
          rowKey={({ line }) => String(line)}
          columns={[
            { head: 'Line', number: true, cell: ({ line }) => String(line) },
            { head: 'Step', cell: ({ output, load }) => stepTitle({ outputs: [output], load }) },
            {
              head: 'Readings',
              cell: ({ readings }) =>
                readings.map(({ place, typed, quantity }) => `${place} ${quantity} ${typed}`).join(' · '),
            },
          ]}
        />
        {list.steps.length > SHOWN && <Typography>and {list.steps.length - SHOWN} more steps.</Typography>}
        {keep.error && <Alert severity="error">{keep.error.message}</Alert>}
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Cancel</Button>
        <Button variant="contained" onClick={() => keep.mutate()} disabled={keep.isPending || list.steps.length === 0}>
          {list.bad.length > 0 ? `Keep ${list.steps.length}, leave out ${list.bad.length}` : 'Keep'}
        </Button>
      </DialogActions>
    </Dialog>
  );
}
