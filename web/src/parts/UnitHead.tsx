// The head of a column that is typed into: its unit can be chosen once for all of it.
import { type QuantityId, quantityOf } from '@lastmark/core/quantity';
import Box from '@mui/material/Box';
import { memo } from 'react';

interface Props {
  /** Name and usual unit: "Input, W". */
  readonly head: string;
  readonly quantity: QuantityId;
  /** Empty for the usual one. */
  readonly unit: string;
  readonly column: number;
  readonly onUnit: (column: number, unit: string) => void;
}

/** Drawn again only when its own unit changes, however often its grid is. */
export const UnitHead = memo(function UnitHead({ head, quantity, unit, column, onUnit }: Props) {
  const { usual, units } = quantityOf(quantity);
  const [, name = head, own] = /^(.*), (\S+)$/.exec(head) ?? [];
  const choices = units.map(({ symbol }) => symbol).filter((symbol) => symbol !== '');
  if (own !== usual || choices.length < 2) return head;
  return (
    <>
      {name},{' '}
      <Box
        component="select"
        aria-label={`Unit of ${name}`}
        value={unit === '' ? usual : unit}
        onChange={({ target }) => {
          const { value } = target as HTMLSelectElement;
          onUnit(column, value === usual ? '' : value);
        }}
        sx={{
          font: 'inherit',
          color: 'inherit',
          bgcolor: 'transparent',
          border: 0,
          borderBottom: '1px dotted',
          p: 0,
          appearance: 'none',
          // As wide as the unit that stands there.
          fieldSizing: 'content',
          cursor: 'pointer',
        }}
      >
        {choices.map((symbol) => (
          <option key={symbol} value={symbol}>
            {symbol}
          </option>
        ))}
      </Box>
    </>
  );
});
