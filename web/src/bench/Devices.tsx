// Real devices that serve as loads, with what each takes.
import type { StoredDevice } from '@lastmark/contract/types';
import { formatPlain } from '@lastmark/core/quantity';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableRow from '@mui/material/TableRow';
import { Heads, none } from './tables.tsx';

export function Devices({
  items,
  onChange,
}: {
  readonly items: readonly StoredDevice[];
  readonly onChange: (one: StoredDevice) => void;
}) {
  if (items.length === 0) return none('No devices yet. A device can serve as a load; what it takes is a lower bound.');
  return (
    <Table size="small" aria-label="Devices">
      <Heads heads={['Name', 'Kind', 'Takes at most', 'Alone', 'Battery', '']} />
      <TableBody>
        {items.map((one) => (
          <TableRow key={one.id}>
            <TableCell sx={{ fontWeight: 600 }}>{one.name}</TableCell>
            <TableCell>{one.kind}</TableCell>
            <TableCell>
              {one.ceilings.map(({ connector, lead, volts, watts }) => (
                <Box key={`${connector} ${lead}`}>
                  {formatPlain(watts, 'power')}
                  {volts === null ? '' : ` at ${formatPlain(volts, 'voltage')}`}, {connector}, {lead}
                </Box>
              ))}
            </TableCell>
            <TableCell>{one.baseline === null ? 'not run' : formatPlain(one.baseline, 'power')}</TableCell>
            <TableCell>{one.battery === null ? '–' : formatPlain(one.battery, 'energy', 'Wh')}</TableCell>
            <TableCell>
              <Button size="small" onClick={() => onChange(one)} aria-label={`Change ${one.name}`}>
                Change
              </Button>
            </TableCell>
          </TableRow>
        ))}
      </TableBody>
    </Table>
  );
}
