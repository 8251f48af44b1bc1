// Enter a read-out: paste or type it in any form on the left, see it decoded on the right, note the conditions.
import type { ReadOutInput, StoredReadOut } from '@lastmark/contract/types';
import { type ByteOrder, wordText } from '@lastmark/core/pd';
import { parseCelsius, ROOM_RANGE } from '@lastmark/core/quantity';
import { MARKERS, type Marker, REVISIONS, type Revision, type WordsAre } from '@lastmark/core/read-out';
import { allModes, type SignalResult } from '@lastmark/core/signal';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import FormControlLabel from '@mui/material/FormControlLabel';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useMutation } from '@tanstack/react-query';
import { type FormEvent, useState } from 'react';
import { ulid } from 'ulid';
import { api } from '../../api/client.ts';
import { refreshSample } from '../../api/queries.ts';
import { useOnBench } from '../../app/bench.tsx';
import { Choice, QuantityField, typedSi } from '../../parts/fields.tsx';
import { useDraft } from '../../parts/useDraft.ts';
import { AddLevel } from './AddLevel.tsx';
import { DecodedView, Identity } from './DecodedView.tsx';
import { Unreachables, type UnreachableText } from './Unreachables.tsx';
import { type Decoded, useInterpret } from './useInterpret.ts';

type Asked = Revision | 'not noted';
const REVISION_CHOICES: readonly Asked[] = ['not noted', ...REVISIONS];
type Looked = SignalResult | 'not looked for';
const LOOKED: readonly Looked[] = ['not looked for', 'seen', 'not seen', 'cannot see'];

interface Form {
  readonly port: string;
  readonly instrumentId: string;
  readonly text: string;
  readonly order: ByteOrder;
  readonly are: WordsAre;
  readonly cable: string;
  readonly occupied: readonly string[];
  readonly marker: Marker;
  readonly askedWith: Asked;
  readonly declared: Asked;
  readonly temperature: string;
  readonly elapsed: string;
  readonly signals: Readonly<Record<string, Looked>>;
  readonly unreachable: readonly UnreachableText[];
  readonly note: string;
}

const kelvin = (text: string): number | null => {
  if (text.trim() === '') return null;
  const parsed = parseCelsius(text, ROOM_RANGE, 'room');
  return parsed.ok ? parsed.value : Number.NaN;
};

const noted = (asked: Asked): Revision | null => (asked === 'not noted' ? null : asked);

/** A filled form as it is sent. */
function toInput(form: Form, decoded: Decoded, cableWords: readonly number[], supersedes: string | null): ReadOutInput {
  return {
    id: ulid(),
    port: form.port,
    instrumentId: form.instrumentId,
    takenAt: new Date().toISOString(),
    occupied: form.occupied,
    marker: form.marker,
    askedWith: noted(form.askedWith),
    temperature: kelvin(form.temperature),
    elapsed: typedSi(form.elapsed, 'duration'),
    words: [...decoded.words].map(wordText),
    epr: decoded.epr,
    declared: noted(form.declared),
    cableWords: [...(decoded.identity.length > 0 ? decoded.identity : cableWords)].map(wordText),
    signals: Object.entries(form.signals).flatMap(([mode, result]) =>
      result === 'not looked for' ? [] : [{ mode, result }],
    ),
    unreachable: form.unreachable.map(({ position, reason }) => ({
      position: Number(position),
      reason: reason.trim(),
    })),
    note: form.note.trim(),
    source: 'keypad',
    supersedes,
    withdrawn: false,
  };
}

function fromReadOut(readOut: Partial<StoredReadOut>, before: Form): Form {
  const { words, cableWords, temperature, elapsed, signals, unreachable, askedWith, declared, occupied, marker, note } =
    readOut;
  return {
    ...before,
    ...(words ? { text: words.join('\n'), order: 'value' as const, are: 'offers' as const } : {}),
    ...(cableWords ? { cable: cableWords.join(' ') } : {}),
    ...(occupied ? { occupied } : {}),
    ...(marker ? { marker } : {}),
    ...(note === undefined ? {} : { note }),
    askedWith: askedWith ?? before.askedWith,
    declared: declared ?? before.declared,
    temperature: temperature == null ? before.temperature : (temperature - 273.15).toFixed(1),
    elapsed: elapsed == null ? before.elapsed : `${elapsed} s`,
    ...(signals ? { signals: Object.fromEntries(signals.map(({ mode, result }) => [mode, result])) } : {}),
    ...(unreachable
      ? { unreachable: unreachable.map(({ position, reason }) => ({ position: String(position), reason })) }
      : {}),
  };
}

interface Props {
  readonly port: string;
  /** The read-out to correct, if any. */
  readonly correct: StoredReadOut | null;
  readonly onClose: () => void;
}

export function EntryDialog({ port, correct, onClose }: Props) {
  const { dossier } = useOnBench();
  const { sample, instruments, profile } = dossier;
  const analysers = instruments.filter(({ sees }) => sees);
  const empty: Form = {
    port,
    instrumentId: dossier.readOuts.at(-1)?.instrumentId ?? analysers.at(-1)?.id ?? '',
    text: '',
    order: 'value',
    are: 'offers',
    cable: '',
    occupied: [],
    marker: '5 A',
    askedWith: 'not noted',
    declared: 'not noted',
    temperature: '',
    elapsed: '',
    signals: {},
    unreachable: [],
    note: '',
  };
  const start = correct ? { ...fromReadOut(correct, empty), instrumentId: correct.instrumentId } : empty;
  const draft = useDraft<Form>(`read-out-${sample.id}-${correct?.id ?? port}`, start);
  const form = draft.value;
  const set = (part: Partial<Form>) => draft.set({ ...form, ...part });
  const { decoded, busy } = useInterpret(form.text, form.order, form.are);
  const cable = useInterpret(form.cable, form.order, 'identity').decoded.identity;
  const [id] = useState(ulid);
  const save = useMutation({
    mutationFn: () => {
      const body = { ...toInput(form, decoded, cable, correct?.id ?? null), id };
      if (Number.isNaN(body.temperature)) throw new Error('The temperature cannot be read.');
      return api<StoredReadOut>(`/samples/${sample.id}/read-outs`, { method: 'POST', body });
    },
    onSuccess: async () => {
      draft.clear();
      await refreshSample(sample.id);
      onClose();
    },
  });
  const close = () => {
    draft.clear();
    onClose();
  };
  const temperature = form.temperature.trim() === '' ? null : parseCelsius(form.temperature, ROOM_RANGE, 'room');
  const analyser = analysers.find(({ id: own }) => own === form.instrumentId);
  const empty_ = decoded.words.length === 0 && Object.values(form.signals).every((one) => one === 'not looked for');
  const submit = (event: FormEvent) => {
    event.preventDefault();
    save.mutate();
  };
  return (
    <Dialog open onClose={close} maxWidth="lg" fullWidth aria-labelledby="read-out-title">
      <form onSubmit={submit} noValidate>
        <DialogTitle id="read-out-title">{correct ? 'Correct the read-out' : 'Enter a read-out'}</DialogTitle>
        <DialogContent
          sx={{ display: 'grid', gridTemplateColumns: 'minmax(0, 1.05fr) minmax(0, 1fr)', gap: 3, '&&': { pt: 1 } }}
        >
          <Box sx={{ display: 'grid', gap: 1.5, alignContent: 'start' }}>
            <Box sx={{ display: 'grid', gridTemplateColumns: '110px 1fr', gap: 1.5 }}>
              <Choice
                label="Port"
                value={form.port}
                options={sample.model.ports.map(({ label }) => label)}
                onChange={(to) => set({ port: to, occupied: form.occupied.filter((one) => one !== to) })}
              />
              <Choice
                label="Analyser"
                value={form.instrumentId}
                options={analysers.map(({ id: own, name, firmware }) => ({
                  value: own,
                  label: firmware ? `${name}, firmware ${firmware}` : name,
                }))}
                onChange={(instrumentId) => set({ instrumentId })}
              />
            </Box>
            {analysers.length === 0 && (
              <Alert severity="warning">No PD analyser yet. Add one at Bench, with what it can see.</Alert>
            )}
            <TextField
              label="What the analyser shows"
              autoFocus
              multiline
              minRows={5}
              maxRows={12}
              value={form.text}
              onChange={(event) => set({ text: event.target.value })}
              placeholder={
                '0801912C 0002D12C …\nor a whole message: 51A1 0801912C …\nor lines: 9 V 3 A\nor a CSV or JSON list'
              }
              slotProps={{ htmlInput: { spellCheck: false, 'data-gramm': 'false' } }}
            />
            <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1.5 }}>
              <Choice
                label="Digits stand"
                value={form.order}
                options={[
                  { value: 'value', label: 'as numbers: 0801912C' },
                  { value: 'wire', label: 'as on the wire: 2C 91 01 08' },
                ]}
                onChange={(order) => set({ order })}
              />
              <Choice
                label="Bare words are"
                value={form.are}
                options={[
                  { value: 'offers', label: 'offers of the source' },
                  { value: 'request', label: 'requests' },
                  { value: 'identity', label: 'the cable’s reply' },
                ]}
                onChange={(are) => set({ are })}
              />
            </Box>
            <AddLevel
              asWords={decoded.form === 'words' || decoded.form === 'messages'}
              order={form.order}
              onAdd={(line) => set({ text: form.text.trim() === '' ? line : `${form.text.trimEnd()}\n${line}` })}
            />
            {decoded.readOut && (
              <Button variant="outlined" onClick={() => set(fromReadOut(decoded.readOut ?? {}, form))}>
                Take the conditions from the file too
              </Button>
            )}
            <Typography variant="h3">Conditions</Typography>
            <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1.5 }}>
              <Choice
                label="Cable marker"
                value={form.marker}
                options={MARKERS}
                onChange={(marker) => set({ marker })}
              />
              <Choice
                label="Asked with revision"
                value={form.askedWith}
                options={REVISION_CHOICES}
                onChange={(askedWith) => set({ askedWith })}
              />
              <Choice
                label="Source declares"
                value={form.declared}
                options={REVISION_CHOICES}
                onChange={(declared) => set({ declared })}
              />
              <QuantityField
                label="Plugged in for, min"
                quantity="duration"
                value={form.elapsed}
                onChange={(elapsed) => set({ elapsed })}
              />
              <TextField
                label="Temperature, °C"
                value={form.temperature}
                onChange={(event) => set({ temperature: event.target.value })}
                error={temperature !== null && !temperature.ok}
                helperText={temperature && !temperature.ok ? temperature.reason : ' '}
                slotProps={{ htmlInput: { inputMode: 'decimal', autoComplete: 'off' } }}
              />
              <TextField
                label="Cable’s reply, hex"
                value={form.cable}
                onChange={(event) => set({ cable: event.target.value })}
                slotProps={{ htmlInput: { spellCheck: false } }}
              />
            </Box>
            <Box role="group" aria-label="Other ports in use">
              {sample.model.ports.length > 1 && <Typography variant="body2">Other ports in use</Typography>}
              {sample.model.ports
                .filter(({ label }) => label !== form.port)
                .map(({ label }) => (
                  <FormControlLabel
                    key={label}
                    label={label}
                    control={
                      <Checkbox
                        size="small"
                        checked={form.occupied.includes(label)}
                        onChange={(event) =>
                          set({
                            occupied: event.target.checked
                              ? [...form.occupied, label]
                              : form.occupied.filter((one) => one !== label),
                          })
                        }
                      />
                    }
                  />
                ))}
            </Box>
          </Box>
          <Box sx={{ display: 'grid', gap: 2, alignContent: 'start' }}>
            <DecodedView decoded={decoded} busy={busy} />
            {cable.length > 0 && <Identity words={cable} />}
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
            <TextField
              label="Note"
              value={form.note}
              onChange={(event) => set({ note: event.target.value })}
              slotProps={{ htmlInput: { maxLength: 400 } }}
            />
            {save.error && <Alert severity="error">{save.error.message}</Alert>}
          </Box>
        </DialogContent>
        <DialogActions>
          <Button onClick={close}>Cancel</Button>
          <Button
            type="submit"
            variant="contained"
            disabled={save.isPending || busy || empty_ || analysers.length === 0}
          >
            {correct ? 'Save the correction' : 'Keep the read-out'}
          </Button>
        </DialogActions>
      </form>
    </Dialog>
  );
}
