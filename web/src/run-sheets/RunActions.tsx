// What a person can do to a run, each on a key.
import type { Ask, SheetRun } from '@lastmark/contract/plan';
import type { StoredRig } from '@lastmark/contract/types';
import type { SheetStep } from '@lastmark/core/plan';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { useSettings } from '../state/settings.tsx';
import { useKeys } from '../state/useKeys.ts';
import { RecordFields, typedStep } from './RecordFields.tsx';
import { SkipDialog } from './SkipDialog.tsx';
import { useShown } from './useShown.ts';

interface Props {
  readonly run: SheetRun;
  readonly step: SheetStep | undefined;
  readonly rig: StoredRig | undefined;
  readonly ask: (ask: Ask) => void;
  readonly error: Error | null;
}

type Open = 'skip' | 'note' | 'stop';

export function RunActions({ run, step, rig, ask, error }: Props) {
  const { person } = useSettings();
  const [open, setOpen] = useState<Open | null>(null);
  const typing = run.state === 'waiting' ? typedStep(step) : null;
  const shown = useShown(run, rig, typing !== null);
  const canGoOn = run.state === 'held' || run.state === 'interrupted' || (run.state === 'waiting' && !typing);
  const running = run.state === 'running';
  const goOn = () => ask({ kind: 'go on', person: person || run.person });
  const canRecord =
    step?.kind === 'warm-up' || step?.kind === 'hold' || (step?.kind === 'point' && step.settle !== null);
  const record = () => ask({ kind: 'record', readings: [], device: null });
  const actions: readonly (readonly [key: string, label: string, can: boolean, act: () => void, main?: boolean])[] = [
    canGoOn || !running
      ? ['Enter', 'Go on', canGoOn, goOn, true]
      : [
          'Enter',
          step?.attended ? 'I am here' : 'Record now',
          canRecord || (step?.attended ?? false),
          step?.attended ? goOn : record,
          true,
        ],
    ...(running && step?.kind === 'capture' && step.capture === 'soak'
      ? [['E', 'End the soak', true, record] as const]
      : []),
    ...(running && step?.kind === 'charge' ? [['E', 'End the charge', true, record] as const] : []),
    ['H', 'Hold', running || run.state === 'waiting', () => ask({ kind: 'hold' })],
    ...(run.state === 'held' && rig?.drives?.source
      ? [['C', 'Cycle the supply', true, () => ask({ kind: 'cycle' })] as const]
      : []),
    [
      'R',
      'Repeat',
      running || run.state === 'held' || (run.state === 'waiting' && !typing),
      () => ask({ kind: 'repeat' }),
    ],
    ['S', 'Skip', running || run.state === 'waiting' || run.state === 'held', () => setOpen('skip')],
    ['N', 'Note', true, () => setOpen('note')],
    ['X', 'Stop the run', true, () => setOpen('stop')],
  ];
  useKeys(
    Object.fromEntries(actions.filter(([, , can]) => can && !open).map(([key, , , act]) => [key.toLowerCase(), act])),
  );
  const close = () => setOpen(null);
  const send = (one: Ask) => {
    close();
    ask(one);
  };
  return (
    <Box component="section" aria-label="What to do">
      {typing && rig && <RecordFields key={typing.id} step={typing} rig={rig} shown={shown} onRecord={ask} />}
      {error && (
        <Alert severity="error" sx={{ mb: 1 }}>
          {error.message}
        </Alert>
      )}
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1 }}>
        {actions.map(([key, label, can, act, main]) => (
          <Button
            key={label}
            variant={main ? 'contained' : 'outlined'}
            size="large"
            disabled={!can}
            onClick={act}
            endIcon={<kbd style={{ fontSize: 12 }}>{key}</kbd>}
          >
            {label}
          </Button>
        ))}
      </Box>
      {open === 'skip' && step && (
        <SkipDialog
          heading="Skip"
          title={step.title}
          action="Skip it"
          onSkip={(reason) => send({ kind: 'skip', reason })}
          onClose={close}
        />
      )}
      {open === 'note' && (
        <SkipDialog
          heading="Note"
          title={step?.title ?? run.title}
          label="Note"
          action="Keep it"
          onSkip={(text) => send({ kind: 'note', text })}
          onClose={close}
        />
      )}
      {open === 'stop' && (
        <SkipDialog
          heading="Stop the run"
          title={run.title}
          action="Stop it"
          onSkip={(reason) => send({ kind: 'stop', reason })}
          onClose={close}
        />
      )}
    </Box>
  );
}
