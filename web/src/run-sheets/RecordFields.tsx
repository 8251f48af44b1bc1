// What a person reads off the meters for a step, typed with number keys and Enter alone.
import type { Ask } from '@lastmark/contract/plan';
import type { StoredRig } from '@lastmark/contract/types';
import type { DeviceStep, IdleStep, PointStep, SheetStep } from '@lastmark/core/plan';
import { OUTCOMES } from '@lastmark/core/proof';
import { parseQuantity, type QuantityId } from '@lastmark/core/quantity';
import type { Place } from '@lastmark/core/reading';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { type FormEvent, useState } from 'react';
import { Choice, QuantityField } from '../parts/fields.tsx';
import { readDraft, writeDraft } from '../parts/useDraft.ts';

type Read = 'voltage' | 'current' | 'power' | 'energy' | 'duration';

export interface Asked {
  readonly quantity: Read;
  readonly place: Place;
  readonly port: string | null;
  readonly label: string;
  readonly needed: boolean;
}

/** A step whose readings a person types. */
export type TypedStep = PointStep | IdleStep | DeviceStep;

/** The step as one a person types readings of; null where there is nothing to type. */
export const typedStep = (step: SheetStep | undefined): TypedStep | null =>
  step?.by === 'keypad' && (step.kind === 'point' || step.kind === 'idle' || step.kind === 'device') ? step : null;

/** The fields of a step, in the order they are read. */
export function fieldsOf(step: TypedStep, rig: Pick<StoredRig, 'outputPlace'>): readonly Asked[] {
  const place = rig.outputPlace;
  if (step.kind === 'idle')
    return [
      { quantity: 'energy', place: 'mains', port: null, label: 'Energy, Wh', needed: false },
      { quantity: 'duration', place: 'mains', port: null, label: 'over, min', needed: false },
      { quantity: 'power', place: 'mains', port: null, label: 'or input power, W', needed: false },
    ];
  if (step.kind === 'device')
    return [
      { quantity: 'voltage', place, port: step.port, label: `${step.port}, V`, needed: false },
      { quantity: 'power', place, port: step.port, label: `${step.port}, W`, needed: true },
    ];
  const outputs = step.outputs.flatMap(({ port }): Asked[] => [
    { quantity: 'voltage', place, port, label: `${port}, V`, needed: true },
    ...(step.load > 0 ? [{ quantity: 'current' as const, place, port, label: `${port}, A`, needed: true }] : []),
  ]);
  return step.load > 0
    ? [...outputs, { quantity: 'power', place: 'mains', port: null, label: 'Input, W', needed: false }]
    : outputs;
}

const readable = (text: string, quantity: QuantityId): boolean => parseQuantity(text, quantity).ok;

interface Props {
  readonly step: TypedStep;
  readonly rig: StoredRig;
  /** What the meters of the rig show now, as it would be typed; empty for a rig whose meters tell nothing. */
  readonly shown: (asked: Asked) => string;
  readonly onRecord: (ask: Ask) => void;
}

export function RecordFields({ step, rig, shown, onRecord }: Props) {
  const fields = fieldsOf(step, rig);
  const draft = `run-step.${step.id}`;
  const [typed, setTyped] = useState<readonly string[]>(() => readDraft<string[]>(draft) ?? fields.map(() => ''));
  const [outcome, setOutcome] = useState<(typeof OUTCOMES)[number]>('charging');
  const [message, setMessage] = useState('');
  const change = (index: number, text: string) => {
    const next = fields.map((_, at) => (at === index ? text : (typed[at] ?? '')));
    setTyped(next);
    writeDraft(draft, next);
  };
  const meters = fields.map(shown);
  const fill = () => {
    const next = fields.map((_, at) => meters[at] || (typed[at] ?? ''));
    setTyped(next);
    writeDraft(draft, next);
  };
  const filled = fields.flatMap((field, index) => {
    const text = (typed[index] ?? '').trim();
    return text === '' ? [] : [{ field, text }];
  });
  const complete =
    filled.length > 0 &&
    filled.every(({ field, text }) => readable(text, field.quantity)) &&
    fields.every(({ needed }, index) => !needed || (typed[index] ?? '').trim() !== '');
  const submit = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    // Enter goes to the next empty field, and records once all are there.
    const inputs = [...event.currentTarget.querySelectorAll<HTMLInputElement>('input[inputmode="decimal"]')];
    const here = inputs.indexOf(document.activeElement as HTMLInputElement);
    const open = (index: number) => {
      const text = (typed[index] ?? '').trim();
      const field = fields[index];
      return field !== undefined && (text === '' ? field.needed : !readable(text, field.quantity));
    };
    const next = inputs.find((_, index) => index > here && open(index)) ?? inputs.find((_, index) => open(index));
    if (next) next.focus();
    else if (complete) {
      writeDraft(draft, null);
      onRecord({
        kind: 'record',
        readings: filled.map(({ field: { quantity, place, port }, text }) => ({ quantity, place, port, typed: text })),
        device: step.kind === 'device' ? { outcome, message } : null,
      });
    }
  };
  return (
    <Box
      component="form"
      onSubmit={submit}
      noValidate
      aria-label="Readings"
      sx={{
        display: 'flex',
        flexWrap: 'wrap',
        gap: 1.5,
        mb: 1.5,
        '& .MuiTextField-root': { width: 150 },
        '& input': { fontSize: 22 },
      }}
    >
      {fields.map(({ quantity, label, needed }, index) => (
        <QuantityField
          key={label}
          label={label}
          quantity={quantity}
          required={needed}
          value={typed[index] ?? ''}
          onChange={(text) => change(index, text)}
          more={{ autoFocus: index === 0 }}
        />
      ))}
      {step.kind === 'device' && (
        <>
          <Choice label="What happens" value={outcome} options={OUTCOMES} onChange={setOutcome} />
          <TextField label="What it says" value={message} onChange={(event) => setMessage(event.target.value)} />
        </>
      )}
      {meters.some(Boolean) && (
        <Button variant="outlined" size="large" sx={{ height: 44 }} onClick={fill}>
          Take from the meters
        </Button>
      )}
      {/* Never disabled: a form whose button is does not take Enter either. */}
      <Button type="submit" variant="contained" size="large" sx={{ height: 44 }}>
        Record
      </Button>
    </Box>
  );
}
