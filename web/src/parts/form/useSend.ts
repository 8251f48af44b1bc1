// Sending a form, in a dialog or in place: what is thrown is shown where it belongs, and everything typed stays.
import type { FormEvent } from 'react';
import type { FieldPath, FieldValues } from 'react-hook-form';
import { ApiProblem } from '../../api/client.ts';
import type { Typed } from './useTyped.ts';

interface Props<Form extends FieldValues> {
  readonly form: Typed<Form>;
  readonly onSave: (values: Form) => unknown;
  readonly onClose: () => void;
  readonly ready: boolean;
}

/** Put what was refused at its field where the form has it, and below the fields otherwise. */
function show<Form extends FieldValues>({ values, setError }: Typed<Form>, error: unknown): void {
  const told = error instanceof ApiProblem ? (error.problem.errors ?? []) : [];
  const own = told.filter(({ path }) => Object.hasOwn(values, path));
  own.forEach(({ path, message }, index) => {
    setError(path as FieldPath<Form>, { message }, { shouldFocus: index === 0 });
  });
  if (own.length === 0 || own.length < told.length)
    setError('root', { message: error instanceof Error ? error.message : String(error) });
}

export function useSend<Form extends FieldValues>({ form, onSave, onClose, ready }: Props<Form>) {
  const close = () => {
    form.forget();
    onClose();
  };
  const send = form.handleSubmit(async (values) => {
    if (!ready) return;
    try {
      await onSave(values);
    } catch (error) {
      show(form, error);
      return;
    }
    close();
  });
  const submit = (event: FormEvent) => {
    // A dialog that was opened from another form sends itself alone.
    event.stopPropagation();
    form.clearErrors();
    void send(event);
  };
  return { close, submit };
}
