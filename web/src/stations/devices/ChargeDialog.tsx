// Takes in a charge: which device, at which port, over which cable, and its log: from a file, or levels typed line by line.
import { mainsLabel } from '@lastmark/core/reading';
import { WORKLOADS } from '@lastmark/core/run';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { RecordingButton, TypedLines } from '../../captures/RecordingParts.tsx';
import { Seen } from '../../captures/Seen.tsx';
import { useCapture } from '../../captures/useCapture.ts';
import { useRecording } from '../../captures/useRecording.ts';
import { typedMinutes, typedSi } from '../../parts/fields.tsx';
import { FormDialog } from '../../parts/form/FormDialog.tsx';
import { ChoiceInput, QuantityInput, TextInput } from '../../parts/form/inputs.tsx';
import { useTyped } from '../../parts/form/useTyped.ts';
import { useSample, useSupplies } from '../../state/sample.tsx';

interface Form {
  deviceId: string;
  port: string;
  lead: string;
  workload: string;
  supply: string;
  rigId: string;
  startLevel: string;
  end: string;
  typed: string;
  note: string;
}

const EXAMPLE = 'time [min]; level [%]\n0; 20\n12; 40\n25; 60\n43; 80\n85; 100';

export function ChargeDialog({ onClose }: { readonly onClose: () => void }) {
  const { dossier } = useSample();
  const supplies = useSupplies();
  const { add } = useCapture();
  const ports = dossier.sample.model.ports.map(({ label }) => label);
  const form = useTyped<Form>({
    deviceId: dossier.devices[0]?.id ?? '',
    port: ports[0] ?? '',
    lead: '',
    workload: '',
    supply: supplies.at(-1) ? mainsLabel(supplies.at(-1) as (typeof supplies)[number]) : '',
    rigId: dossier.rigs[0]?.id ?? '',
    startLevel: '',
    end: '',
    typed: '',
    note: '',
  });
  const { control, values, set } = form;
  const [tried, setTried] = useState(false);
  const mains = supplies.find((one) => mainsLabel(one) === values.supply);
  const startLevel = typedSi(values.startLevel, 'efficiency');
  const end = values.end.trim() === '' ? null : typedMinutes(values.end);
  const wrong = [startLevel, end].some((one) => one !== null && Number.isNaN(one)) || (startLevel ?? 0) > 1;
  const workload = WORKLOADS.find((one) => one === values.workload) ?? null;
  const charge = { deviceId: values.deviceId, lead: values.lead.trim(), workload, startLevel, end };
  const recording = useRecording(mains && !wrong ? { kind: 'charge', mains, charge } : null);
  const save = async () => {
    setTried(true);
    if (!mains) throw new Error('Choose the supply.');
    await add.mutateAsync({
      choice: {
        kind: 'charge',
        mains,
        setupId: null,
        load: 1,
        port: values.port,
        attached: 'nothing',
        rigId: values.rigId,
        source: recording.file?.name ?? '',
        note: values.note.trim(),
        charge,
      },
      file: await recording.sent(),
      scopeId: null,
    });
  };
  return (
    <FormDialog
      title="Take in a charge"
      form={form}
      onSave={save}
      onClose={onClose}
      action="Keep"
      ready={
        mains !== undefined && values.rigId !== '' && values.deviceId !== '' && !wrong && recording.seen?.ok === true
      }
      width="md"
      sx={{ gap: 2, gridTemplateColumns: 'repeat(3, minmax(0, 1fr))' }}
      more={<RecordingButton label="Log of a charge" recording={recording} />}
    >
      <ChoiceInput
        control={control}
        name="deviceId"
        label="Device"
        options={dossier.devices.map(({ id, name }) => ({ value: id, label: name }))}
      />
      <ChoiceInput control={control} name="port" label="Port" options={ports} />
      <TextInput control={control} name="lead" label="Cable" max={80} more={{ placeholder: '5 A, 1 m' }} />
      <QuantityInput control={control} name="startLevel" label="Level at the start, %" quantity="efficiency" />
      <TextInput
        control={control}
        name="end"
        label="Full after, min, by your own mark"
        max={20}
        more={{ error: end !== null && Number.isNaN(end), helperText: 'Empty: by the device’s level, or a flat tail' }}
      />
      <ChoiceInput control={control} name="supply" label="Supply" options={supplies.map(mainsLabel)} />
      <ChoiceInput
        control={control}
        name="rigId"
        label="Rig"
        options={dossier.rigs.map(({ id, name }) => ({ value: id, label: name }))}
      />
      <ChoiceInput
        control={control}
        name="workload"
        label="Workload"
        options={[{ value: '', label: 'not noted' }, ...WORKLOADS]}
      />
      <TextInput control={control} name="note" label="Note" max={400} />
      <TypedLines
        label="Or levels, line by line"
        name="typed levels"
        example={EXAMPLE}
        value={values.typed}
        onChange={(typed) => set({ typed })}
        recording={recording}
      />
      <Typography variant="body2" color="text.secondary" sx={{ gridColumn: '1 / -1' }}>
        A log has watts, or volts and amps, of what the device takes; its level where the device logs it. Without a
        level it follows from delivered energy, and only where the charge is seen to its end.
      </Typography>
      <Seen recording={recording} problem={tried && !mains ? 'Choose the supply.' : null} />
    </FormDialog>
  );
}
