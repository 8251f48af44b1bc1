// The five conditions an offer can change with, and the cable's own words.
import { parseCelsius, ROOM_RANGE } from '@lastmark/core/quantity';
import { MARKERS, type Marker, type Revision } from '@lastmark/core/read-out';
import Box from '@mui/material/Box';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { Choice, QuantityField } from '../../parts/fields.tsx';
import { useSample } from '../../state/sample.tsx';
import { type Form, REVISION_CHOICES, type StatedForm } from './entryForm.ts';

interface Props {
  readonly form: Form;
  readonly set: (part: Partial<Form>) => void;
  /** The marker by its own reply, where the cable answered. */
  readonly told: Marker | null;
  /** The revision by the source's own reply. */
  readonly declared: Revision | null;
  readonly stated: StatedForm;
}

export function EntryConditions({ form, set, told, declared, stated }: Props) {
  const { sample } = useSample().dossier;
  const temperature = form.temperature.trim() === '' ? null : parseCelsius(form.temperature, ROOM_RANGE, 'room');
  return (
    <>
      <Typography variant="h3">Conditions</Typography>
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1.5 }}>
        <Choice
          label={told === null ? 'Cable marker' : 'Cable marker, by its reply'}
          value={told ?? form.marker}
          options={MARKERS}
          onChange={(marker) => set({ marker })}
          more={{ disabled: told !== null }}
        />
        <Choice
          label="Asked with revision"
          value={form.askedWith}
          options={REVISION_CHOICES}
          onChange={(askedWith) => set({ askedWith })}
        />
        <Choice
          label={declared === null ? 'Source declares' : 'Source declares, by its reply'}
          value={declared ?? form.declared}
          options={REVISION_CHOICES}
          onChange={(to) => set({ declared: to })}
          more={{ disabled: declared !== null }}
        />
        <QuantityField
          label="Plugged in for, min"
          quantity="duration"
          value={form.elapsed}
          onChange={(elapsed) => set({ elapsed })}
        />
        <TextField
          label="Temperature, °C"
          value={form.temperature}
          onChange={(event) => set({ temperature: event.target.value })}
          error={temperature !== null && !temperature.ok}
          helperText={temperature && !temperature.ok ? temperature.reason : ' '}
          slotProps={{ htmlInput: { inputMode: 'decimal', autoComplete: 'off' } }}
        />
        <TextField
          label="Cable’s reply, hex"
          value={form.cable}
          onChange={(event) => set({ cable: event.target.value })}
          slotProps={{ htmlInput: { spellCheck: false } }}
        />
        <TextField
          label={stated.told.info == null ? 'Source info, hex or watts' : 'Source info, by its reply'}
          value={stated.told.info ?? form.info}
          disabled={stated.told.info != null}
          onChange={(event) => set({ info: event.target.value })}
          error={stated.unread.info !== undefined}
          helperText={stated.unread.info ?? ' '}
          slotProps={{ htmlInput: { spellCheck: false } }}
        />
        <TextField
          label={stated.told.extended == null ? 'Extended capabilities, hex' : 'Extended capabilities, by its reply'}
          value={stated.told.extended ?? form.extended}
          disabled={stated.told.extended != null}
          onChange={(event) => set({ extended: event.target.value })}
          error={stated.unread.extended !== undefined}
          helperText={stated.unread.extended ?? ' '}
          slotProps={{ htmlInput: { spellCheck: false } }}
        />
      </Box>
      <Box role="group" aria-label="Other ports in use">
        {sample.model.ports.length > 1 && <Typography variant="body2">Other ports in use</Typography>}
        {sample.model.ports
          .filter(({ label }) => label !== form.port)
          .map(({ label }) => (
            <FormControlLabel
              key={label}
              label={label}
              control={
                <Checkbox
                  size="small"
                  checked={form.occupied.includes(label)}
                  onChange={(event) =>
                    set({
                      occupied: event.target.checked
                        ? [...form.occupied, label]
                        : form.occupied.filter((one) => one !== label),
                    })
                  }
                />
              }
            />
          ))}
      </Box>
    </>
  );
}
