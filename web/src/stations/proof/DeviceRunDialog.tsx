// One device run: which device, over which lead, how it was used, what it took once settled.

import type { StoredDevice, StoredRun } from '@lastmark/contract/types';
import type { Settled } from '@lastmark/core/charge';
import { type DeviceRun, OUTCOMES, WORKLOADS } from '@lastmark/core/proof';
import { fixed, formatPlain } from '@lastmark/core/quantity';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { wrap } from 'comlink';
import { useState } from 'react';
import { RECORDING_ACCEPTS } from '../../captures/recordingFiles.ts';
import { FileButton } from '../../parts/FileButton.tsx';
import { typedSi } from '../../parts/fields.tsx';
import { ChoiceInput, QuantityInput, TextInput } from '../../parts/form/inputs.tsx';
import { useTyped } from '../../parts/form/useTyped.ts';
import { takenOf } from '../../parts/taken.ts';
import { useSample } from '../../state/sample.tsx';
import type { CaptureWork } from '../../workers/capture.worker.ts';
import { RunDialog, type RunHeadForm, useRunHead } from './RunDialog.tsx';
import { useAddRun } from './useRuns.ts';

interface Form extends RunHeadForm {
  deviceId: string;
  ceiling: string;
  workload: DeviceRun['workload'];
  charge: string;
  settled: string;
  place: DeviceRun['place'];
  volts: string;
  watts: string;
  outcome: DeviceRun['outcome'];
  message: string;
  warmth: string;
}

interface Props {
  /** The run that is corrected; left out for a new one. */
  readonly run?: StoredDeviceRun | null;
  readonly onClose: () => void;
}

type StoredDeviceRun = Extract<StoredRun, { kind: 'device' }>;

/** A run as it was typed. */
function textOf(run: StoredDeviceRun, ceilings: StoredDevice['ceilings']): Omit<Form, keyof RunHeadForm> {
  const at = ceilings.findIndex(({ connector, lead }) => connector === run.connector && lead === run.lead);
  return {
    deviceId: run.deviceId,
    ceiling: String(Math.max(0, at)),
    workload: run.workload,
    charge: run.charge === null ? '' : formatPlain(run.charge, 'efficiency'),
    settled: formatPlain(run.settled, 'duration'),
    place: run.place,
    volts: run.volts === null ? '' : formatPlain(run.volts, 'voltage'),
    watts: formatPlain(run.watts, 'power'),
    outcome: run.outcome,
    message: run.message,
    warmth: run.warmth == null ? '' : formatPlain(run.warmth, 'temperature'),
  };
}

/** A log read away from the screen; closing stops it. */
async function settledIn(file: File): Promise<Settled | { readonly reason: string }> {
  const worker = new Worker(new URL('../../workers/capture.worker.ts', import.meta.url), { type: 'module' });
  try {
    return await wrap<CaptureWork>(worker).settled(file);
  } finally {
    worker.terminate();
  }
}

const watts = (value: number): string => `${fixed(value, 2)} W`;

/** What a log says, beside the numbers that were taken from it. */
function LogSays({ found }: { readonly found: Settled | { readonly reason: string } }) {
  if ('reason' in found) return <Alert severity="error">{found.reason}</Alert>;
  const { peak, plateau, mean, spread, findings } = found;
  return (
    <Box>
      <Typography>
        Peak {watts(peak)}.{' '}
        {plateau ? `Plateau ${watts(plateau.watts)} for ${formatPlain(Math.round(plateau.seconds), 'duration')}. ` : ''}
        Mean {watts(mean)}, spread {watts(spread)}.
      </Typography>
      {findings.map((finding) => (
        <Typography key={finding} variant="body2" color="warning.main">
          {finding}
        </Typography>
      ))}
    </Box>
  );
}

export function DeviceRunDialog({ run: corrected = null, onClose }: Props) {
  const { devices } = useSample().dossier;
  const ceilingsOf = (id: string) => devices.find((one) => one.id === id)?.ceilings ?? [];
  const head = useRunHead(corrected);
  const form = useTyped<Form>(
    corrected
      ? { ...head, ...textOf(corrected, ceilingsOf(corrected.deviceId)) }
      : {
          ...head,
          deviceId: devices[0]?.id ?? '',
          ceiling: '0',
          workload: 'screen on',
          charge: '',
          settled: '3 min',
          place: 'port',
          volts: '',
          watts: '',
          outcome: 'charging',
          message: '',
          warmth: '',
        },
  );
  const { control, values, set } = form;
  const [log, setLog] = useState<Settled | { readonly reason: string } | null>(null);
  const takeLog = async ([file]: readonly File[]) => {
    if (!file) return;
    const found = await settledIn(file).catch(() => ({ reason: 'This file cannot be read.' }));
    setLog(found);
    if ('reason' in found) return;
    set({
      place: 'port',
      settled: formatPlain(Math.round(found.settled), 'duration'),
      // Where there is none, none is put in its place.
      watts: found.plateau ? `${fixed(found.plateau.watts, 3)} W` : '',
      ...(found.plateau?.volts == null ? {} : { volts: `${fixed(found.plateau.volts, 3)} V` }),
    });
  };
  const logged = log && !('reason' in log) ? log : null;
  const add = useAddRun('device', corrected);
  const device = devices.find(({ id }) => id === values.deviceId);
  const ceilings = device?.ceilings ?? [];
  const ceiling = ceilings[Number(values.ceiling)];
  const run = {
    port: values.port,
    rigId: values.rigId,
    note: values.note.trim(),
    deviceId: values.deviceId,
    connector: ceiling?.connector ?? 'C',
    lead: ceiling?.lead ?? 'its own lead',
    workload: values.workload,
    charge: typedSi(values.charge, 'efficiency'),
    settled: typedSi(values.settled, 'duration') ?? Number.NaN,
    place: values.place,
    volts: typedSi(values.volts, 'voltage'),
    watts: typedSi(values.watts, 'power') ?? Number.NaN,
    peak: logged?.peak ?? corrected?.peak ?? null,
    mean: logged?.mean ?? corrected?.mean ?? null,
    spread: logged?.spread ?? corrected?.spread ?? null,
    outcome: values.outcome,
    message: values.message.trim(),
    warmth: typedSi(values.warmth, 'temperature'),
  };
  const numbers = [run.settled, run.watts, run.volts ?? 0, run.charge ?? 0, run.warmth ?? 0];
  return (
    <RunDialog
      title={corrected ? 'Correct the device run' : 'Enter a device run'}
      caution={{ line: 'Never charge a battery unattended: fire-safe surface, smoke alarm, and someone near.' }}
      form={form}
      ready={numbers.every(Number.isFinite) && device !== undefined}
      onSave={() => add(run, takenOf(values.taken))}
      onClose={onClose}
    >
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1.5 }}>
        <ChoiceInput
          control={control}
          name="deviceId"
          label="Device"
          options={devices.map(({ id, name }) => ({ value: id, label: name }))}
          onChosen={() => set({ ceiling: '0' })}
        />
        <ChoiceInput
          control={control}
          name="ceiling"
          label="Connector and lead"
          options={ceilings.map(({ connector, lead, watts }, index) => ({
            value: String(index),
            label: `${connector}, ${lead}: at most ${formatPlain(watts, 'power')}`,
          }))}
        />
        <ChoiceInput control={control} name="workload" label="Workload" options={WORKLOADS} />
        <QuantityInput control={control} name="charge" label="Level at the start, %" quantity="efficiency" />
        <QuantityInput control={control} name="settled" label="Settled for" quantity="duration" />
        <ChoiceInput
          control={control}
          name="place"
          label="Read"
          options={[
            { value: 'port', label: 'at the port' },
            { value: 'mains', label: 'at the socket' },
          ]}
        />
        <QuantityInput
          control={control}
          name="volts"
          label={values.place === 'port' ? 'Level, V' : 'Level, V (if known)'}
          quantity="voltage"
        />
        <QuantityInput control={control} name="watts" label="Plateau, W" quantity="power" />
        <ChoiceInput control={control} name="outcome" label="What happens" options={OUTCOMES} />
        <TextInput control={control} name="message" label="What the device says" max={200} />
        <QuantityInput control={control} name="warmth" label="The device is at, °C" quantity="temperature" />
        <Box>
          <FileButton
            label="Log of an inline meter"
            accept={RECORDING_ACCEPTS}
            onFiles={takeLog}
            button={{ variant: 'outlined' }}
          >
            From a log
          </FileButton>
        </Box>
      </Box>
      {log && <LogSays found={log} />}
    </RunDialog>
  );
}
