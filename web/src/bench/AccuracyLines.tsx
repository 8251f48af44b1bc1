// How accurate a meter is, asked in one line a quantity: as its manual prints it, or what is usual of its class.

import { quantityOf } from '@lastmark/core/quantity';
import { isResolutionOnly, NO_SPEC, parseAccuracy, USUAL_OF_CLASS } from '@lastmark/core/uncertainty';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { typedSi } from '../parts/fields.tsx';
import { SPEC_QUANTITIES, type SpecQuantity } from './SpecFields.tsx';
import { describeSpec, fromSpecText, type SpecText, toSpecText } from './spec.ts';

interface LineProps {
  readonly quantity: SpecQuantity;
  readonly spec: SpecText;
  readonly onChange: (spec: SpecText) => void;
}

function AccuracyLine({ quantity, spec, onChange }: LineProps) {
  const [text, setText] = useState('');
  const { label, usual } = quantityOf(quantity);
  const resolution = typedSi(spec.resolution, quantity) ?? 0;
  const read = text.trim() === '' ? null : parseAccuracy(text, quantity, resolution);
  const now = fromSpecText(spec, quantity);
  const type = (typed: string) => {
    setText(typed);
    const next = parseAccuracy(typed, quantity, resolution);
    if (next.ok) onChange(toSpecText(next.spec, quantity));
  };
  return (
    <TextField
      label={`${label}, as printed in its manual`}
      placeholder={`±(0.5 % + 0.02 ${usual})`}
      value={text}
      error={read?.ok === false}
      helperText={
        read?.ok === false
          ? read.reason
          : now
            ? `Taken: ${describeSpec(now, quantity)}`
            : 'Empty: it does not measure this, or nobody knows.'
      }
      onChange={(event) => type(event.target.value)}
      slotProps={{ inputLabel: { shrink: true }, htmlInput: { autoComplete: 'off' } }}
    />
  );
}

interface Props {
  /** Class of the instrument. */
  readonly kind: string;
  readonly specs: Readonly<Record<SpecQuantity, SpecText>>;
  readonly onChange: (specs: Record<SpecQuantity, SpecText>) => void;
}

export function AccuracyLines({ kind, specs, onChange }: Props) {
  const ofClass = USUAL_OF_CLASS[kind];
  const bare = SPEC_QUANTITIES.filter((quantity) =>
    isResolutionOnly(fromSpecText(specs[quantity], quantity) ?? NO_SPEC),
  );
  return (
    <Box role="group" aria-label="Accuracy" sx={{ display: 'grid', gap: 1.5 }}>
      <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(auto-fit, minmax(230px, 1fr))', gap: 1.5 }}>
        {SPEC_QUANTITIES.map((quantity) => (
          <AccuracyLine
            key={quantity}
            quantity={quantity}
            spec={specs[quantity]}
            onChange={(spec) => onChange({ ...specs, [quantity]: spec })}
          />
        ))}
      </Box>
      {ofClass && (
        <Box>
          <Button
            variant="outlined"
            onClick={() =>
              onChange({
                ...specs,
                ...Object.fromEntries(
                  SPEC_QUANTITIES.flatMap((quantity) => {
                    const spec = ofClass[quantity];
                    return spec ? [[quantity, toSpecText(spec, quantity)] as const] : [];
                  }),
                ),
              })
            }
          >
            No manual: take what is usual of a {kind}
          </Button>
        </Box>
      )}
      {bare.length > 0 && (
        <Alert severity="warning">
          How fine it shows says nothing of how well it measures: give per cent or a fixed part too, else every result
          looks better than it is.
        </Alert>
      )}
    </Box>
  );
}
