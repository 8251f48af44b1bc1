// A password: never seen unless somebody wants to, and known to whatever keeps passwords for them.
import Button from '@mui/material/Button';
import InputAdornment from '@mui/material/InputAdornment';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { type Control, type FieldPath, type FieldValues, useController } from 'react-hook-form';

interface Props<Form extends FieldValues> {
  readonly control: Control<Form>;
  readonly name: FieldPath<Form>;
  readonly label: string;
  /** Whether it is chosen here, or known already. */
  readonly kind: 'new-password' | 'current-password';
  readonly hint?: string;
  readonly autoFocus?: boolean;
}

export function PasswordInput<Form extends FieldValues>(props: Props<Form>) {
  const { control, name, label, kind, hint = ' ', autoFocus = false } = props;
  const { field, fieldState } = useController({ control, name });
  const [seen, setSeen] = useState(false);
  return (
    <TextField
      label={label}
      required
      type={seen ? 'text' : 'password'}
      value={field.value}
      onChange={field.onChange}
      onBlur={field.onBlur}
      inputRef={field.ref}
      autoFocus={autoFocus}
      error={fieldState.error !== undefined}
      helperText={fieldState.error?.message ?? hint}
      slotProps={{
        htmlInput: { maxLength: 200, autoComplete: kind, spellCheck: false },
        input: {
          endAdornment: (
            <InputAdornment position="end">
              <Button onClick={() => setSeen(!seen)} aria-label={seen ? `Hide ${label}` : `Show ${label}`}>
                {seen ? 'Hide' : 'Show'}
              </Button>
            </InputAdornment>
          ),
        },
      }}
    />
  );
}
