// A question in place: asked where the button stands, answered there, without a dialog over the page.
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { type ReactNode, useState } from 'react';

interface Props {
  /** What opens the question. */
  readonly button: string;
  /** What is at stake, in a sentence. */
  readonly says: ReactNode;
  /** What answers with yes; left out where there is nothing to say yes to. */
  readonly yes?: string;
  readonly no: string;
  readonly onYes: () => void;
  readonly color?: 'error' | 'primary';
  readonly size?: 'small' | 'medium';
}

export function Ask({ button, says, yes, no, onYes, color = 'primary', size = 'medium' }: Props) {
  const [open, setOpen] = useState(false);
  if (!open) {
    return (
      <Button color={color} size={size} onClick={() => setOpen(true)} aria-expanded={false}>
        {button}
      </Button>
    );
  }
  return (
    <Box
      role="group"
      aria-label={button}
      onKeyDown={(event) => event.key === 'Escape' && setOpen(false)}
      sx={{ p: 1.5, border: 1, borderColor: `${color}.main`, borderRadius: 1, bgcolor: 'background.paper' }}
    >
      <Box sx={{ mb: 1 }}>{says}</Box>
      {yes && (
        <Button
          variant="contained"
          color={color}
          size={size}
          sx={{ mr: 1 }}
          onClick={() => {
            setOpen(false);
            onYes();
          }}
        >
          {yes}
        </Button>
      )}
      <Button autoFocus size={size} onClick={() => setOpen(false)}>
        {no}
      </Button>
    </Box>
  );
}
