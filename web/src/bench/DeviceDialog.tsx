// A real device that serves as a load: what it takes at most, per connector and lead.
import type { DeviceInput, StoredDevice } from '@lastmark/contract/types';
import { DEVICE_KINDS } from '@lastmark/core/proof';
import { formatPlain } from '@lastmark/core/quantity';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useFieldArray } from 'react-hook-form';
import { api, versionTag } from '../api/client.ts';
import { refreshAll } from '../api/queries.ts';
import { typedSi } from '../parts/fields.tsx';
import { FormDialog } from '../parts/form/FormDialog.tsx';
import { ChoiceInput, QuantityInput, TextInput } from '../parts/form/inputs.tsx';
import { useTyped } from '../parts/form/useTyped.ts';

interface Form {
  name: string;
  kind: DeviceInput['kind'];
  battery: string;
  baseline: string;
  note: string;
  ceilings: { connector: string; lead: string; volts: string; watts: string }[];
}

const NEW = { connector: 'C', lead: '', volts: '', watts: '' };

const toForm = (device: StoredDevice | null): Form => ({
  name: device?.name ?? '',
  kind: device?.kind ?? 'phone',
  battery: device?.battery ? formatPlain(device.battery, 'energy', 'Wh') : '',
  baseline: device?.baseline ? formatPlain(device.baseline, 'power') : '',
  note: device?.note ?? '',
  ceilings: device?.ceilings.map(({ connector, lead, volts, watts }) => ({
    connector,
    lead,
    volts: volts === null ? '' : formatPlain(volts, 'voltage'),
    watts: formatPlain(watts, 'power'),
  })) ?? [NEW],
});

const toInput = ({ name, kind, battery, baseline, note, ceilings }: Form): DeviceInput => ({
  name: name.trim(),
  kind,
  battery: typedSi(battery, 'energy'),
  baseline: typedSi(baseline, 'power'),
  note,
  ceilings: ceilings
    .filter(({ lead, watts }) => lead.trim() || watts.trim())
    .map(({ connector, lead, volts, watts }) => ({
      connector: connector.trim(),
      lead: lead.trim(),
      volts: typedSi(volts, 'voltage'),
      watts: typedSi(watts, 'power') ?? 0,
    })),
});

interface Props {
  readonly device: StoredDevice | null;
  readonly onClose: () => void;
}

export function DeviceDialog({ device, onClose }: Props) {
  const form = useTyped<Form>(toForm(device));
  const { control, values } = form;
  const ceilings = useFieldArray({ control, name: 'ceilings' });
  const save = async (typed: Form) => {
    const body = toInput(typed);
    await (device
      ? api(`/devices/${device.id}`, { method: 'PUT', body, ifMatch: versionTag(device) })
      : api('/devices', { method: 'POST', body }));
    await refreshAll();
  };
  return (
    <FormDialog
      title={device ? 'Change the device' : 'Add a device'}
      form={form}
      onSave={save}
      onClose={onClose}
      action={device ? 'Save' : 'Add'}
      ready={values.name.trim() !== ''}
    >
      <Box sx={{ display: 'grid', gridTemplateColumns: '2fr 1fr', gap: 1.5 }}>
        <TextInput control={control} name="name" label="Name" max={80} required more={{ autoFocus: true }} />
        <ChoiceInput control={control} name="kind" label="Kind" options={DEVICE_KINDS} />
        <QuantityInput control={control} name="baseline" label="Took alone on a strong charger, W" quantity="power" />
        <QuantityInput control={control} name="battery" label="Battery, Wh" quantity="energy" />
      </Box>
      <Box role="group" aria-label="What it takes at most">
        <Typography variant="h3" sx={{ mb: 1 }}>
          What it takes at most
        </Typography>
        {ceilings.fields.map(({ id }, index) => (
          <Box key={id} sx={{ display: 'grid', gridTemplateColumns: '90px 1fr 90px 90px', gap: 1 }}>
            <TextInput control={control} name={`ceilings.${index}.connector`} label="Connector" max={40} />
            <TextInput control={control} name={`ceilings.${index}.lead`} label="Lead" max={80} />
            <QuantityInput control={control} name={`ceilings.${index}.volts`} label="Level, V" quantity="voltage" />
            <QuantityInput control={control} name={`ceilings.${index}.watts`} label="W" quantity="power" />
          </Box>
        ))}
        <Button size="small" onClick={() => ceilings.append(NEW)}>
          Add a lead
        </Button>
      </Box>
      <TextInput control={control} name="note" label="Note" max={400} />
    </FormDialog>
  );
}
