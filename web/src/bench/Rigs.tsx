// Rigs of the bench: which meter reads what, and what is in the line.
import type { StoredInstrument, StoredRig } from '@lastmark/contract/types';
import { formatPlain } from '@lastmark/core/quantity';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { QuietTable } from '../parts/QuietTable.tsx';
import { none } from './none.tsx';

interface Props {
  readonly items: readonly StoredRig[];
  readonly instruments: readonly StoredInstrument[];
  readonly onChange: (one: StoredRig) => void;
}

export function Rigs({ items, instruments, onChange }: Props) {
  if (items.length === 0) return none('No rigs yet. A rig says which meter reads what, and which lead is between.');
  const nameOf = (id: string | null) =>
    id === null ? null : (instruments.find((one) => one.id === id)?.name ?? 'missing');
  const socketOnly = 'read at the socket only';
  return (
    <QuietTable<StoredRig>
      label="Rigs"
      rows={items}
      rowKey={({ id }) => id}
      columns={[
        {
          head: 'Name',
          cell: ({ name, note, elements }) => (
            <>
              {name}
              <Box sx={{ color: 'text.secondary', fontSize: 13, fontWeight: 400 }}>{note}</Box>
              {elements.length > 0 && (
                <Box sx={{ color: 'text.secondary', fontSize: 13, fontWeight: 400 }}>
                  In the line: {elements.map(({ kind, name: own }) => `${kind} ${own}`).join(', ')}
                </Box>
              )}
            </>
          ),
        },
        { head: 'Input', cell: ({ meters }) => nameOf(meters.mains) },
        { head: 'Output volts', cell: ({ meters }) => nameOf(meters.outputVolts), empty: socketOnly },
        { head: 'Output amps', cell: ({ meters }) => nameOf(meters.outputAmps), empty: socketOnly },
        {
          head: 'Sensed',
          cell: ({ outputPlace, leadOhms }) =>
            outputPlace === 'port' ? 'at the port' : `at the load end, lead ${formatPlain(leadOhms, 'resistance')}`,
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
