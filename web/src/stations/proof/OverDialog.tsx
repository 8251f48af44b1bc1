// The search itself: one step after the other, seconds each, ending at the first fold-back or cut-off.
import { overStepEnd, overSteps } from '@lastmark/core/proof';
import { formatPlain } from '@lastmark/core/quantity';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { QuantityField, typedSi } from '../../parts/fields.tsx';
import { ChoiceInput, QuantityInput } from '../../parts/form/inputs.tsx';
import { useTyped } from '../../parts/form/useTyped.ts';
import { useSample } from '../../state/sample.tsx';
import { RunDialog, type RunHeadForm, useRunHead } from './RunDialog.tsx';
import { useAddRun } from './useRuns.ts';

type Attached = 'electronic load' | 'device';
type Latched = 'not seen' | 'stays off until unplugged' | 'comes back by itself';

interface Form extends RunHeadForm {
  volts: string;
  rated: string;
  attached: Attached;
  rows: { amps: string; volts: string }[];
  latched: Latched;
  recovery: string;
}

export function OverDialog({ onClose }: { readonly onClose: () => void }) {
  const { dossier, verdict } = useSample();
  const { step, seconds } = dossier.profile.overRating;
  const head = useRunHead();
  const strongest = (port: string) =>
    verdict.results.proof.steps
      .flatMap(({ step: one }) => (one.load === 1 && one.outputs.length === 1 ? one.outputs : []))
      .filter((output) => output.port === port)
      .reduce<{ volts: number; amps: number } | null>(
        (a, b) => (a && a.volts * a.amps >= b.volts * b.amps ? a : b),
        null,
      );
  const fill = (port: string) => {
    const level = strongest(port);
    return { volts: level ? String(level.volts) : '', rated: level ? String(level.amps) : '' };
  };
  const form = useTyped<Form>({
    ...head,
    ...fill(head.port),
    attached: 'electronic load',
    rows: [],
    latched: 'not seen',
    recovery: '',
  });
  const { control, values, set } = form;
  const add = useAddRun('over');
  const volts = typedSi(values.volts, 'voltage') ?? Number.NaN;
  const rated = typedSi(values.rated, 'current') ?? Number.NaN;
  const asked = rated > 0 ? overSteps(rated, step) : [];
  const read = values.rows.map((row, index) => ({
    asked: asked[index] ?? 0,
    amps: typedSi(row.amps, 'current') ?? Number.NaN,
    volts: typedSi(row.volts, 'voltage') ?? Number.NaN,
    seconds,
  }));
  const complete = read.filter((one) => Number.isFinite(one.amps) && Number.isFinite(one.volts));
  const ends = complete.map((one) => overStepEnd(one, volts));
  const ended = ends.find((end) => end !== null) ?? null;
  const next = ended === null && complete.length === values.rows.length && values.rows.length < asked.length;
  const shown = next ? [...values.rows, { amps: '', volts: '' }] : values.rows;
  const change = (index: number, part: { amps?: string; volts?: string }) =>
    set({ rows: shown.map((row, at) => (at === index ? { ...row, ...part } : row)) });
  const device = values.attached === 'device';
  const run = {
    port: values.port,
    rigId: values.rigId,
    note: values.note.trim(),
    volts,
    rated,
    steps: complete,
    attached: values.attached,
    latched:
      ended === 'cut off' && values.latched !== 'not seen' ? values.latched === 'stays off until unplugged' : null,
    recovery:
      ended === 'cut off' && values.latched === 'comes back by itself' ? typedSi(values.recovery, 'duration') : null,
  };
  return (
    <RunDialog
      title="Over the rating"
      caution={{
        line: `This can destroy the sample. Seconds only: ${formatPlain(seconds, 'duration', 's')} a step, load off between; never with a real device.`,
        more: 'Stand by the load’s off switch. Stop at smell, smoke, swelling or noise. A port that stays dead after it is a finding: prove every port again.',
      }}
      form={form}
      onPort={(port) => set({ ...fill(port), rows: [] })}
      ready={!device && complete.length > 0 && Number.isFinite(volts)}
      onSave={() => add(run)}
      onClose={onClose}
    >
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr 1.6fr', gap: 1.5 }}>
        <QuantityField
          label="Level, V"
          quantity="voltage"
          value={values.volts}
          onChange={(value) => set({ volts: value, rows: [] })}
        />
        <QuantityField
          label="Rated, A"
          quantity="current"
          value={values.rated}
          onChange={(value) => set({ rated: value, rows: [] })}
        />
        <ChoiceInput control={control} name="attached" label="Attached" options={['electronic load', 'device']} />
      </Box>
      {device && (
        <Alert severity="error">
          A real device is attached: never go over the rating with one. Take it off and use an electronic load.
        </Alert>
      )}
      {!device &&
        shown.map((row, index) => (
          <Box
            // biome-ignore lint/suspicious/noArrayIndexKey: steps have no identity but their place
            key={index}
            sx={{ display: 'grid', gridTemplateColumns: '150px 1fr 1fr', gap: 1.5, alignItems: 'start' }}
          >
            <Typography sx={{ pt: 1, fontWeight: 600 }}>
              Ask {formatPlain(asked[index] ?? 0, 'current')}
              <Box component="span" sx={{ display: 'block', fontWeight: 400, fontSize: 13, color: 'text.secondary' }}>
                {Math.round(((asked[index] ?? 0) / rated) * 100)} % of its rating
              </Box>
            </Typography>
            <QuantityField
              label="Read, A"
              quantity="current"
              value={row.amps}
              onChange={(amps) => change(index, { amps })}
            />
            <QuantityField
              label="Read, V"
              quantity="voltage"
              value={row.volts}
              onChange={(value) => change(index, { volts: value })}
            />
          </Box>
        ))}
      {ended && (
        <Alert severity="warning">
          It {ended}. The search is over: load off, let it rest, then prove every port again.
        </Alert>
      )}
      {ended === 'cut off' && (
        <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1.5 }}>
          <ChoiceInput
            control={control}
            name="latched"
            label="After the cut-off"
            options={['not seen', 'stays off until unplugged', 'comes back by itself']}
          />
          {values.latched === 'comes back by itself' && (
            <QuantityInput control={control} name="recovery" label="Back after (2 s)" quantity="duration" />
          )}
        </Box>
      )}
    </RunDialog>
  );
}
