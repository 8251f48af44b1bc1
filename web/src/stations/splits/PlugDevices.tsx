// The devices of an evening: which come, at what level, when, and what they must have by when.
import type { StoredDevice } from '@lastmark/contract/types';
import Box from '@mui/material/Box';
import Checkbox from '@mui/material/Checkbox';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { type Coming, USUAL } from './plugDevice.ts';

interface Props {
  readonly devices: readonly StoredDevice[];
  readonly coming: Readonly<Record<string, Coming>>;
  /** Devices whose own charges say how they fill. */
  readonly known: (id: string) => boolean;
  readonly full: boolean;
  readonly onChange: (id: string, coming: Coming | null) => void;
}

const FIELDS = [
  ['level', 'Level, %'],
  ['comes', 'Comes after, h'],
  ['needs', 'Needs, %'],
  ['by', 'by, h'],
] as const;

export function PlugDevices({ devices, coming, known, full, onChange }: Props) {
  return (
    <Box component="section" aria-label="Devices">
      {devices.length === 0 && <Typography>No devices yet. Add them at Bench.</Typography>}
      {devices.map((device) => {
        const own = coming[device.id];
        const change = (part: Partial<Coming>) => onChange(device.id, { ...(own ?? USUAL), ...part });
        return (
          <Box
            key={device.id}
            sx={{
              display: 'grid',
              gridTemplateColumns: {
                xs: '34px 1fr 90px 100px',
                md: '34px minmax(130px, 1fr) 88px 112px 92px 80px 136px',
              },
              gap: 1,
              alignItems: 'center',
              minHeight: 44,
              mb: own ? 0.5 : 0,
            }}
          >
            <Checkbox
              size="small"
              checked={own !== undefined}
              disabled={!own && full}
              onChange={() => onChange(device.id, own ? null : USUAL)}
              slotProps={{ input: { 'aria-label': device.name } }}
            />
            <Box>
              {device.name}
              {own && (
                <Box sx={{ fontSize: 13, color: 'text.secondary' }}>
                  {known(device.id) ? 'fills as its charges show' : 'fills by our usual curve'}
                </Box>
              )}
            </Box>
            {own && (
              <>
                {FIELDS.map(([key, label]) => (
                  <TextField
                    key={key}
                    label={label}
                    value={own[key] ?? ''}
                    onChange={(event) => change({ [key]: event.target.value })}
                    slotProps={{
                      inputLabel: { shrink: true },
                      htmlInput: { 'aria-label': `${device.name}: ${label.toLowerCase()}`, inputMode: 'decimal' },
                    }}
                  />
                ))}
                <Box component="label" sx={{ fontSize: 14, whiteSpace: 'nowrap' }}>
                  <Checkbox
                    size="small"
                    checked={own.staysOn}
                    onChange={(event) => change({ staysOn: event.target.checked })}
                  />
                  must stay on
                </Box>
              </>
            )}
          </Box>
        );
      })}
    </Box>
  );
}
