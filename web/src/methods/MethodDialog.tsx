// Writes a method: a copy of another one, or a new version of one's own.
import type { StoredMethod } from '@lastmark/contract/plan';
import { CAPTURE_KINDS, KIND_WORDS } from '@lastmark/core/capture';
import { ATTACHED } from '@lastmark/core/reading';
import Box from '@mui/material/Box';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import Typography from '@mui/material/Typography';
import { useMemo } from 'react';
import { api, versionTag } from '../api/client.ts';
import { queryClient } from '../api/queries.ts';
import { ConditionFields } from '../parts/ConditionFields.tsx';
import { FormDialog } from '../parts/form/FormDialog.tsx';
import { ChoiceInput, TextInput } from '../parts/form/inputs.tsx';
import { useTyped } from '../parts/form/useTyped.ts';
import { DOES, fromMethodText, KINDS, type MethodText, toMethodText } from './methodText.ts';

const DOES_WORDS: Readonly<Record<(typeof DOES)[number], string>> = {
  readOut: 'Read-outs',
  proof: 'Proof of every level',
  splits: 'Combinations',
  devices: 'Devices',
  charges: 'Whole charges',
};

interface ManyProps {
  readonly label: string;
  readonly all: readonly { readonly value: string; readonly label: string }[];
  readonly chosen: readonly string[];
  readonly onChange: (chosen: readonly string[]) => void;
}

/** Several of a few. */
function Many({ label, all, chosen, onChange }: ManyProps) {
  return (
    <Box component="fieldset" sx={{ border: 0, p: 0, m: 0, minWidth: 0 }}>
      <Typography component="legend" variant="body2" sx={{ fontWeight: 600, p: 0 }}>
        {label}
      </Typography>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', columnGap: 1 }}>
        {all.map(({ value, label: text }) => (
          <FormControlLabel
            key={value}
            label={text}
            control={
              <Checkbox
                size="small"
                checked={chosen.includes(value)}
                onChange={(event) =>
                  onChange(event.target.checked ? [...chosen, value] : chosen.filter((one) => one !== value))
                }
              />
            }
          />
        ))}
      </Box>
    </Box>
  );
}

const named = (values: readonly string[]) => values.map((value) => ({ value, label: value }));

interface Props {
  readonly from: StoredMethod;
  /** A new version of it, or a copy. */
  readonly change: boolean;
  readonly onClose: () => void;
}

export function MethodDialog({ from, change, onClose }: Props) {
  const start = toMethodText(from.method);
  const form = useTyped<MethodText>(
    change ? start : { ...start, title: `${from.method.title}, our copy` },
    `method ${change ? from.id : 'new'}`,
  );
  const { control, values, set } = form;
  const read = useMemo(() => fromMethodText(values), [values]);
  const cable = values.kinds.includes('cable');
  const save = async () => {
    if (!read.ok) throw new Error(read.problems.join(' '));
    const body = { method: read.method, note: values.note };
    await (change
      ? api(`/methods/${from.id}`, { method: 'PUT', body, ifMatch: versionTag(from) })
      : api('/methods', { method: 'POST', body }));
    await queryClient.invalidateQueries({ queryKey: ['methods'] });
  };
  const text = (name: keyof MethodText, label: string, placeholder = '', max = 120) => (
    <TextInput
      control={control}
      name={name}
      label={label}
      max={max}
      more={{ placeholder, slotProps: { inputLabel: { shrink: true } } }}
    />
  );
  return (
    <FormDialog
      title={change ? `A new version of ${from.method.title}` : 'A method of your own'}
      form={form}
      onSave={save}
      onClose={onClose}
      action={change ? 'Keep the version' : 'Add the method'}
      ready={read.ok}
      width="lg"
      sx={{ gap: 2 }}
    >
      <Box sx={{ display: 'grid', gridTemplateColumns: 'minmax(0, 1fr) minmax(0, 2fr)', gap: 1.5 }}>
        {text('title', 'Title', '', 80)}
        {text('says', 'What sets it apart', '', 600)}
      </Box>
      <Many label="For" all={named(KINDS)} chosen={values.kinds} onChange={(kinds) => set({ kinds })} />
      <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(auto-fit, minmax(200px, 1fr))', gap: 1.5 }}>
        <ChoiceInput control={control} name="by" label="Read by" options={['instruments', 'keypad']} />
        {text('mains', 'Mains, in their order', '115 V 60 Hz, 230 V 50 Hz')}
        {cable && text('pluggings', 'Pluggings')}
        {cable && (
          <ChoiceInput
            control={control}
            name="bends"
            label="Bends"
            options={[
              { value: 'no', label: 'none' },
              { value: 'yes', label: 'as Rules say' },
            ]}
          />
        )}
        {!cable && text('loads', 'Load points, %', '100, 75, 50, 25, 10')}
        {!cable && (
          <ChoiceInput
            control={control}
            name="levels"
            label="Levels"
            options={['lowest and highest', 'every fixed level']}
          />
        )}
        {!cable && text('warmUp', 'Warm-up', '30 min')}
        {!cable && (
          <ChoiceInput
            control={control}
            name="settles"
            label="Read once"
            options={[
              { value: 'yes', label: 'it has settled' },
              { value: 'no', label: 'it is set' },
            ]}
          />
        )}
        {!cable && values.settles === 'yes' && text('within', 'Settled within, %', '1')}
        {!cable && values.settles === 'yes' && text('over', 'Settled for', '5 min')}
        {!cable && values.settles === 'yes' && text('average', 'Else averaged over', '30 min')}
        {!cable && text('idle', 'Idle', '10 min')}
        {!cable && (
          <ChoiceInput
            control={control}
            name="idleWhen"
            label="Idle is read"
            options={['from cold', 'after the points']}
          />
        )}
        {!cable && text('hold', 'Held at full power', 'none')}
        {!cable && text('soak', 'Soak at each mains', '60 min')}
        {!cable && text('sweep', 'Other supplies', 'none')}
        {text('hottest', 'Loads go off at, °C', 'the limits there are')}
        <ChoiceInput
          control={control}
          name="watch"
          label="Somebody is there"
          options={['as the steps ask', 'all the time']}
        />
      </Box>
      {!cable && (
        <>
          <Many
            label="Attached while idle is read"
            all={named(ATTACHED)}
            chosen={values.attached}
            onChange={(attached) => set({ attached })}
          />
          <Many
            label="Takes in"
            all={DOES.map((value) => ({ value, label: DOES_WORDS[value] }))}
            chosen={values.does}
            onChange={(does) => set({ does })}
          />
          <Many
            label="Records"
            all={CAPTURE_KINDS.map((value) => ({ value, label: KIND_WORDS[value] }))}
            chosen={values.captures}
            onChange={(captures) => set({ captures })}
          />
          <ConditionFields
            value={values.byItself}
            onChange={(part) => set({ byItself: { ...values.byItself, ...part } })}
          />
        </>
      )}
      {text('note', change ? 'What changed, and why' : 'Why it is needed', '', 400)}
      <Box role="status" sx={{ minHeight: 24, color: 'error.main' }}>
        {read.ok ? '' : read.problems.join(' ')}
      </Box>
    </FormDialog>
  );
}
