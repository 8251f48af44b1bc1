// One level at a time, for those who read them off a screen: "9 V 3 A".
import { type ByteOrder, encodeSource, parseOffer, wordText } from '@lastmark/core/pd';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useState } from 'react';

interface Props {
  /** Whether the text so far is hexadecimal, so that the level joins it as a word. */
  readonly asWords: boolean;
  readonly order: ByteOrder;
  readonly onAdd: (line: string) => void;
}

/** A word in the order the rest of the text has. */
const inOrder = (word: number, order: ByteOrder): string =>
  order === 'value' ? wordText(word) : (wordText(word).match(/../g) ?? []).reverse().join(' ');

/** The word of a typed level, or why there is none. */
function wordOfLevel(typed: string): { readonly word: number } | { readonly reason: string } {
  const parsed = parseOffer(typed);
  if (!parsed.ok) return parsed;
  try {
    return { word: encodeSource(parsed.object) };
  } catch (error) {
    return { reason: error instanceof RangeError ? error.message : 'This cannot be offered.' };
  }
}

export function AddLevel({ asWords, order, onAdd }: Props) {
  const [typed, setTyped] = useState('');
  const level = wordOfLevel(typed);
  const add = () => {
    if (!('word' in level)) return;
    onAdd(asWords ? inOrder(level.word, order) : typed.trim());
    setTyped('');
  };
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: '1fr auto', gap: 1 }}>
      <TextField
        label="Add a level"
        placeholder="9 V 3 A · PPS 3.3–21 V 3 A · EPR AVS 15–28 V 140 W"
        value={typed}
        error={typed !== '' && 'reason' in level}
        helperText={typed !== '' && 'reason' in level ? level.reason : ' '}
        onChange={(event) => setTyped(event.target.value)}
        onKeyDown={(event) => {
          if (event.key !== 'Enter') return;
          event.preventDefault();
          add();
        }}
        slotProps={{ inputLabel: { shrink: true } }}
      />
      <Button variant="outlined" onClick={add} disabled={!('word' in level)} sx={{ height: 40 }}>
        Add
      </Button>
    </Box>
  );
}
