// A spreadsheet of samples before it is kept: what was understood, what was not, line by line.
import type { Sample, SampleInput } from '@lastmark/contract/types';
import {
  type ColumnsOfList,
  guessColumns,
  headsOf,
  type ListedSample,
  readSampleList,
  SAMPLE_COLUMNS,
  type SampleColumn,
} from '@lastmark/core/intake';
import { formatPlain } from '@lastmark/core/quantity';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import Typography from '@mui/material/Typography';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { api } from '../../api/client.ts';
import { queryClient } from '../../api/queries.ts';
import { Choice } from '../../parts/fields.tsx';
import { fileText } from '../../parts/fileText.ts';
import { QuietTable } from '../../parts/QuietTable.tsx';
import { EMPTY_UNIT } from './form.ts';

const SHOWN = 200;

/** What is stored of a line; what it does not say is left for Intake. */
const inputOf = (
  { maker, model, kind, serial, ports, mass, paid, bought, notes }: ListedSample,
  today: string,
): SampleInput => ({
  model: {
    maker,
    model,
    kind,
    ports: ports.map((port) => ({ ...port, twin: null })),
    length: null,
    width: null,
    height: null,
    mass,
    withPlug: true,
    plugForm: 'fixed',
    plugEarthed: false,
    plugBlocksNeighbour: false,
    inputRating: '',
    marks: [],
    prices: paid ? [{ kind: 'paid', ...paid, date: bought ?? today }] : [],
  },
  unit: { ...EMPTY_UNIT, serial, notes },
});

const COLUMN_TITLES: Readonly<Record<SampleColumn, string>> = {
  maker: 'Maker',
  model: 'Model',
  kind: 'Kind',
  serial: 'Serial',
  ports: 'Ports',
  mass_g: 'Mass, g',
  paid: 'Price paid',
  currency: 'Currency',
  bought: 'Bought on',
  notes: 'Notes',
};

/** Which column of the file holds what. */
function ColumnChoice({
  heads,
  columns,
  onChange,
}: {
  readonly heads: readonly string[];
  readonly columns: ColumnsOfList;
  readonly onChange: (columns: ColumnsOfList) => void;
}) {
  const options = [{ value: '', label: 'none' }, ...heads.map((head) => ({ value: head, label: head }))];
  return (
    <Box
      role="group"
      aria-label="Columns"
      sx={{ display: 'grid', gridTemplateColumns: 'repeat(auto-fill, minmax(150px, 1fr))', gap: 1, pt: 1 }}
    >
      {SAMPLE_COLUMNS.map((column) => (
        <Choice
          key={column}
          label={COLUMN_TITLES[column]}
          value={columns[column] ?? ''}
          options={options}
          onChange={(head) => {
            const { [column]: _, ...others } = columns;
            onChange(head === '' ? others : { ...others, [column]: head });
          }}
        />
      ))}
    </Box>
  );
}

interface Props {
  readonly file: File;
  readonly onClose: () => void;
}

export function SampleListDialog({ file, onClose }: Props) {
  const { data: text } = useQuery({ queryKey: ['list', file.name, file.lastModified], queryFn: () => fileText(file) });
  const heads = useMemo(() => (text === undefined ? [] : headsOf(text)), [text]);
  const [chosen, setChosen] = useState<ColumnsOfList | null>(null);
  const columns = chosen ?? guessColumns(heads);
  const list = text === undefined ? null : readSampleList(text, columns);
  /** Lines that are stored already: sent again after a failure they count once. */
  const [kept, setKept] = useState<ReadonlySet<number>>(new Set());
  const keep = useMutation({
    mutationFn: async (samples: readonly ListedSample[]) => {
      const today = new Date().toISOString().slice(0, 10);
      for (const one of samples) {
        if (kept.has(one.line)) continue;
        await api<Sample>('/samples', { method: 'POST', body: inputOf(one, today) });
        setKept((before) => new Set([...before, one.line]));
      }
    },
    onSuccess: onClose,
    onSettled: () => queryClient.invalidateQueries({ queryKey: ['samples'] }),
  });
  const samples = list?.samples ?? [];
  const bad = list?.bad ?? [];
  return (
    <Dialog open onClose={onClose} maxWidth="md" fullWidth aria-labelledby="samples-title">
      <DialogTitle id="samples-title">A list of samples: {file.name}</DialogTitle>
      <DialogContent sx={{ display: 'grid', gap: 1.5 }}>
        <ColumnChoice heads={heads} columns={columns} onChange={setChosen} />
        <Typography>
          {samples.length} {samples.length === 1 ? 'sample' : 'samples'} understood. What a line does not say is entered
          at Intake.
        </Typography>
        {bad.length > 0 && (
          <Alert severity="warning">
            {bad.slice(0, 12).map(({ line, reason }) => (
              <Box key={`${line} ${reason}`}>
                Line {line}: {reason}
              </Box>
            ))}
            {bad.length > 12 && <Box>and {bad.length - 12} more.</Box>}
          </Alert>
        )}
        {samples.length > 0 && (
          <QuietTable
            label="Samples in the file"
            height={320}
            rows={samples.slice(0, SHOWN)}
            rowKey={({ line }) => String(line)}
            columns={[
              { head: 'Model', cell: ({ maker, model }) => `${maker} ${model}` },
              { head: 'Kind', cell: ({ kind }) => kind },
              { head: 'Serial', cell: ({ serial }) => serial, empty: 'none' },
              {
                head: 'Ports',
                cell: ({ ports }) => ports.map(({ label }) => label).join(' '),
                empty: 'enter at Intake',
              },
              {
                head: 'Mass',
                unit: 'g',
                number: true,
                empty: 'not weighed',
                cell: ({ mass }) => (mass === null ? null : formatPlain(mass, 'mass')),
              },
              {
                head: 'Paid',
                cell: ({ paid }) => (paid ? `${paid.amount} ${paid.currency}` : null),
                empty: 'not given',
              },
            ]}
          />
        )}
        {keep.error && (
          <Alert severity="error">
            {keep.error.message} {kept.size} of {samples.length} are kept; the rest is sent when you press again.
          </Alert>
        )}
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Cancel</Button>
        <Button
          variant="contained"
          disabled={keep.isPending || samples.length === 0}
          onClick={() => keep.mutate(samples)}
        >
          {keep.isPending
            ? `${kept.size} of ${samples.length}`
            : bad.length > 0
              ? `Take in ${samples.length}, leave out ${bad.length}`
              : `Take in ${samples.length}`}
        </Button>
      </DialogActions>
    </Dialog>
  );
}
