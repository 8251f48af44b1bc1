// Offers that are advertised but cannot be had, with the reason.
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';

export interface UnreachableText {
  readonly position: string;
  readonly reason: string;
}

interface Props {
  readonly value: readonly UnreachableText[];
  readonly count: number;
  readonly onChange: (value: readonly UnreachableText[]) => void;
}

export function Unreachables({ value, count, onChange }: Props) {
  const set = (index: number, part: Partial<UnreachableText>) =>
    onChange(value.map((one, at) => (at === index ? { ...one, ...part } : one)));
  return (
    <Box role="group" aria-label="Advertised but unreachable">
      <Typography variant="h3" sx={{ mb: 1 }}>
        Advertised but unreachable
      </Typography>
      {value.map(({ position, reason }, index) => (
        <Box
          // biome-ignore lint/suspicious/noArrayIndexKey: entries have no identity but their place
          key={index}
          sx={{ display: 'grid', gridTemplateColumns: '90px 1fr auto', gap: 1, mb: 1 }}
        >
          <TextField
            label="Position"
            value={position}
            onChange={(event) => set(index, { position: event.target.value })}
          />
          <TextField
            label="Reason"
            placeholder="rejects the request"
            value={reason}
            onChange={(event) => set(index, { reason: event.target.value })}
            slotProps={{ htmlInput: { maxLength: 200 } }}
          />
          <Button size="small" onClick={() => onChange(value.filter((_, at) => at !== index))}>
            Remove
          </Button>
        </Box>
      ))}
      <Button
        size="small"
        variant="outlined"
        disabled={count === 0}
        onClick={() => onChange([...value, { position: String(count), reason: '' }])}
      >
        Add one that cannot be had
      </Button>
    </Box>
  );
}
