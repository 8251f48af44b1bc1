// What every dialog that takes in a recording has: the button for its file, and readings typed line by line in its place.
import TextField from '@mui/material/TextField';
import { FileButton } from '../parts/FileButton.tsx';
import { RECORDING_ACCEPTS } from './recordingFiles.ts';
import type { Recording } from './useRecording.ts';

/** @param label what the file is of */
export function RecordingButton({ label, recording }: { readonly label: string; readonly recording: Recording }) {
  return (
    <FileButton
      label={label}
      accept={RECORDING_ACCEPTS}
      multiple
      onFiles={recording.take}
      button={{ variant: 'outlined', sx: { mr: 'auto' } }}
    >
      {recording.file ? 'Another file' : 'Choose a file'}
    </FileButton>
  );
}

interface Props {
  readonly label: string;
  /** Name typed lines are kept under. */
  readonly name: string;
  readonly example: string;
  readonly value: string;
  readonly onChange: (text: string) => void;
  readonly recording: Recording;
}

/** Lines typed as a file would have them, read when the field is left; gone once a file was chosen. */
export function TypedLines({ label, name, example, value, onChange, recording }: Props) {
  if (recording.file && recording.file.name !== name) return null;
  return (
    <TextField
      label={label}
      multiline
      minRows={3}
      maxRows={8}
      value={value}
      placeholder={example}
      onChange={(event) => onChange(event.target.value)}
      onBlur={() => {
        if (value.trim() !== '') recording.take([new File([value], name, { lastModified: Date.now() })]);
      }}
      sx={{ gridColumn: '1 / -1' }}
      slotProps={{ inputLabel: { shrink: true }, htmlInput: { spellCheck: false } }}
    />
  );
}
