// What a run is to do by itself: a sentence each, with its numbers.
import { CONDITION_KINDS, type ConditionKind } from '@lastmark/core/plan';
import Box from '@mui/material/Box';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import type { ConditionText } from './conditionText.ts';

const WORDS: Readonly<Record<ConditionKind, string>> = {
  repeat: 'Read again until U is small enough',
  unsettled: 'Not settled: go on before it is averaged',
  folded: 'A port gives less than is asked: leave out the rest of its level',
  dropped: 'A port drops out of a combination: read it in pairs',
  gone: 'An output goes away under load: prove it again',
};

type Typed = Exclude<keyof ConditionText, 'on'>;
const FIELDS: Readonly<Partial<Record<ConditionKind, readonly (readonly [name: Typed, label: string])[]>>> = {
  repeat: [
    ['within', 'U at most, %'],
    ['most', 'Readings altogether'],
  ],
  unsettled: [['longest', 'Go on for at most']],
  folded: [['share', 'A port must give, %']],
};

interface Props {
  readonly value: ConditionText;
  readonly onChange: (part: Partial<ConditionText>) => void;
}

export function ConditionFields({ value, onChange }: Props) {
  return (
    <Box component="fieldset" sx={{ border: 0, p: 0, m: 0, minWidth: 0 }}>
      <Typography component="legend" variant="body2" sx={{ fontWeight: 600, p: 0 }}>
        By itself
      </Typography>
      {CONDITION_KINDS.map((kind) => (
        <Box key={kind} sx={{ display: 'flex', flexWrap: 'wrap', alignItems: 'center', columnGap: 2, minHeight: 54 }}>
          <FormControlLabel
            sx={{ flex: '1 1 340px', mr: 0 }}
            label={WORDS[kind]}
            control={
              <Checkbox
                size="small"
                checked={value.on.includes(kind)}
                onChange={(event) =>
                  onChange({ on: event.target.checked ? [...value.on, kind] : value.on.filter((one) => one !== kind) })
                }
              />
            }
          />
          {(FIELDS[kind] ?? []).map(([name, label]) => (
            <TextField
              key={name}
              label={label}
              value={value[name]}
              disabled={!value.on.includes(kind)}
              onChange={(event) => onChange({ [name]: event.target.value })}
              slotProps={{ inputLabel: { shrink: true }, htmlInput: { maxLength: 20 } }}
              sx={{ width: 170 }}
            />
          ))}
        </Box>
      ))}
    </Box>
  );
}
