// Instrument profiles: what ships, and what this bench made.
import type { StoredInstrumentProfile } from '@lastmark/contract/types';
import Button from '@mui/material/Button';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableRow from '@mui/material/TableRow';
import { Heads } from './tables.tsx';

interface Props {
  readonly items: readonly StoredInstrumentProfile[];
  readonly onOpen: (one: StoredInstrumentProfile) => void;
}

export function Profiles({ items, onOpen }: Props) {
  return (
    <Table size="small" aria-label="Profiles">
      <Heads heads={['Name', 'Class', 'Commands', '']} />
      <TableBody>
        {items.map((one) => (
          <TableRow key={one.id}>
            <TableCell sx={{ fontWeight: 600 }}>{one.title}</TableCell>
            <TableCell>{one.class}</TableCell>
            <TableCell>
              {one.commands
                .slice(0, 4)
                .map(({ command }) => command)
                .join(' · ')}
              {one.commands.length > 4 && ` and ${one.commands.length - 4} more`}
            </TableCell>
            <TableCell>
              <Button
                size="small"
                onClick={() => onOpen(one)}
                aria-label={`${one.builtIn ? 'Copy' : 'Change'} ${one.title}`}
              >
                {one.builtIn ? 'Copy' : 'Change'}
              </Button>
            </TableCell>
          </TableRow>
        ))}
      </TableBody>
    </Table>
  );
}
