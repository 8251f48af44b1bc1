// Starts another run of a row in a grid.
import Button from '@mui/material/Button';
import { memo, useCallback, useRef } from 'react';

interface Props {
  /** Which row, in full. */
  readonly of: string;
  readonly onRepeat: () => void;
}

const LOOK = { minWidth: 0, py: 0 };

const Plain = memo(function Plain({ of, onRepeat }: Props) {
  return (
    <Button size="small" sx={LOOK} aria-label={`Repeat ${of}`} onClick={onRepeat}>
      Repeat
    </Button>
  );
});

/** Drawn once, however often its row is. */
export function RepeatButton({ of, onRepeat }: Props) {
  const newest = useRef(onRepeat);
  newest.current = onRepeat;
  return <Plain of={of} onRepeat={useCallback(() => newest.current(), [])} />;
}
