// Enter a read-out: paste or type it in any form on the left, see it decoded on the right, note the conditions.
import type { StoredReadOut } from '@lastmark/contract/types';
import { MOST_OFFERS } from '@lastmark/core/read-out';
import { allModes } from '@lastmark/core/signal';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { startTransition, useState } from 'react';
import { ulid } from 'ulid';
import { api } from '../../api/client.ts';
import { refreshSample } from '../../api/queries.ts';
import { Choice } from '../../parts/fields.tsx';
import { FormDialog } from '../../parts/form/FormDialog.tsx';
import { ChoiceInput, TextInput } from '../../parts/form/inputs.tsx';
import { useTyped } from '../../parts/form/useTyped.ts';
import { useSample } from '../../state/sample.tsx';
import { DecodedView, Identity } from './DecodedView.tsx';
import { EntryConditions } from './EntryConditions.tsx';
import { EntryText } from './EntryText.tsx';
import {
  emptyForm,
  type Form,
  fromReadOut,
  type Listing,
  LOOKED,
  markerTold,
  replyOf,
  statedOf,
  toInput,
} from './entryForm.ts';
import { Stated, StatedLine } from './Stated.tsx';
import { Unreachables } from './Unreachables.tsx';
import { useInterpret } from './useInterpret.ts';

interface Props {
  readonly port: string;
  /** The read-out to correct, if any. */
  readonly correct: StoredReadOut | null;
  readonly onClose: () => void;
}

export function EntryDialog({ port, correct, onClose }: Props) {
  const { dossier } = useSample();
  const { sample, instruments, profile } = dossier;
  const analysers = instruments.filter(({ sees }) => sees);
  const empty = emptyForm(port, dossier.readOuts.at(-1)?.instrumentId ?? analysers.at(-1)?.id ?? '');
  const start = correct ? { ...fromReadOut(correct, empty), instrumentId: correct.instrumentId } : empty;
  const typed = useTyped<Form>(start, `read-out-${sample.id}-${correct?.id ?? port}`);
  const { control, values: form, set } = typed;
  const [listing, setListing] = useState<Listing | null>(null);
  const { decoded, busy } = useInterpret(listing?.text ?? form.text, form.order, form.are);
  const cable = useInterpret(form.cable, form.order, 'identity').decoded.identity;
  const stated = statedOf(form, decoded);
  const [id] = useState(ulid);
  const save = async () => {
    const body = { ...toInput(form, decoded, cable, stated.kept, correct), id };
    if (Number.isNaN(body.temperature)) throw new Error('The temperature cannot be read.');
    await api<StoredReadOut>(`/samples/${sample.id}/read-outs`, { method: 'POST', body });
    await refreshSample(sample.id);
  };
  const analyser = analysers.find(({ id: own }) => own === form.instrumentId);
  const nothing = decoded.words.length === 0 && Object.values(form.signals).every((one) => one === 'not looked for');
  const tooMany = decoded.words.length > MOST_OFFERS;
  return (
    <FormDialog
      title={correct ? 'Correct the read-out' : 'Enter a read-out'}
      form={typed}
      onSave={save}
      onClose={onClose}
      action={correct ? 'Save the correction' : 'Keep the read-out'}
      ready={!busy && !nothing && !tooMany && analysers.length > 0 && Object.keys(stated.unread).length === 0}
      width="lg"
      sx={{ gridTemplateColumns: { xs: 'minmax(0, 1fr)', md: 'minmax(0, 1.05fr) minmax(0, 1fr)' }, gap: 3 }}
    >
      <Box sx={{ display: 'grid', gap: 1.5, alignContent: 'start' }}>
        <Box sx={{ display: 'grid', gridTemplateColumns: '110px 1fr', gap: 1.5 }}>
          <Choice
            label="Port"
            value={form.port}
            options={sample.model.ports.map(({ label }) => label)}
            onChange={(to) => set({ port: to, occupied: form.occupied.filter((one) => one !== to) })}
          />
          <ChoiceInput
            control={control}
            name="instrumentId"
            label="Analyser"
            options={analysers.map(({ id: own, name, firmware }) => ({
              value: own,
              label: firmware ? `${name}, firmware ${firmware}` : name,
            }))}
          />
        </Box>
        {analysers.length === 0 && (
          <Alert severity="warning">No PD analyser yet. Add one at Bench, with what it can see.</Alert>
        )}
        <EntryText
          form={form}
          set={set}
          listing={listing}
          onListing={(to) => startTransition(() => setListing(to))}
          decoded={decoded}
        />
        {decoded.several.length > 0 && (
          <Choice
            label="Which read-out"
            value=""
            options={decoded.several.map((one, index) => ({
              value: String(index),
              label: `${one.port ?? '?'}, ${one.takenAt?.slice(0, 16).replace('T', ' ') ?? 'time not noted'}, ${one.words?.length ?? 0} positions`,
            }))}
            onChange={(index) => {
              setListing(null);
              set({ text: JSON.stringify(decoded.several[Number(index)]) });
            }}
          />
        )}
        {decoded.readOut && (
          <Button variant="outlined" onClick={() => set(fromReadOut(decoded.readOut ?? {}, form))}>
            Take the conditions from the file too
          </Button>
        )}
        <EntryConditions
          form={form}
          set={set}
          told={markerTold(replyOf(decoded, cable), form.marker)}
          declared={decoded.declared}
          stated={stated}
        />
      </Box>
      <Box sx={{ display: 'grid', gap: 2, alignContent: 'start' }}>
        <DecodedView decoded={decoded} busy={busy} />
        {cable.length > 0 && <Identity words={cable} />}
        <Box role="group" aria-label="What the source states">
          <StatedLine {...stated.kept} />
          <Stated {...stated.kept} />
        </Box>
        <Box role="group" aria-label="Outside PD">
          <Typography variant="h3" sx={{ mb: 1 }}>
            Outside PD
          </Typography>
          {allModes(profile.signalModes).map(({ id: mode, title, how }) => {
            const blind = analyser?.sees && !analyser.sees.signals.includes(mode);
            const value = form.signals[mode] ?? 'not looked for';
            return (
              <Box
                key={mode}
                title={how}
                sx={{ display: 'grid', gridTemplateColumns: '1fr 160px', gap: 1, mb: 0.75, alignItems: 'center' }}
              >
                <span>{title}</span>
                <Choice
                  label={blind ? 'analyser cannot' : 'Result'}
                  value={value}
                  options={LOOKED}
                  onChange={(to) => set({ signals: { ...form.signals, [mode]: to } })}
                  more={{ slotProps: { htmlInput: { 'aria-label': title } } }}
                />
              </Box>
            );
          })}
        </Box>
        <Unreachables
          value={form.unreachable}
          count={decoded.words.length}
          onChange={(unreachable) => set({ unreachable })}
        />
        <TextInput control={control} name="note" label="Note" max={400} />
        {tooMany && (
          <Alert severity="info">
            A read-out holds at most {MOST_OFFERS} offers; this lists {decoded.words.length.toLocaleString('en')}. Look
            through them here, and keep those of one port.
          </Alert>
        )}
      </Box>
    </FormDialog>
  );
}
