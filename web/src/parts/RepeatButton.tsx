// Starts another run of a row in a grid.
import Button from '@mui/material/Button';

interface Props {
  /** Which row, in full. */
  readonly of: string;
  readonly onRepeat: () => void;
}

export function RepeatButton({ of, onRepeat }: Props) {
  return (
    <Button size="small" sx={{ minWidth: 0, py: 0 }} aria-label={`Repeat ${of}`} onClick={onRepeat}>
      Repeat
    </Button>
  );
}
