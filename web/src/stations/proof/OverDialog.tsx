// The search itself: one step after the other, seconds each, ending at the first fold-back or cut-off.
import { overStepEnd, overSteps } from '@lastmark/core/proof';
import { formatPlain } from '@lastmark/core/quantity';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { Choice, QuantityField, typedSi } from '../../parts/fields.tsx';
import { useSample } from '../../state/sample.tsx';
import { RunDialog, useRunHead } from './RunDialog.tsx';
import { useAddRun } from './useRuns.ts';

type Attached = 'electronic load' | 'device';
type Latched = 'not seen' | 'stays off until unplugged' | 'comes back by itself';

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
  const [form, setForm] = useState({
    ...head,
    ...fill(head.port),
    attached: 'electronic load' as Attached,
    rows: [] as { amps: string; volts: string }[],
    latched: 'not seen' as Latched,
    recovery: '',
  });
  const set = (part: Partial<typeof form>) => setForm((before) => ({ ...before, ...part }));
  const add = useAddRun('over', onClose);
  const volts = typedSi(form.volts, 'voltage') ?? Number.NaN;
  const rated = typedSi(form.rated, 'current') ?? Number.NaN;
  const asked = rated > 0 ? overSteps(rated, step) : [];
  const read = form.rows.map((row, index) => ({
    asked: asked[index] ?? 0,
    amps: typedSi(row.amps, 'current') ?? Number.NaN,
    volts: typedSi(row.volts, 'voltage') ?? Number.NaN,
    seconds,
  }));
  const complete = read.filter((one) => Number.isFinite(one.amps) && Number.isFinite(one.volts));
  const ends = complete.map((one) => overStepEnd(one, volts));
  const ended = ends.find((end) => end !== null) ?? null;
  const next = ended === null && complete.length === form.rows.length && form.rows.length < asked.length;
  const shown = next ? [...form.rows, { amps: '', volts: '' }] : form.rows;
  const change = (index: number, part: { amps?: string; volts?: string }) =>
    set({ rows: shown.map((row, at) => (at === index ? { ...row, ...part } : row)) });
  const device = form.attached === 'device';
  const run = {
    port: form.port,
    rigId: form.rigId,
    note: form.note.trim(),
    volts,
    rated,
    steps: complete,
    attached: form.attached,
    latched: ended === 'cut off' && form.latched !== 'not seen' ? form.latched === 'stays off until unplugged' : null,
    recovery:
      ended === 'cut off' && form.latched === 'comes back by itself' ? typedSi(form.recovery, 'duration') : null,
  };
  return (
    <RunDialog
      title="Over the rating"
      caution={{
        line: `This can destroy the sample. Seconds only: ${formatPlain(seconds, 'duration', 's')} a step, load off between; never with a real device.`,
        more: 'Stand by the load’s off switch. Stop at smell, smoke, swelling or noise. A port that stays dead after it is a finding: prove every port again.',
      }}
      head={form}
      onHead={(part) => set({ ...part, ...(part.port ? { ...fill(part.port), rows: [] } : {}) })}
      error={add.error}
      busy={add.isPending}
      ready={!device && complete.length > 0 && Number.isFinite(volts)}
      onSave={() => add.mutate(run)}
      onClose={onClose}
    >
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr 1.6fr', gap: 1.5 }}>
        <QuantityField
          label="Level, V"
          quantity="voltage"
          value={form.volts}
          onChange={(value) => set({ volts: value, rows: [] })}
        />
        <QuantityField
          label="Rated, A"
          quantity="current"
          value={form.rated}
          onChange={(value) => set({ rated: value, rows: [] })}
        />
        <Choice
          label="Attached"
          value={form.attached}
          options={['electronic load', 'device']}
          onChange={(attached) => set({ attached })}
        />
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
          <Choice
            label="After the cut-off"
            value={form.latched}
            options={['not seen', 'stays off until unplugged', 'comes back by itself']}
            onChange={(latched) => set({ latched })}
          />
          {form.latched === 'comes back by itself' && (
            <QuantityField
              label="Back after (2 s)"
              quantity="duration"
              value={form.recovery}
              onChange={(recovery) => set({ recovery })}
            />
          )}
        </Box>
      )}
    </RunDialog>
  );
}
