// The frame of every run's form: caution, port and rig, the run's own fields, a note.

import type { StoredRun } from '@lastmark/contract/types';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import type { ReactNode } from 'react';
import type { Control, FieldValues } from 'react-hook-form';
import { Caution } from '../../parts/Caution.tsx';
import { FormDialog } from '../../parts/form/FormDialog.tsx';
import { ChoiceInput, TextInput } from '../../parts/form/inputs.tsx';
import type { Typed } from '../../parts/form/useTyped.ts';
import { TakenInput } from '../../parts/TakenInput.tsx';
import { toTaken } from '../../parts/taken.ts';
import { useSample } from '../../state/sample.tsx';

/** What every run has. */
export interface RunHeadForm {
  port: string;
  rigId: string;
  note: string;
  /** When it was done, as typed; empty for now. */
  taken: string;
}

/** What a run's form begins with. @param run the one that is corrected */
export function useRunHead(run: Pick<StoredRun, 'port' | 'rigId' | 'note' | 'takenAt'> | null = null): RunHeadForm {
  const { sample, rigs, points, runs } = useSample().dossier;
  const last = runs.at(-1)?.rigId ?? points.at(-1)?.rigId;
  if (run) return { port: run.port, rigId: run.rigId, note: run.note, taken: toTaken(run.takenAt) };
  return {
    port: sample.model.ports[0]?.label ?? '',
    rigId: rigs.find(({ id }) => id === last)?.id ?? rigs[0]?.id ?? '',
    note: '',
    taken: '',
  };
}

/** Why the action is not there yet. */
const Missing = () => (
  <Typography variant="body2" color="text.secondary">
    Not all there yet: numbers are missing or cannot be read.
  </Typography>
);

interface Props<Form extends RunHeadForm & FieldValues> {
  readonly title: string;
  readonly caution?: { readonly line: string; readonly more?: string };
  readonly form: Typed<Form>;
  readonly ready: boolean;
  readonly onPort?: (port: string) => void;
  readonly onSave: () => Promise<unknown>;
  readonly onClose: () => void;
  readonly children: ReactNode;
}

export function RunDialog<Form extends RunHeadForm & FieldValues>(props: Props<Form>) {
  const { title, caution, form, ready, onPort, onSave, onClose, children } = props;
  const { sample, rigs } = useSample().dossier;
  // Every run's form has a head, whatever else it has.
  const control = form.control as unknown as Control<RunHeadForm>;
  return (
    <FormDialog title={title} form={form} onSave={onSave} onClose={onClose} action="Keep" ready={ready}>
      {caution && <Caution {...caution} />}
      <Box sx={{ display: 'grid', gridTemplateColumns: '110px 1fr', gap: 1.5 }}>
        <ChoiceInput
          control={control}
          name="port"
          label="Port"
          options={sample.model.ports.map(({ label }) => label)}
          {...(onPort && { onChosen: onPort })}
        />
        <ChoiceInput
          control={control}
          name="rigId"
          label="Rig"
          options={rigs.map(({ id, name }) => ({ value: id, label: name }))}
        />
      </Box>
      {children}
      <Box sx={{ display: 'grid', gridTemplateColumns: 'minmax(0, 1fr) 240px', gap: 1.5 }}>
        <TextInput control={control} name="note" label="Note" max={400} />
        <TakenInput control={control} taken={form.values.taken} />
      </Box>
      {!ready && <Missing />}
    </FormDialog>
  );
}
