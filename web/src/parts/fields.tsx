// Small form fields used at every station.
import { fixed, parseAmps, parseQuantity, type QuantityId } from '@lastmark/core/quantity';
import MenuItem from '@mui/material/MenuItem';
import TextField, { type TextFieldProps } from '@mui/material/TextField';

interface ChoiceProps<T extends string> {
  readonly label: string;
  readonly value: T;
  readonly options: readonly (T | { readonly value: T; readonly label: string })[];
  readonly onChange: (value: T) => void;
  readonly more?: TextFieldProps;
}

/** An empty value is a choice like any other, and is read like one. */
const SHOWS_EMPTY = { select: { displayEmpty: true }, inputLabel: { shrink: true } } as const;

/** One of a few values. */
export function Choice<T extends string>({ label, value, options, onChange, more }: ChoiceProps<T>) {
  const choices = options.map((option) => (typeof option === 'string' ? { value: option, label: option } : option));
  return (
    <TextField
      select
      label={label}
      value={value}
      {...(choices.some((one) => one.value === '') ? { slotProps: SHOWS_EMPTY } : null)}
      // In full where there is no room for it.
      title={choices.find((one) => one.value === value)?.label}
      onChange={(event) => onChange(event.target.value as T)}
      {...more}
    >
      {choices.map(({ value: id, label: text }) => {
        return (
          <MenuItem key={id} value={id}>
            {text}
          </MenuItem>
        );
      })}
    </TextField>
  );
}

interface QuantityProps {
  readonly label: string;
  readonly quantity: QuantityId;
  /** Unit of what is typed without one; left out for the usual. */
  readonly usual?: string;
  readonly value: string;
  readonly onChange: (value: string) => void;
  readonly required?: boolean;
  readonly error?: string | undefined;
  readonly more?: TextFieldProps;
}

/** A value typed with or without its unit; the field says at once when it cannot be read. */
export function QuantityField(props: QuantityProps) {
  const { label, quantity, usual, value, onChange, required = false, error, more } = props;
  const parsed = value.trim() === '' ? null : parseQuantity(value, quantity, usual);
  const problem = parsed && !parsed.ok ? parsed.reason : error;
  return (
    <TextField
      label={label}
      value={value}
      required={required}
      error={problem !== undefined}
      helperText={problem ?? ' '}
      onChange={(event) => onChange(event.target.value)}
      slotProps={{ htmlInput: { inputMode: 'decimal', autoComplete: 'off' } }}
      {...more}
    />
  );
}

interface AmpsProps extends Omit<QuantityProps, 'quantity'> {
  /** V read with it; null while it is not known. */
  readonly volts: number | null;
}

/** A current, typed as amps or as the watts an inline meter shows beside the volts. */
export function AmpsField({ label, volts, value, onChange }: AmpsProps) {
  const parsed = value.trim() === '' ? null : parseAmps(value, volts);
  const asWatts = parsed?.ok === true && /w\s*$/i.test(value);
  return (
    <TextField
      label={label}
      value={value}
      error={parsed?.ok === false}
      helperText={parsed?.ok === false ? parsed.reason : asWatts ? `${fixed(parsed.value, 3)} A` : 'or W'}
      onChange={(event) => onChange(event.target.value)}
      slotProps={{ htmlInput: { inputMode: 'decimal', autoComplete: 'off' } }}
    />
  );
}

/** SI value of a typed quantity; null when empty, NaN when it cannot be read. */
export function typedSi(text: string, quantity: QuantityId, usual?: string): number | null {
  if (text.trim() === '') return null;
  const parsed = parseQuantity(text, quantity, usual);
  return parsed.ok ? parsed.value : Number.NaN;
}

/** A time typed, s: without a unit it is minutes. */
export const typedMinutes = (text: string): number | null =>
  typedSi(/[a-z]/i.test(text) || text.trim() === '' ? text : `${text} min`, 'duration');
