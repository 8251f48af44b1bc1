// A form of a field or two where it was asked for, without a dialog over the page.
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import type { ReactNode } from 'react';
import type { FieldValues } from 'react-hook-form';
import { useSend } from './useSend.ts';
import type { Typed } from './useTyped.ts';

interface Props<Form extends FieldValues> {
  readonly title: string;
  readonly form: Typed<Form>;
  readonly onSave: (values: Form) => unknown;
  readonly onClose: () => void;
  readonly action: string;
  readonly ready?: boolean;
  readonly children: ReactNode;
}

export function FormInPlace<Form extends FieldValues>(props: Props<Form>) {
  const { title, form, onSave, onClose, action, ready = true, children } = props;
  const { isSubmitting, errors } = form.formState;
  const { close, submit } = useSend({ form, onSave, onClose, ready });
  return (
    <Box
      component="form"
      role="group"
      aria-label={title}
      noValidate
      onSubmit={submit}
      onKeyDown={(event) => {
        if (event.key !== 'Escape') return;
        event.stopPropagation();
        close();
      }}
      sx={{
        display: 'grid',
        gap: 1.5,
        maxWidth: 720,
        my: 1.5,
        p: 1.5,
        border: 1,
        borderColor: 'primary.main',
        borderRadius: 1,
        bgcolor: 'background.paper',
      }}
    >
      {children}
      {errors.root && <Alert severity="error">{errors.root.message}</Alert>}
      <Box sx={{ display: 'flex', gap: 1 }}>
        <Button type="submit" variant="contained" disabled={!ready || isSubmitting}>
          {action}
        </Button>
        <Button onClick={close}>Cancel</Button>
      </Box>
    </Box>
  );
}
