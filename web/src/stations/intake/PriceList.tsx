// Prices, each with its kind, date and currency.
import { PRICE_KINDS } from '@lastmark/contract/schemas';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { Choice } from '../../parts/fields.tsx';
import type { PriceText } from './form.ts';

interface Props {
  readonly prices: readonly PriceText[];
  readonly errorOf: (index: number, field: keyof PriceText) => string | undefined;
  readonly onChange: (prices: readonly PriceText[]) => void;
}

export function PriceList({ prices, errorOf, onChange }: Props) {
  const [added, setAdded] = useState(false);
  const set = (index: number, part: Partial<PriceText>) =>
    onChange(prices.map((price, at) => (at === index ? { ...price, ...part } : price)));
  const today = new Date().toISOString().slice(0, 10);
  const field = (index: number, name: 'amount' | 'currency' | 'date', label: string) => {
    const error = errorOf(index, name);
    return (
      <TextField
        label={label}
        value={prices[index]?.[name] ?? ''}
        // Who adds a price goes on to type it.
        autoFocus={added && name === 'amount' && index === prices.length - 1}
        error={error !== undefined}
        helperText={error}
        onChange={(event) => set(index, { [name]: event.target.value })}
      />
    );
  };
  return (
    <Box>
      {prices.map((price, index) => (
        <Box
          // biome-ignore lint/suspicious/noArrayIndexKey: prices have no identity but their place
          key={index}
          sx={{
            display: 'grid',
            gridTemplateColumns: { xs: '1fr 1fr 1fr', md: '150px 130px 110px 150px auto' },
            gap: 1,
            mb: 1,
            justifyContent: 'start',
          }}
        >
          <Choice label="Price" value={price.kind} options={PRICE_KINDS} onChange={(kind) => set(index, { kind })} />
          {field(index, 'amount', 'Amount')}
          {field(index, 'currency', 'Currency')}
          {field(index, 'date', 'Date')}
          <Button
            onClick={() => onChange(prices.filter((_, at) => at !== index))}
            aria-label={`Remove price ${index + 1}`}
          >
            Remove
          </Button>
        </Box>
      ))}
      <Button
        variant="outlined"
        onClick={() => {
          setAdded(true);
          onChange([...prices, { kind: 'paid', amount: '', currency: prices.at(-1)?.currency ?? 'EUR', date: today }]);
        }}
      >
        Add a price
      </Button>
    </Box>
  );
}
