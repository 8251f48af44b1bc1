// When a run was done: now, unless somebody writes it down later.

import TextField from '@mui/material/TextField';
import { type Control, type FieldPath, type FieldValues, useController } from 'react-hook-form';
import { parseTaken } from './taken.ts';

interface Props<Form extends FieldValues> {
  readonly control: Control<Form>;
  readonly taken: string;
}

export function TakenInput<Form extends FieldValues>({ control, taken }: Props<Form>) {
  const { field } = useController({ control, name: 'taken' as FieldPath<Form> });
  const read = parseTaken(taken, new Date());
  return (
    <TextField
      label="Taken"
      placeholder="now, or 2026-03-02 14:30"
      value={field.value}
      onChange={field.onChange}
      error={'reason' in read}
      helperText={'reason' in read ? read.reason : undefined}
      slotProps={{ inputLabel: { shrink: true }, htmlInput: { maxLength: 20, autoComplete: 'off' } }}
    />
  );
}
