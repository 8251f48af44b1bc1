// Enter what a marker answered: its words, a form, or that nothing did.

import type { StoredReadOut } from '@lastmark/contract/types';
import { CABLE_PLACES } from '@lastmark/core/cable';
import { markerReadOut } from '@lastmark/core/marker';
import { wordOf, wordText } from '@lastmark/core/pd';
import { interpret } from '@lastmark/core/read-out';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { ulid } from 'ulid';
import { api } from '../../api/client.ts';
import { refreshSample } from '../../api/queries.ts';
import { FormDialog } from '../../parts/form/FormDialog.tsx';
import { ChoiceInput, TextInput } from '../../parts/form/inputs.tsx';
import { useTyped } from '../../parts/form/useTyped.ts';
import { TakenInput } from '../../parts/TakenInput.tsx';
import { takenOf } from '../../parts/taken.ts';
import { useSample } from '../../state/sample.tsx';
import { Identity } from '../read-out/DecodedView.tsx';
import { AMPS, type MarkerForm, SPEEDS, VOLTS, wordsOf } from './markerForm.ts';

interface Form extends MarkerForm {
  readonly place: string;
  readonly instrumentId: string;
  readonly note: string;
  readonly taken: string;
}

const BY = [
  { value: 'words', label: 'its words' },
  { value: 'form', label: 'a form' },
  { value: 'no answer', label: 'nothing answered' },
];

export function MarkerDialog({ place, onClose }: { readonly place: string; readonly onClose: () => void }) {
  const { sample, instruments, readOuts } = useSample().dossier;
  const analysers = instruments.filter(({ sees }) => sees);
  const form = useTyped<Form>(
    {
      place,
      instrumentId: readOuts.at(-1)?.instrumentId ?? analysers.at(-1)?.id ?? '',
      by: 'words',
      text: '',
      kind: 'passive',
      amps: '2',
      volts: '0',
      epr: 'no',
      speed: '0',
      note: '',
      taken: '',
    },
    `marker-${sample.id}-${place}`,
  );
  const { control, values } = form;
  const [id] = useState(ulid);
  const read = values.by === 'words' ? interpret(values.text, 'value', 'identity') : null;
  const words = values.by === 'form' ? wordsOf(values) : (read?.identity ?? []).map(wordText);
  const ready = (values.by === 'no answer' || words.length > 0) && values.instrumentId !== '';
  const save = async () => {
    const body = markerReadOut({
      id,
      port: values.place,
      instrumentId: values.instrumentId,
      takenAt: takenOf(values.taken).toISOString(),
      cableWords: values.by === 'no answer' ? [] : words,
      note: values.note.trim(),
      source: values.by === 'words' ? values.text.trim().slice(0, 260) : values.by,
    });
    await api<StoredReadOut>(`/samples/${sample.id}/read-outs`, { method: 'POST', body });
    await refreshSample(sample.id);
  };
  return (
    <FormDialog
      title="Enter a marker"
      form={form}
      onSave={save}
      onClose={onClose}
      action="Keep"
      ready={ready}
      width="md"
    >
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr 1fr', gap: 1.5 }}>
        <ChoiceInput
          control={control}
          name="place"
          label="End"
          options={CABLE_PLACES.map((one) => ({
            value: one,
            label: one === 'near' ? 'at the charger' : 'at the device',
          }))}
        />
        <ChoiceInput
          control={control}
          name="instrumentId"
          label="Analyser"
          options={analysers.map(({ id: own, name }) => ({ value: own, label: name }))}
        />
        <ChoiceInput control={control} name="by" label="What there is" options={BY} />
      </Box>
      {analysers.length === 0 && (
        <Alert severity="warning">No PD analyser yet. Add one at Bench, with what it can see.</Alert>
      )}
      {values.by === 'words' && (
        <TextInput
          control={control}
          name="text"
          label="Reply to Discover Identity"
          max={400}
          more={{ placeholder: 'FF00A041 18000000 00000000 00000000 000A2640, or 000A2640 alone', autoFocus: true }}
        />
      )}
      {values.by === 'form' && (
        <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(5, 1fr)', gap: 1.5 }}>
          <ChoiceInput control={control} name="kind" label="Kind" options={['passive', 'active']} />
          <ChoiceInput control={control} name="amps" label="Current" options={AMPS} />
          <ChoiceInput control={control} name="volts" label="Highest voltage" options={VOLTS} />
          <ChoiceInput control={control} name="epr" label="EPR capable" options={['no', 'yes']} />
          <ChoiceInput control={control} name="speed" label="Speed" options={SPEEDS} />
        </Box>
      )}
      {values.by === 'no answer' && (
        <Typography color="text.secondary">Kept as read: without a marker it carries 3 A, 60 W at most.</Typography>
      )}
      {read && read.findings.length > 0 && (
        <Alert severity={read.findings.some(({ grade }) => grade === 'fault') ? 'error' : 'info'}>
          {read.findings.map(({ sentence }) => sentence).join(' ')}
        </Alert>
      )}
      {values.by !== 'no answer' && words.length > 0 && <Identity words={words.map(wordOf)} />}
      <Box sx={{ display: 'grid', gridTemplateColumns: 'minmax(0, 1fr) 240px', gap: 1.5 }}>
        <TextInput control={control} name="note" label="Note" max={400} />
        <TakenInput control={control} taken={values.taken} />
      </Box>
    </FormDialog>
  );
}
