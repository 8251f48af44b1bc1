// Plan a trial: the question, the one thing changed, what is held, and how many pairs it takes.
import type { StoredTrial } from '@lastmark/contract/types';
import { QUANTITIES } from '@lastmark/core/quantity';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { api } from '../api/client.ts';
import { queryClient } from '../api/queries.ts';
import { FormDialog } from '../parts/form/FormDialog.tsx';
import { ChoiceInput, TextInput } from '../parts/form/inputs.tsx';
import { useTyped } from '../parts/form/useTyped.ts';
import { SampleField } from '../parts/SampleField.tsx';
import { type ArmText, EMPTY_TRIAL, pairsNeeded, type TrialForm, trialOf } from './trialForm.ts';

const KINDS = [
  { value: 'blocks', label: 'one thing: in pairs' },
  { value: 'matrix', label: 'two things or three: a table' },
];
const BETTER = [
  { value: 'lower', label: 'less is better' },
  { value: 'higher', label: 'more is better' },
  { value: '', label: 'neither' },
];
const MOST_ARMS = { blocks: 8, matrix: 12 } as const;

interface FactorProps {
  readonly factor: TrialForm['factors'][number];
  readonly at: number;
  readonly most: number;
  readonly onChange: (factor: TrialForm['factors'][number]) => void;
  readonly onRemove: (() => void) | null;
}

/** One thing that is changed, and what it is changed between. */
function Factor({ factor, at, most, onChange, onRemove }: FactorProps) {
  const set = (index: number, part: Partial<ArmText>) =>
    onChange({ ...factor, arms: factor.arms.map((arm, one) => (one === index ? { ...arm, ...part } : arm)) });
  return (
    <Box
      role="group"
      aria-label={`Compared, ${at + 1}`}
      sx={{ display: 'grid', gap: 1, p: 1.5, border: 1, borderColor: 'divider', borderRadius: 1 }}
    >
      <Box sx={{ display: 'flex', gap: 1.5 }}>
        <TextField
          label={at === 0 ? 'What is changed' : 'And'}
          value={factor.name}
          onChange={(event) => onChange({ ...factor, name: event.target.value })}
          slotProps={{ htmlInput: { maxLength: 40 } }}
          sx={{ flex: 1 }}
        />
        <Button
          disabled={factor.arms.length >= most}
          onClick={() => onChange({ ...factor, arms: [...factor.arms, { name: '', sampleId: null }] })}
        >
          One more
        </Button>
        {onRemove && <Button onClick={onRemove}>Remove</Button>}
      </Box>
      {factor.arms.map((arm, index) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: what is compared has no identity but its place while it is typed
        <Box key={index} sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1.5 }}>
          <TextField
            label={`${factor.name || 'Thing'} ${index + 1}`}
            value={arm.name}
            onChange={(event) => set(index, { name: event.target.value })}
            slotProps={{ htmlInput: { maxLength: 60 } }}
          />
          <SampleField
            chosen={null}
            onChoose={(sample) => {
              if (sample) set(index, { sampleId: sample.id, name: arm.name || sample.name.slice(0, 60) });
            }}
          />
        </Box>
      ))}
    </Box>
  );
}

export function TrialDialog({ onClose }: { readonly onClose: () => void }) {
  const navigate = useNavigate();
  const form = useTyped<TrialForm>(EMPTY_TRIAL, 'trial');
  const { control, values, set } = form;
  const [seed] = useState(() => Math.floor(Math.random() * 2 ** 32));
  const trial = trialOf(values, seed);
  const needed = values.kind === 'blocks' ? pairsNeeded(values) : null;
  const matrix = values.kind === 'matrix';
  const save = async () => {
    if ('reason' in trial) throw new Error(trial.reason);
    const { id } = await api<StoredTrial>('/trials', { method: 'POST', body: { trial } });
    await queryClient.invalidateQueries({ queryKey: ['trials', 'list'] });
    void navigate(`/trials/${id}`);
  };
  const shape = (kind: string) =>
    set(
      kind === 'matrix'
        ? {
            blocks: '2',
            factors: [
              ...values.factors,
              ...(values.factors.length < 2 ? [{ name: 'port', arms: EMPTY_TRIAL.factors[0]?.arms ?? [] }] : []),
            ],
          }
        : { blocks: '10', factors: values.factors.slice(0, 1) },
    );
  const runs =
    'reason' in trial
      ? null
      : (trial.kind === 'blocks'
          ? trial.arms.length
          : trial.factors.reduce((all, { levels }) => all * levels.length, 1)) * trial.blocks;
  return (
    <FormDialog
      title="Plan a trial"
      form={form}
      onSave={save}
      onClose={onClose}
      action="Plan it"
      ready={!('reason' in trial)}
      width="md"
    >
      <TextInput
        control={control}
        name="question"
        label="Question"
        max={200}
        required
        more={{ autoFocus: true, placeholder: 'Does the braided cable charge quicker?' }}
      />
      <Box sx={{ display: 'grid', gridTemplateColumns: '1.2fr 1.2fr 1fr 1fr', gap: 1.5 }}>
        <ChoiceInput control={control} name="kind" label="Changed is" options={KINDS} onChosen={shape} />
        <TextInput control={control} name="measure" label="What is measured" max={60} />
        <ChoiceInput
          control={control}
          name="quantity"
          label="It is a"
          options={QUANTITIES.map(({ id, label }) => ({ value: id, label }))}
        />
        <ChoiceInput control={control} name="better" label="Better" options={BETTER} />
      </Box>
      {values.factors.map((factor, at) => (
        <Factor
          // biome-ignore lint/suspicious/noArrayIndexKey: they have no identity but their place
          key={at}
          at={at}
          factor={factor}
          most={MOST_ARMS[values.kind]}
          onChange={(next) => set({ factors: values.factors.map((one, index) => (index === at ? next : one)) })}
          onRemove={
            matrix && values.factors.length > 2
              ? () => set({ factors: values.factors.filter((_, index) => index !== at) })
              : null
          }
        />
      ))}
      {matrix && values.factors.length < 3 && (
        <Button
          sx={{ justifySelf: 'start' }}
          variant="outlined"
          onClick={() =>
            set({ factors: [...values.factors, { name: 'device', arms: EMPTY_TRIAL.factors[0]?.arms ?? [] }] })
          }
        >
          A third thing
        </Button>
      )}
      <TextInput
        control={control}
        name="held"
        label="What is held, a line each"
        max={900}
        more={{ multiline: true, minRows: 3 }}
      />
      <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(4, 1fr)', gap: 1.5 }}>
        {!matrix && <TextInput control={control} name="matters" label="Difference that matters" max={20} />}
        {!matrix && <TextInput control={control} name="expected" label="Spread of the differences" max={20} />}
        <TextInput control={control} name="blocks" label={matrix ? 'Each how often' : 'Pairs'} max={4} />
        {!matrix && <ChoiceInput control={control} name="blind" label="Blind" options={['no', 'yes']} />}
      </Box>
      <Typography variant="body2" color="text.secondary">
        {needed !== null &&
          `To find such a difference 8 times in 10 it takes ${needed} ${needed === 1 ? 'pair' : 'pairs'}${Number(values.blocks) < needed ? `: ${values.blocks || 'so few'} may miss it` : ''}. `}
        {'reason' in trial ? trial.reason : `${runs} runs. The order is drawn when it is planned.`}
        {values.blind === 'yes' &&
          !matrix &&
          ' Somebody else labels them by letters; whoever runs it learns them at the end.'}
      </Typography>
    </FormDialog>
  );
}
