// One combination: in which order it was plugged in, what each port gave, what dropped out.

import type { StoredRun } from '@lastmark/contract/types';
import { formatPlain } from '@lastmark/core/quantity';
import { mainsLabel } from '@lastmark/core/reading';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { Caution } from '../../parts/Caution.tsx';
import { Choice, typedSi } from '../../parts/fields.tsx';
import { FormDialog } from '../../parts/form/FormDialog.tsx';
import { ChoiceInput, QuantityInput, TextInput } from '../../parts/form/inputs.tsx';
import { useTyped } from '../../parts/form/useTyped.ts';
import { TakenInput } from '../../parts/TakenInput.tsx';
import { takenOf, toTaken } from '../../parts/taken.ts';
import { useSample } from '../../state/sample.tsx';
import { useProofPlace } from '../proof/useProofPlace.ts';
import { useAddRun } from '../proof/useRuns.ts';
import { ampsOf, BLANK, deviceOf, type PortText, SplitPort, secondsOf } from './SplitPort.tsx';

interface Form {
  readonly order: readonly string[];
  readonly ports: Readonly<Record<string, PortText>>;
  readonly mainsWatts: string;
  /** What the running ports were watched for: empty for the last port plugged in, else the port something was pulled from. */
  readonly pulled: string;
  readonly evidence: 'load' | 'device';
  readonly note: string;
  readonly taken: string;
}

type StoredSplit = Extract<StoredRun, { kind: 'split' }>;

const NEW: Omit<Form, 'order'> = { ports: {}, mainsWatts: '', pulled: '', evidence: 'load', note: '', taken: '' };

/** A combination as it was typed. */
function textOf(run: StoredSplit): Form {
  const drops = new Map(run.drops.map((drop) => [drop.port, drop]));
  const pulled = run.drops.find(({ how }) => how === 'unplugged')?.cause ?? '';
  return {
    order: run.order,
    mainsWatts: run.mainsWatts === null ? '' : formatPlain(run.mainsWatts, 'power'),
    pulled,
    evidence: run.evidence,
    note: run.note,
    taken: toTaken(run.takenAt),
    ports: Object.fromEntries(
      run.shares.map(({ port, volts, amps, light, device }) => {
        const drop = drops.get(port);
        return [
          port,
          {
            volts: volts === null ? '' : formatPlain(volts, 'voltage'),
            amps: amps === null ? '' : formatPlain(amps, 'current'),
            load: light ? ('a little' as const) : ('all it offers' as const),
            happened: drop ? (drop.dropped ? ('dropped' as const) : ('stayed on' as const)) : ('not watched' as const),
            seconds: drop?.seconds == null ? '' : formatPlain(drop.seconds, 'duration', 's'),
            back: drop?.back ?? BLANK.back,
            deviceId: device?.deviceId ?? '',
            charge: device?.charge == null ? '' : formatPlain(device.charge, 'efficiency'),
            tries: device?.tries == null ? '' : String(device.tries),
          },
        ];
      }),
    ),
  };
}

interface Props {
  readonly start: readonly string[];
  /** The combination that is corrected; left out for a new one. */
  readonly run?: StoredSplit | null;
  readonly onClose: () => void;
}

export function SplitDialog({ start, run: corrected = null, onClose }: Props) {
  const { sample, rigs, runs, devices } = useSample().dossier;
  // Who loads with devices today did so a moment ago.
  const lastEvidence = runs.findLast((run): run is StoredSplit => run.kind === 'split')?.evidence ?? 'load';
  const labels = sample.model.ports.map(({ label }) => label);
  const place = useProofPlace();
  const form = useTyped<Form>(
    corrected ? textOf(corrected) : { ...NEW, order: start, evidence: lastEvidence },
    corrected ? undefined : `split-${sample.id}`,
  );
  const { control, values, set } = form;
  const order = start.length > 0 && values.order.length === 0 ? start : values.order;
  const of = (port: string) => values.ports[port] ?? BLANK;
  const change = (port: string, part: Partial<PortText>) =>
    set({ ports: { ...values.ports, [port]: { ...of(port), ...part } } });
  const add = useAddRun('split', corrected);
  const last = order.at(-1) ?? '';
  const pulled = order.includes(values.pulled) ? '' : values.pulled;
  const running = pulled ? order : order.slice(0, -1);
  const shares = order.map((port) => ({
    port,
    volts: typedSi(of(port).volts, 'voltage'),
    amps: ampsOf(of(port)),
    light: of(port).load === 'a little',
    ...(values.evidence === 'device' ? { device: deviceOf(of(port)) } : {}),
  }));
  const drops = running.flatMap((port) => {
    const { happened, seconds, back } = of(port);
    if (happened === 'not watched') return [];
    const dropped = happened === 'dropped';
    return [
      {
        port,
        cause: pulled || last,
        how: pulled ? ('unplugged' as const) : ('plugged' as const),
        dropped,
        seconds: dropped ? secondsOf(seconds) : null,
        lowest: null,
        back,
      },
    ];
  });
  const mainsWatts = typedSi(values.mainsWatts, 'power');
  const numbers = [
    ...shares.flatMap(({ volts, amps }) => [volts ?? 0, amps ?? 0]),
    ...shares.flatMap(({ device }) => [device?.charge ?? 0, device?.tries ?? 0]),
    mainsWatts ?? 0,
    ...drops.map(({ seconds }) => seconds ?? 0),
  ];
  const something = mainsWatts !== null || shares.some(({ volts, amps }) => volts !== null && amps !== null);
  const missing =
    order.length === 0
      ? 'Press the ports in the order they were plugged in.'
      : numbers.some((value) => !Number.isFinite(value))
        ? 'A number cannot be read: see the fields in red.'
        : something
          ? null
          : 'Give volts and amps of a port, or the watts at the socket.';
  const ready = order.length > 0 && numbers.every(Number.isFinite) && something && place.rig !== undefined;
  const save = async () => {
    if (!place.rig) return;
    await add(
      {
        port: order[0] ?? '',
        rigId: place.rig.id,
        note: values.note.trim(),
        order: [...order],
        mains: place.mains,
        shares,
        mainsWatts,
        evidence: values.evidence,
        drops,
      },
      takenOf(values.taken),
    );
  };
  const toggle = (port: string) =>
    set({ order: order.includes(port) ? order.filter((one) => one !== port) : [...order, port] });
  return (
    <FormDialog
      title={corrected ? 'Correct the combination' : 'Enter a combination'}
      form={form}
      onSave={save}
      onClose={onClose}
      action="Keep"
      ready={ready}
      width="md"
    >
      <Caution line="Several ports at full load heat the charger most: hot surfaces, stay beside it." />
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr 1fr', gap: 1.5 }}>
        <Choice
          label="Rig"
          value={place.rig?.id ?? ''}
          options={rigs.map(({ id, name }) => ({ value: id, label: name }))}
          onChange={(rigId) => place.choose({ rigId })}
        />
        <Choice
          label="Supply"
          value={mainsLabel(place.mains)}
          options={place.supplies.map(mainsLabel)}
          onChange={(mains) => place.choose({ mains })}
        />
        <ChoiceInput
          control={control}
          name="evidence"
          label="Loaded by"
          options={[
            { value: 'load', label: 'electronic loads' },
            { value: 'device', label: 'real devices' },
          ]}
        />
      </Box>
      <Box
        role="group"
        aria-label="Ports in the order they were plugged in"
        sx={{ display: 'flex', gap: 1, alignItems: 'center', flexWrap: 'wrap' }}
      >
        <Typography>Plugged in, in this order:</Typography>
        {labels.map((port) => {
          const at = order.indexOf(port);
          return (
            <Button
              key={port}
              variant={at >= 0 ? 'contained' : 'outlined'}
              aria-pressed={at >= 0}
              onClick={() => toggle(port)}
            >
              {at >= 0 ? `${at + 1}. ${port}` : port}
            </Button>
          );
        })}
      </Box>
      <Box sx={{ width: 260 }}>
        <Choice
          label="Watched while"
          value={pulled}
          options={[
            { value: '', label: last ? `${last} was plugged in` : 'the last was plugged in' },
            ...labels
              .filter((port) => !order.includes(port))
              .map((port) => ({ value: port, label: `${port} was unplugged` })),
          ]}
          onChange={(port) => set({ pulled: port })}
        />
      </Box>
      {order.map((port) => (
        <SplitPort
          key={port}
          port={port}
          text={of(port)}
          onChange={(part) => change(port, part)}
          watched={running.includes(port) ? (pulled ? `When ${pulled} went` : `When ${last} came`) : null}
          devices={values.evidence === 'device' ? devices : null}
        />
      ))}
      <Box sx={{ width: 220 }}>
        <QuantityInput control={control} name="mainsWatts" label="At the socket, W" quantity="power" />
      </Box>
      <Box sx={{ display: 'grid', gridTemplateColumns: 'minmax(0, 1fr) 240px', gap: 1.5 }}>
        <TextInput control={control} name="note" label="Note" max={400} />
        <TakenInput control={control} taken={values.taken} />
      </Box>
      {missing && (
        <Typography variant="body2" color="warning.main" role="status">
          {missing}
        </Typography>
      )}
      <Typography variant="body2" color="text.secondary">
        Leave volts and amps empty for a port without a meter: it follows from the socket by this sample’s efficiency,
        with its uncertainty.
      </Typography>
    </FormDialog>
  );
}
