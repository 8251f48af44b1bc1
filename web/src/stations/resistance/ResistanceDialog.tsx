// Drops in one plugging: typed current by current, or a table pasted or taken from a file.
import type { StoredCableRun } from '@lastmark/contract/types';
import { SIDES, type Side } from '@lastmark/core/cable';
import { formatPlain } from '@lastmark/core/quantity';
import { readDrops, SIDE_WORDS } from '@lastmark/core/resistance';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { type CableFootForm, CableFormFoot } from '../../cables/CableFormFoot.tsx';
import { countIn } from '../../cables/typed.ts';
import { useAddCableRun } from '../../cables/useCableRuns.ts';
import { Caution } from '../../parts/Caution.tsx';
import { QuantityField, typedSi } from '../../parts/fields.tsx';
import { FormDialog } from '../../parts/form/FormDialog.tsx';
import { ChoiceInput, QuantityInput } from '../../parts/form/inputs.tsx';
import { useTyped } from '../../parts/form/useTyped.ts';
import { takenOf, toTaken } from '../../parts/taken.ts';
import { useSample } from '../../state/sample.tsx';

interface Line {
  readonly amps: string;
  readonly near: string;
  readonly far: string;
  readonly drop: string;
}

interface Form extends CableFootForm {
  readonly rigId: string;
  readonly how: 'four wires' | 'two meters';
  readonly side: Side;
  readonly temperature: string;
  readonly lines: readonly Line[];
  readonly pasted: string;
}

type Series = Extract<StoredCableRun, { kind: 'resistance' }>;

const EMPTY: Line = { amps: '', near: '', far: '', drop: '' };

/** Currents of a series: nought, and up to what the cable is rated for. */
const usual = (rated: number): readonly Line[] =>
  [0, 1, 3, 5].filter((amps) => amps <= rated + 0.01).map((amps) => ({ ...EMPTY, amps: String(amps) }));

const volts = (value: number | null): string => (value === null ? '' : formatPlain(value, 'voltage'));

const textOf = (run: Series): Pick<Form, 'rigId' | 'how' | 'side' | 'temperature' | 'lines'> => ({
  rigId: run.rigId,
  how: run.how,
  side: run.side,
  temperature: run.steps[0]?.temperature == null ? '' : formatPlain(run.steps[0].temperature, 'temperature'),
  lines: run.steps.map(({ amps, near, far, drop }) => ({
    amps: formatPlain(amps, 'current'),
    near: volts(near),
    far: volts(far),
    drop: drop === null ? '' : formatPlain(drop, 'voltage', 'mV'),
  })),
});

/** A drop typed without a unit is millivolts, as such meters show it. */
const typedDrop = (text: string): number | null =>
  typedSi(/[a-zµ]/i.test(text) || text.trim() === '' ? text : `${text} mV`, 'voltage');

interface Props {
  readonly run: StoredCableRun | null;
  readonly onClose: () => void;
}

export function ResistanceDialog({ run, onClose }: Props) {
  const { dossier, verdict } = useSample();
  const { sample, rigs, cableRuns } = dossier;
  const corrected = run?.kind === 'resistance' ? run : null;
  const { rated } = verdict.results.resistance;
  const last = cableRuns.findLast((one): one is Series => one.kind === 'resistance');
  const done = verdict.results.bends.done;
  const form = useTyped<Form>(
    {
      rigId: rigs.find(({ id }) => id === last?.rigId)?.id ?? rigs[0]?.id ?? '',
      how: last?.how ?? 'four wires',
      side: last?.side ?? 'loop',
      temperature: '',
      lines: usual(rated.amps),
      pasted: '',
      ...(corrected ? textOf(corrected) : {}),
      bends: String(corrected?.bends ?? done),
      note: corrected?.note ?? '',
      taken: corrected ? toTaken(corrected.takenAt) : '',
    },
    corrected ? undefined : `resistance-${sample.id}`,
  );
  const { control, values, set } = form;
  const [pasting, setPasting] = useState(values.pasted !== '');
  const add = useAddCableRun('resistance', corrected);
  const two = values.how === 'two meters';
  const table = values.pasted.trim() === '' ? null : readDrops(values.pasted);
  const kelvin = typedSi(values.temperature, 'temperature');
  const typed = values.lines
    .filter((line) => (two ? line.near.trim() !== '' || line.far.trim() !== '' : line.drop.trim() !== ''))
    .map((line) => ({
      amps: typedSi(line.amps, 'current') ?? Number.NaN,
      near: two ? typedSi(line.near, 'voltage') : null,
      far: two ? typedSi(line.far, 'voltage') : null,
      drop: two ? null : typedDrop(line.drop),
      temperature: kelvin,
    }));
  const steps =
    table === null
      ? typed
      : table.ok
        ? table.readings.map(({ amps, drop, near, celsius }) => ({
            amps,
            near: two ? (near ?? null) : null,
            far: two && near != null ? near - drop : null,
            drop: two ? null : drop,
            temperature: celsius === null ? kelvin : celsius + 273.15,
          }))
        : [];
  const bends = countIn(values.bends);
  const numbers = [
    bends,
    kelvin ?? 0,
    ...steps.flatMap(({ amps, near, far, drop }) => [amps, near ?? 0, far ?? 0, drop ?? 0]),
  ];
  const asRead = !table?.ok || (two ? table.readings.every(({ near }) => near != null) : !table.ends);
  const ready = asRead && steps.length > 0 && numbers.every(Number.isFinite) && values.rigId !== '';
  const change = (at: number, part: Partial<Line>) =>
    set({ lines: values.lines.map((line, index) => (index === at ? { ...line, ...part } : line)) });
  return (
    <FormDialog
      title={corrected ? 'Correct the drops' : 'Enter drops'}
      form={form}
      onSave={() =>
        add(
          { rigId: values.rigId, how: values.how, side: values.side, steps, bends, note: values.note.trim() },
          takenOf(values.taken),
        )
      }
      onClose={onClose}
      action="Keep"
      ready={ready}
      width="md"
    >
      <Caution line="Plug it in anew for every series: each counts as one plugging. Turn the load off before you pull a plug." />
      <Box sx={{ display: 'grid', gridTemplateColumns: '1.4fr 1fr 1fr 1fr', gap: 1.5 }}>
        <ChoiceInput
          control={control}
          name="rigId"
          label="Rig"
          options={rigs.map(({ id, name }) => ({ value: id, label: name }))}
        />
        <ChoiceInput control={control} name="how" label="Read by" options={['four wires', 'two meters']} />
        <ChoiceInput
          control={control}
          name="side"
          label="Along"
          options={SIDES.map((value) => ({ value, label: SIDE_WORDS[value] }))}
        />
        <QuantityInput control={control} name="temperature" label="Cable, °C" quantity="temperature" />
      </Box>
      {!pasting && (
        <Box role="group" aria-label="Readings" sx={{ display: 'grid', gap: 1 }}>
          {values.lines.map((line, at) => (
            <Box
              // biome-ignore lint/suspicious/noArrayIndexKey: lines have no identity but their place
              key={at}
              sx={{ display: 'grid', gridTemplateColumns: two ? '1fr 1fr 1fr auto' : '1fr 2fr auto', gap: 1.5 }}
            >
              <QuantityField
                label={`Current ${at + 1}, A`}
                quantity="current"
                value={line.amps}
                onChange={(amps) => change(at, { amps })}
              />
              {two ? (
                <>
                  <QuantityField
                    label={`Near end ${at + 1}, V`}
                    quantity="voltage"
                    value={line.near}
                    onChange={(near) => change(at, { near })}
                  />
                  <QuantityField
                    label={`Far end ${at + 1}, V`}
                    quantity="voltage"
                    value={line.far}
                    onChange={(far) => change(at, { far })}
                  />
                </>
              ) : (
                <QuantityField
                  label={`Drop ${at + 1}, mV`}
                  quantity="voltage"
                  value={line.drop}
                  onChange={(drop) => change(at, { drop })}
                />
              )}
              <Button
                size="small"
                sx={{ alignSelf: 'start', mt: 0.5 }}
                aria-label={`Remove reading ${at + 1}`}
                onClick={() => set({ lines: values.lines.filter((_, index) => index !== at) })}
              >
                Remove
              </Button>
            </Box>
          ))}
        </Box>
      )}
      <Box sx={{ display: 'flex', gap: 1 }}>
        {!pasting && (
          <Button
            variant="outlined"
            disabled={values.lines.length >= 200}
            onClick={() => set({ lines: [...values.lines, EMPTY] })}
          >
            Add a reading
          </Button>
        )}
        <Button
          variant="outlined"
          aria-pressed={pasting}
          onClick={() => {
            setPasting(!pasting);
            set({ pasted: '' });
          }}
        >
          {pasting ? 'Type them instead' : 'Paste a table'}
        </Button>
      </Box>
      {pasting && (
        <TextField
          autoFocus
          multiline
          minRows={4}
          maxRows={12}
          label="Table of drops"
          placeholder={'current_A; near_V; far_V; temp_C\n1; 20.004; 19.761; 23\n3; 20.043; 19.311; 24'}
          value={values.pasted}
          error={table?.ok === false}
          helperText={
            table === null
              ? 'With heads, or current and drop, or current and both ends.'
              : table.ok
                ? [
                    `${table.readings.length} readings up to ${formatPlain(Math.max(...table.readings.map(({ amps }) => amps)), 'current')}.`,
                    ...table.assumed,
                    ...table.left,
                  ].join(' ')
                : `Line ${table.line}: ${table.reason}`
          }
          onChange={({ target }) => set({ pasted: target.value })}
          slotProps={{ inputLabel: { shrink: true } }}
        />
      )}
      {!two && !asRead && <Alert severity="warning">The table has the volts at both ends: choose “two meters”.</Alert>}
      {two && !asRead && (
        <Alert severity="warning">The table has drops, not the volts at both ends: choose “four wires”.</Alert>
      )}
      <CableFormFoot control={control} taken={values.taken} />
      {!ready && asRead && (
        <Typography variant="body2" color="text.secondary">
          Not all there yet: numbers are missing or cannot be read.
        </Typography>
      )}
    </FormDialog>
  );
}
