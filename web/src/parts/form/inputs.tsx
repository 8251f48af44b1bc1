// Fields bound to a form: text, a quantity with its unit, one of a few.
import type { QuantityId } from '@lastmark/core/quantity';
import TextField, { type TextFieldProps } from '@mui/material/TextField';
import { type Control, type FieldPath, type FieldValues, useController } from 'react-hook-form';
import { Choice, QuantityField } from '../fields.tsx';

interface Bound<Form extends FieldValues> {
  readonly control: Control<Form>;
  readonly name: FieldPath<Form>;
  readonly label: string;
  readonly required?: boolean;
  readonly more?: TextFieldProps;
}

/** A line of words. @param max most characters */
export function TextInput<Form extends FieldValues>(props: Bound<Form> & { readonly max: number }) {
  const { control, name, label, max, required = false, more = {} } = props;
  const { field, fieldState } = useController({ control, name });
  const { helperText, slotProps, ...rest } = more;
  return (
    <TextField
      label={label}
      required={required}
      value={field.value}
      onChange={field.onChange}
      onBlur={field.onBlur}
      inputRef={field.ref}
      error={fieldState.error !== undefined}
      helperText={fieldState.error?.message ?? helperText}
      slotProps={{ ...slotProps, htmlInput: { maxLength: max } }}
      {...rest}
    />
  );
}

/** A value with or without its unit. */
export function QuantityInput<Form extends FieldValues>(
  props: Bound<Form> & { readonly quantity: QuantityId; readonly usual?: string },
) {
  const { control, name, label, quantity, usual, required = false, more } = props;
  const { field, fieldState } = useController({ control, name });
  return (
    <QuantityField
      label={label}
      quantity={quantity}
      {...(usual === undefined ? null : { usual })}
      required={required}
      value={field.value}
      onChange={field.onChange}
      error={fieldState.error?.message}
      more={{ inputRef: field.ref, ...more }}
    />
  );
}

interface Options {
  readonly options: readonly (string | { readonly value: string; readonly label: string })[];
  /** What else changes with it. */
  readonly onChosen?: (value: string) => void;
}

/** One of a few values. */
export function ChoiceInput<Form extends FieldValues>(props: Bound<Form> & Options) {
  const { control, name, label, options, onChosen, more } = props;
  const { field, fieldState } = useController({ control, name });
  return (
    <Choice
      label={label}
      value={field.value as string}
      options={options}
      onChange={(value) => {
        field.onChange(value);
        onChosen?.(value);
      }}
      more={{
        inputRef: field.ref,
        ...(fieldState.error ? { error: true, helperText: fieldState.error.message } : {}),
        ...more,
      }}
    />
  );
}
