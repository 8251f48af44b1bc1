// What the drop means for each device of the bench.
import { fixed, formatPlain } from '@lastmark/core/quantity';
import type { DeviceDrop } from '@lastmark/core/resistance';
import Typography from '@mui/material/Typography';
import { QuietTable } from '../../parts/QuietTable.tsx';
import { useSample } from '../../state/sample.tsx';

export function AtDevices() {
  const { verdict } = useSample();
  const { devices } = verdict.results.resistance;
  if (devices.length === 0) return null;
  return (
    <>
      <Typography variant="h2" sx={{ mt: 2, mb: 1 }}>
        What it means for a device
      </Typography>
      <QuietTable<DeviceDrop>
        label="What it means for a device"
        rows={devices}
        rowKey={({ device }) => device}
        exception={({ fate }) => fate !== 'stays'}
        columns={[
          { head: 'Device', cell: ({ device }) => device },
          { head: 'Takes', cell: ({ watts, level }) => `${formatPlain(watts, 'power')} at ${level} V` },
          {
            head: 'Left at it',
            unit: 'V',
            number: true,
            cell: ({ at }) => at && fixed(at.volts, 2),
            empty: 'nothing gets through',
          },
          { head: 'Warms the cable', unit: 'W', number: true, cell: ({ at }) => at && fixed(at.loss, 2) },
          { head: 'Lost', unit: '%', number: true, cell: ({ at }) => at && fixed(at.part * 100, 1) },
          {
            head: 'So',
            cell: ({ fate, heldTo }) =>
              [
                heldTo === null ? null : `held to ${formatPlain(heldTo, 'power')} by the rating`,
                fate === 'stays' ? null : fate,
              ]
                .filter(Boolean)
                .join(', ') || 'stays at its level',
          },
        ]}
      />
      <Typography variant="body2" color="text.secondary" sx={{ mt: 0.5 }}>
        A device must work down to its level less 5 % and 0.75 V; what does not get that may ask for less.
      </Typography>
    </>
  );
}
