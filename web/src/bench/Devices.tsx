// Real devices that serve as loads, with what each takes.
import type { StoredDevice } from '@lastmark/contract/types';
import { formatPlain } from '@lastmark/core/quantity';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { QuietTable } from '../parts/QuietTable.tsx';
import { none } from './none.tsx';

export function Devices({
  items,
  onChange,
}: {
  readonly items: readonly StoredDevice[];
  readonly onChange: (one: StoredDevice) => void;
}) {
  if (items.length === 0) return none('No devices yet. A device can serve as a load; what it takes is a lower bound.');
  return (
    <QuietTable<StoredDevice>
      label="Devices"
      rows={items}
      rowKey={({ id }) => id}
      columns={[
        { head: 'Name', cell: ({ name }) => name },
        { head: 'Kind', cell: ({ kind }) => kind },
        {
          head: 'Takes at most',
          cell: ({ ceilings }) =>
            ceilings.length === 0
              ? null
              : ceilings.map(({ connector, lead, volts, watts }) => (
                  <Box key={`${connector} ${lead}`}>
                    {formatPlain(watts, 'power')}
                    {volts === null ? '' : ` at ${formatPlain(volts, 'voltage')}`}, {connector}, {lead}
                  </Box>
                )),
          empty: 'its ceiling',
        },
        {
          head: 'Alone',
          unit: 'W',
          number: true,
          cell: ({ baseline }) => (baseline === null ? null : formatPlain(baseline, 'power', 'W')),
          empty: 'not run',
        },
        {
          head: 'Battery',
          unit: 'Wh',
          number: true,
          cell: ({ battery }) => (battery === null ? null : formatPlain(battery, 'energy', 'Wh')),
          empty: 'not stated',
        },
        {
          head: '',
          cell: (one) => (
            <Button size="small" onClick={() => onChange(one)} aria-label={`Change ${one.name}`}>
              Change
            </Button>
          ),
        },
      ]}
    />
  );
}
