// States how points were taken that carry no record of their own: warm-up, settling, supply.
import type { StatedInput } from '@lastmark/contract/types';
import { formatPlain, parseDecimal } from '@lastmark/core/quantity';
import { type Mains, mainsLabel, type Taken } from '@lastmark/core/reading';
import Alert from '@mui/material/Alert';
import Typography from '@mui/material/Typography';
import { ulid } from 'ulid';
import { api } from '../api/client.ts';
import { refreshSample } from '../api/queries.ts';
import { useSample, useSupplies } from '../state/sample.tsx';
import { typedMinutes, typedSi } from './fields.tsx';
import { FormDialog } from './form/FormDialog.tsx';
import { ChoiceInput, QuantityInput, TextInput } from './form/inputs.tsx';
import { useTyped } from './form/useTyped.ts';

interface TakenText {
  warmUp: string;
  how: 'settled' | 'averaged' | 'not watched';
  drift: string;
  over: string;
  volts: string;
  hertz: string;
  distortion: string;
  crest: string;
}

const EMPTY: TakenText = {
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

function toForm(taken: Taken | undefined): TakenText {
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

function toTaken(form: TakenText): Taken {
  return {
    warmUp: form.warmUp.trim() === '' ? null : typedMinutes(form.warmUp),
    rest:
      form.how === 'not watched'
        ? null
        : {
            drift: typedSi(form.drift, 'efficiency'),
            over: typedMinutes(form.over) ?? Number.NaN,
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

interface Form extends TakenText {
  supply: string;
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
  const newest = (at: string) =>
    dossier.stated.findLast((one) => one.setupId === setupId && mainsLabel(one.mains) === at)?.taken;
  const first = mainsLabel(own.at(-1)?.mains ?? supplies[0] ?? { kind: 'dc', volts: 12 });
  const form = useTyped<Form>({ ...toForm(newest(first)), supply: first });
  const { control, values, set } = form;
  const mains = supplies.find((one) => mainsLabel(one) === values.supply);
  const recorded = own.filter((point) => mainsLabel(point.mains) === values.supply && point.taken).length;
  const save = async (typed: Form) => {
    if (!mains) throw new Error('Choose the supply.');
    const taken = toTaken(typed);
    const wrong = [taken.warmUp, taken.rest?.drift, taken.rest?.over, ...Object.values(taken.source)].some(
      (value) => typeof value === 'number' && Number.isNaN(value),
    );
    if (wrong) throw new Error('One of the values cannot be read. Give numbers, such as 30 min or 0.4 %.');
    const body: StatedInput = { id: ulid(), setupId, mains, taken };
    await api(`/samples/${dossier.sample.id}/stated`, { method: 'POST', body });
    await refreshSample(dossier.sample.id);
  };
  const isAc = mains?.kind === 'ac';
  return (
    <FormDialog
      title={`How it was taken: ${title}`}
      form={form}
      onSave={save}
      onClose={onClose}
      action="State it"
      sx={{ gap: 2, gridTemplateColumns: '1fr 1fr' }}
    >
      <ChoiceInput
        control={control}
        name="supply"
        label="Supply"
        options={supplies.map(mainsLabel)}
        onChosen={(supply) => set(toForm(newest(supply)))}
        more={{ sx: { gridColumn: '1 / -1' } }}
      />
      {recorded > 0 && (
        <Alert severity="info" sx={{ gridColumn: '1 / -1' }}>
          {recorded} points of this supply carry their own record; that counts for them, whatever is stated here.
        </Alert>
      )}
      {setupId && (
        <>
          <QuantityInput control={control} name="warmUp" label="Warmed up at 100 %, min" quantity="duration" />
          <ChoiceInput
            control={control}
            name="how"
            label="Input was"
            options={['settled', 'averaged', 'not watched']}
          />
        </>
      )}
      {setupId && values.how !== 'not watched' && (
        <>
          <QuantityInput
            control={control}
            name="over"
            label={values.how === 'settled' ? 'Watched for, min' : 'Averaged over, min'}
            quantity="duration"
          />
          <QuantityInput control={control} name="drift" label="Drift over that time, %" quantity="efficiency" />
        </>
      )}
      <QuantityInput control={control} name="volts" label="Supply as read, V" quantity="voltage" />
      {isAc && (
        <>
          <QuantityInput control={control} name="hertz" label="Frequency as read, Hz" quantity="frequency" />
          <QuantityInput
            control={control}
            name="distortion"
            label="Distortion of its voltage, %"
            quantity="efficiency"
          />
          <TextInput
            control={control}
            name="crest"
            label="Crest factor of its voltage"
            max={40}
            more={{ error: values.crest.trim() !== '' && Number.isNaN(parseDecimal(values.crest)) }}
          />
        </>
      )}
      <Typography variant="body2" color="text.secondary" sx={{ gridColumn: '1 / -1' }}>
        What stays empty reads "not recorded", and the result stays indicative.
      </Typography>
    </FormDialog>
  );
}
