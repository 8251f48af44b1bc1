// The allocation table as printed: a grid built from the ports, typed row by row, with what cannot be right about it.
import type { ClaimInput } from '@lastmark/contract/types';
import { describePromise, parseClaimLine } from '@lastmark/core/claim';
import { formatPlain } from '@lastmark/core/quantity';
import { type PromisedRow, parseTableRow, promisedRows, setKey } from '@lastmark/core/split';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { type FormEvent, useState } from 'react';
import { typedSi } from '../../parts/fields.tsx';
import { PortFace } from '../../parts/PortFace.tsx';
import { useHandedOn } from '../../parts/useHandedOn.ts';
import { useSample } from '../../state/sample.tsx';
import { useClaims } from '../claims/useClaims.ts';

type Row = Readonly<Record<string, string>>;

const EMPTY_ROW: Row = {};

/** A refused row comes back unless the next one is being typed; a line so too: the sentence names what was refused. */
const rowBack = (refused: Row, since: Row): Row => (Object.values(since).some((cell) => cell.trim()) ? since : refused);
const lineBack = (refused: string, since: string): string => since || refused;

const claimOf = (row: Readonly<Record<string, number>>): ClaimInput => ({
  promise: { kind: 'combination', shares: Object.entries(row).map(([port, watts]) => ({ port, watts })) },
  duration: { kind: 'unstated' },
  printed: 'label',
});

/** What a port gets of a share: the others it has it with. */
function sharedWords(shares: PromisedRow['shares'], port: string): string {
  const share = shares.find(({ ports }) => ports.includes(port));
  if (!share) return '–';
  return share.ports[0] === port ? `${formatPlain(share.watts, 'power').replace(' W', '')} shared` : '″';
}

/** Combinations in a line as printed: a shorthand, ports with their watts, or ports that share. */
function combinationsIn(line: string, ports: readonly string[]): ClaimInput[] | string {
  const parsed = parseClaimLine(line, ports);
  if ('promises' in parsed && parsed.promises.every(({ kind }) => kind === 'combination')) {
    const [left] = parsed.unused ?? [];
    if (left !== undefined) return `“${left}” was not understood: leave it out, or enter the line at Claims.`;
    return parsed.promises.map((promise) => ({ promise, duration: { kind: 'unstated' }, printed: 'label' }));
  }
  const rows = parseTableRow(line, ports);
  return 'reason' in rows ? rows.reason : rows.rows.map(claimOf);
}

/** A row typed into the grid: watts under each occupied port. */
function rowOf(cells: Readonly<Record<string, string>>, ports: readonly string[]): Record<string, number> | string {
  const filled = ports.flatMap((port) => {
    const text = (cells[port] ?? '').trim();
    return text === '' ? [] : [[port, typedSi(text, 'power') ?? Number.NaN] as const];
  });
  if (filled.length < 2) return 'A combination has two ports or more.';
  const bad = filled.find(([, watts]) => !(watts > 0));
  return bad ? `${bad[0]}: give a power above zero, such as 45 W.` : Object.fromEntries(filled);
}

export function Promises() {
  const { dossier, verdict } = useSample();
  const { sample, claims } = dossier;
  const ports = sample.model.ports.map(({ label }) => label);
  const rows = promisedRows(ports, claims);
  const { add, remove } = useClaims(sample.id);
  const grid = useHandedOn(`split-row-${sample.id}`, EMPTY_ROW, rowBack);
  const line = useHandedOn(`split-line-${sample.id}`, '', lineBack);
  const [problem, setProblem] = useState<string | null>(null);
  const keep = (inputs: ClaimInput[]) => async () => {
    try {
      await add.mutateAsync(inputs);
    } catch (error) {
      const what = inputs.map(({ promise }) => describePromise(promise)).join(' · ');
      setProblem(`${what} was not kept: ${error instanceof Error ? error.message : String(error)}`);
      throw error;
    }
  };
  const findingsOf = (set: string) => verdict.results.splits.findings.filter((one) => one.set === set);
  const missing = verdict.results.splits.findings.filter(
    ({ set }) => !rows.some(({ occupied }) => setKey(occupied) === set),
  );
  const addRow = (event: FormEvent) => {
    event.preventDefault();
    const row = rowOf(grid.value, ports);
    if (typeof row === 'string') {
      setProblem(row);
      return;
    }
    setProblem(null);
    grid.hand(grid.value, EMPTY_ROW, keep([claimOf(row)]));
  };
  const addLine = (event: FormEvent) => {
    event.preventDefault();
    const rows = combinationsIn(line.value, ports);
    if (typeof rows === 'string') {
      setProblem(rows);
      return;
    }
    setProblem(null);
    line.hand(line.value, '', keep(rows));
  };
  return (
    <>
      <PortFace ports={sample.model.ports} width={420} />
      <Box
        component="form"
        onSubmit={addRow}
        noValidate
        sx={{
          mt: 1.5,
          border: 1,
          borderColor: 'divider',
          borderRadius: 1,
          bgcolor: 'background.paper',
          overflowX: 'auto',
        }}
      >
        <Table size="small" aria-label="Promised table">
          <TableHead>
            <TableRow>
              {ports.map((port) => (
                <TableCell key={port}>{port}, W</TableCell>
              ))}
              <TableCell>Together</TableCell>
              <TableCell />
            </TableRow>
          </TableHead>
          <TableBody>
            {rows.map(({ claimId, occupied, watts, shares, total }) => (
              <TableRow key={claimId}>
                {ports.map((port) => (
                  <TableCell key={port} sx={{ fontSize: 16 }}>
                    {port in watts
                      ? formatPlain(watts[port] ?? 0, 'power').replace(' W', '')
                      : sharedWords(shares, port)}
                  </TableCell>
                ))}
                <TableCell>
                  <strong>{formatPlain(total, 'power')}</strong>
                  {findingsOf(setKey(occupied)).map(({ says }) => (
                    <Box key={says} sx={{ color: 'error.main', fontSize: 13 }}>
                      ▼ {says}
                    </Box>
                  ))}
                </TableCell>
                <TableCell>
                  <Button
                    size="small"
                    aria-label={`Remove ${setKey(occupied)}`}
                    onClick={() => {
                      const claim = claims.find(({ id }) => id === claimId);
                      if (claim) remove.mutate(claim);
                    }}
                  >
                    Remove
                  </Button>
                </TableCell>
              </TableRow>
            ))}
            <TableRow>
              {ports.map((port) => (
                <TableCell key={port}>
                  <TextField
                    value={grid.value[port] ?? ''}
                    onChange={(event) => grid.set({ ...grid.value, [port]: event.target.value })}
                    slotProps={{
                      htmlInput: { inputMode: 'decimal', 'aria-label': `New row: ${port}, W`, autoComplete: 'off' },
                    }}
                    sx={{ minWidth: 76 }}
                  />
                </TableCell>
              ))}
              <TableCell />
              <TableCell>
                <Button type="submit" variant="contained" sx={{ whiteSpace: 'nowrap' }}>
                  Add the row
                </Button>
              </TableCell>
            </TableRow>
          </TableBody>
        </Table>
      </Box>
      <Box component="form" onSubmit={addLine} noValidate sx={{ display: 'flex', gap: 1, mt: 1.5 }}>
        <TextField
          label="Or as printed"
          placeholder={`any two C ports: 45 W + 45 W, ${ports.slice(0, 2).join('+')}: 60 + 45, ${ports.slice(-2).join(' + ')} share 20 W`}
          value={line.value}
          onChange={(event) => line.set(event.target.value)}
        />
        <Button type="submit" variant="outlined" disabled={line.value.trim() === ''} sx={{ whiteSpace: 'nowrap' }}>
          Add as printed
        </Button>
      </Box>
      {problem && (
        <Alert severity="error" sx={{ mt: 1 }}>
          {problem}
        </Alert>
      )}
      {missing.length > 0 && (
        <Typography sx={{ mt: 1.5 }} color="text.secondary">
          Nothing is promised for {missing.map(({ set }) => set).join(', ')}.
        </Typography>
      )}
    </>
  );
}
