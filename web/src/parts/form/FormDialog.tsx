// The frame of every form in a dialog: title, fields, what the server says against them, Cancel and one action.
import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import type { SxProps } from '@mui/material/styles';
import { type ReactNode, useId } from 'react';
import type { FieldValues } from 'react-hook-form';
import { useSend } from './useSend.ts';
import type { Typed } from './useTyped.ts';

interface Props<Form extends FieldValues> {
  readonly title: string;
  readonly form: Typed<Form>;
  /** Send it. What it throws is shown, and everything typed stays. */
  readonly onSave: (values: Form) => unknown;
  /** Closed by hand, or because it is saved. */
  readonly onClose: () => void;
  readonly action: string;
  /** Whether it can be sent as it stands. */
  readonly ready?: boolean;
  readonly width?: 'sm' | 'md' | 'lg';
  /** Actions beside Cancel. */
  readonly more?: ReactNode;
  readonly sx?: SxProps;
  readonly children: ReactNode;
}

export function FormDialog<Form extends FieldValues>(props: Props<Form>) {
  const { title, form, onSave, onClose, action, ready = true, width = 'sm', more, sx, children } = props;
  const { isSubmitting, errors } = form.formState;
  const id = useId();
  const { close, submit } = useSend({ form, onSave, onClose, ready });
  return (
    <Dialog open onClose={close} maxWidth={width} fullWidth aria-labelledby={id}>
      <form onSubmit={submit} noValidate>
        <DialogTitle id={id}>{title}</DialogTitle>
        <DialogContent sx={[{ display: 'grid', gap: 1.5, '&&': { pt: 1 } }, ...(Array.isArray(sx) ? sx : [sx ?? {}])]}>
          {children}
          {errors.root && (
            <Alert severity="error" sx={{ gridColumn: '1 / -1' }}>
              {errors.root.message}
            </Alert>
          )}
        </DialogContent>
        <DialogActions>
          {more}
          <Button onClick={close}>Cancel</Button>
          <Button type="submit" variant="contained" disabled={!ready || isSubmitting}>
            {action}
          </Button>
        </DialogActions>
      </form>
    </Dialog>
  );
}
