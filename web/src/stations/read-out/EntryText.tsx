// What the analyser shows: typed, pasted or taken from a file; a long listing stays beside the field, not in it.
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { FileButton } from '../../parts/FileButton.tsx';
import { Choice } from '../../parts/fields.tsx';
import { fileText } from '../../parts/fileText.ts';
import { AddLevel } from './AddLevel.tsx';
import { type Form, type Listing, LONGEST_TYPED } from './entryForm.ts';
import type { Decoded } from './useInterpret.ts';

interface Props {
  readonly form: Form;
  readonly set: (part: Partial<Form>) => void;
  readonly listing: Listing | null;
  readonly onListing: (listing: Listing | null) => void;
  readonly decoded: Decoded;
}

export function EntryText({ form, set, listing, onListing, decoded }: Props) {
  /** Text from a file or the clipboard: into the field when short, beside it when long. */
  const take = (name: string, text: string) => {
    if (text.length > LONGEST_TYPED) onListing({ name, text });
    else set({ text });
  };
  return (
    <>
      {listing ? (
        <Box sx={{ p: 1.5, border: 1, borderColor: 'divider', borderRadius: 1 }}>
          <Typography>
            {listing.name}: {listing.text.length.toLocaleString('en')} characters, too long to show here. Its words are
            listed beside.
          </Typography>
          <Button size="small" onClick={() => onListing(null)}>
            Drop it
          </Button>
        </Box>
      ) : (
        <TextField
          label="What the analyser shows"
          autoFocus
          multiline
          minRows={5}
          maxRows={12}
          value={form.text}
          onChange={(event) => take('Typed text', event.target.value)}
          onPaste={(event) => {
            const pasted = event.clipboardData.getData('text');
            if (pasted.length <= LONGEST_TYPED) return;
            event.preventDefault();
            onListing({ name: 'Pasted text', text: pasted });
          }}
          placeholder={
            '0801912C 0002D12C …\nor a whole message: 51A1 0801912C …\nor lines: 9 V 3 A\nor a CSV or JSON list, or a log'
          }
          slotProps={{ htmlInput: { spellCheck: false, 'data-gramm': 'false' } }}
        />
      )}
      <Box>
        <FileButton
          label="File of words"
          accept=".txt,.csv,.json,.log,.hex"
          onFiles={([file]) => {
            if (file) void fileText(file).then((text) => take(file.name, text));
          }}
          button={{ size: 'small' }}
        >
          Take it from a file
        </FileButton>
      </Box>
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1.5 }}>
        <Choice
          label="Digits stand"
          value={form.order}
          options={[
            { value: 'value', label: 'as numbers: 0801912C' },
            { value: 'wire', label: 'as on the wire: 2C 91 01 08' },
          ]}
          onChange={(order) => set({ order })}
        />
        <Choice
          label="Bare words are"
          value={form.are}
          options={[
            { value: 'offers', label: 'offers of the source' },
            { value: 'request', label: 'requests' },
            { value: 'identity', label: 'the cable’s reply' },
          ]}
          onChange={(are) => set({ are })}
        />
      </Box>
      <AddLevel
        asWords={decoded.form === 'words' || decoded.form === 'messages'}
        order={form.order}
        onAdd={(line) => set({ text: form.text.trim() === '' ? line : `${form.text.trimEnd()}\n${line}` })}
      />
    </>
  );
}
