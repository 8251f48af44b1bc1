// States how points were taken that carry no record of their own: warm-up, settling, supply.
import type { StatedInput } from '@lastmark/contract/types';
import { formatPlain, parseDecimal } from '@lastmark/core/quantity';
import { type Mains, mainsLabel, type Taken } from '@lastmark/core/reading';
import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useMutation } from '@tanstack/react-query';
import { type FormEvent, useState } from 'react';
import { ulid } from 'ulid';
import { api } from '../api/client.ts';
import { refreshSample } from '../api/queries.ts';
import { useSample, useSupplies } from '../state/sample.tsx';
import { Choice, QuantityField, typedSi } from './fields.tsx';

interface Form {
  warmUp: string;
  how: 'settled' | 'averaged' | 'not watched';
  drift: string;
  over: string;
  volts: string;
  hertz: string;
  distortion: string;
  crest: string;
}

const EMPTY: Form = {
  warmUp: '',
  how: 'not watched',
  drift: '',
  over: '',
  volts: '',
  hertz: '',
  distortion: '',
  crest: '',
};

const percentText = (fraction: number | null): string => (fraction === null ? '' : formatPlain(fraction, 'efficiency'));
const plain = (value: number | null): string => (value === null ? '' : String(value));
const plainNumber = (text: string): number | null => (text.trim() === '' ? null : parseDecimal(text));

function toForm(taken: Taken | undefined): Form {
  if (!taken) return EMPTY;
  const { warmUp, rest, source } = taken;
  return {
    warmUp: warmUp === null ? '' : formatPlain(warmUp, 'duration', 'min'),
    how: rest ? (rest.averaged ? 'averaged' : 'settled') : 'not watched',
    drift: percentText(rest?.drift ?? null),
    over: rest ? formatPlain(rest.over, 'duration', 'min') : '',
    volts: plain(source.volts),
    hertz: plain(source.hertz),
    distortion: percentText(source.distortion),
    crest: plain(source.crest),
  };
}

function toTaken(form: Form): Taken {
  const minutes = (text: string) => typedSi(/[a-z]/i.test(text) ? text : `${text} min`, 'duration');
  return {
    warmUp: form.warmUp.trim() === '' ? null : minutes(form.warmUp),
    rest:
      form.how === 'not watched'
        ? null
        : {
            drift: typedSi(form.drift, 'efficiency'),
            over: minutes(form.over) ?? Number.NaN,
            averaged: form.how === 'averaged',
          },
    source: {
      volts: typedSi(form.volts, 'voltage'),
      hertz: typedSi(form.hertz, 'frequency'),
      distortion: typedSi(form.distortion, 'efficiency'),
      crest: plainNumber(form.crest),
    },
  };
}

interface Props {
  /** The loading it is about; null for idle. */
  readonly setupId: string | null;
  readonly title: string;
  readonly onClose: () => void;
}

export function TakenDialog({ setupId, title, onClose }: Props) {
  const { dossier } = useSample();
  const own = dossier.points.filter((point) => (setupId ? point.setupId === setupId : point.load === 0));
  const supplied = useSupplies();
  const supplies: readonly Mains[] = [...supplied, ...own.map(({ mains }) => mains)].filter(
    (mains, index, all) => all.findIndex((one) => mainsLabel(one) === mainsLabel(mains)) === index,
  );
  const [label, setLabel] = useState(mainsLabel(own.at(-1)?.mains ?? supplies[0] ?? { kind: 'dc', volts: 12 }));
  const newest = (at: string) =>
    dossier.stated.findLast((one) => one.setupId === setupId && mainsLabel(one.mains) === at)?.taken;
  const [form, setForm] = useState(() => toForm(newest(label)));
  const mains = supplies.find((one) => mainsLabel(one) === label);
  const recorded = own.filter((point) => mainsLabel(point.mains) === label && point.taken).length;
  const field = (key: keyof Form) => (typed: string) => setForm({ ...form, [key]: typed });
  const save = useMutation({
    mutationFn: () => {
      if (!mains) throw new Error('Choose the supply.');
      const taken = toTaken(form);
      const wrong = [taken.warmUp, taken.rest?.drift, taken.rest?.over, ...Object.values(taken.source)].some(
        (value) => typeof value === 'number' && Number.isNaN(value),
      );
      if (wrong) throw new Error('One of the values cannot be read. Give numbers, such as 30 min or 0.4 %.');
      const body: StatedInput = { id: ulid(), setupId, mains, taken };
      return api(`/samples/${dossier.sample.id}/stated`, { method: 'POST', body });
    },
    onSuccess: async () => {
      await refreshSample(dossier.sample.id);
      onClose();
    },
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    save.mutate();
  };
  const isAc = mains?.kind === 'ac';
  return (
    <Dialog open onClose={onClose} maxWidth="sm" fullWidth aria-labelledby="taken-title">
      <form onSubmit={submit} noValidate>
        <DialogTitle id="taken-title">How it was taken: {title}</DialogTitle>
        <DialogContent sx={{ display: 'grid', gap: 2, gridTemplateColumns: '1fr 1fr', '&&': { pt: 1 } }}>
          <Choice
            label="Supply"
            value={label}
            options={supplies.map(mainsLabel)}
            onChange={(chosen) => {
              setLabel(chosen);
              setForm(toForm(newest(chosen)));
            }}
            more={{ sx: { gridColumn: '1 / -1' } }}
          />
          {recorded > 0 && (
            <Alert severity="info" sx={{ gridColumn: '1 / -1' }}>
              {recorded} points of this supply carry their own record; that counts for them, whatever is stated here.
            </Alert>
          )}
          {setupId && (
            <>
              <QuantityField
                label="Warmed up at 100 %, min"
                quantity="duration"
                value={form.warmUp}
                onChange={field('warmUp')}
              />
              <Choice
                label="Input was"
                value={form.how}
                options={['settled', 'averaged', 'not watched']}
                onChange={(how) => setForm({ ...form, how })}
              />
              {form.how !== 'not watched' && (
                <>
                  <QuantityField
                    label={form.how === 'settled' ? 'Watched for, min' : 'Averaged over, min'}
                    quantity="duration"
                    value={form.over}
                    onChange={field('over')}
                  />
                  <QuantityField
                    label="Drift over that time, %"
                    quantity="efficiency"
                    value={form.drift}
                    onChange={field('drift')}
                  />
                </>
              )}
            </>
          )}
          <QuantityField label="Supply as read, V" quantity="voltage" value={form.volts} onChange={field('volts')} />
          {isAc && (
            <QuantityField
              label="Frequency as read, Hz"
              quantity="frequency"
              value={form.hertz}
              onChange={field('hertz')}
            />
          )}
          {isAc && (
            <QuantityField
              label="Distortion of its voltage, %"
              quantity="efficiency"
              value={form.distortion}
              onChange={field('distortion')}
            />
          )}
          {isAc && (
            <TextField
              label="Crest factor of its voltage"
              value={form.crest}
              error={form.crest.trim() !== '' && Number.isNaN(parseDecimal(form.crest))}
              onChange={(event) => field('crest')(event.target.value)}
            />
          )}
          <Typography variant="body2" color="text.secondary" sx={{ gridColumn: '1 / -1' }}>
            What stays empty reads "not recorded", and the result stays indicative.
          </Typography>
          {save.error && (
            <Alert severity="error" sx={{ gridColumn: '1 / -1' }}>
              {save.error.message}
            </Alert>
          )}
        </DialogContent>
        <DialogActions>
          <Button onClick={onClose}>Cancel</Button>
          <Button type="submit" variant="contained" disabled={save.isPending}>
            State it
          </Button>
        </DialogActions>
      </form>
    </Dialog>
  );
}
