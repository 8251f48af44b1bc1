// A rig: which meter reads what, where the output is sensed, and the lead between.
import type { RigInput, StoredInstrument, StoredRig } from '@lastmark/contract/types';
import { formatPlain } from '@lastmark/core/quantity';
import { POINT_PLACES, pointsTyped, USUAL_POINTS } from '@lastmark/core/reading';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { api, versionTag } from '../api/client.ts';
import { refreshAll } from '../api/queries.ts';
import { typedSi } from '../parts/fields.tsx';
import { FormDialog } from '../parts/form/FormDialog.tsx';
import { ChoiceInput, QuantityInput, TextInput } from '../parts/form/inputs.tsx';
import { useTyped } from '../parts/form/useTyped.ts';
import { type ElementText, fromElementText, LineFields, toElementText } from './LineFields.tsx';
import { fromProbeText, ProbeFields, type ProbeText, toProbeText } from './ProbeFields.tsx';

/** Instruments with an address that a run sheet can set by itself. */
const DRIVES = [
  ['source', 'Supply set by', 'AC source'],
  ['load', 'Load set by', 'DC load'],
  ['analyser', 'Offers read by', 'PD analyser'],
  ['thermometer', 'Heat read by', 'thermometer'],
  ['sink', 'Levels asked by', 'PD sink'],
  ['scope', 'Mains current and ripple by', 'oscilloscope'],
] as const;
type Drive = (typeof DRIVES)[number][0];

const METERS = [
  ['mains', 'Input watts by', 'power'],
  ['outputVolts', 'Output volts by', 'voltage'],
  ['outputAmps', 'Output amps by', 'current'],
] as const;

/** Ids stand as text, empty for none. */
interface Form {
  name: string;
  meters: { mains: string; outputVolts: string; outputAmps: string; loadEnd: string };
  outputPlace: RigInput['outputPlace'];
  lead: string;
  leadU: string;
  elements: readonly ElementText[];
  drives: Record<Drive, string>;
  probe: ProbeText;
  spots: string;
  note: string;
}

const measuring = (instruments: readonly StoredInstrument[], quantity: 'power' | 'voltage' | 'current') =>
  instruments.filter(({ specs }) => specs[quantity]);

function toForm(rig: StoredRig | null, instruments: readonly StoredInstrument[]): Form {
  const first = (quantity: 'power' | 'voltage' | 'current') => measuring(instruments, quantity)[0]?.id ?? '';
  return {
    name: rig?.name ?? '',
    meters: {
      mains: rig?.meters.mains ?? first('power'),
      outputVolts: rig ? (rig.meters.outputVolts ?? '') : first('voltage'),
      outputAmps: rig ? (rig.meters.outputAmps ?? '') : first('current'),
      loadEnd: rig?.meters.loadEnd ?? '',
    },
    outputPlace: rig?.outputPlace ?? 'port',
    lead: rig?.leadOhms ? formatPlain(rig.leadOhms, 'resistance') : '',
    leadU: rig?.leadUOhms ? formatPlain(rig.leadUOhms, 'resistance') : '',
    elements: (rig?.elements ?? []).map(toElementText),
    drives: {
      source: rig?.drives?.source ?? '',
      load: rig?.drives?.load ?? '',
      thermometer: rig?.drives?.thermometer ?? '',
      analyser: rig?.drives?.analyser ?? '',
      sink: rig?.drives?.sink ?? '',
      scope: rig?.drives?.scope ?? '',
    },
    probe: toProbeText(rig?.probe),
    spots: (rig?.spots ?? USUAL_POINTS).join(', '),
    note: rig?.note ?? '',
  };
}

function toInput({ name, meters, outputPlace, lead, leadU, elements, drives, probe, spots, note }: Form): RigInput {
  const driven = (id: string) => id || null;
  return {
    name: name.trim(),
    meters: {
      mains: meters.mains,
      outputVolts: meters.outputVolts || null,
      outputAmps: meters.outputAmps || null,
      loadEnd: meters.loadEnd || null,
    },
    outputPlace,
    leadOhms: typedSi(lead, 'resistance') ?? 0,
    leadUOhms: typedSi(leadU, 'resistance') ?? 0,
    elements: elements.map(fromElementText),
    drives: Object.values(drives).some(Boolean)
      ? {
          source: driven(drives.source),
          load: driven(drives.load),
          thermometer: driven(drives.thermometer),
          analyser: driven(drives.analyser),
          sink: driven(drives.sink),
          scope: driven(drives.scope),
        }
      : null,
    probe: fromProbeText(probe),
    spots: toSpots(spots),
    note,
  };
}

/** Null for the usual ones. */
function toSpots(text: string): RigInput['spots'] {
  const typed = pointsTyped(text);
  return 'unknown' in typed || typed.length === 0 || typed.join() === USUAL_POINTS.join() ? null : [...typed];
}

/** What is wrong with what was typed; null for nothing. */
function spotsProblem(text: string): string | null {
  const typed = pointsTyped(text);
  return 'unknown' in typed ? `“${typed.unknown}” is no place. Choose from ${POINT_PLACES.join(', ')}.` : null;
}

interface Props {
  readonly rig: StoredRig | null;
  readonly instruments: readonly StoredInstrument[];
  readonly onClose: () => void;
}

export function RigDialog({ rig, instruments, onClose }: Props) {
  const form = useTyped<Form>(toForm(rig, instruments));
  const { control, values, set } = form;
  const { meters, outputPlace, elements } = values;
  const save = async (typed: Form) => {
    const body = toInput(typed);
    await (rig
      ? api(`/rigs/${rig.id}`, { method: 'PUT', body, ifMatch: versionTag(rig) })
      : api('/rigs', { method: 'POST', body }));
    await refreshAll();
  };
  const complete =
    values.name.trim() !== '' &&
    meters.mains !== '' &&
    (meters.outputVolts === '') === (meters.outputAmps === '') &&
    spotsProblem(values.spots) === null &&
    elements.every((element) => element.name.trim() !== '');
  const measured = elements.flatMap(({ calibrated }) => calibrated ?? []);
  const named = (found: readonly StoredInstrument[]) => found.map(({ id, name }) => ({ value: id, label: name }));
  return (
    <FormDialog
      title={rig ? 'Change the rig' : 'Add a rig'}
      form={form}
      onSave={save}
      onClose={onClose}
      action={rig ? 'Save' : 'Add'}
      ready={complete}
      width="md"
      sx={{ gap: 2 }}
    >
      <TextInput control={control} name="name" label="Name" max={80} required />
      {METERS.map(([key, label, quantity]) => (
        <ChoiceInput
          key={key}
          control={control}
          name={`meters.${key}`}
          label={label}
          options={[
            ...(key === 'mains' ? [] : [{ value: '', label: 'none: read at the socket only' }]),
            ...named(measuring(instruments, quantity)),
          ]}
        />
      ))}
      <ChoiceInput
        control={control}
        name="outputPlace"
        label="Output volts sensed"
        options={[
          { value: 'port', label: 'at the port' },
          { value: 'load-end', label: 'at the load end of the lead' },
        ]}
      />
      {outputPlace === 'port' && (
        <ChoiceInput
          control={control}
          name="meters.loadEnd"
          label="A second meter at the load end"
          options={[
            { value: '', label: 'none' },
            ...named(instruments.filter(({ specs }) => specs.voltage && specs.current)),
          ]}
        />
      )}
      {outputPlace === 'load-end' && (
        <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1.5 }}>
          <QuantityInput control={control} name="lead" label="Lead and cable, both ways, mΩ" quantity="resistance" />
          <QuantityInput control={control} name="leadU" label="its standard uncertainty, mΩ" quantity="resistance" />
          {measured.length > 0 && (
            <Button
              variant="outlined"
              sx={{ justifySelf: 'start', gridColumn: '1 / -1' }}
              onClick={() =>
                set({
                  lead: formatPlain(
                    measured.reduce((sum, { ohms }) => sum + ohms, 0),
                    'resistance',
                  ),
                  leadU: formatPlain(Math.hypot(...measured.map(({ expanded }) => expanded / 2)), 'resistance'),
                })
              }
            >
              Take what was measured of the line
            </Button>
          )}
        </Box>
      )}
      <Box
        role="group"
        aria-label="Runs by itself"
        sx={{ display: 'grid', gridTemplateColumns: 'repeat(3, 1fr)', gap: 1.5 }}
      >
        {DRIVES.map(([key, label, kind]) => (
          <ChoiceInput
            key={key}
            control={control}
            name={`drives.${key}`}
            label={label}
            options={[
              { value: '', label: 'by hand' },
              ...named(instruments.filter((one) => one.class === kind && one.address !== null)),
            ]}
          />
        ))}
      </Box>
      {values.drives.thermometer !== '' && (
        <TextInput
          control={control}
          name="spots"
          label="Points of the thermometer, in its order"
          max={200}
          more={{
            error: spotsProblem(values.spots) !== null,
            helperText:
              spotsProblem(values.spots) ?? 'Where each stands: room, front, back, side, plug, device, elsewhere.',
          }}
        />
      )}
      <LineFields elements={elements} onChange={(to) => set({ elements: to })} />
      <ProbeFields control={control} />
      <TextInput control={control} name="note" label="Note" max={400} />
      {instruments.length === 0 && <Alert severity="info">Add the instruments first.</Alert>}
    </FormDialog>
  );
}
