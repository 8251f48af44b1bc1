// Takes in a soak: what was loaded, where it stood, and its log: from a file, or a few readings typed line by line.
import { SENSOR_KINDS, type SENSOR_PLACES, SOAK_PLACES, type SoakSetting } from '@lastmark/core/capture';
import { SURFACES } from '@lastmark/core/heat';
import { mainsLabel, parseLoads } from '@lastmark/core/reading';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { RecordingButton, TypedLines } from '../../captures/RecordingParts.tsx';
import { Seen } from '../../captures/Seen.tsx';
import { useCapture } from '../../captures/useCapture.ts';
import { useRecording } from '../../captures/useRecording.ts';
import { typedSi } from '../../parts/fields.tsx';
import { FormDialog } from '../../parts/form/FormDialog.tsx';
import { ChoiceInput, TextInput } from '../../parts/form/inputs.tsx';
import { useTyped } from '../../parts/form/useTyped.ts';
import { useSample, useSupplies } from '../../state/sample.tsx';

interface Form {
  load: string;
  supply: string;
  rigId: string;
  place: SoakSetting['place'];
  ambient: string;
  surface: string;
  adapter: string;
  touched: SoakSetting['touched'];
  how: (typeof SENSOR_KINDS)[number];
  typed: string;
  note: string;
}

const ZERO = 273.15;
const EXAMPLE = 'time [min]; front [°C]; ambient [°C]\n0; 24,6; 24,6\n20; 51,5; 24,6\n40; 60,9; 24,7\n60; 64,1; 24,6';

/** Where a sensor sits, by what its column is called. */
function placeOf(name: string): (typeof SENSOR_PLACES)[number] {
  const words: readonly (readonly [RegExp, (typeof SENSOR_PLACES)[number]])[] = [
    [/front|face|top/i, 'front'],
    [/back|rear|bottom/i, 'back'],
    [/side|edge/i, 'side'],
    [/plug|pin|prong/i, 'plug'],
    [/device|phone|laptop/i, 'device'],
  ];
  return words.find(([pattern]) => pattern.test(name))?.[1] ?? 'elsewhere';
}

export function SoakDialog({ onClose }: { readonly onClose: () => void }) {
  const { dossier } = useSample();
  const supplies = useSupplies();
  const { add } = useCapture();
  const ports = dossier.sample.model.ports.map(({ label }) => label);
  const form = useTyped<Form>({
    load: '',
    supply: supplies[0] ? mainsLabel(supplies[0]) : '',
    rigId: dossier.rigs[0]?.id ?? '',
    place: 'open room',
    ambient: '',
    surface: '',
    adapter: '',
    touched: 'plastic',
    how: 'contact',
    typed: '',
    note: '',
  });
  const { control, values, set } = form;
  const [tried, setTried] = useState(false);
  const mains = supplies.find((one) => mainsLabel(one) === values.supply);
  const kelvin = values.ambient.trim() === '' ? null : typedSi(values.ambient, 'temperature');
  const wrong = kelvin !== null && Number.isNaN(kelvin);
  const ambient = kelvin === null || wrong ? null : Math.round((kelvin - ZERO) * 100) / 100;
  const { place, surface, adapter, touched, how } = values;
  const setting = (names: readonly string[]): SoakSetting => ({
    place,
    ambient,
    surface: surface.trim(),
    adapter: adapter.trim(),
    touched,
    sensors: names.map((name) => ({ name, place: placeOf(name), how })),
  });
  const recording = useRecording(mains ? { kind: 'soak', mains, soak: setting([]) } : null);
  const outputs = parseLoads(values.load, ports);
  const problem = 'reason' in outputs ? outputs.reason : null;
  const save = async () => {
    setTried(true);
    if (problem || 'reason' in outputs || !mains) throw new Error(problem ?? 'Choose the supply.');
    const seen = recording.seen;
    const names = seen?.ok && seen.figures.kind === 'soak' ? seen.figures.sensors.map(({ name }) => name) : [];
    await add.mutateAsync({
      choice: {
        kind: 'soak',
        mains,
        setupId: null,
        load: 1,
        port: null,
        attached: 'nothing',
        rigId: values.rigId,
        source: recording.file?.name ?? '',
        note: values.note.trim(),
        outputs,
        soak: setting(names),
      },
      file: await recording.sent(),
      scopeId: null,
    });
  };
  return (
    <FormDialog
      title="Take in a soak"
      form={form}
      onSave={save}
      onClose={onClose}
      action="Keep"
      ready={mains !== undefined && values.rigId !== '' && !wrong && recording.seen?.ok === true}
      width="md"
      sx={{ gap: 2, gridTemplateColumns: 'repeat(3, minmax(0, 1fr))' }}
      more={<RecordingButton label="Log of a soak" recording={recording} />}
    >
      <TextInput
        control={control}
        name="load"
        label="Loads"
        max={200}
        required
        more={{
          placeholder: `${ports[0] ?? 'C1'} 20 V 3.25 A`,
          error: tried && problem !== null,
          helperText: tried && problem ? problem : 'Ports, levels and amps; more ports with +',
          sx: { gridColumn: 'span 2' },
        }}
      />
      <ChoiceInput control={control} name="supply" label="Supply" options={supplies.map(mainsLabel)} />
      <ChoiceInput control={control} name="place" label="Where" options={SOAK_PLACES} />
      <TextInput
        control={control}
        name="ambient"
        label={place === 'chamber' ? 'Chamber set to, °C' : 'Room, °C, where no column logs it'}
        max={20}
        more={{ error: wrong, helperText: wrong ? 'A temperature, such as 25.' : '' }}
      />
      <TextInput control={control} name="surface" label="Lay on" max={80} more={{ placeholder: 'wood' }} />
      <TextInput control={control} name="adapter" label="Plug adapter" max={80} more={{ placeholder: 'none' }} />
      <ChoiceInput control={control} name="touched" label="Body where it is gripped" options={SURFACES} />
      <ChoiceInput control={control} name="how" label="Sensors" options={SENSOR_KINDS} />
      <ChoiceInput
        control={control}
        name="rigId"
        label="Rig"
        options={dossier.rigs.map(({ id, name }) => ({ value: id, label: name }))}
      />
      <TextInput control={control} name="note" label="Note" max={400} more={{ sx: { gridColumn: 'span 2' } }} />
      <TypedLines
        label="Or readings, line by line"
        name="typed readings"
        example={EXAMPLE}
        value={values.typed}
        onChange={(typed) => set({ typed })}
        recording={recording}
      />
      <Typography variant="body2" color="text.secondary" sx={{ gridColumn: '1 / -1' }}>
        A log has columns of temperature by name, with the room as “ambient”; watts, volts and amps of the output tell
        throttling from a fall to a lower level.
      </Typography>
      <Seen recording={recording} problem={recording.file && tried ? problem : null} />
    </FormDialog>
  );
}
