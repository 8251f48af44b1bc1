// Where an instrument answers, and the profile that says how it is spoken to.
import type { InstrumentInput } from '@lastmark/contract/types';
import Box from '@mui/material/Box';
import TextField from '@mui/material/TextField';
import { useQuery } from '@tanstack/react-query';
import { instrumentProfilesQuery } from '../api/queries.ts';
import { Choice } from '../parts/fields.tsx';

interface Props {
  readonly kind: InstrumentInput['class'];
  readonly address: string;
  readonly profileId: string;
  readonly onAddress: (address: string) => void;
  readonly onProfile: (id: string) => void;
}

export function LinkFields({ kind, address, profileId, onAddress, onProfile }: Props) {
  const { data } = useQuery(instrumentProfilesQuery);
  const fitting = (data?.items ?? []).filter((profile) => profile.class === kind);
  const chosen = fitting.some(({ id }) => id === profileId) ? profileId : '';
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1.5 }}>
      <TextField
        label="Address"
        placeholder="192.168.1.20:5025"
        value={address}
        onChange={(event) => onAddress(event.target.value)}
        helperText="host:port (host:port+port for a port each channel), hislip://host, serial:/dev/ttyUSB0@9600, or file:/folder/log.csv, whose newest line is read. Empty for one read by eye."
        slotProps={{ inputLabel: { shrink: true }, htmlInput: { maxLength: 240, spellCheck: false } }}
      />
      <Choice
        label="Profile"
        value={chosen}
        options={[{ value: '', label: 'none' }, ...fitting.map(({ id, title }) => ({ value: id, label: title }))]}
        onChange={onProfile}
      />
    </Box>
  );
}
