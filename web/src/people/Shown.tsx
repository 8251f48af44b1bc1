// Something that is shown once and kept by nobody: a link, a token, recovery codes.
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useState } from 'react';

interface Props {
  /** What it is for, and that it is shown this once. */
  readonly says: string;
  readonly text: string;
  readonly onDone: () => void;
}

export function Shown({ says, text, onDone }: Props) {
  const [copied, setCopied] = useState<boolean | null>(null);
  const copy = () =>
    // A page without TLS has no clipboard: then it is marked and copied by hand.
    (navigator.clipboard?.writeText(text) ?? Promise.reject(new Error('no clipboard'))).then(
      () => setCopied(true),
      () => setCopied(false),
    );
  return (
    <Alert severity="success" icon={false} sx={{ my: 1.5 }}>
      <Box sx={{ mb: 1 }}>{says}</Box>
      <Box
        component="pre"
        tabIndex={0}
        aria-label="Shown once"
        sx={{ m: 0, mb: 1, whiteSpace: 'pre-wrap', overflowWrap: 'anywhere', fontSize: 15, userSelect: 'all' }}
      >
        {text}
      </Box>
      <Button variant="outlined" color="inherit" onClick={() => void copy()} sx={{ mr: 1 }}>
        {copied ? 'Copied' : 'Copy'}
      </Button>
      <Button color="inherit" onClick={onDone}>
        I have it
      </Button>
      {copied === false && <Box role="status">This page may not copy. Mark it and copy it by hand.</Box>}
    </Alert>
  );
}
