// One look at a bent cable: how often it was bent by now, how, and what is wrong with it.
import type { StoredCableRun } from '@lastmark/contract/types';
import { USUAL_BENDS } from '@lastmark/core/bends';
import { BEND_FAULTS, type BendFault, CHARGES, readWiggle, wiggleWords } from '@lastmark/core/cable';
import { formatPlain } from '@lastmark/core/quantity';
import Box from '@mui/material/Box';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { type CableFootForm, CableFormFoot, WHOLE } from '../../cables/CableFormFoot.tsx';
import { countIn, unread } from '../../cables/typed.ts';
import { useAddCableRun } from '../../cables/useCableRuns.ts';
import { FileButton } from '../../parts/FileButton.tsx';
import { typedSi } from '../../parts/fields.tsx';
import { fileText } from '../../parts/fileText.ts';
import { FormDialog } from '../../parts/form/FormDialog.tsx';
import { ChoiceInput, QuantityInput, TextInput } from '../../parts/form/inputs.tsx';
import { useTyped } from '../../parts/form/useTyped.ts';
import { takenOf, toTaken } from '../../parts/taken.ts';
import { useSample } from '../../state/sample.tsx';

interface Form extends CableFootForm {
  readonly count: string;
  readonly angle: string;
  readonly radius: string;
  readonly tension: string;
  readonly rate: string;
  readonly fault: BendFault;
  readonly charging: (typeof CHARGES)[number];
  readonly trace: string;
}

const number = (text: string): number => (text.trim() === '' ? Number.NaN : Number(text.replace(',', '.')));

const A_NUMBER = 'A number, as 30.';

interface Props {
  readonly run: StoredCableRun | null;
  readonly onClose: () => void;
}

export function BendDialog({ run, onClose }: Props) {
  const { dossier, verdict } = useSample();
  const { sample, profile } = dossier;
  const corrected = run?.kind === 'bend' ? run : null;
  const { done, next } = verdict.results.bends;
  const method = profile.bends ?? USUAL_BENDS;
  const last = corrected ?? dossier.cableRuns.findLast((one) => one.kind === 'bend') ?? method;
  const form = useTyped<Form>(
    {
      count: String(corrected?.count ?? next ?? ''),
      angle: String(last.angle),
      radius: formatPlain(last.radius, 'length'),
      tension: last.tension === null ? '' : String(last.tension),
      rate: String(last.rate),
      fault: corrected?.fault ?? 'none',
      charging: corrected?.charging ?? 'as before',
      trace: '',
      bends: String(corrected?.bends ?? done),
      note: corrected?.note ?? '',
      taken: corrected ? toTaken(corrected.takenAt) : '',
    },
    corrected ? undefined : `bend-${sample.id}`,
  );
  const { control, values, set } = form;
  const add = useAddCableRun('bend', corrected);
  const trace = values.trace.trim() === '' ? null : readWiggle(values.trace);
  const fields = {
    count: countIn(values.count),
    bends: countIn(values.bends),
    angle: number(values.angle),
    radius: typedSi(values.radius, 'length') ?? Number.NaN,
    tension: values.tension.trim() === '' ? null : number(values.tension),
    rate: number(values.rate),
    fault: values.fault,
    charging: values.charging,
    wiggle: trace?.ok ? trace.wiggle : (corrected?.wiggle ?? null),
    note: values.note.trim(),
  };
  const ready =
    trace?.ok !== false &&
    [fields.count, fields.bends, fields.angle, fields.radius, fields.tension ?? 0, fields.rate].every(Number.isFinite);
  return (
    <FormDialog
      title={corrected ? 'Correct the look' : 'Enter a look'}
      form={form}
      onSave={() => add(fields, takenOf(values.taken))}
      onClose={onClose}
      action="Keep"
      ready={ready}
      width="md"
    >
      <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(3, 1fr)', gap: 1.5 }}>
        <TextInput
          control={control}
          name="count"
          label="Bends altogether"
          max={12}
          required
          more={{ autoFocus: true, ...unread(values.count, fields.count, WHOLE) }}
        />
        <ChoiceInput control={control} name="fault" label="What is wrong" options={BEND_FAULTS} />
        <ChoiceInput control={control} name="charging" label="Charges" options={CHARGES} />
        <TextInput
          control={control}
          name="angle"
          label="Each way, °"
          max={8}
          more={unread(values.angle, fields.angle, A_NUMBER)}
        />
        <QuantityInput control={control} name="radius" label="Radius, mm" quantity="length" />
        <TextInput
          control={control}
          name="tension"
          label="Weight, N"
          max={8}
          more={unread(values.tension, fields.tension, A_NUMBER)}
        />
        <TextInput
          control={control}
          name="rate"
          label="Bends a minute"
          max={8}
          more={unread(values.rate, fields.rate, A_NUMBER)}
        />
      </Box>
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr auto', gap: 1.5, alignItems: 'start' }}>
        <TextField
          multiline
          minRows={2}
          maxRows={5}
          label="Logged while it was wiggled, at 5 V"
          placeholder={'time_s; volts\n0; 5.02\n0.05; 5.02'}
          value={values.trace}
          error={trace?.ok === false}
          helperText={
            trace === null
              ? corrected?.wiggle
                ? `Kept: ${wiggleWords(corrected.wiggle)}.`
                : 'A column of time, and one of volts or amps; may stay empty.'
              : trace.ok
                ? `${wiggleWords(trace.wiggle)}.`
                : `Line ${trace.line}: ${trace.reason}`
          }
          onChange={(event) => set({ trace: event.target.value })}
          slotProps={{ inputLabel: { shrink: true } }}
        />
        <FileButton
          label="Log as a file"
          accept=".csv,.tsv,.txt,text/csv"
          onFiles={([file]) => file && void fileText(file).then((text) => set({ trace: text }))}
          button={{ variant: 'outlined' }}
        >
          Open a file
        </FileButton>
      </Box>
      <Typography variant="body2" color="text.secondary">
        Read its resistance at every look too, at Resistance: what it lost shows here.
      </Typography>
      <CableFormFoot control={control} taken={values.taken} />
      {!ready && (
        <Typography variant="body2" color="text.secondary">
          Not all there yet: how often it was bent, and how.
        </Typography>
      )}
    </FormDialog>
  );
}
