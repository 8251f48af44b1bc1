// A question in place: asked where the button stands, answered there, without a dialog over the page.
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { type ReactNode, useState } from 'react';

interface QuestionProps {
  /** What it is about, for those who hear the page. */
  readonly label: string;
  /** What is at stake, in a sentence. */
  readonly says: ReactNode;
  /** What answers with yes; left out where there is nothing to say yes to. */
  readonly yes?: string | undefined;
  readonly no: string;
  readonly onYes: () => void;
  /** Answered, whichever way, or left by Escape. */
  readonly onClose: () => void;
  readonly color?: 'error' | 'primary' | undefined;
  readonly size?: 'small' | 'medium' | undefined;
}

/** The question itself, where something else than a button of its own opens it. */
export function Question({ label, says, yes, no, onYes, onClose, color = 'primary', size = 'medium' }: QuestionProps) {
  return (
    <Box
      role="group"
      aria-label={label}
      onKeyDown={(event) => event.key === 'Escape' && onClose()}
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
            onClose();
            onYes();
          }}
        >
          {yes}
        </Button>
      )}
      <Button autoFocus size={size} onClick={onClose}>
        {no}
      </Button>
    </Box>
  );
}

interface Props extends Omit<QuestionProps, 'label' | 'onClose'> {
  /** What opens the question. */
  readonly button: string;
}

export function Ask({ button, ...question }: Props) {
  const [state, setState] = useState<'new' | 'open' | 'answered'>('new');
  if (state === 'open') return <Question label={button} {...question} onClose={() => setState('answered')} />;
  return (
    <Button
      // Whoever answered stands where the question was opened.
      autoFocus={state === 'answered'}
      color={question.color ?? 'primary'}
      size={question.size ?? 'medium'}
      onClick={() => setState('open')}
      aria-expanded={false}
    >
      {button}
    </Button>
  );
}
