// The accuracy of one quantity as its maker states it, range by range.
import { type QuantityId, quantityOf } from '@lastmark/core/quantity';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { Choice } from '../parts/fields.tsx';
import { EMPTY_RANGE, type RangeText, type SpecText } from './spec.ts';

export const SPEC_QUANTITIES = ['power', 'voltage', 'current'] as const satisfies readonly QuantityId[];
export type SpecQuantity = (typeof SPEC_QUANTITIES)[number];

const MOST_RANGES = 8;

const PARTS: readonly (readonly [Exclude<keyof RangeText, 'coverage'>, string])[] = [
  ['readingPercent', '% of reading'],
  ['rangePercent', '% of range'],
  ['range', 'Range'],
  ['offset', 'Plus'],
  ['resolution', 'Resolution'],
  ['floor', 'Reads from'],
];

interface RangeProps {
  /** What the fields are for, before each label. */
  readonly of: string;
  readonly unit: string;
  readonly spec: RangeText;
  readonly onChange: (spec: RangeText) => void;
}

function RangeFields({ of, unit, spec, onChange }: RangeProps) {
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(6, 1fr) 150px', gap: 1, mb: 1 }}>
      {PARTS.map(([name, title]) => (
        <TextField
          key={name}
          label={name.endsWith('Percent') ? title : `${title}, ${unit}`}
          value={spec[name]}
          onChange={(event) => onChange({ ...spec, [name]: event.target.value })}
          slotProps={{ htmlInput: { inputMode: 'decimal', 'aria-label': `${of}: ${title}` } }}
        />
      ))}
      <Choice
        label="Stated at"
        value={spec.coverage}
        options={['not stated', 'k = 2 or 95 %']}
        onChange={(coverage) => onChange({ ...spec, coverage })}
      />
    </Box>
  );
}

interface Props {
  readonly quantity: SpecQuantity;
  readonly spec: SpecText;
  readonly onChange: (spec: SpecText) => void;
}

export function SpecFields({ quantity, spec, onChange }: Props) {
  const { label, si } = quantityOf(quantity);
  const { finer } = spec;
  return (
    <Box role="group" aria-label={`${label} accuracy`}>
      <Typography variant="h3" sx={{ mb: 1 }}>
        {label}
      </Typography>
      <RangeFields of={label} unit={si} spec={spec} onChange={(outer) => onChange({ ...outer, finer })} />
      {finer.map((range, index) => (
        <RangeFields
          // biome-ignore lint/suspicious/noArrayIndexKey: a range has no name but its place
          key={index}
          of={`${label}, finer range ${index + 1}`}
          unit={si}
          spec={range}
          onChange={(changed) => onChange({ ...spec, finer: finer.map((one, at) => (at === index ? changed : one)) })}
        />
      ))}
      <Button
        size="small"
        disabled={finer.length >= MOST_RANGES}
        onClick={() => onChange({ ...spec, finer: [...finer, EMPTY_RANGE] })}
      >
        Add a finer range of {label.toLowerCase()}
      </Button>
    </Box>
  );
}
